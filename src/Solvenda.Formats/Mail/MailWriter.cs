using MimeKit;

namespace Solvenda.Formats.Mail;

/// <summary>A mail to be sent: plain text, with attachments.</summary>
public sealed record OutgoingMail(
    string From,
    string FromName,
    string To,
    string Subject,
    string Text,
    IReadOnlyList<(string Name, string ContentType, byte[] Content)> Attachments
)
{
    /// <summary>Id of the mail that it answers; null where it answers none.</summary>
    public string? InReplyTo { get; init; }
}

/// <summary>Writes a mail as MIME.</summary>
public static class MailWriter
{
    /// <param name="messageId">The same for every try to send, so that the receiver knows a repeat.</param>
    public static byte[] Write(OutgoingMail mail, string messageId, DateTimeOffset date)
    {
        ArgumentNullException.ThrowIfNull(mail);
        var message = new MimeMessage
        {
            Subject = mail.Subject,
            MessageId = messageId,
            Date = date,
        };
        message.From.Add(new MailboxAddress(mail.FromName, mail.From));
        message.To.Add(MailboxAddress.Parse(mail.To));
        if (mail.InReplyTo is { Length: > 0 } answered)
        {
            message.InReplyTo = answered;
            message.References.Add(answered);
        }
        var body = new BodyBuilder { TextBody = mail.Text };
        foreach (var (name, contentType, content) in mail.Attachments)
            body.Attachments.Add(name, content, ContentType.Parse(contentType));
        message.Body = body.ToMessageBody();
        using var stream = new MemoryStream();
        message.WriteTo(stream);
        return stream.ToArray();
    }

    /// <summary>True where the text is one address that a mail can go to.</summary>
    public static bool IsAddress(string? text) =>
        text is { Length: > 2 and < 255 }
        && MailboxAddress.TryParse(text, out var address)
        && address.Address.Contains('@', StringComparison.Ordinal);
}
