using System.Collections.Immutable;
using System.Text;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Requests;

/// <summary>A file that comes along with what is typed.</summary>
public sealed record TypedFile(string Name, string ContentType, byte[] Bytes);

/// <summary>
/// A request that is typed rather than sent: by the buyer on their page, while they talk, or on the road with a photo
/// of their paper. It is kept as a mail with its files, so that it is read, shown and answered like any other.
/// </summary>
/// <param name="Channel">portal, phone or field.</param>
/// <param name="Who">Who wants it, of the buyer's people; empty where nobody says.</param>
/// <param name="Mail">Where an answer goes; empty: to the buyer's own address.</param>
/// <param name="IsOrder">Else they ask for a price.</param>
/// <param name="Wanted">As yyyy-MM-dd; empty for none.</param>
public sealed record TypedRequest(
    string Channel,
    string Who,
    string Mail,
    bool IsOrder,
    string PoNumber,
    string Wanted,
    string Text,
    ImmutableArray<TypedFile> Files
)
{
    public const string Portal = Core.Passing.WayRules.Portal;
    public const string Phone = "phone";
    public const string Field = "field";

    /// <summary>Of the text, in letters.</summary>
    public const int MostText = 20_000;

    public const int MostFiles = 8;

    /// <summary>Of all files together, in bytes.</summary>
    public const long MostBytes = 24L * 1024 * 1024;

    private const int MostLetters = 100;

    /// <summary>As it is taken in.</summary>
    /// <exception cref="RefusedException">Something is missing or beyond its bound; nothing was kept.</exception>
    public TakeIn For(BuyerRow buyer, Seller seller, DateTime now)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(seller);
        Check();
        var from = MailWriter.IsAddress(Mail) ? Mail : buyer.ContactMail ?? "";
        var id = Guid.NewGuid().ToString("N");
        var mail = new OutgoingMail(
            MailWriter.IsAddress(from) ? from : $"nobody@{Channel}.invalid",
            Who.Trim().Length > 0 ? Who.Trim() : buyer.ContactName ?? buyer.Name,
            seller.Mail,
            Subject(buyer),
            Body(),
            [.. Files.Select(f => (f.Name, f.ContentType, f.Bytes))]
        );
        return new TakeIn(
            Channel,
            $"{Channel}-{id[..8]}.eml",
            "message/rfc822",
            MailWriter.Write(mail, $"{id}@{Channel}.invalid", new DateTimeOffset(now, TimeSpan.Zero))
        )
        {
            Buyer = buyer.Id,
        };
    }

    private void Check()
    {
        if (Text.Trim().Length == 0 && Files.IsEmpty)
            throw RefusedException.Bad("typed_empty", "Say what is wanted, or add a picture of it.", "text");
        if (Text.Length > MostText)
            throw RefusedException.Bad("typed_long", $"At most {MostText:#,0} letters are taken at once.", "text");
        if (Files.Length > MostFiles || Files.Sum(f => (long)f.Bytes.Length) > MostBytes)
            throw RefusedException.Bad(
                "typed_files",
                $"At most {MostFiles} files of {MostBytes / 1_000_000} MB together are taken at once.",
                "files"
            );
        foreach (var (field, text) in new[] { ("who", Who), ("poNumber", PoNumber), ("mail", Mail) })
        {
            if (text.Length > MostLetters || text.Any(char.IsControl))
                throw RefusedException.Bad("typed_long", $"At most {MostLetters} letters, on one line.", field);
        }
        if (Wanted.Length > 0 && !DateOnly.TryParseExact(Wanted, "yyyy-MM-dd", out _))
            throw RefusedException.Bad("date", $"“{Wanted}” is no day.", "wanted");
    }

    private string Subject(BuyerRow buyer) =>
        IsOrder
            ? PoNumber.Trim().Length > 0
                ? $"Order {PoNumber.Trim()}"
                : $"Order, {buyer.Name}"
            : $"Please quote, {buyer.Name}";

    // What the reader reads as they would have written it themselves.
    private string Body()
    {
        var text = new StringBuilder();
        text.Append(IsOrder ? "Please deliver:\n\n" : "Please quote:\n\n");
        text.Append(Text.Trim()).Append('\n');
        if (PoNumber.Trim().Length > 0)
            text.Append("\nPO number: ").Append(PoNumber.Trim()).Append('\n');
        if (Wanted.Length > 0)
            text.Append("\nDelivery date: ").Append(Wanted).Append('\n');
        return text.ToString();
    }
}
