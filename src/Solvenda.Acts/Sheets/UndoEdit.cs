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
    // Further back than this nobody remembers what a step was.
    private const int Remembered = 400;

    public override Right Needs => Rights.Write;

    public override async Task<Judged> RunAsync(Work work, UndoEdit input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        EditSheetAct.MustBeOpen(open);
        var steps = await StepsAsync(work.Db, open, cancel);
        var undone = steps.Select(s => s.Facts).OfType<SheetUndone>().Select(u => u.Of).ToHashSet();
        var (id, facts) = steps
            .Where(s => s.WhoId == work.Actor.PersonId && s.Facts is SheetEdited && !undone.Contains(s.Id))
            .Select(s => (s.Id, (SheetEdited)s.Facts))
            .FirstOrDefault();
        if (facts is null)
            throw RefusedException.Clash("nothing_to_undo", "There is no change of yours here to take back.");
        var back = SheetDoor.TakeBack(open.ToDraft(), facts.Changes, open.FactsFor(work.Actor.Hand, work.Today));
        if (back.Refused is { } refused)
            throw RefusedException.Of(refused);
        if (back.Clash is { } clash)
            throw Clash(clash, steps.TakeWhile(s => s.Id != id), work.Actor.PersonId);
        var settled = await EditSheetAct.TakeAsync(work, open, back, settling, cancel);
        work.Leave(
            new SheetUndone(open.Sheet.Id, id, back.Changes, settled.Overtaken, settled.Before, settled.After),
            open.Subject,
            open.Dossier.Id
        );
        return settled.Judged;
    }

    private sealed record Step(long Id, long? WhoId, string Who, DateTime At, IEvent Facts)
    {
        public ImmutableArray<FieldChange> Changes =>
            Facts switch
            {
                SheetEdited e => e.Changes,
                SheetUndone u => u.Changes,
                _ => [],
            };
    }

    // Newest first.
    private static async Task<List<Step>> StepsAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        string[] codes = [EventCodes.Of<SheetEdited>(), EventCodes.Of<SheetUndone>()];
        var rows = await db
            .Events.AsNoTracking()
            .Where(e => e.Subject == open.Subject && codes.Contains(e.Code))
            .OrderByDescending(e => e.Id)
            .Take(Remembered)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(r => (Row: r, Facts: EventCodes.FromJson(r.Code, r.Facts)))
                .Where(r =>
                    (r.Facts as SheetEdited)?.Sheet == open.Sheet.Id || (r.Facts as SheetUndone)?.Sheet == open.Sheet.Id
                )
                .Select(r => new Step(r.Row.Id, r.Row.WhoId, r.Row.Who, r.Row.At, r.Facts!)),
        ];
    }

    private static RefusedException Clash(FieldChange clash, IEnumerable<Step> since, long? me)
    {
        // Of several the newest of somebody else: what one did oneself since is no news.
        var later = since
            .Where(s =>
                s.Changes.Any(c =>
                    c.Line == clash.Line && (c.Field == clash.Field || c.Field == "line" || clash.Field == "line")
                )
            )
            .OrderBy(s => s.WhoId == me)
            .FirstOrDefault();
        return RefusedException.Clash(
            "changed_since",
            $"{later?.Who ?? "Somebody"} changed that since; yours was not taken back over it.",
            later is null ? null : new[] { new ChangedMeanwhile(later.Who, later.At, later.Changes) }
        );
    }
}
