using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats.Mail;

namespace Solvenda.Formats;

/// <summary>Opens a mail: the letter, what is attached to it, and messages that are attached as such.</summary>
internal static class MailMessages
{
    /// <summary>Attached messages inside attached messages are opened this deep.</summary>
    private const int Deepest = 3;

    /// <summary>What the mail holds; several where several documents are attached.</summary>
    public static ImmutableArray<Incoming> Of(byte[] raw, DateOnly today) => Of(raw, today, 0);

    private static ImmutableArray<Incoming> Of(byte[] raw, DateOnly today, int depth)
    {
        var (mail, problem) = MailReader.Read(raw, today);
        if (mail is null)
            return [new Incoming("", "a mail", []) { Problem = problem }];
        var letter = mail.Letter;
        var opened = new Opened(today, depth);
        opened.Parts.Add(
            FileReader.Lettered(
                new OriginalPart("the letter", PartKind.Letter, letter.Text)
                {
                    Fresh = letter.FreshLength,
                    Html = mail.Html,
                }
            )
        );
        opened.Warnings.AddRange(mail.Warnings);
        for (var i = 0; i < mail.Attachments.Count; i++)
            opened.Take(mail.Attachments[i], i);
        var own = new Incoming(
            letter.FromName.Length > 0 ? $"{letter.FromName} <{letter.FromAddress}>" : letter.FromAddress,
            letter.Subject,
            [.. opened.Parts]
        )
        {
            OwnId = mail.MessageId is { Length: > 0 } id ? $"mail:{id}" : null,
            Letter = letter,
            Warnings = [.. opened.Warnings],
        };
        var readable = opened.Documents.Where(d => d.Document is not null || d.Letter is not null).ToList();
        if (readable.Count > 0)
            return [.. readable.Select(d => HandedOn(d, own, letter))];
        return opened.Documents.Count == 0
            ? [own]
            : [own with { Warnings = [.. own.Warnings, .. opened.Documents.Select(d => $"Attached: {d.Problem}")] }];
    }

    // A letter that only hands a document on is that document's; who sent it is a clue too.
    private static Incoming HandedOn(Incoming document, Incoming own, Letter letter) =>
        document with
        {
            From = own.From,
            Subject = letter.Subject.Length > 0 ? letter.Subject : document.Subject,
            OwnId = own.OwnId,
            Clues = document.Letter is null
                ? [.. document.Clues, new Clue("mail", letter.FromAddress, [])]
                : document.Clues,
            Parts = [.. document.Parts, own.Parts[0] with { Name = "the letter with it" }],
            Warnings = [.. document.Warnings, .. own.Warnings],
        };

    // What was attached, as far as it was opened.
    private sealed record Opened(DateOnly Today, int Depth)
    {
        public List<OriginalPart> Parts { get; } = [];
        public List<string> Warnings { get; } = [];
        public List<Incoming> Documents { get; } = [];

        public void Take(MailAttachment attached, int index)
        {
            var syntax = MessageKindOf.Tell(attached.Bytes, attached.Name);
            if (attached.ContentType == "message/rfc822" || syntax == Syntax.Mail)
            {
                // What is attached as a message is read as one of its own, unless there is nothing in it but words that
                // belong here.
                Documents.AddRange(Depth < Deepest ? Of(attached.Bytes, Today, Depth + 1) : []);
                Parts.Add(new OriginalPart(attached.Name, PartKind.Kept, "") { Attachment = index });
            }
            else if (syntax is Syntax.X12 or Syntax.Edifact or Syntax.Xml or Syntax.Json)
            {
                Documents.AddRange(FileReader.Open(attached.Bytes, attached.Name, Today).Messages);
                Parts.Add(new OriginalPart(attached.Name, PartKind.Kept, "") { Attachment = index });
            }
            else if (attached.ContentType is "text/calendar")
                Parts.Add(Calendar(attached, index));
            else
            {
                var (of, trouble) = FileReader.Parts(new FilePart(attached.Name, syntax, attached.Bytes), index);
                Parts.AddRange(of);
                if (trouble is not null)
                    Warnings.Add($"{attached.Name}: {trouble}");
            }
        }
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
