using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Post;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Channels;

namespace Solvenda.Web.Workers;

/// <summary>
/// Sends what is in the outbox by the channel of its kind: at least once, in order, and again later with growing
/// patience where it fails.
/// </summary>
public sealed partial class OutboxWorker(
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    OutboxSignal signal,
    IEnumerable<IChannel> channels,
    HouseClock clock,
    ILogger<OutboxWorker> log
) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(2);

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
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                Failed(log, e);
            }
            catch (OperationCanceledException)
            {
                return;
            }
            try
            {
                await signal.WaitAsync(Pause, stoppingToken);
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
        await acts.RunAsync(Actor.House, new KeepSent(next.Id, problem), cancel);
        return problem is null;
    }

    private async Task<string?> TryAsync(OutboxRow row, CancellationToken cancel)
    {
        if (channels.FirstOrDefault(c => c.Sends(row.Kind)) is not { } channel)
            return $"no channel sends {row.Kind}";
        try
        {
            return await channel.SendAsync(new Departing(row.Kind, row.Key, row.To, row.Name, row.Payload), cancel);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            Failed(log, e);
            return e.Message;
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "The outbox stumbled")]
    private static partial void Failed(ILogger logger, Exception exception);
}
