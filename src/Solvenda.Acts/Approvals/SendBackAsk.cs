using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Approvals;

/// <summary>Sends an ask back with a note: to be changed, and asked again.</summary>
/// <param name="Marks">Keys of the lines that the note is about; those that the sheet does not have are left
/// out.</param>
public sealed record SendBackAsk(long Ask, string Note, IReadOnlyList<long>? Marks = null) : IAct<DocumentRef>;

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
        var decided = await deciding.DecideAsync(
            work,
            input.Ask,
            AskDoing.SendBack,
            input.Note,
            cancel,
            a =>
                a.Row.Marks = string.Join(
                    ',',
                    (a.Sheet?.Sheet.Lines ?? [])
                        .Select(l => l.Key)
                        .Where(k => input.Marks?.Contains(k) == true)
                        .Select(k => k.ToString(CultureInfo.InvariantCulture))
                )
        );
        var ask = decided.Ask;
        work.Leave(
            new AskSentBack(ask.Row.Id, work.Actor.Name, decided.Before, decided.After, AskFacts.MarksOf(ask.Row)),
            ask.Subject,
            ask.Dossier,
            ask.Row.Note
        );
        return ask.Ref;
    }
}
