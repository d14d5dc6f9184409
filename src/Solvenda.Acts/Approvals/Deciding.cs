using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Acts.Approvals;

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
        var judged = await JudgedAsync(work.Db, ask, cancel);
        if (ask.WhyNot(me.Person, judged?.Approval ?? Judgement.Nothing) is { } refused)
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
        if (doing == AskDoing.Grant && ask.Change is { } change)
            await Changing.KeepAsync(work, change, cancel);
        var (before, after) = await MovedAsync(work, ask, judged, doing, cancel);
        await TellAskerAsync(
            work,
            ask,
            outcome switch
            {
                AskOutcome.SentBack => $"{me.Name} sent back what you asked about {ask.Called}: {note.Trim()}",
                _ when ask.Row.UpTo is not null => $"{me.Name} granted less than you asked about {ask.Called}",
                _ => $"{me.Name} granted what you asked about {ask.Called}",
            },
            cancel
        );
        return new Decided(ask, before, after, null);
    }

    /// <summary>Its sheet as its owner would send it; null where it is about something on file.</summary>
    public async Task<Judged?> JudgedAsync(SolvendaDb db, OpenAsk ask, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return ask.Sheet is { } open ? await judge.JudgeAsync(db, open, open.Owner.Hand, cancel) : null;
    }

    /// <summary>Judges the sheet again after an ask was answered, and moves its quote.</summary>
    public async Task<(QuoteState? Before, QuoteState? After)> MovedAsync(
        Work work,
        OpenAsk ask,
        Judged? judged,
        AskDoing doing,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(ask);
        if (judged is null)
            return (null, null);
        var after = await judge.JudgeAsync(work.Db, ask.Open, judged.Priced, ask.Open.Owner.Hand, cancel);
        Settling.KeepStops(after);
        return (ask.Open.Quote?.State, Move(ask.Open, doing, after.Approval.State));
    }

    /// <summary>Tells whoever asked, and the seller on the head, what became of it.</summary>
    public Task TellAskerAsync(Work work, OpenAsk ask, string words, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return telling.TellAsync(
            work,
            [new PersonId(ask.Row.AskedById), ask.Owner],
            string.Create(System.Globalization.CultureInfo.InvariantCulture, $"ask-{ask.Row.Id}-{work.Now.Ticks}"),
            words,
            ask.Path,
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
        return new Decided(ask, ask.Sheet?.Quote?.State, ask.Sheet?.Quote?.State, next.NamesOf(ask.People));
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
            $"{words}: {ask.Called}, {ask.Fired[0].Words}",
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
