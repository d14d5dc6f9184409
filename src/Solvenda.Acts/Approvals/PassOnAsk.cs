using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;

namespace Solvenda.Acts.Approvals;

/// <summary>Gives an ask to somebody else who may decide it.</summary>
public sealed record PassOnAsk(long Ask, PersonId To, string Note) : IAct<DocumentRef>;

[Leaves(typeof(AskPassedOn))]
public sealed class PassOnAskAct(AskLoader asks, Deciding deciding) : Act<PassOnAsk, DocumentRef>
{
    public override Right Needs => Rights.Decide;

    public override async Task<DocumentRef> RunAsync(Work work, PassOnAsk input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var ask = await asks.AskAsync(work.Db, input.Ask, cancel);
        if (AskMoves.Table.After(ask.Row.Outcome, AskDoing.PassOn) is null)
            throw RefusedException.Clash("ask_decided", "It was decided or withdrawn already.");
        var approval = (await deciding.JudgedAsync(work.Db, ask, cancel))?.Approval ?? Judgement.Nothing;
        if (ask.WhyNot(work.Actor.Hand.Person, approval) is { } refused)
            throw RefusedException.Of(refused);
        if (!To(ask, approval, work.Actor.Hand.Person, work.Today).Any(d => d.Id == input.To))
            throw RefusedException.Bad("cannot_decide", "They may not decide this, or are away; it stays yours.", "to");
        var to = ask.People[input.To];
        await deciding.GiveAsync(
            work,
            ask,
            new Holding(ask.Row.Step, [to.Id]),
            $"{work.Actor.Name} passes it on to you",
            cancel
        );
        work.Leave(
            new AskPassedOn(ask.Row.Id, work.Actor.Name, to.Name),
            ask.Subject,
            ask.Dossier,
            input.Note.Trim() is { Length: > 0 } note ? note : null
        );
        return ask.Ref;
    }

    /// <summary>Whom it can be given to: who is there, is not involved, and covers it.</summary>
    public static IEnumerable<Decider> To(OpenAsk ask, Judgement now, PersonId? me, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return ask
            .People.Values.Where(d =>
                d.Active
                && d.Id != me
                && d.AwayOn(day) is null
                && !ask.Involved.Contains(d.Id)
                && !ask.IsHeldBy(d.Id)
                && ask.Covers(d, now)
            )
            .OrderBy(d => d.Name, StringComparer.Ordinal);
    }
}
