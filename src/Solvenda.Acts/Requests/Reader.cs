using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Ways;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Formats;

namespace Solvenda.Acts.Requests;

/// <summary>What came of one message: its parts, and a reading, or why there is none.</summary>
public sealed record ReadMessage(Incoming Message, ReadingView? Reading, string? Problem);

/// <summary>What came of a file: its messages, and which aliases helped.</summary>
public sealed record ReadResult(OpenedFile File, IReadOnlyList<ReadMessage> Messages, IReadOnlyCollection<long> Helped);

/// <summary>What the columns of a sender's tables with these heads mean, by their place.</summary>
public sealed record SaidColumns(string Sender, string Heads, IReadOnlyDictionary<int, string> Columns);

/// <summary>
/// Reads raw messages against the catalogue, the buyers and what was learned. Whatever the bytes are, it answers with
/// readings or a reason.
/// </summary>
public sealed partial class Reader(PriceBooks books, Seller seller, ILogger<Reader> log)
{
    /// <param name="preset">The buyer, where a person says it.</param>
    /// <param name="saying">What a person says of a table's columns, and is not kept yet.</param>
    public async Task<ReadResult> ReadAsync(
        SolvendaDb db,
        byte[] raw,
        string? filename,
        DateOnly today,
        CancellationToken cancel,
        long? preset = null,
        SaidColumns? saying = null
    )
    {
        var file = Careful(
            () => FileReader.Open(raw, filename, today),
            filename,
            problem => new OpenedFile(Syntax.Unknown, [new Incoming("", filename ?? "", []) { Problem = problem }])
        );
        var context = await ContextAsync(db, cancel);
        if (saying is not null)
        {
            var kept = context.Columns;
            context = context with
            {
                Columns = (sender, heads) =>
                    (sender, heads) == (saying.Sender, saying.Heads) ? saying.Columns : kept(sender, heads),
            };
        }
        var messages = new List<ReadMessage>();
        foreach (var message in file.Messages)
        {
            var known = preset is { } buyer
                ? message with
                {
                    Clues = message.Clues.Add(new Clue("preset", buyer.ToString(CultureInfo.InvariantCulture), [])),
                }
                : message;
            var (reading, problem) = Careful<(Reading?, string?)>(
                () => MessageReader.Read(known, today, context),
                filename,
                why => (null, why)
            );
            if (reading is not null)
                reading = await WithQuoteKnownAsync(db, reading, cancel);
            messages.Add(
                new ReadMessage(
                    message,
                    reading is null ? null : ReadingView.Of(reading, context),
                    problem is null ? null : $"Could not be read: {problem}"
                )
            );
        }
        return new ReadResult(file, messages, context.Helped);
    }

    // A number of ours that no quote carries: somebody mistyped it, or means another house's.
    private static async Task<Reading> WithQuoteKnownAsync(SolvendaDb db, Reading reading, CancellationToken cancel)
    {
        if (reading.QuoteNumber is not { Value: { } number, Sure: > 0 } quoted)
            return reading;
        if (await db.Quotes.AnyAsync(q => q.Number == number, cancel))
            return reading;
        return reading with
        {
            QuoteNumber = quoted with
            {
                Sure = Math.Min(quoted.Sure, 0.4m),
                How = "we never issued a quote of that number",
            },
            Warnings = reading.Warnings.Add($"We never issued a quote {number}."),
        };
    }

