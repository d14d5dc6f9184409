using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Mail;
using Solvenda.Formats.Pdf;
using Solvenda.Formats.Tables;

namespace Solvenda.Formats;

/// <summary>What a file holds: its messages, and the interchanges that are to be acknowledged.</summary>
public sealed record OpenedFile(Syntax Syntax, ImmutableArray<Incoming> Messages)
{
    /// <summary>In their order; an answer is never among them.</summary>
    public ImmutableArray<EdiInterchange> Interchanges { get; init; } = [];
}

/// <summary>An attachment's bytes, to be shown or saved.</summary>
public sealed record FilePart(string Name, Syntax Syntax, byte[] Bytes);

/// <summary>
/// Opens whatever comes in. Whatever the bytes are, it answers with messages or a reason, in bounded time and room.
/// </summary>
public static class FileReader
{
    /// <summary>Larger files are kept, not read: 20 MB.</summary>
    public const int LargestRead = 20 * 1024 * 1024;

    private const string NoRecognition =
        "It is a picture; words on pictures are recognised where Debian's tesseract-ocr is installed.";

    public static OpenedFile Open(byte[] raw, string? filename, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(raw);
        var name = filename is { Length: > 0 } ? filename : "the file";
        if (raw.Length == 0)
            return Nothing(Syntax.Unknown, name, "It is empty.");
        if (raw.Length > LargestRead)
            return Nothing(
                Syntax.Unknown,
                name,
                $"It is {raw.Length / 1024 / 1024} MB; up to {LargestRead / 1024 / 1024} MB are read."
            );
        var syntax = MessageKindOf.Tell(raw, filename);
        if (syntax == Syntax.Unknown)
            return Nothing(syntax, name, KeptWords.Of(raw, name));
        if (Readers.Of(syntax) is { } reader)
            return reader.Open(raw, name, today);
        var (parts, problem) = Parts(new FilePart(name, syntax, raw), -1);
        return new OpenedFile(syntax, [new Incoming("", name, parts) { Problem = problem }]);
    }

    /// <summary>An attachment of a mail, or the file itself with -1; null where there is none.</summary>
    public static FilePart? PartOf(byte[] raw, string? filename, int attachment, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(raw);
        if (attachment < 0)
            return new FilePart(filename ?? "file", MessageKindOf.Tell(raw, filename), raw);
        if (
            raw.Length > LargestRead
            || MessageKindOf.Tell(raw, filename) != Syntax.Mail
            || MailReader.Read(raw, today).Mail is not { } mail
            || attachment >= mail.Attachments.Count
        )
            return null;
        var found = mail.Attachments[attachment];
        return new FilePart(found.Name, MessageKindOf.Tell(found.Bytes, found.Name), found.Bytes);
    }

    private static OpenedFile Nothing(Syntax syntax, string name, string problem) =>
        new(syntax, [new Incoming("", name, []) { Problem = problem }]);

    // Tables in running text are found by their head only.
    internal static OriginalPart Lettered(OriginalPart part) =>
        part with
        {
            Rows = Grid.OfText(part.Text[..part.Fresh]),
        };

    internal static (ImmutableArray<OriginalPart> Parts, string? Problem) Parts(FilePart file, int attachment)
    {
        try
        {
            switch (file.Syntax)
            {
                case Syntax.Workbook or Syntax.Csv:
                    return (
                        [.. SheetFile.Read(file.Bytes, file.Name).Select(p => p with { Attachment = attachment })],
                        null
                    );
                case Syntax.Pdf:
                    return Pdf(file, attachment);
                case Syntax.Picture:
                    return Picture(file, attachment);
                case Syntax.Html:
                    return ([Html(file, attachment)], null);
                case Syntax.Text:
                    return ([Text(file, attachment)], null);
                default:
                    return (
                        [new OriginalPart(file.Name, PartKind.Kept, "") { Attachment = attachment }],
                        KeptWords.Of(file.Bytes, file.Name)
                    );
            }
        }
        catch (TableException e)
        {
            return ([new OriginalPart(file.Name, PartKind.Kept, "") { Attachment = attachment }], e.Message);
        }
    }

    private static OriginalPart Html(FilePart file, int attachment)
    {
        var html = Encoding.UTF8.GetString(file.Bytes);
        var text = HtmlText.Of(html);
        return new OriginalPart(
            file.Name,
            PartKind.Letter,
            text[..Math.Min(text.Length, Core.Reading.TextReader.LongestRead)]
        )
        {
            Attachment = attachment,
            Html = HtmlText.Clean(html),
            Rows = Grid.OfText(text),
        };
    }

    private static OriginalPart Text(FilePart file, int attachment)
    {
        var text = (RichText.Is(file.Bytes) ? RichText.Of(file.Bytes) : Encoding.UTF8.GetString(file.Bytes)).Replace(
            "\r\n",
            "\n",
            StringComparison.Ordinal
        );
        var read = text[..Math.Min(text.Length, Core.Reading.TextReader.LongestRead)];
        return new OriginalPart(file.Name, PartKind.Letter, read) { Attachment = attachment, Rows = Grid.OfText(text) };
    }

    private static (ImmutableArray<OriginalPart> Parts, string? Problem) Picture(FilePart file, int attachment)
    {
        if (Recognition.Read(file.Bytes) is { } page)
            return (
                [PageLayout.Part(file.Name, PartKind.Picture, [page], 0.5m) with { Attachment = attachment }],
                null
            );
        return (
            [
                new OriginalPart(file.Name, PartKind.Picture, "")
                {
                    Attachment = attachment,
                    Pages = 1,
                    Sure = 0.3m,
                },
            ],
            Recognition.IsInstalled ? "No words could be recognised on the picture." : NoRecognition
        );
    }

    private static (ImmutableArray<OriginalPart> Parts, string? Problem) Pdf(FilePart file, int attachment)
    {
        var (pages, pictures, count, problem) = PdfText.Read(file.Bytes);
        var warning = count > pages.Count ? $"{file.Name} has {count} pages; the first {pages.Count} were read." : "";
        if (problem is not null)
            return ([new OriginalPart(file.Name, PartKind.Kept, "") { Attachment = attachment }], problem);
        if (pages.Any(p => p.Words.Count > 0))
            return (
                [PageLayout.Part(file.Name, PartKind.Pages, pages) with { Attachment = attachment, Warning = warning }],
                null
            );
        // A scan: the pictures of its pages.
        var recognised = pictures.Take(5).Select(Recognition.Read).OfType<PageText>().ToList();
        return recognised.Count > 0
            ? ([PageLayout.Part(file.Name, PartKind.Pages, recognised, 0.5m) with { Attachment = attachment }], null)
            : (
                [
                    new OriginalPart(file.Name, PartKind.Pages, "")
                    {
                        Attachment = attachment,
                        Pages = pages.Count,
                        Sure = 0.3m,
                    },
                ],
                Recognition.IsInstalled
                    ? "It holds no text, and none could be recognised."
                    : $"It holds no text. {NoRecognition}"
            );
    }
}
