using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Assortments;

/// <summary>Keeps an assortment no more; sheets that were made with it stay.</summary>
public sealed record RemoveAssortment(long Id) : IAct<long>;

[Leaves(typeof(AssortmentKept))]
public sealed class RemoveAssortmentAct : Act<RemoveAssortment, long>
{
    public override Right Needs => Rights.Write;

    /// <returns>Key of what was the assortment.</returns>
    public override async Task<long> RunAsync(Work work, RemoveAssortment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Assortments.FirstOrDefaultAsync(
                a => a.Id == input.Id && (a.OwnerId == null || a.OwnerId == work.Actor.PersonId),
                cancel
            ) ?? throw RefusedException.NotFound("such assortment");
        if (row.OwnerId is null && !Rights.Records.Allows(work.Actor))
            throw RefusedException.Forbidden("The house’s assortments are not yours to change.");
        work.Db.Assortments.Remove(row);
        var lines = row.Lines.Split('\n').Length;
        work.Leave(new AssortmentKept(row.Name, row.OwnerId is null, lines, true), $"assortments:{row.Id}");
        return row.Id;
    }
}
