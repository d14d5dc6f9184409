using MailKit.Net.Smtp;
using Microsoft.EntityFrameworkCore;
using MimeKit;
using Solvenda.Core.Ordering;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Workers;

/// <summary>Which mail server mail goes to: from the settings, or the stand-in's once it listens.</summary>
public sealed class MailRoute(SolvendaOptions options)
{
    private volatile string? _server = options.Smtp;

    /// <summary>host:port; null where there is none yet.</summary>
    public (string Host, int Port)? Server =>
        _server?.Split(':') is [var host, var port]
            ? (host, int.Parse(port, System.Globalization.CultureInfo.InvariantCulture))
            : null;

    public void Set(string host, int port) => _server = $"{host}:{port}";
}

/// <summary>Sends what is in the outbox: at least once, in order, and again later with growing patience where it fails.</summary>
public sealed partial class OutboxWorker(
    IDbContextFactory<SolvendaDb> factory,
    CommandHandler commands,
    OutboxSignal signal,
    MailRoute route,
    OutsideFolders folders,
    HouseClock clock,
    ILogger<OutboxWorker> log
) : BackgroundService
{
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(30);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                while (await SendNextAsync(stoppingToken))
                {
                    // One after the other, until nothing is due.
                }
                await signal.WaitAsync(TimeSpan.FromSeconds(2), stoppingToken);
            }
            catch (OperationCanceledException)
            {
                return;
            }
        }
    }

    private async Task<bool> SendNextAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var now = clock.UtcNow;
        var next = await db
            .Outbox.AsNoTracking()
            .Where(o => o.SentAt == null && o.NextTryAt <= now)
            .OrderBy(o => o.Id)
            .FirstOrDefaultAsync(cancel);
        if (next is null)
            return false;
        var problem = await TryAsync(next, cancel);
        await commands.RunAsync(
            Actor.House,
            async work =>
            {
                var row = await work.Db.Outbox.FirstAsync(o => o.Id == next.Id, cancel);
                row.Tries++;
                row.LastError = problem ?? "";
                if (problem is null)
                    row.SentAt = work.Now;
                else
                    row.NextTryAt =
                        work.Now + TimeSpan.FromSeconds(Math.Min(Longest.TotalSeconds, 2 * Math.Pow(2, row.Tries)));
                return true;
            },
            cancel
        );
        return problem is null;
    }

    private async Task<string?> TryAsync(OutboxRow row, CancellationToken cancel)
    {
        try
        {
            if (row.Kind is DocumentsBy.Edi or DocumentsBy.Paper)
            {
                await OutsideFolders.WriteWholeAsync(
                    row.Kind == DocumentsBy.Edi ? folders.EdiOut : folders.Paper,
                    row.Name,
                    row.Payload,
                    cancel
                );
                return null;
            }
            if (route.Server is not { } server)
                return "no mail server is set";
            using var stream = new MemoryStream(row.Payload, writable: false);
            using var message = await MimeMessage.LoadAsync(stream, cancel);
            using var client = new SmtpClient { Timeout = 10_000 };
            await client.ConnectAsync(server.Host, server.Port, MailKit.Security.SecureSocketOptions.Auto, cancel);
            await client.SendAsync(message, cancel);
            await client.DisconnectAsync(true, cancel);
            return null;
        }
        catch (Exception e)
            when (e
                    is IOException
                        or System.Net.Sockets.SocketException
                        or MailKit.ProtocolException
                        or MailKit.CommandException
                        or MailKit.Security.SslHandshakeException
                        or TimeoutException
            )
        {
            Failed(log, e, row.Key, row.Tries + 1);
            return e.Message;
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "Sending {Key} failed, try {Try}")]
    private static partial void Failed(ILogger logger, Exception exception, string key, int @try);
}
