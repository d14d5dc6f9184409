using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
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
    private const Roles Deciders = Roles.Lead | Roles.Credit;

    /// <summary>Whom it goes to in turn.</summary>
    public ImmutableArray<ImmutableArray<PersonId>> Steps => AskFacts.StepsOf(Row);

    /// <summary>Whether somebody else is asked once this step said yes.</summary>
    public bool GoesOn => Row.Step < Steps.Length - 1;

    /// <summary>Who typed, asked for, or owns it: they decide nothing of it, in whatever part.</summary>
    public IReadOnlySet<PersonId> Involved
    {
        get
        {
            var involved = new HashSet<PersonId> { new(Row.AskedById), new(Row.OwnerId), Open.Owner.Id };
            if (Row.HandId is { } typed)
                involved.Add(new PersonId(typed));
            return involved;
        }
    }

    /// <summary>Whether it is about what the buyer owes.</summary>
    public bool IsOfCredit => Fired.Any(f => FigureList.Of(f.Figure) is CreditFigure);

    /// <summary>Who has it; any one of them decides.</summary>
    public ImmutableArray<PersonId> HolderIds => [.. Row.Holders.Select(h => new PersonId(h.PersonId))];

    /// <summary>Who has it, as it is said: "A or B".</summary>
    public string Holders => string.Join(" or ", HolderIds.Select(h => Open.People[h].Name));

    public bool IsHeldBy(PersonId person) => Row.Holders.Exists(h => h.PersonId == person.Value);

    /// <summary>
    /// Null where this person may decide; else why not. Whoever has it decides, and any lead or credit controller whose
    /// authority covers it; where several are asked in turn, only who has it.
    /// </summary>
    public Refusal? WhyNot(PersonId? person, Judgement now)
    {
        ArgumentNullException.ThrowIfNull(now);
        if (person is not { } id || !Open.People.TryGetValue(id, out var me))
            return new Refusal("not_allowed", "Somebody has to decide this.");
        if (Involved.Contains(id))
            return new Refusal("not_allowed", "Nobody decides on what they typed, asked for, send or own themselves.");
        if (!me.Active)
            return new Refusal("not_allowed", "Who was switched off decides nothing.");
        if (!IsHeldBy(id) && (me.Roles & Deciders) == Roles.None)
            return new Refusal("not_allowed", "Whoever is asked decides it, or somebody who leads.");
        if (Steps.Length > 1 && !IsHeldBy(id))
            return new Refusal("not_allowed", "It is decided in turn, and it is somebody else’s turn.");
        return GoesOn || Covers(me, now)
            ? null
            : new Refusal("not_allowed", "These figures are beyond your authority.");
    }

    /// <summary>Whether a person's authority covers what was asked, and what stands there by now.</summary>
    public bool Covers(Decider person, Judgement now)
    {
        ArgumentNullException.ThrowIfNull(person);
        ArgumentNullException.ThrowIfNull(now);
        // Of what stands there, what this ask is about: what others are asked is theirs.
        var policies = Fired.Select(f => f.Policy).ToHashSet();
        var hand = now
            .Needs.Where(n => IsSameHand(n.Hand))
            .SelectMany(n => n.Fired)
            .Where(f => policies.Contains(f.Policy));
        return Route.Covers(person.Authority, Fired) && Route.Covers(person.Authority, [.. hand]);
    }

    private bool IsSameHand(Hand hand) =>
        Row.HandId is { } id ? hand.Person?.Value == id : hand.Person is null && hand.Name == Row.HandName;
}

/// <summary>Loads asks to be looked at and decided.</summary>
public sealed class AskLoader(SheetLoader loader)
{
    public async Task<OpenAsk> AskAsync(SolvendaDb db, long id, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var row =
            await db.Asks.Include(a => a.Holders).FirstOrDefaultAsync(a => a.Id == id, cancel)
            ?? throw RefusedException.NotFound("such ask");
        return new OpenAsk(row, await loader.BySheetAsync(db, row.SheetId, cancel), AskFacts.FiredOf(row));
    }
}

/// <summary>What became of an ask, and of the quote with it.</summary>
/// <param name="Before">State of the quote; null for an order.</param>
/// <param name="Next">Who has it now, where it went on to somebody; null where it is decided.</param>
public sealed record Decided(OpenAsk Ask, QuoteState? Before, QuoteState? After, string? Next);

