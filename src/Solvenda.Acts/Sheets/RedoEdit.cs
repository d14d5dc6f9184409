using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Sheets;

/// <summary>
/// Puts in again what one took back last, until one types something else. Where the same field stands otherwise by now
/// it is refused, and says who changed it. It counts as typed by whoever puts it in.
/// </summary>
public sealed record RedoEdit(long Sheet) : IAct<Judged>;

[Leaves(typeof(SheetRedone))]
public sealed class RedoEditAct(SheetLoader loader, Settling settling) : Act<RedoEdit, Judged>
{
    public override Right Needs => Rights.Write;

    public override async Task<Judged> RunAsync(Work work, RedoEdit input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        EditSheetAct.MustBeOpen(open);
        var steps = await SheetSteps.OfAsync(work.Db, open, work.Actor.PersonId, cancel);
        if (steps.ToRedo() is not { } step)
            throw RefusedException.Clash("nothing_to_redo", "There is nothing here that you took back last.");
        var again = steps.Back(step, open, work);
        var settled = await EditSheetAct.TakeAsync(work, open, again, settling, cancel);
        work.Leave(
            new SheetRedone(open.Sheet.Id, step.Id, again.Changes, settled.Overtaken, settled.Before, settled.After),
            open.Subject,
            open.Dossier.Id
        );
        return settled.Judged;
    }
}
