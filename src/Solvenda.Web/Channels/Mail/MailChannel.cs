using MailKit.Net.Smtp;
using MimeKit;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels.Mail;

/// <summary>Mail: in from the folder that the SMTP listener fills, out by SMTP (RFC 5321).</summary>
public sealed partial class MailChannel(OutsideFolders folders, MailRoute route, ILogger<MailChannel> log) : IChannel
{
    private readonly FolderBox _box = new(folders.MailIn, log);

    public string Name => "mail";

    public string Words => "post office";

    public string? Says => route.ListensOn is { } port ? $"takes mail by SMTP on port {port}" : null;

    public bool Sends(string kind, string to) => kind == DocumentsBy.Mail;

    public IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel) => _box.TakeAsync(cancel);

    public async Task<Departed> SendAsync(Departing message, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(message);
        if (route.Server is not { } server)
            return Departed.Later("no mail server is set");
        try
        {
            using var stream = new MemoryStream(message.Bytes, writable: false);
            using var mail = await MimeMessage.LoadAsync(stream, cancel);
            using var client = new SmtpClient { Timeout = 10_000 };
            await client.ConnectAsync(server.Host, server.Port, MailKit.Security.SecureSocketOptions.Auto, cancel);
            await client.SendAsync(mail, cancel);
            await client.DisconnectAsync(true, cancel);
            return Departed.Well;
        }
        catch (SmtpCommandException e)
            when (e.ErrorCode is SmtpErrorCode.RecipientNotAccepted or SmtpErrorCode.MessageNotAccepted
                && (int)e.StatusCode >= 500
            )
        {
            Failed(log, e, message.Key);
            return new Departed(e.Message, Never: true);
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Sending {Key} failed")]
    private static partial void Failed(ILogger logger, Exception exception, string key);
}
