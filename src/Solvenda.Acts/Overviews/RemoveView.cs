using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Overviews;

/// <summary>Takes a saved view away.</summary>
public sealed record RemoveView(string Kind, long View) : IAct<string>;

[Leaves(typeof(ViewSaved))]
public sealed class RemoveViewAct : Act<RemoveView, string>
{
    public override Right Needs => Rights.Own;

    /// <returns>Its name.</returns>
    public override async Task<string> RunAsync(Work work, RemoveView input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var me = work.Actor.PersonId;
        var row =
            await work.Db.Views.FirstOrDefaultAsync(
                v => v.Id == input.View && v.Kind == input.Kind && (v.OwnerId == null || v.OwnerId == me),
                cancel
            ) ?? throw RefusedException.NotFound("such view");
        if (row.OwnerId is null && !SaveViewAct.MayForAll(ListKinds.Find(input.Kind), work.Actor))
            throw RefusedException.Forbidden("That view is everybody's.");
        work.Db.Views.Remove(row);
        work.Leave(new ViewSaved(input.Kind, row.Name, row.OwnerId is null, true), $"views:{input.Kind}");
        return row.Name;
    }
}
