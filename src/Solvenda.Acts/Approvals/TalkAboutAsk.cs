using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;

namespace Solvenda.Acts.Approvals;

/// <summary>
/// Asks something back about an ask, or answers it: by whom it waits for, and by who asked or whose sheet it is.
/// Nothing is decided by it, and the time to answer begins anew.
/// </summary>
public sealed record TalkAboutAsk(long Ask, string Words) : IAct<DocumentRef>;

[Leaves(typeof(AskTalked))]
public sealed class TalkAboutAskAct(AskLoader asks, AskClock clock, Telling telling) : Act<TalkAboutAsk, DocumentRef>
{
    public override Right Needs => Rights.Own;

    public override async Task<DocumentRef> RunAsync(Work work, TalkAboutAsk input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var words = input.Words.Trim();
        if (words.Length is 0 or > SheetDoor.MostLetters)
            throw RefusedException.Bad("words_missing", "Say what you want to know, or the answer.", "words");
        var ask = await asks.AskAsync(work.Db, input.Ask, cancel);
        if (AskMoves.Table.After(ask.Row.Outcome, AskDoing.Talk) is null)
            throw RefusedException.Clash("ask_decided", "It was decided or withdrawn already.");
        var me = new PersonId(work.Actor.PersonId!.Value);
        var isQuestion = ask.IsHeldBy(me);
        if (!isQuestion && !ask.Involved.Contains(me))
            throw RefusedException.Forbidden("Who has the ask asks back, and who asked answers.");
        var answered = ask.Row.QuestionById;
        (ask.Row.Question, ask.Row.QuestionById) = isQuestion ? (words, (long?)me.Value) : ((string?)null, null);
        // While somebody's answer is awaited, the time of who asked back does not run.
        ask.Row.DueAt = isQuestion
            ? null
            : await clock.DueAsync(work.Db, work.Now, ask.Row.PatienceHours, ask.HolderIds, cancel);
        work.Leave(new AskTalked(ask.Row.Id, isQuestion), ask.Subject, ask.Dossier, words);
        PersonId[] told =
            isQuestion ? [new(ask.Row.AskedById), ask.Owner]
            : answered is { } by ? [new(by)]
            : [.. ask.HolderIds];
        await telling.TellAsync(
            work,
            told,
            string.Create(System.Globalization.CultureInfo.InvariantCulture, $"ask-{ask.Row.Id}-{work.Now.Ticks}"),
            $"{work.Actor.Name} {(isQuestion ? "asks" : "answers")} about {ask.Called}: {words}",
            $"/asks/{ask.Row.Id}",
            cancel
        );
        return ask.Ref;
    }
}
