using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;

namespace Solvenda.Acts.Approvals;

/// <summary>
/// Moves one ask on that nobody answered in time, or whose holder is away or left: to the stand-in, else to whoever
/// comes after them. Where nobody does, it stays and they are reminded. Nothing is granted by silence.
/// </summary>
public sealed record MoveAskOn(long Ask) : IAct<bool>;

[Leaves(typeof(AskMoved))]
public sealed class MoveAskOnAct(AskLoader asks, Deciding deciding, AskClock clock, Telling telling)
    : Act<MoveAskOn, bool>
{
    public override Right Needs => Rights.House;

    /// <returns>Whether it moved, or somebody was reminded.</returns>
    public override async Task<bool> RunAsync(Work work, MoveAskOn input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var ask = await asks.AskAsync(work.Db, input.Ask, cancel);
        var overdue = ask.Row.DueAt <= work.Now;
        if (ask.Row.Outcome != AskOutcome.Waiting || (!overdue && Onward.IsHeld(ask, work.Today)))
            return false;
        var from = ask.Holders;
        if (Onward.Instead(ask, work.Today) is { } next)
        {
            var reason = overdue ? "overdue" : "away";
            await deciding.GiveAsync(
                work,
                ask,
                next,
                overdue ? $"{from} did not answer in time" : $"{from} is not there",
                cancel
            );
            Leave(work, ask, new AskMoved(ask.Row.Id, from, next.NamesOf(ask.People), reason));
            return true;
        }
        if (!overdue)
            return false;
        ask.Row.DueAt = await clock.DueAsync(work.Db, work.Now, ask.Row.PatienceHours, ask.HolderIds, cancel);
        Leave(work, ask, new AskMoved(ask.Row.Id, from, "", "reminded"));
        await telling.TellAsync(
            work,
            ask.HolderIds,
            string.Create(System.Globalization.CultureInfo.InvariantCulture, $"ask-{ask.Row.Id}-{work.Now.Ticks}"),
            $"Still waiting for you: {ask.Called}, {ask.Fired[0].Words}",
            $"/asks/{ask.Row.Id}",
            cancel
        );
        return true;
    }

    private static void Leave(Work work, OpenAsk ask, AskMoved moved) => work.Leave(moved, ask.Subject, ask.Dossier);

    /// <summary>Those that may have to move: overdue, or held by somebody who is away or left.</summary>
    public static Task<List<long>> DueAsync(Data.SolvendaDb db, DateTime now, DateOnly day, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        return db
            .Asks.Where(a =>
                a.Outcome == AskOutcome.Waiting
                && (
                    a.DueAt <= now
                    || !a.Holders.Any(h =>
                        db.People.Any(p => p.Id == h.PersonId && p.Active)
                        && !db.Absences.Any(w => w.PersonId == h.PersonId && w.From <= day && day <= w.To)
                    )
                )
            )
            .OrderBy(a => a.Id)
            .Select(a => a.Id)
            .ToListAsync(cancel);
    }
}
