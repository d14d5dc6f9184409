using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Overviews;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Piles;

/// <summary>Takes documents off a pile; they stay what they are.</summary>
/// <param name="Kind">The list that they stand in.</param>
public sealed record TakeOffPile(string Pile, string Kind, ImmutableArray<string> Numbers) : IAct<int>;

[Leaves(typeof(PileTaken))]
public sealed class TakeOffPileAct : Act<TakeOffPile, int>
{
    public override Right Needs => Rights.Write;

    /// <returns>How many were taken off.</returns>
    public override async Task<int> RunAsync(Work work, TakeOffPile input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var pile = await PileSteps.FindAsync(work, input.Pile, cancel);
        var numbers = input.Numbers.ToList();
        var there = await work
            .Db.PileItems.Where(i =>
                i.PileId == pile.Id && i.Kind == input.Kind && EF.Parameter(numbers).Contains(i.Number)
            )
            .ToListAsync(cancel);
        work.Db.PileItems.RemoveRange(there);
        work.Leave(new PileTaken(pile.Name, ListKinds.Find(input.Kind).One, there.Count), PileSteps.Subject(pile));
        return there.Count;
    }
}
