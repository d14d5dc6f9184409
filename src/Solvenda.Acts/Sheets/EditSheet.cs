using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Acts.Sheets;

/// <summary>Types on a sheet: edits together or not at all, on the version that was seen.</summary>
/// <param name="Seen">Version of the sheet.</param>
public sealed record EditSheet(long Sheet, IReadOnlyList<SheetEdit> Edits, long? Seen) : IAct<Judged>;

[Leaves(typeof(SheetEdited))]
public sealed class EditSheetAct(SheetLoader loader, Settling settling) : Act<EditSheet, Judged>
{
    public override Right Needs => Rights.Write;

    public override async Task<Judged> RunAsync(Work work, EditSheet input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        MustBeOpen(open);
        if (!work.Actor.SeesCost && input.Edits.Any(e => e.Field == "cost" && e.Line is not null))
            throw RefusedException.Forbidden("What things cost is not yours to see, nor to type.");
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel);
        var edited = SheetDoor.Take(open.ToDraft(), input.Edits, open.FactsFor(work.Actor.Hand, work.Today));
        return await TypedAsync(work, open, edited, settling, cancel);
    }

    /// <summary>Takes what was typed, or pasted, and leaves it as one step; refused where it was.</summary>
    internal static async Task<Judged> TypedAsync(
        Work work,
        OpenSheet open,
        Edited edited,
        Settling settling,
        CancellationToken cancel
    )
    {
        if (edited.Refused is { } refused)
            throw RefusedException.Of(refused);
        var settled = await TakeAsync(work, open, edited, settling, cancel);
        if (!edited.Changes.IsEmpty)
            work.Leave(
                new SheetEdited(open.Sheet.Id, edited.Changes, settled.Overtaken, settled.Before, settled.After),
                open.Subject,
                open.Dossier.Id
            );
        return settled.Judged;
    }

    internal static void MustBeOpen(OpenSheet open)
    {
        if (!open.IsEditable)
            throw RefusedException.Clash(
                "sheet_closed",
                open.Kind == DocumentKind.Quote
                    ? "This revision left the house; a change takes a new revision."
                    : "The order is confirmed; it is not changed here any more."
            );
    }

    internal static async Task<Settled> TakeAsync(
        Work work,
        OpenSheet open,
        Edited edited,
        Settling settling,
        CancellationToken cancel
    )
    {
        open.Take(edited);
        if (open.Order is { } order)
            order.PoKey = PoKey.Of(open.Sheet.PoNumber, HeadTerms.Release.In(open.Sheet.Head));
        open.Sheet.Version++;
        return await settling.SettleAsync(work, open, cancel);
    }
}
