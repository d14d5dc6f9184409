using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Approvals;

/// <summary>Sends an ask back with a note: to be changed, and asked again.</summary>
public sealed record SendBackAsk(long Ask, string Note) : IAct<DocumentRef>;

[Leaves(typeof(AskSentBack))]
public sealed class SendBackAskAct(Deciding deciding) : Act<SendBackAsk, DocumentRef>
{
    public override Right Needs => Rights.Decide;

    public override async Task<DocumentRef> RunAsync(Work work, SendBackAsk input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (string.IsNullOrWhiteSpace(input.Note))
            throw RefusedException.Bad("note_missing", "Say what should change; the seller reads it.", "note");
        var (ask, before, after) = await deciding.DecideAsync(work, input.Ask, AskDoing.SendBack, input.Note, cancel);
        work.Leave(
            new AskSentBack(ask.Row.Id, work.Actor.Name, before, after),
            ask.Open.Subject,
            ask.Open.Dossier.Id,
            ask.Row.Note
        );
        return ask.Open.Ref;
    }
}