    // A library that stumbles over foreign bytes stops nobody else: what arrived is kept and says so, and the log has
    // the reason for an engineer.
    private T Careful<T>(Func<T> read, string? filename, Func<string, T> otherwise)
    {
        try
        {
            return read();
        }
        catch (Exception e) when (e is not (OutOfMemoryException or TookTooLongException))
        {
            Stumbled(log, e, filename);
            return otherwise("our reader stumbled over it. It is kept as it came.");
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Reading {File} failed")]
    private static partial void Stumbled(ILogger logger, Exception exception, string? file);

    /// <summary>Reads a piece of a part that a person chose, as a line.</summary>
    public async Task<ReadLineView> ReadPieceAsync(
        SolvendaDb db,
        KeptPart part,
        int partIndex,
        int start,
        int length,
        long? buyer,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(part);
        var context = await ContextAsync(db, cancel);
        var piece = part.Text.Substring(start, length).Replace('\t', ' ');
        ImmutableArray<Clue> clues = buyer is { } id
            ? [new Clue("preset", id.ToString(CultureInfo.InvariantCulture), [])]
            : [];
        var read = Core.Reading.TextReader.Read(
            new Letter("", "", "", today, piece, piece.Length) { Part = partIndex },
            context,
            clues,
            elsewhere: 0
        );
        Evidence Moved(Evidence e) => e with { Start = e.Start + start };
        if (read.Lines.FirstOrDefault() is { } line)
            return ReadingView.Line(
                line with
                {
                    Evidence = [.. line.Evidence.Select(Moved)],
                    Quantity = line.Quantity with { Evidence = [.. line.Quantity.Evidence.Select(Moved)] },
                },
                0,
                context
            );
        // No quantity among them: the words alone.
        var found = ItemReading.Find(
            piece.Trim(),
            read.Buyer,
            read.Buyer.Sure > 0 ? context.History(read.Buyer.Value) : [],
            context,
            Language.Of(part.Text)
        );
        var where = new Evidence(partIndex, start, length);
        return ReadingView.Line(
            new ReadLine(
                new Field<ItemId>(found.Item?.Id ?? default, found.Sure, found.How, [where]),
                piece.Trim(),
                found.Code,
                new Field<decimal?>(null, 0m, "not stated", []),
                new Field<Unit>(found.Item?.StockUnit ?? Unit.Piece, 0.55m, "the item's own unit", []),
                null,
                1m,
                "",
                found.Proposals(1m, found.Item?.StockUnit ?? Unit.Piece),
                [where]
            ),
            0,
            context
        );
    }

    /// <summary>What messages, and rows that somebody pastes, are read against.</summary>
    public async Task<ReadingContext> ContextAsync(SolvendaDb db, CancellationToken cancel)
    {
        var names = await db
            .Buyers.Select(b => new BuyerName(
                new BuyerId(b.Id),
                b.Name,
                b.DeliverTo,
                b.DeliverToCountry ?? b.Country,
                b.TaxNumber,
                b.ContactMail
            ))
            .ToListAsync(cancel);
        var aliases = await db.Aliases.AsNoTracking().Where(a => a.Active).ToListAsync(cancel);
        var columns = await db
            .Columns.AsNoTracking()
            .ToDictionaryAsync(c => (c.Sender, c.Heads), c => c.Columns, cancel);
        return new ReadingContext(
            await books.ItemsAsync(db, cancel),
            names.ToDictionary(b => b.Id, b => b.Name),
            await SignsAsync(db, names, cancel),
            [
                .. aliases.Select(a => new Alias(
                    a.Id,
                    a.BuyerId is { } b ? new BuyerId(b) : null,
                    a.Words,
                    new ItemId(a.ItemId),
                    a.Quantity,
                    a.Unit is { } u ? Unit.Of(u) : null
                )),
            ],
            buyer => History(db, buyer)
        )
        {
            Numbers = await Series.OursAsync(db, cancel),
            OurDomains = [seller.Mail.Split('@')[^1].ToLowerInvariant()],
            Addresses = await AddressesAsync(db, names, cancel),
            UnitsLeftOut = await UnitsLeftOutAsync(db, cancel),
            Columns = (sender, heads) =>
                columns.TryGetValue((sender, heads), out var json)
                    ? JsonSerializer.Deserialize<Dictionary<int, string>>(json)
                    : null,
        };
    }

    /// <summary>What an EDI partner counts in where a line says no unit.</summary>
    public static readonly WaySetting UnitLeftOut = new(
        "unit",
        "unit of lines that say none; empty: it is asked where it is not clear",
        SettingKind.Unit,
        OfBuyer: true
    );

    private static async Task<Dictionary<BuyerId, Unit>> UnitsLeftOutAsync(SolvendaDb db, CancellationToken cancel)
    {
        var said = await db
            .Ways.AsNoTracking()
            .Where(w => w.Channel == DocumentsBy.Edi && w.BuyerId != null && w.Settings != "")
            .ToListAsync(cancel);
        return said.Select(w => (w.BuyerId, Unit: WaySettings.Of(w).GetValueOrDefault(UnitLeftOut.Name)))
            .Where(w => w.Unit is not null)
            .ToDictionary(w => new BuyerId(w.BuyerId!.Value), w => Unit.Of(w.Unit!));
    }

    private sealed record BuyerName(
        BuyerId Id,
        string Name,
        string? DeliverTo,
        string DeliverToCountry,
        string? TaxNumber,
        string? Mail
    );

    private static async Task<ImmutableArray<BuyerSign>> SignsAsync(
        SolvendaDb db,
        List<BuyerName> names,
        CancellationToken cancel
    )
    {
        var signs = await db.BuyerSigns.AsNoTracking().ToListAsync(cancel);
        var contacts = await db
            .Contacts.Where(c => c.Active && c.Mail != null)
            .Select(c => new { c.BuyerId, c.Mail })
            .ToListAsync(cancel);
        return
        [
            .. signs.Select(s => new BuyerSign(new BuyerId(s.BuyerId), s.Kind, s.Value)),
            .. names.Where(b => b.TaxNumber is not null).Select(b => new BuyerSign(b.Id, "tax", b.TaxNumber!)),
            .. names.Where(b => b.Mail is not null).Select(b => new BuyerSign(b.Id, "mail", b.Mail!)),
            .. contacts.Select(c => new BuyerSign(new BuyerId(c.BuyerId), "mail", c.Mail!)),
        ];
    }

    private static async Task<ImmutableArray<BuyerAddress>> AddressesAsync(
        SolvendaDb db,
        List<BuyerName> names,
        CancellationToken cancel
    )
    {
        var others = await db
            .Addresses.Where(a => a.Active)
            .Select(a => new BuyerAddress(new BuyerId(a.BuyerId), a.Code, a.Words, a.Country))
            .ToListAsync(cancel);
        return
        [
            .. others,
            .. names
                .Where(b => b.DeliverTo is not null)
                .Select(b => new BuyerAddress(b.Id, "", b.DeliverTo!, b.DeliverToCountry)),
        ];
    }

    private static List<Bought> History(SolvendaDb db, BuyerId buyer) =>
        [
            .. (
                from l in db.SheetLines
                join o in db.Orders on l.SheetId equals o.SheetId
                where l.ItemId != null && o.Dossier.BuyerId == buyer.Value
                orderby o.CreatedAt descending
                select new
                {
                    l.ItemId,
                    o.Number,
                    o.CreatedAt,
                    l.Quantity,
                    l.Unit,
                }
            )
                .Take(500)
                .AsEnumerable()
                .Select(x => new Bought(
                    buyer,
                    new ItemId(x.ItemId!.Value),
                    x.Number,
                    DateOnly.FromDateTime(x.CreatedAt),
                    x.Quantity,
                    Unit.Of(x.Unit)
                )),
        ];
}
