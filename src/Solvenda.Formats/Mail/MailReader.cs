using System.Globalization;
using System.Security.Cryptography;
using System.Security.Cryptography.Pkcs;
using System.Text;
using MimeKit;
using MimeKit.Cryptography;
using MimeKit.Tnef;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Mail;

/// <summary>Something that a mail brings along: its name, what it says it is, and its bytes.</summary>
public sealed record MailAttachment(string Name, string ContentType, byte[] Bytes);

/// <summary>A mail taken apart.</summary>
/// <param name="MessageId">Without angle brackets; null where the mail has none.</param>
/// <param name="Html">Cleaned; empty where it had none.</param>
/// <param name="Warnings">What was noticed while taking it apart: a signature that was not tested, something
/// locked.</param>
public sealed record MailMessage(
    string? MessageId,
    DateTimeOffset? Date,
    Letter Letter,
    string Html,
    IReadOnlyList<MailAttachment> Attachments,
    IReadOnlyList<string> Warnings
);

/// <summary>
/// Reads a mail (RFC 5322, MIME) into its letter and what is attached: nested, forwarded and signed ones too. Never
/// throws on bad bytes: returns the reason.
/// </summary>
public static class MailReader
{
    // A mail nests parts a few deep; hostile ones nest thousands.
    private const int DeepestPart = 20;

    // TNEF is written in the code pages of Windows.
    static MailReader() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    private static readonly string[] Forwarded =
    [
        "forward",
        "weitergeleitet",
        "doorgestuurd",
        "vidarebefordrat",
        "videresendt",
        "reenviado",
        "transféré",
    ];

    // In front of the subject of what was handed on.
    private static readonly string[] HandsOn = ["fw:", "fwd:", "wg:", "vb:", "vs:", "vl:", "dw:", "rv:", "i:", "tr:"];

    private const int MostAttachments = 60;

    private const long LargestUnpacked = 64L * 1024 * 1024;

    /// <param name="today">The day it is taken to be written on where it carries no date.</param>
    public static (MailMessage? Mail, string? Problem) Read(byte[] raw, DateOnly today)
    {
        MimeMessage message;
        try
        {
            using var stream = new MemoryStream(raw, writable: false);
            message = MimeMessage.Load(new ParserOptions { MaxMimeDepth = DeepestPart }, stream);
        }
        catch (FormatException e)
        {
            return (null, $"The mail is not well formed: {e.Message}");
        }
        var opened = new Opened();
        opened.Take(message.Body, 0);
        var text = opened.Text();
        var html = opened.Html.Count > 0 ? string.Join("<hr>", opened.Html.Select(HtmlText.Clean)) : "";
        if (text.Length == 0 && opened.Attachments.Count == 0)
            return (null, "The mail has no text and nothing attached.");
        var from = message.From.Mailboxes.FirstOrDefault() ?? message.Sender;
        var written =
            message.Headers.Contains(HeaderId.Date) && message.Date != default
                ? DateOnly.FromDateTime(message.Date.DateTime)
                : today;
        var (fresh, first) = Fresh(text, message.Subject ?? "");
        var letter = new Letter(from?.Address ?? "", from?.Name ?? "", message.Subject ?? "", written, text, fresh)
        {
            First = first,
            // RFC 3834, 5; and what older programs say.
            Automatic =
                message.Headers["Auto-Submitted"] is { } auto
                    && !auto.StartsWith("no", StringComparison.OrdinalIgnoreCase)
                || message.Headers["X-Autoreply"] is not null
                || message.Body is MultipartReport,
        };
        return (
            new MailMessage(
                message.MessageId,
                message.Date == default ? null : message.Date,
                letter,
                html,
                opened.Attachments,
                opened.Warnings
            ),
            null
        );
    }

    // Forwarded in the text with hardly a word above: then what was forwarded is the letter, and who wrote it first.
    private static (int Fresh, Writer? First) Fresh(string text, string subject)
    {
        var fresh = Letters.FreshLength(text);
        if (text[..fresh].Trim().Length > 160 || fresh >= text.Length)
            return (fresh, null);
        var rest = text[fresh..].TrimStart();
        if (rest.StartsWith('>') || !(IsForward(rest) || HandsOn.Any(h => IsBefore(subject, h))))
            return (fresh, null);
        var head = HeadLength(rest);
        return (
            fresh + (text[fresh..].Length - rest.Length) + head + Letters.FreshLength(rest[head..]),
            Letters.WriterIn(rest[..head])
        );
    }

    private static bool IsBefore(string subject, string mark) =>
        subject.TrimStart().StartsWith(mark, StringComparison.OrdinalIgnoreCase);

    private static bool IsForward(string rest)
    {
        var head = string.Join('\n', rest.Split('\n').Take(3)).ToLower(CultureInfo.InvariantCulture);
        return Forwarded.Any(w => head.Contains(w, StringComparison.Ordinal));
    }

    // The lines that repeat the forwarded letter's own head.
    private static int HeadLength(string rest)
    {
        var at = 0;
        foreach (var line in rest.Split('\n').Take(12))
        {
            if (at > 0 && line.Trim().Length == 0)
                return Math.Min(rest.Length, at + line.Length + 1);
            at += line.Length + 1;
        }
        return Math.Min(rest.Length, rest.IndexOf('\n', StringComparison.Ordinal) + 1);
    }

    // Walks the parts: texts are gathered, everything else is an attachment.
    private sealed class Opened
    {
        private readonly List<string> _texts = [];
        private long _unpacked;

        public List<string> Html { get; } = [];

        public List<MailAttachment> Attachments { get; } = [];

