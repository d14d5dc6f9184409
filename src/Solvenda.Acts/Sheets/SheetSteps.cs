using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Events;

namespace Solvenda.Acts.Sheets;

/// <summary>The changes of a sheet, newest first, and which of one's own can be taken back or put in again.</summary>
internal sealed class SheetSteps
{
    // Further back than this nobody remembers what a step was.
    private const int Remembered = 400;

    private readonly List<Step> _steps;
    private readonly long? _me;

    private SheetSteps(List<Step> steps, long? me) => (_steps, _me) = (steps, me);

    /// <summary>One change, as its event says it.</summary>
    public sealed record Step(long Id, long? WhoId, string Who, DateTime At, ISheetChange Facts);

    /// <summary>Codes of the events that change a sheet.</summary>
    public static string[] Codes =>
        [EventCodes.Of<SheetEdited>(), EventCodes.Of<SheetUndone>(), EventCodes.Of<SheetRedone>()];

    public static async Task<SheetSteps> OfAsync(SolvendaDb db, OpenSheet open, long? me, CancellationToken cancel)
    {
        var codes = Codes;
        var rows = await db
            .Events.AsNoTracking()
            .Where(e => e.Subject == open.Subject && codes.Contains(e.Code))
            .OrderByDescending(e => e.Id)
            .Take(Remembered)
            .ToListAsync(cancel);
        return new SheetSteps(
            [
                .. rows.Select(r => (Row: r, Facts: EventCodes.FromJson(r.Code, r.Facts) as ISheetChange))
                    .Where(r => r.Facts?.Sheet == open.Sheet.Id)
                    .Select(r => new Step(r.Row.Id, r.Row.WhoId, r.Row.Who, r.Row.At, r.Facts!)),
            ],
            me
        );
    }

    private IEnumerable<Step> Mine => _steps.Where(s => s.WhoId == _me);

    /// <summary>
    /// The newest that one typed, or put in again, and has not taken back since; null where there is none.
    /// </summary>
    public Step? ToUndo()
    {
        var undone = _steps.Select(s => s.Facts).OfType<SheetUndone>().Select(u => u.Of).ToHashSet();
        return Mine.FirstOrDefault(s => s.Facts is not SheetUndone && !undone.Contains(s.Id));
    }

    /// <summary>
    /// The newest that one took back and has not put in again, as long as one typed nothing else since; null where
    /// there is none.
    /// </summary>
    public Step? ToRedo()
    {
        var redone = new HashSet<long>();
        foreach (var step in Mine)
        {
            switch (step.Facts)
            {
                case SheetRedone again:
                    redone.Add(again.Of);
                    break;
                case SheetUndone when !redone.Contains(step.Id):
                    return step;
                case SheetEdited:
                    return null;
            }
        }
        return null;
    }

    /// <summary>The sheet with the changes of a step reversed.</summary>
    /// <exception cref="RefusedException">A field stands otherwise by now; it says whose that is.</exception>
    public Edited Back(Step step, OpenSheet open, Work work)
    {
        var back = SheetDoor.TakeBack(open.ToDraft(), step.Facts.Changes, open.FactsFor(work.Actor.Hand, work.Today));
        if (back.Refused is { } refused)
            throw RefusedException.Of(refused);
        return back.Clash is { } clash ? throw Clash(clash, _steps.TakeWhile(s => s.Id != step.Id)) : back;
    }

    private RefusedException Clash(FieldChange clash, IEnumerable<Step> since)
    {
        // Of several the newest of somebody else: what one did oneself since is no news.
        var later = since
            .Where(s =>
                s.Facts.Changes.Any(c =>
                    c.Line == clash.Line && (c.Field == clash.Field || c.Field == "line" || clash.Field == "line")
                )
            )
            .OrderBy(s => s.WhoId == _me)
            .FirstOrDefault();
        return RefusedException.Clash(
            "changed_since",
            $"{later?.Who ?? "Somebody"} changed that since; yours was not put over it.",
            later is null ? null : new[] { new ChangedMeanwhile(later.Who, later.At, later.Facts.Changes) }
        );
    }
}
