using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Events;

namespace Solvenda.Acts.Sheets;

/// <summary>
/// Takes back one's own last change of a sheet, whatever others did elsewhere meanwhile. Where the same field stands
/// otherwise by now it is refused, and
/// says who changed it. What comes back counts as typed by whoever takes it back.
/// </summary>
public sealed record UndoEdit(long Sheet) : IAct<Judged>;

[Leaves(typeof(SheetUndone))]
public sealed class UndoEditAct(SheetLoader loader, Settling settling) : Act<UndoEdit, Judged>
{
    public override Right Needs => Rights.Write;

    public override async Task<Judged> RunAsync(Work work, UndoEdit input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        EditSheetAct.MustBeOpen(open);
        var steps = await SheetSteps.OfAsync(work.Db, open, work.Actor.PersonId, cancel);
        if (steps.ToUndo() is not { } step)
            throw RefusedException.Clash("nothing_to_undo", "There is no change of yours here to take back.");
        var back = steps.Back(step, open, work);
        var settled = await EditSheetAct.TakeAsync(work, open, back, settling, cancel);
        work.Leave(
            new SheetUndone(open.Sheet.Id, step.Id, back.Changes, settled.Overtaken, settled.Before, settled.After),
            open.Subject,
            open.Dossier.Id
        );
        return settled.Judged;
    }
}