/// <summary>Decides an ask, one way or the other.</summary>
public sealed class Deciding(AskLoader asks, Judge judge, AskClock clock, Telling telling)
{
    /// <param name="settle">What else is kept with the answer: a figure that it goes up to, marks.</param>
    public async Task<Decided> DecideAsync(
        Work work,
        long id,
        AskDoing doing,
        string note,
        CancellationToken cancel,
        Action<OpenAsk>? settle = null
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(note);
        var ask = await asks.AskAsync(work.Db, id, cancel);
        if (AskMoves.Table.After(ask.Row.Outcome, doing) is not { } outcome)
            throw RefusedException.Clash("ask_decided", "It was decided or withdrawn already.");
        if (note.Length > Core.Sheets.SheetDoor.MostLetters)
            throw RefusedException.Bad("note_long", "The note is too long; nothing was decided.", "note");
        var me = work.Actor.Hand;
        // Judged as for its owner: what whoever decides would need to send it themselves is another matter.
        var judged = await judge.JudgeAsync(work.Db, ask.Open, ask.Open.Owner.Hand, cancel);
        if (ask.WhyNot(me.Person, judged.Approval) is { } refused)
            throw RefusedException.Of(refused);
        settle?.Invoke(ask);
        if (doing == AskDoing.Grant && ask.GoesOn)
            return await HandOnAsync(work, ask, cancel);
        (ask.Row.Outcome, ask.Row.DecidedAt, ask.Row.DecidedById, ask.Row.Note, ask.Row.DueAt, ask.Row.Question) = (
            outcome,
            work.Now,
            me.Person!.Value.Value,
            note.Trim(),
            null,
            null
        );
        var (before, after) = await MovedAsync(work, ask, judged, doing, cancel);
        await TellAskerAsync(
            work,
            ask,
            outcome switch
            {
                AskOutcome.SentBack => $"{me.Name} sent back what you asked about {ask.Open.Number}: {note.Trim()}",
                _ when ask.Row.UpTo is not null => $"{me.Name} granted less than you asked about {ask.Open.Number}",
                _ => $"{me.Name} granted what you asked about {ask.Open.Number}",
            },
            cancel
        );
        return new Decided(ask, before, after, null);
    }

    /// <summary>Judges the sheet again after an ask was answered, and moves its quote.</summary>
    public async Task<(QuoteState? Before, QuoteState? After)> MovedAsync(
        Work work,
        OpenAsk ask,
        Judged judged,
        AskDoing doing,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(ask);
        ArgumentNullException.ThrowIfNull(judged);
        var after = await judge.JudgeAsync(work.Db, ask.Open, judged.Priced, ask.Open.Owner.Hand, cancel);
        Settling.KeepStops(after);
        return (ask.Open.Quote?.State, Move(ask.Open, doing, after.Approval.State));
    }

    /// <summary>Tells whoever asked, and the seller on the head, what became of it.</summary>
    public Task TellAskerAsync(Work work, OpenAsk ask, string words, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ask);
        var kind = ask.Open.Order is null ? "quotes" : "orders";
        return telling.TellAsync(
            work,
            [new PersonId(ask.Row.AskedById), ask.Open.Owner.Id],
            string.Create(System.Globalization.CultureInfo.InvariantCulture, $"ask-{ask.Row.Id}-{work.Now.Ticks}"),
            words,
            $"/{kind}/{ask.Open.Subject}",
            cancel
        );
    }

    // Yes by one of several in turn: the next who may has it. Where nobody after them may, it stays with who has it.
    private async Task<Decided> HandOnAsync(Work work, OpenAsk ask, CancellationToken cancel)
    {
        var next =
            Onward.After(ask, work.Today)
            ?? throw RefusedException.Clash("nobody_able", "Nobody after you may decide this just now; it waits.");
        await GiveAsync(work, ask, next, $"{work.Actor.Name} said yes, and it is yours now", cancel);
        return new Decided(ask, ask.Open.Quote?.State, ask.Open.Quote?.State, next.NamesOf(ask.Open.People));
    }

    /// <summary>Gives an ask to others, with their own time to answer.</summary>
    public async Task GiveAsync(Work work, OpenAsk ask, Holding next, string words, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(ask);
        ArgumentNullException.ThrowIfNull(next);
        ask.Row.Step = next.Step;
        ask.Row.DueAt = await clock.DueAsync(work.Db, work.Now, ask.Row.PatienceHours, next.People, cancel);
        AskFacts.HandTo(ask.Row, next.People);
        await telling.TellAsync(
            work,
            next.People,
            string.Create(System.Globalization.CultureInfo.InvariantCulture, $"ask-{ask.Row.Id}-{work.Now.Ticks}"),
            $"{words}: {ask.Open.Number} for {ask.Open.Buyer.Name}, {ask.Fired[0].Words}",
            $"/asks/{ask.Row.Id}",
            cancel
        );
    }

    // The last grant clears a quote; one that goes less far than asked sends it back to be changed.
    private static QuoteState? Move(OpenSheet open, AskDoing doing, ApprovalState state)
    {
        if (open.Quote is not { State: QuoteState.InApproval } quote)
            return open.Quote?.State;
        var move = (doing, state) switch
        {
            (AskDoing.SendBack, _) => QuoteDoing.SendBack,
            (_, ApprovalState.Granted) => QuoteDoing.Grant,
            (AskDoing.Withdraw, _) => QuoteDoing.Rework,
            (_, ApprovalState.Needed) => QuoteDoing.SendBack,
            _ => (QuoteDoing?)null,
        };
        if (move is { } made)
            quote.State = QuoteMoves.Table.After(quote.State, made)!.Value;
        return quote.State;
    }
}
