using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Formats;

namespace Solvenda.Web.Workers;

/// <summary>
/// Reads what was stored, some at a time, oldest first. Its queue is the requests that say "Reading", so that what a
/// crash left is taken up by itself.
/// </summary>
public sealed class ReadingWorker(
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    Reader reader,
    ReadingBell bell,
    PassingBell passing,
    HouseClock clock,
    Courtesy courtesy,
    Troubles troubles
) : Worker(Acts.House.Workers.Reading, troubles)
{
    // A scan of many pages leaves a lane for the letters behind it.
    private const int Lanes = 2;

    // What ended the process so often is not begun again.
    private const int MostTries = 5;

    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);

    // What takes longer goes on apart from the others, up to so many at once.
    private static readonly TimeSpan Long = TimeSpan.FromSeconds(15);
    private const int MostApart = 4;

    private readonly HashSet<long> _underWay = [];

    // What was not read at its first try.
    private readonly HashSet<long> _failed = [];

    // The last that was there before this process: only it can know whether its first try was begun.
    private long? _before;
    private readonly SemaphoreSlim _free = new(Lanes, Lanes);
    private readonly SemaphoreSlim _apart = new(MostApart, MostApart);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        while (true)
        {
            await _free.WaitAsync(cancel);
            long? next;
            try
            {
                next = await ClaimAsync(cancel);
            }
            catch
            {
                _free.Release();
                throw;
            }
            if (next is not { } request)
            {
                _free.Release();
                return;
            }
            _ = LaneAsync(request, cancel);
        }
    }

    protected override Task PauseAsync(CancellationToken cancel) => bell.Signal.WaitAsync(Pause, cancel);

    public override void Dispose()
    {
        _free.Dispose();
        _apart.Dispose();
        base.Dispose();
    }

    private async Task<long?> ClaimAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        _before ??= await db.Requests.MaxAsync(r => (long?)r.Id, cancel) ?? 0;
        long[] taken;
        lock (_underWay)
            taken = [.. _underWay];
        var waiting = await db
            .Requests.Where(r => r.State == RequestState.Reading && !taken.Contains(r.Id))
            .OrderBy(r => r.Id)
            .Select(r => new { r.Id, r.Number })
            .Take(50)
            .ToListAsync(cancel);
        foreach (var one in waiting)
        {
            if (!await Troubles.MayTryAsync(Acts.House.Workers.Reading, one.Number, cancel))
                continue;
            lock (_underWay)
                _underWay.Add(one.Id);
            return one.Id;
        }
        return null;
    }

    private async Task LaneAsync(long request, CancellationToken cancel)
    {
        var reading = ReadAsync(request, cancel);
        await Task.WhenAny(reading, Task.Delay(Long, CancellationToken.None));
        var apart = !reading.IsCompleted && await _apart.WaitAsync(TimeSpan.Zero, CancellationToken.None);
        if (!apart)
            await reading;
        _free.Release();
        bell.Signal.Wake();
        if (!apart)
            return;
        await reading;
        _apart.Release();
    }

    private async Task ReadAsync(long request, CancellationToken cancel)
    {
        // Off the round at once, which goes on to claim the next.
        await Task.Yield();
        try
        {
            await courtesy.AfterYouAsync(cancel);
            await using var db = await factory.CreateDbContextAsync(cancel);
            var one = await db
                .Requests.Where(r => r.Id == request)
                .Select(r => new { r.Number, r.ReadTries })
                .FirstAsync(cancel);
            var number = one.Number;
            var done = await TryAsync(number, () => OneAsync(request, number, one.ReadTries, cancel), cancel);
            if (!done)
                lock (_underWay)
                    _failed.Add(request);
            // Set apart, it is still somebody's to look at.
            if (!done && Troubles.IsApart(Acts.House.Workers.Reading, number))
                await acts.RunAsync(Actor.House, new KeepReading(request, GivenUp), cancel);
        }
        catch (Exception e)
        {
            await TryAsync("", () => Task.FromException(e), cancel);
        }
        finally
        {
            lock (_underWay)
                _underWay.Remove(request);
            bell.Done(request);
            passing.Wake();
        }
    }

    private bool IsFirstTry(long request, int tries)
    {
        lock (_underWay)
            return tries == 1 && request > _before && !_failed.Contains(request);
    }

    private async Task OneAsync(long request, string number, int tries, CancellationToken cancel)
    {
        if (
            !IsFirstTry(request, tries)
            && await acts.RunAsync(Actor.House, new BeginReading(request), cancel) > MostTries
        )
        {
            await acts.RunAsync(Actor.House, new KeepReading(request, GivenUp), cancel);
            await Troubles.ApartAsync(
                Acts.House.Workers.Reading,
                number,
                "Reading it ended the program, again and again.",
                cancel
            );
            return;
        }
        ReadResult result;
        await using (var db = await factory.CreateDbContextAsync(cancel))
        {
            var raw = await db
                .Requests.AsNoTracking()
                .Where(r => r.Id == request)
                .Select(r => r.Raw)
                .FirstAsync(cancel);
            result = await reader.ReadAsync(db, raw.Bytes, raw.Filename, clock.Today, cancel, raw.BuyerId);
        }
        await acts.RunAsync(Actor.House, new KeepReading(request, result), cancel);
    }

    private static ReadResult GivenUp =>
        new(
            new OpenedFile(Syntax.Unknown, []),
            [
                new ReadMessage(
                    new Incoming("", "", []),
                    null,
                    "Could not be read: our reader gave up on it. It is kept as it came."
                ),
            ],
            []
        );
}
