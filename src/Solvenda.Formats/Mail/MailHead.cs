using MimeKit;

namespace Solvenda.Formats.Mail;

/// <summary>What an answer to a mail needs of it (RFC 5322, 3.6.4).</summary>
/// <param name="ReplyTo">Where an answer goes: Reply-To, else From; empty where there is neither.</param>
/// <param name="MessageId">Null where it has none.</param>
/// <param name="References">Ids of what it answers, the nearest last.</param>
public sealed record MailHead(string ReplyTo, string Subject, string? MessageId, IReadOnlyList<string> References)
{
    /// <summary>Null where the bytes are no mail.</summary>
    public static MailHead? Of(byte[] raw)
    {
        ArgumentNullException.ThrowIfNull(raw);
        try
        {
            using var stream = new MemoryStream(raw, writable: false);
            var head = new MimeParser(stream, MimeFormat.Entity).ParseMessage();
            var to = head.ReplyTo.Mailboxes.Concat(head.From.Mailboxes).FirstOrDefault();
            return new MailHead(
                to?.Address ?? "",
                head.Subject ?? "",
                head.MessageId,
                [
                    .. head.References,
                    .. head.InReplyTo is { } answered && !head.References.Contains(answered)
                        ? [answered]
                        : Array.Empty<string>(),
                ]
            );
        }
        catch (FormatException)
        {
            return null;
        }
    }
}
