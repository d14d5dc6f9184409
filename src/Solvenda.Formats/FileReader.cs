using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Mail;
using Solvenda.Formats.Pdf;
using Solvenda.Formats.Tables;

namespace Solvenda.Formats;

/// <summary>What a file holds: its messages, and the interchange that is to be acknowledged where it is one.</summary>
public sealed record OpenedFile(Syntax Syntax, ImmutableArray<Incoming> Messages, EdiInterchange? Interchange = null);

/// <summary>An attachment's bytes, to be shown or saved.</summary>
public sealed record FilePart(string Name, Syntax Syntax, byte[] Bytes);

/// <summary>
/// Opens whatever comes in. Whatever the bytes are, it answers with messages or a reason, in bounded time and room.
/// </summary>
public static class FileReader
{
    /// <summary>Larger files are kept, not read: 20 MB.</summary>
    public const int LargestRead = 20 * 1024 * 1024;

    /// <summary>Attached messages inside attached messages are opened this deep.</summary>
    private const int DeepestMessage = 3;

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
            return Nothing(syntax, name, "It is of no kind that we know.");
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

    internal static ImmutableArray<Incoming> MailMessages(byte[] raw, DateOnly today) => Mail(raw, today, 0);

    private static ImmutableArray<Incoming> Mail(byte[] raw, DateOnly today, int depth)
    {
        var (mail, problem) = MailReader.Read(raw, today);
        if (mail is null)
            return [new Incoming("", "a mail", []) { Problem = problem }];
        var letter = mail.Letter;
        var from = letter.FromName.Length > 0 ? $"{letter.FromName} <{letter.FromAddress}>" : letter.FromAddress;
        var parts = ImmutableArray.CreateBuilder<OriginalPart>();
        parts.Add(
            Lettered(
                new OriginalPart("the letter", PartKind.Letter, letter.Text)
                {
                    Fresh = letter.FreshLength,
                    Html = mail.Html,
                }
            )
        );
        var warnings = mail.Warnings.ToList();
        var documents = new List<Incoming>();
        for (var i = 0; i < mail.Attachments.Count; i++)
        {
            var attached = mail.Attachments[i];
            var syntax = MessageKindOf.Tell(attached.Bytes, attached.Name);
            if (attached.ContentType == "message/rfc822" || syntax == Syntax.Mail)
            {
                // What is attached as a message is read as one of its own, unless there is nothing in it but words that
                // belong here.
                documents.AddRange(depth < DeepestMessage ? Mail(attached.Bytes, today, depth + 1) : []);
                parts.Add(new OriginalPart(attached.Name, PartKind.Kept, "") { Attachment = i });
            }
            else if (syntax is Syntax.X12 or Syntax.Edifact or Syntax.Xml or Syntax.Json)
            {
                documents.AddRange(Open(attached.Bytes, attached.Name, today).Messages);
                parts.Add(new OriginalPart(attached.Name, PartKind.Kept, "") { Attachment = i });
            }
            else if (attached.ContentType is "text/calendar")
            {
                parts.Add(Calendar(attached, i));
            }
            else
            {
                var (of, trouble) = Parts(new FilePart(attached.Name, syntax, attached.Bytes), i);
                parts.AddRange(of);
                if (trouble is not null)
                    warnings.Add($"{attached.Name}: {trouble}");
            }
        }
        var own = new Incoming(from, letter.Subject, parts.ToImmutable())
        {
            OwnId = mail.MessageId is { Length: > 0 } id ? $"mail:{id}" : null,
            Letter = letter,
            Warnings = [.. warnings],
        };
        var readable = documents.Where(d => d.Document is not null || d.Letter is not null).ToList();
        if (readable.Count == 0)
            return documents.Count == 0
                ? [own]
                : [own with { Warnings = [.. own.Warnings, .. documents.Select(d => $"Attached: {d.Problem}")] }];
        // A letter that only hands a document on is that document's; who sent it is a clue too.
        return
        [
            .. readable.Select(d =>
                d with
                {
                    From = from,
                    Subject = letter.Subject.Length > 0 ? letter.Subject : d.Subject,
                    OwnId = own.OwnId,
                    Clues = d.Letter is null ? [.. d.Clues, new Clue("mail", letter.FromAddress, [])] : d.Clues,
                    Parts = [.. d.Parts, own.Parts[0] with { Name = "the letter with it" }],
                    Warnings = [.. d.Warnings, .. warnings],
                }
            ),
        ];
    }

    // Tables in running text are found by their head only.
    internal static OriginalPart Lettered(OriginalPart part) =>
        part with
        {
            Rows = Grid.OfText(part.Text[..part.Fresh]),
        };

    private static (ImmutableArray<OriginalPart> Parts, string? Problem) Parts(FilePart file, int attachment)
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
                    var page = Recognition.Read(file.Bytes);
                    return page is null
                        ? (
                            [
                                new OriginalPart(file.Name, PartKind.Picture, "")
                                {
                                    Attachment = attachment,
                                    Pages = 1,
                                    Sure = 0.3m,
                                },
                            ],
                            Recognition.IsInstalled ? "No words could be recognised on the picture." : NoRecognition
                        )
                        : (
                            [
                                PageLayout.Part(file.Name, PartKind.Picture, [page], 0.5m) with
                                {
                                    Attachment = attachment,
                                },
                            ],
                            null
                        );
                case Syntax.Text:
                    var text = Encoding.UTF8.GetString(file.Bytes).Replace("\r\n", "\n", StringComparison.Ordinal);
                    return (
                        [
                            new OriginalPart(
                                file.Name,
                                PartKind.Letter,
                                text[..Math.Min(text.Length, Core.Reading.TextReader.LongestRead)]
                            )
                            {
                                Attachment = attachment,
                                Rows = Grid.OfText(text),
                            },
                        ],
                        null
                    );
                default:
                    return (
                        [new OriginalPart(file.Name, PartKind.Kept, "") { Attachment = attachment }],
                        "It is kept and not read."
                    );
            }
        }
        catch (TableException e)
        {
            return ([new OriginalPart(file.Name, PartKind.Kept, "") { Attachment = attachment }], e.Message);
        }
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

    // What an invitation is about, in a line; the file itself is kept.
    private static OriginalPart Calendar(MailAttachment attached, int index)
    {
        var lines = Encoding
            .UTF8.GetString(attached.Bytes)
            .ReplaceLineEndings("\n")
            .Replace("\n ", "", StringComparison.Ordinal)
            .Split('\n');
        string Value(string name) =>
            lines.FirstOrDefault(l =>
                l.StartsWith(name + ":", StringComparison.Ordinal) || l.StartsWith(name + ";", StringComparison.Ordinal)
            )
                is { } line
                ? line[(line.IndexOf(':', StringComparison.Ordinal) + 1)..].Trim()
                : "";
        return new OriginalPart(
            attached.Name,
            PartKind.Letter,
            $"An invitation: {Value("SUMMARY")}\nfrom {Value("DTSTART")} to {Value("DTEND")}\n{Value("LOCATION")}\n{Value("DESCRIPTION")}".Trim()
        )
        {
            Attachment = index,
        };
    }
}
