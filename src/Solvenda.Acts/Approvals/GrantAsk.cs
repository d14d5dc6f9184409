using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Approvals;

/// <summary>Says yes to an ask: to what was shown, and to nothing worse.</summary>
public sealed record GrantAsk(long Ask, string Note) : IAct<DocumentRef>;

[Leaves(typeof(AskGranted))]
public sealed class GrantAskAct(Deciding deciding) : Act<GrantAsk, DocumentRef>
{
    public override Right Needs => Rights.Decide;

    public override async Task<DocumentRef> RunAsync(Work work, GrantAsk input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (ask, before, after) = await deciding.DecideAsync(work, input.Ask, AskDoing.Grant, input.Note, cancel);
        work.Leave(
            new AskGranted(ask.Row.Id, work.Actor.Name, before, after),
            ask.Open.Subject,
            ask.Open.Dossier.Id,
            ask.Row.Note.Length > 0 ? ask.Row.Note : null
        );
        return ask.Open.Ref;
    }
}
