using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Piles;

/// <summary>Names one's pile anew, shares it or keeps it to oneself, or takes it away; what lies on it stays.</summary>
/// <param name="Remove">Takes it away.</param>
public sealed record ChangePile(string Pile, string Name, bool Shared, bool Remove) : IAct<string>;

[Leaves(typeof(PileChanged))]
public sealed class ChangePileAct : Act<ChangePile, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>Its name.</returns>
    public override async Task<string> RunAsync(Work work, ChangePile input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var pile = await PileSteps.FindAsync(work, input.Pile, cancel);
        if (pile.OwnerId != work.Actor.PersonId)
            throw RefusedException.Forbidden("That pile is somebody else’s; it was left as it is.");
        if (input.Remove)
        {
            work.Db.PileItems.RemoveRange(await work.Db.PileItems.Where(i => i.PileId == pile.Id).ToListAsync(cancel));
            work.Db.Piles.Remove(pile);
        }
        else
            (pile.Name, pile.Shared) = (PileSteps.Name(input.Name), input.Shared);
        work.Leave(new PileChanged(pile.Name, pile.Shared, input.Remove), PileSteps.Subject(pile));
        return pile.Name;
    }
}
