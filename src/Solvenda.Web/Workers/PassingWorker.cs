using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Core.Reading;
using Solvenda.Data;

namespace Solvenda.Web.Workers;

/// <summary>
/// Weighs what was read, and lets through what the rules of its way let through. Its queue is the open requests that
/// were not weighed as they stand.
/// </summary>
public sealed class PassingWorker(
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    PassingBell bell,
    Courtesy courtesy,
    Troubles troubles
) : Worker(Acts.House.Workers.Passing, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(1);
    private const int Portion = 50;

    // While one is written, the next is weighed.
    private static readonly int AtOnce = Math.Clamp(Environment.ProcessorCount, 1, 4);

    protected override Task PauseAsync(CancellationToken cancel) => bell.WaitAsync(Pause, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        while (await PortionAsync(cancel))
        {
            // Until nothing is left.
        }
    }

    private async Task<bool> PortionAsync(CancellationToken cancel)
    {
        List<(long Id, string Number, long Version)> open;
        await using (var db = await factory.CreateDbContextAsync(cancel))
            open =
            [
                .. (
                    await db
                        .Requests.Where(r =>
                            (r.State == RequestState.New || r.State == RequestState.NeedsYou) && r.Weighed != r.Version
                        )
                        .OrderBy(r => r.Id)
                        .Select(r => new
                        {
                            r.Id,
                            r.Number,
                            r.Version,
                        })
                        .Take(Portion)
                        .ToListAsync(cancel)
                ).Select(r => (r.Id, r.Number, r.Version)),
            ];
        var done = 0;
        await Parallel.ForEachAsync(
            open,
            new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = cancel },
            async (one, stop) =>
            {
                await courtesy.AfterYouAsync(stop);
                if (await TryAsync(one.Number, () => OneAsync(one.Id, one.Number, one.Version, stop), stop))
                    Interlocked.Increment(ref done);
            }
        );
        // What failed waits for its next try, and holds up nobody.
        return done > 0 && open.Count == Portion;
    }

    private async Task OneAsync(long id, string number, long version, CancellationToken cancel)
    {
        if (await acts.RunAsync(Actor.House, new WeighRequest(id, version), cancel) is not { } kind)
            return;
        try
        {
            if (kind == MessageKind.Change)
                await ChangeAsync(id, number, version, cancel);
            else
                await acts.RunAsync(Actor.House, new PassRequest(number, version), cancel, $"pass-{number}-{version}");
        }
        catch (RefusedException)
        {
            // Something came between, or the rules say no: it waits with the reason, weighed as it is now.
            await acts.RunAsync(Actor.House, new WeighRequest(id, version), cancel);
        }
    }

    // Where it may be about several orders, somebody picks one.
    private async Task ChangeAsync(long id, string number, long version, CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var request = await db.Requests.AsNoTracking().FirstAsync(r => r.Id == id, cancel);
        var reading = ReadingView.FromJson(request.Reading);
        if (await ChangedOrder.FindAsync(db, request, reading, cancel) is not [var order])
            return;
        var take = new TakeChange(number, version, order, [.. reading.Lines.Select(l => l.No)], Day: true);
        await acts.RunAsync(Actor.House, take, cancel, $"pass-{number}-{version}");
    }
}
