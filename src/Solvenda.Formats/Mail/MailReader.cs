using System.Text.RegularExpressions;
using MimeKit;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Mail;

/// <summary>A mail as far as it is shown and read.</summary>
/// <param name="MessageId">Without angle brackets; null where the mail has none.</param>
/// <param name="Attachments">Names of the parts that are kept but not read here.</param>
public sealed record MailMessage(string? MessageId, DateTimeOffset? Date, Letter Letter, IReadOnlyList<string> Attachments);

/// <summary>Reads a mail (RFC 5322, MIME) into its letter. Never throws on bad bytes: returns the reason.</summary>
public static partial class MailReader
{
    // A mail nests parts a few deep; hostile ones nest thousands.
    private const int DeepestPart = 20;

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
        if (message.From.Count == 0 && message.Sender is null)
            return (null, "The mail names no sender.");
        var text = Text(message);
        if (text.Length == 0 && !message.Attachments.Any())
            return (null, "The mail has no text and nothing attached.");
        var from = message.From.Mailboxes.FirstOrDefault() ?? message.Sender;
        var written = message.Headers.Contains(HeaderId.Date) && message.Date != default ? DateOnly.FromDateTime(message.Date.DateTime) : today;
        var letter = new Letter(from?.Address ?? "", from?.Name ?? "", message.Subject ?? "", written, text, FreshLength(text));
        return (new MailMessage(message.MessageId, message.Date == default ? null : message.Date, letter, [.. message.Attachments.Select(a => a.ContentDisposition?.FileName ?? a.ContentType.MimeType)]), null);
    }

    private static string Text(MimeMessage message)
    {
        var text = message.TextBody ?? (message.HtmlBody is { } html ? Bare(html) : "");
        return text.Replace("\r\n", "\n", StringComparison.Ordinal).TrimEnd();
    }

    // HTML only: the words are enough for reading, and markup is never shown.
    private static string Bare(string html)
    {
        var text = Hidden().Replace(html, "");
        text = Breaks().Replace(text, "\n");
        return System.Net.WebUtility.HtmlDecode(Tags().Replace(text, ""));
    }

    /// <summary>Where the new part ends: at the first quoted line, the line that announces it, or a signature mark (RFC 3676, 4.3).</summary>
    public static int FreshLength(string text)
    {
        var at = 0;
        foreach (var line in text.Split('\n'))
        {
            if (line.StartsWith('>') || line == "-- " || Announces().IsMatch(line))
                return at;
            at += line.Length + 1;
        }
        return text.Length;
    }

    [GeneratedRegex(@"^(?:On .+ wrote:|-{2,} ?Original Message|From: .+@)", RegexOptions.CultureInvariant)]
    private static partial Regex Announces();

    [GeneratedRegex(@"<(script|style|head)\b.*?</\1>", RegexOptions.IgnoreCase | RegexOptions.Singleline | RegexOptions.CultureInvariant, 500)]
    private static partial Regex Hidden();

    [GeneratedRegex(@"<(?:br|/p|/div|/tr|/li)[^>]*>", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant, 500)]
    private static partial Regex Breaks();

    [GeneratedRegex("<[^>]*>", RegexOptions.CultureInvariant, 500)]
    private static partial Regex Tags();
}
