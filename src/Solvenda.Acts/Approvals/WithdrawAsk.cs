using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;

namespace Solvenda.Acts.Approvals;

/// <summary>Takes back what was asked: whoever asked, or the seller on the head.</summary>
public sealed record WithdrawAsk(long Ask) : IAct<DocumentRef>;

[Leaves(typeof(AskWithdrawn))]
public sealed class WithdrawAskAct(AskLoader asks, Deciding deciding, Telling telling) : Act<WithdrawAsk, DocumentRef>
{
    public override Right Needs => Rights.Own;

    public override async Task<DocumentRef> RunAsync(Work work, WithdrawAsk input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var ask = await asks.AskAsync(work.Db, input.Ask, cancel);
        if (work.Actor.PersonId is not { } me || (me != ask.Row.AskedById && me != ask.Owner.Value))
            throw RefusedException.Forbidden("Whoever asked takes it back, or the seller whose it is.");
        if (AskMoves.Table.After(ask.Row.Outcome, AskDoing.Withdraw) is not { } outcome)
            throw RefusedException.Clash("ask_decided", "It was decided or withdrawn already.");
        (ask.Row.Outcome, ask.Row.DecidedAt, ask.Row.DueAt) = (outcome, work.Now, null);
        var judged = await deciding.JudgedAsync(work.Db, ask, cancel);
        var (before, after) = await deciding.MovedAsync(work, ask, judged, AskDoing.Withdraw, cancel);
        work.Leave(new AskWithdrawn(ask.Row.Id, before, after), ask.Subject, ask.Dossier);
        await telling.TellAsync(
            work,
            ask.HolderIds,
            $"ask-{ask.Row.Id}-withdrawn",
            $"{work.Actor.Name} took back what was asked about {ask.Called}",
            $"/asks/{ask.Row.Id}",
            cancel
        );
        return ask.Ref;
    }
}
