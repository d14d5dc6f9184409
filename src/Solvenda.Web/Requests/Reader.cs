using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Formats;
using Solvenda.Formats.Mail;
using Solvenda.Formats.X12;

namespace Solvenda.Web.Requests;

/// <summary>What came of reading raw bytes: the text that evidence points into, and a reading, or why there is none.</summary>
public sealed record ReadResult(string Syntax, string Text, string From, string Subject, string? OwnId, ReadingView? Reading, string? Problem);

/// <summary>Reads raw messages. Whatever the bytes are, it answers with a reading or a reason.</summary>
public sealed class Reader(PriceBooks books)
{
    /// <summary>Larger messages are kept, not read: 10 MB.</summary>
    public const int LargestRead = 10 * 1024 * 1024;

    /// <summary>The identity that the sender gave the message; null where it has none. Cheap, and never throws.</summary>
    public static string? OwnIdOf(byte[] raw, string? filename, DateOnly today)
    {
        if (raw.Length is 0 or > LargestRead)
            return null;
        return MessageKindOf.Tell(raw, filename) switch
        {
            Syntax.Mail when MailReader.Read(raw, today).Mail?.MessageId is { Length: > 0 } id => $"mail:{id}",
            Syntax.X12 when Interchange.Parse(Latin1(raw)) is { Interchange: { Segments.Count: > 0 } x } => $"x12:{x.Sender}>{x.Receiver}:{x.ControlNumber}:{x.Isa[9]}",
            _ => null,
        };
    }

    public async Task<ReadResult> ReadAsync(SolvendaDb db, byte[] raw, string? filename, DateOnly today, CancellationToken cancel)
    {
        if (raw.Length == 0)
            return Nothing("unknown", "Could not be read: it is empty.");
        if (raw.Length > LargestRead)
            return Nothing("unknown", $"Could not be read: it is {raw.Length / 1024 / 1024} MB; up to {LargestRead / 1024 / 1024} MB are read.");
        var context = await ContextAsync(db, cancel);
        return MessageKindOf.Tell(raw, filename) switch
        {
            Syntax.Mail => ReadMail(raw, today, context),
            Syntax.X12 => ReadX12(raw, context),
            _ => Nothing("unknown", "Could not be read: it is neither a mail nor an X12 interchange."),
        };
    }

    private static ReadResult ReadMail(byte[] raw, DateOnly today, ReadingContext context)
    {
        var (mail, problem) = MailReader.Read(raw, today);
        if (mail is null)
            return Nothing("mail", $"Could not be read: {problem}");
        var letter = mail.Letter;
        var reading = Core.Reading.TextReader.Read(letter, context);
        var warnings = mail.Attachments.Count == 0 ? reading.Warnings : reading.Warnings.Add($"Attached, kept and not read: {string.Join(", ", mail.Attachments)}.");
        var from = letter.FromName.Length > 0 ? $"{letter.FromName} <{letter.FromAddress}>" : letter.FromAddress;
        return new ReadResult("mail", letter.Text, from, letter.Subject, mail.MessageId, ReadingView.Of(reading with { Warnings = warnings }, context), null);
    }

    private static ReadResult ReadX12(byte[] raw, ReadingContext context)
    {
        var text = Latin1(raw);
        var (interchange, envelope) = Interchange.Parse(text);
        if (interchange is null || interchange.Segments.Count == 0)
            return new ReadResult("x12", text, "", "", null, null, $"Could not be read: {envelope}");
        var subject = $"X12 {interchange.Segments.FirstOrDefault(s => s.Tag == "ST")?[1]}, interchange {interchange.ControlNumber}";
        if (envelope is not null)
            return new ReadResult("x12", text, interchange.Sender, subject, null, null, $"Could not be read: {envelope}");
        var (document, problem) = PurchaseOrder.Read(interchange);
        return document is null
            ? new ReadResult("x12", text, interchange.Sender, subject, null, null, $"Could not be read: {problem}")
            : new ReadResult("x12", text, interchange.Sender, subject, null, ReadingView.Of(DocumentReader.Read(document, context), context), null);
    }

    // X12 is ASCII; what is beyond comes through as it was, one character a byte, so that evidence keeps its place.
    private static string Latin1(byte[] raw) => Encoding.Latin1.GetString(raw);

    private static ReadResult Nothing(string syntax, string problem) => new(syntax, "", "", "", null, null, problem);

    private async Task<ReadingContext> ContextAsync(SolvendaDb db, CancellationToken cancel)
    {
        var names = await db.Buyers.Select(b => new { b.Id, b.Name }).ToDictionaryAsync(b => new BuyerId(b.Id), b => b.Name, cancel);
        var signs = await db.BuyerSigns.AsNoTracking().ToListAsync(cancel);
        var aliases = await db.Aliases.AsNoTracking().ToListAsync(cancel);
        return new ReadingContext(
            await books.ItemsAsync(db, cancel),
            names,
            [.. signs.Select(s => new BuyerSign(new BuyerId(s.BuyerId), s.Kind, s.Value))],
            [.. aliases.Select(a => new Alias(new BuyerId(a.BuyerId), a.Words, new ItemId(a.ItemId), a.Quantity, a.Unit is { } u ? Unit.Of(u) : null))],
            buyer => History(db, buyer));
    }

    private static List<Bought> History(SolvendaDb db, BuyerId buyer) =>
    [
        .. (from l in db.SheetLines
            join o in db.Orders on l.SheetId equals o.SheetId
            where l.ItemId != null && o.Dossier.BuyerId == buyer.Value
            orderby o.CreatedAt descending
            select new { l.ItemId, o.Number, o.CreatedAt, l.Quantity, l.Unit }).Take(500).AsEnumerable()
            .Select(x => new Bought(buyer, new ItemId(x.ItemId!.Value), x.Number, DateOnly.FromDateTime(x.CreatedAt), x.Quantity, Unit.Of(x.Unit))),
    ];
}
