using System.Collections.Concurrent;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Overviews;
using Solvenda.Acts.Rounds;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Workers;

/// <summary>
/// Does to many documents what somebody asked for, round after round: each on its own, as that person, as it stands
/// when
/// its turn comes. What was under way when the process ended is gone on with, and nothing is done twice.
/// </summary>
public sealed class RoundWorker(IDbContextFactory<SolvendaDb> factory, ActRunner acts, Troubles troubles)
    : Worker(Acts.House.Workers.Rounds, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);

    // So many outcomes are kept at once: a transaction each would take as long as what is done.
    private const int Portion = 20;

    // While one writes, the next are judged and printed; there is one writer in any case.
    private static readonly int AtOnce = Math.Clamp(Environment.ProcessorCount, 1, 4);

    private readonly ConcurrentDictionary<long, TaskCompletionSource> _waiting = new();
    private readonly Signal _signal = new();

    /// <summary>There is a round to do.</summary>
    public void Wake() => _signal.Wake();

    /// <summary>Waits until a round is over; no longer than somebody looks at a screen that does not move.</summary>
    public async Task OverAsync(long round, TimeSpan most, CancellationToken cancel)
    {
        var over = _waiting.GetOrAdd(
            round,
            _ => new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously)
        );
        Wake();
        await Task.WhenAny(over.Task, Task.Delay(most, cancel));
        _waiting.TryRemove(round, out _);
    }

    protected override Task PauseAsync(CancellationToken cancel) => _signal.WaitAsync(Pause, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        List<long> open;
        await using (var db = await factory.CreateDbContextAsync(cancel))
            open = await db
                .Rounds.Where(r => r.EndedAt == null)
                .OrderBy(r => r.Id)
                .Select(r => r.Id)
                .ToListAsync(cancel);
        foreach (var id in open)
        {
            await TryAsync(
                string.Create(CultureInfo.InvariantCulture, $"round {id}"),
                () => OneAsync(id, cancel),
                cancel
            );
            if (_waiting.TryRemove(id, out var over))
                over.TrySetResult();
        }
    }

    private async Task OneAsync(long id, CancellationToken cancel)
    {
        RoundRow round;
        Person person;
        List<RoundItemRow> items;
        await using (var db = await factory.CreateDbContextAsync(cancel))
        {
            round = await db.Rounds.AsNoTracking().FirstAsync(r => r.Id == id, cancel);
            person = await db.People.AsNoTracking().FirstAsync(p => p.Id == round.PersonId, cancel);
            items = await db
                .RoundItems.AsNoTracking()
                .Where(i => i.RoundId == id && i.Outcome == RoundOutcome.Waiting)
                .OrderBy(i => i.No)
                .ToListAsync(cancel);
        }
        var actor = Actor.Person(person.Id, person.Name, person.Roles);
        var deed = ListKinds.Find(round.Kind).Deeds.First(d => d.Name == round.Deed);
        foreach (var portion in items.Chunk(Portion))
        {
            if (await IsStoppedAsync(id, cancel))
                break;
            var steps = new ConcurrentBag<RoundStep>();
            await Parallel.ForEachAsync(
                portion,
                new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = cancel },
                async (item, one) => steps.Add(await StepAsync(round, deed, person, actor, item, one))
            );
            await acts.RunAsync(Actor.House, new KeepRound(id, [.. steps], Ended: false), cancel);
        }
        await acts.RunAsync(Actor.House, new KeepRound(id, [], Ended: true), cancel);
    }

    private async Task<bool> IsStoppedAsync(long id, CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        return await db.Rounds.AnyAsync(r => r.Id == id && r.StoppedAt != null, cancel);
    }

    private async Task<RoundStep> StepAsync(
        RoundRow round,
        Deed deed,
        Person person,
        Actor actor,
        RoundItemRow item,
        CancellationToken cancel
    )
    {
        // Whoever lost the right meanwhile does nothing more.
        if (!person.Active || !deed.Needs.Allows(actor))
            return new RoundStep(item.No, RoundOutcome.Refused, "Whoever asked for it may no longer do it.");
        await using var db = await factory.CreateDbContextAsync(cancel);
        var key = string.Create(CultureInfo.InvariantCulture, $"round-{round.Id}-{item.No}");
        try
        {
            await deed.RunAsync(new DeedOf(acts, db, actor, item.Number, round.Given, key), cancel);
            return new RoundStep(item.No, RoundOutcome.Done, "");
        }
        catch (RefusedException no) when (no.Code == "key_used")
        {
            // It was done before the process ended, on the version that was there then.
            return new RoundStep(item.No, RoundOutcome.Done, "");
        }
        catch (RefusedException no)
        {
            return new RoundStep(item.No, RoundOutcome.Refused, no.Message);
        }
    }
}
