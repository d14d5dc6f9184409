using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Notices;
using Solvenda.Acts.Proofs;
using Solvenda.Acts.Receipts;
using Solvenda.Data;

namespace Solvenda.Web.Workers;

/// <summary>
/// Every minute: moves on the asks that nobody answered in time or whose holder is not there, in the
/// morning sends the letters of those who want one a day, notes what was not received in time, and once a day seals the
/// head of the chain of events. What is
/// due stands in the database, so a restart forgets nothing.
/// </summary>
public sealed class AskWorker(
    ActRunner acts,
    IDbContextFactory<SolvendaDb> factory,
    HouseClock clock,
    SealedHeads heads,
    TimeProvider time,
    Troubles troubles
) : Worker(Acts.House.Workers.Asks, troubles)
{
    private static readonly TimeSpan Between = TimeSpan.FromMinutes(1);

    protected override Task PauseAsync(CancellationToken cancel) => Task.Delay(Between, time, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        foreach (var ask in await MoveAskOnAct.DueAsync(db, clock.UtcNow, clock.Today, cancel))
            await TryAsync($"ask {ask}", () => acts.RunAsync(Actor.House, new MoveAskOn(ask), cancel), cancel);
        if (clock.LocalNow.Hour >= SendDigests.Hour && await SendDigestsAct.IsDueAsync(db, clock.UtcNow, cancel))
            await TryAsync(
                "the morning’s letters",
                () => acts.RunAsync(Actor.House, new SendDigests(), cancel),
                cancel
            );
        if (await NoteNotReceivedAct.Late(db, clock.UtcNow).AnyAsync(cancel))
            await TryAsync(
                "what was not received",
                () => acts.RunAsync(Actor.House, new NoteNotReceived(), cancel),
                cancel
            );
        if (!heads.Has(clock.Today))
            await TryAsync("the day’s seal", () => heads.SealAsync(db, clock.Today, cancel), cancel);
    }
}
