using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Web.Channels;

namespace Solvenda.Web.Workers;

/// <summary>
/// Takes in what channels bring, through the same door as everything else; each is put away only when it is stored.
/// </summary>
public sealed partial class ChannelInbox(
    Intake intake,
    IEnumerable<IChannel> channels,
    IDbContextFactory<SolvendaDb> factory,
    ILogger<ChannelInbox> log
) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(500);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            await TakeUpLeftOversAsync(stoppingToken);
            while (!stoppingToken.IsCancellationRequested)
            {
                foreach (var channel in channels)
                    await TakeAsync(channel, stoppingToken);
                await Task.Delay(Pause, stoppingToken);
            }
        }
        catch (OperationCanceledException)
        {
            // Stopping: what was not taken stays where it is.
        }
    }

    // A process that was killed between storing and reading left requests that say "Reading".
    private async Task TakeUpLeftOversAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var left = await db.Requests.Where(r => r.State == RequestState.Reading).Select(r => r.Id).ToListAsync(cancel);
        foreach (var request in left)
            await intake.ReadAsync(request, cancel);
    }

    private async Task TakeAsync(IChannel channel, CancellationToken cancel)
    {
        await foreach (var arrived in channel.TakeAsync(cancel))
        {
            try
            {
                var message = new TakeIn(
                    channel.Name,
                    arrived.Name,
                    null,
                    arrived.Bytes,
                    $"{channel.Name}:{arrived.Delivery}"
                );
                await intake.ReceiveAsync(Actor.House, message, cancel);
                arrived.Stored();
            }
            catch (Exception e) when (e is not OperationCanceledException)
            {
                // The others go on; this one is met again in the next round.
                NotTaken(log, e, arrived.Name, channel.Name);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "{Name} could not be taken in from {Channel}")]
    private static partial void NotTaken(ILogger logger, Exception exception, string name, string channel);
}
