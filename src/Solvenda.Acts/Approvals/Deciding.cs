using System.Collections.Immutable;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Approvals;

/// <summary>An ask with its sheet, and whether somebody may decide on it.</summary>
public sealed record OpenAsk(AskRow Row, OpenSheet Open, ImmutableArray<Fired> Fired)
{
    /// <summary>Null where this person may decide; else why not.</summary>
    public Refusal? WhyNot(PersonId? person, Judgement now)
    {
        ArgumentNullException.ThrowIfNull(now);
        if (person is not { } id || !Open.People.TryGetValue(id, out var me))
            return new Refusal("not_allowed", "Somebody has to decide this.");
        if (Involved().Contains(id))
            return new Refusal("not_allowed", "Nobody decides on what they typed, asked for, send or own themselves.");
        // What was asked, and what stands there by now: neither may be beyond them.
        var hand = now.Needs.Where(n => IsSameHand(n.Hand)).SelectMany(n => n.Fired);
        return me.Active && Route.Covers(me.Authority, Fired) && Route.Covers(me.Authority, [.. hand])
            ? null
            : new Refusal("not_allowed", "These figures are beyond your authority.");
    }

    private bool IsSameHand(Hand hand) =>
        Row.HandId is { } id ? hand.Person?.Value == id : hand.Person is null && hand.Name == Row.HandName;

    private HashSet<PersonId> Involved()
    {
        var involved = new HashSet<PersonId> { new(Row.AskedById), new(Row.OwnerId), Open.Owner.Id };
        if (Row.HandId is { } typed)
            involved.Add(new PersonId(typed));
        return involved;
    }
}

/// <summary>Loads asks to be looked at and decided.</summary>
public sealed class AskLoader(SheetLoader loader)
{
    public async Task<OpenAsk> AskAsync(SolvendaDb db, long id, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var row =
            await db.Asks.FirstOrDefaultAsync(a => a.Id == id, cancel) ?? throw RefusedException.NotFound("such ask");
        return new OpenAsk(
            row,
            await loader.BySheetAsync(db, row.SheetId, cancel),
            JsonSerializer.Deserialize<ImmutableArray<Fired>>(row.Fired)
        );
    }
}

/// <summary>Decides an ask, one way or the other.</summary>
public sealed class Deciding(AskLoader asks, Judge judge)
{
    /// <returns>The ask, and the quote's state before and after; null for an order.</returns>
    public async Task<(OpenAsk Ask, QuoteState? Before, QuoteState? After)> DecideAsync(
        Work work,
        long id,
        AskDoing doing,
        string note,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(note);
        var ask = await asks.AskAsync(work.Db, id, cancel);
        if (AskMoves.Table.After(ask.Row.Outcome, doing) is not { } outcome)
            throw RefusedException.Clash("ask_decided", "It was decided or withdrawn already.");
        var me = work.Actor.Hand;
        var owner = ask.Open.Owner.Hand;
        // Judged as for its owner: what whoever decides would need to send it themselves is another matter.
        var judged = await judge.JudgeAsync(work.Db, ask.Open, owner, cancel);
        if (ask.WhyNot(me.Person, judged.Approval) is { } refused)
            throw RefusedException.Of(refused);
        (ask.Row.Outcome, ask.Row.DecidedAt, ask.Row.DecidedById, ask.Row.Note) = (
            outcome,
            work.Now,
            me.Person!.Value.Value,
            note.Trim()
        );
        var decided = ask.Open.Asks.First(a => a.Id == ask.Row.Id);
        (decided.Outcome, decided.Note) = (outcome, note.Trim());
        var after = await judge.JudgeAsync(work.Db, ask.Open, judged.Priced, owner, cancel);
        Settling.KeepStops(after);
        return (ask, ask.Open.Quote?.State, Move(ask.Open, doing, after.Approval.State));
    }

    // The last grant clears a quote; until then it waits for the others.
    private static QuoteState? Move(OpenSheet open, AskDoing doing, ApprovalState state)
    {
        if (open.Quote is not { State: QuoteState.InApproval } quote)
            return open.Quote?.State;
        var move = doing switch
        {
            AskDoing.SendBack => QuoteDoing.SendBack,
            _ when state == ApprovalState.Granted => QuoteDoing.Grant,
            _ => (QuoteDoing?)null,
        };
        if (move is { } made)
            quote.State = QuoteMoves.Table.After(quote.State, made)!.Value;
        return quote.State;
    }
}