        public List<string> Warnings { get; } = [];

        public string Text()
        {
            var text = _texts.Count > 0 ? string.Join("\n\n", _texts) : string.Join("\n\n", Html.Select(HtmlText.Of));
            return text.Replace("\r\n", "\n", StringComparison.Ordinal).Replace('\u00a0', ' ').TrimEnd();
        }

        public void Take(MimeEntity? entity, int depth)
        {
            if (entity is null)
                return;
            if (depth > DeepestPart || Attachments.Count >= MostAttachments)
            {
                Note("It holds more parts, or nested deeper, than are opened; the rest is kept in the original.");
                return;
            }
            switch (entity)
            {
                case MultipartSigned signed:
                    Note("It is signed; the signature was not tested.");
                    Take(signed.Count > 0 ? signed[0] : null, depth + 1);
                    break;
                case MultipartAlternative alternative:
                    Alternative(alternative, depth);
                    break;
                case Multipart multipart:
                    foreach (var part in multipart)
                        Take(part, depth + 1);
                    break;
                case MessagePart { Message: { } inner } attached:
                    Inner(attached, inner);
                    break;
                case TnefPart tnef:
                    Tnef(tnef, depth);
                    break;
                case MimePart part
                    when part.ContentType.IsMimeType("application", "pkcs7-mime")
                        || part.ContentType.IsMimeType("application", "x-pkcs7-mime"):
                    Pkcs7(part, depth);
                    break;
                case TextPart { IsAttachment: false } text
                    when text.ContentType.IsMimeType("text", "plain") && text.FileName is null:
                    Add(_texts, text.Text);
                    break;
                case TextPart { IsAttachment: false } text when text.IsHtml && text.FileName is null:
                    Add(Html, text.Text);
                    break;
                case MimePart part:
                    Attach(part);
                    break;
            }
        }

        // The plain text where there is one; the HTML is kept to be shown.
        private void Alternative(MultipartAlternative alternative, int depth)
        {
            var plain = alternative
                .OfType<TextPart>()
                .FirstOrDefault(t => t.ContentType.IsMimeType("text", "plain") && t.Text.Trim().Length > 0);
            foreach (var part in alternative)
            {
                if (part is TextPart { IsHtml: true } html)
                    Add(Html, html.Text);
                else if (ReferenceEquals(part, plain) || part is not TextPart { IsPlain: true })
                    Take(part, depth + 1);
            }
        }

        private void Inner(MessagePart part, MimeMessage inner)
        {
            using var bytes = new MemoryStream();
            inner.WriteTo(bytes);
            if (Room(bytes.Length))
                Attachments.Add(
                    new MailAttachment(
                        Named(
                            part.ContentDisposition?.FileName,
                            $"{(inner.Subject is { Length: > 0 } subject ? subject : "message")}.eml"
                        ),
                        "message/rfc822",
                        bytes.ToArray()
                    )
                );
        }

        private void Tnef(TnefPart tnef, int depth)
        {
            Note($"{Named(tnef.FileName, "winmail.dat")} was taken apart (TNEF).");
            try
            {
                Take(tnef.ConvertToMessage().Body, depth + 1);
            }
            catch (Exception e)
                when (e is TnefException or FormatException or NotSupportedException or ArgumentException)
            {
                Note($"{Named(tnef.FileName, "winmail.dat")} is damaged; it is kept.");
                Attach(tnef);
            }
        }

        // Signed as one piece: what was signed is inside. Enveloped: locked for somebody's key.
        private void Pkcs7(MimePart part, int depth)
        {
            var bytes = Bytes(part);
            try
            {
                var cms = new SignedCms();
                cms.Decode(bytes);
                using var content = new MemoryStream(cms.ContentInfo.Content, writable: false);
                Note("It is signed; the signature was not tested.");
                Take(MimeEntity.Load(new ParserOptions { MaxMimeDepth = DeepestPart }, content), depth + 1);
            }
            catch (Exception e) when (e is CryptographicException or FormatException)
            {
                Note("A part is locked (S/MIME) or damaged; it is kept and cannot be read.");
                Attach(part);
            }
        }

        private void Attach(MimePart part)
        {
            var bytes = Bytes(part);
            // Pictures of a signature are no attachments that anybody sent.
            if (part.ContentId is not null && part.ContentType.IsMimeType("image", "*") && !part.IsAttachment)
                return;
            Attachments.Add(
                new MailAttachment(
                    Named(part.FileName, part.ContentType.MimeType.Replace('/', '.')),
                    part.ContentType.MimeType,
                    bytes
                )
            );
        }

        private byte[] Bytes(MimePart part)
        {
            using var bytes = new MemoryStream();
            part.Content?.DecodeTo(bytes);
            return Room(bytes.Length) ? bytes.ToArray() : [];
        }

        private bool Room(long more)
        {
            if ((_unpacked += more) <= LargestUnpacked)
                return true;
            Note("More is attached than 64 MB; the rest is kept in the original.");
            return false;
        }

        private void Note(string words)
        {
            if (!Warnings.Contains(words))
                Warnings.Add(words);
        }

        private static void Add(List<string> to, string? text)
        {
            if (!string.IsNullOrWhiteSpace(text))
                to.Add(text);
        }

        // A name is shown and kept, never used as a path.
        private static string Named(string? name, string other)
        {
            var plain = new string([.. Path.GetFileName(name ?? "").Where(c => !char.IsControl(c))]).Trim();
            return plain.Length == 0 ? other
                : plain.Length > 120 ? plain[..120]
                : plain;
        }
    }
}
