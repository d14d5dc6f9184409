using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Ways;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Channels;

namespace Solvenda.Web.Workers;

/// <summary>
/// Takes in what channels bring, through the same door as everything else; each is put away only when it is stored.
/// What was taken at one time is kept as a run of its way in. Nothing is taken by a way that is closed: it stays where
/// it lies.
/// </summary>
public sealed class ChannelInbox(
    Intake intake,
    IEnumerable<IChannel> channels,
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    HouseClock clock,
    ChannelSignal signal,
    Courtesy courtesy,
    Troubles troubles
) : Worker(Acts.House.Workers.Channels, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(500);

    private readonly List<IChannel> _taking = [.. channels.Where(c => c.Takes)];
    private readonly Dictionary<string, long> _looked = [];
    private bool _atOnce = true;

    protected override async Task PauseAsync(CancellationToken cancel) =>
        _atOnce = await signal.WaitAsync(Pause, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        Dictionary<string, WayRow> ways;
        await using (var db = await factory.CreateDbContextAsync(cancel))
            ways = await db.Ways.AsNoTracking().Where(w => w.BuyerId == null).ToDictionaryAsync(w => w.Channel, cancel);
        foreach (var channel in _taking)
        {
            var way = ways.GetValueOrDefault(channel.Name);
            if (way is { Open: false } || !(_atOnce || IsDue(channel, way)))
                continue;
            _looked[channel.Name] = Environment.TickCount64;
            // One way in that is broken closes none of the others.
            await TryAsync(channel.Name, () => TakeAsync(channel, cancel), cancel);
        }
    }

    private bool IsDue(IChannel channel, WayRow? way)
    {
        var pause = way is { EveryMinutes: > 0 and var minutes } ? TimeSpan.FromMinutes(minutes) : channel.Pause;
        return !_looked.TryGetValue(channel.Name, out var looked)
            || Environment.TickCount64 - looked >= (long)pause.TotalMilliseconds;
    }

    private async Task TakeAsync(IChannel channel, CancellationToken cancel)
    {
        var (taken, failed, log) = (0, 0, new List<string>());
        void Say(string words) =>
            log.Add(string.Create(CultureInfo.InvariantCulture, $"{clock.LocalNow:HH:mm:ss} {words}"));
        await foreach (var arrived in channel.TakeAsync(cancel))
        {
            if (arrived.Problem is { } problem)
            {
                failed++;
                Say($"not taken {arrived.Name}: {problem}");
                continue;
            }
            var number = "";
            if (
                await TryAsync(
                    $"{channel.Name}: {arrived.Name}",
                    async () => number = await OneAsync(channel, arrived, cancel),
                    cancel
                )
            )
            {
                taken++;
                Say($"taken {arrived.Name}: {number}");
            }
        }
        if (taken + failed > 0)
            await acts.RunAsync(Actor.House, new KeepRun(channel.Name, taken, failed, [.. log]), cancel);
    }

    private async Task<string> OneAsync(IChannel channel, Arrived arrived, CancellationToken cancel)
    {
        await courtesy.AfterYouAsync(cancel);
        var message = new TakeIn(channel.Name, arrived.Name, null, arrived.Bytes, $"{channel.Name}:{arrived.Delivery}")
        {
            Age = arrived.Age,
        };
        var stored = await intake.StoreAsync(Actor.House, message, cancel);
        await arrived.Stored();
        await using var db = await factory.CreateDbContextAsync(cancel);
        var number = await db.Requests.Where(r => r.Id == stored.Request).Select(r => r.Number).FirstAsync(cancel);
        return stored.IsNew ? number : $"{number}, which was there";
    }
}
