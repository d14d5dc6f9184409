using System.Collections.Immutable;
using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>The proofs there are, and how they are gone through.</summary>
public static class ProofList
{
    // A database that is wrong in one way is often wrong a thousand times; so many are told of each.
    private const int Told = 10;

    /// <summary>All of them, in their order.</summary>
    public static ImmutableArray<IProof> All(PriceBooks books, SealedHeads heads) =>
        [
            new EventsAreChained(),
            new HeadsAreInTheChain(heads),
            new NothingIsOrphaned(),
            new TotalsAreOfTheirLines(books),
            new StockIsCommittedOnce(books),
            new StockIsWhatMoved(),
            new LedgerBalances(),
            new LedgerIsWhatIsOwed(),
            new InvoicesHaveNoGap(),
        ];

    /// <summary>Goes through all of them and prints each; ends with "N checks, M wrong".</summary>
    /// <returns>How many are wrong.</returns>
    public static async Task<int> RunAsync(
        IReadOnlyCollection<IProof> proofs,
        SolvendaDb db,
        TextWriter answer,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(proofs);
        ArgumentNullException.ThrowIfNull(answer);
        var wrong = 0;
        foreach (var proof in proofs)
        {
            var faults = 0;
            await foreach (var fault in proof.FaultsAsync(db, cancel))
            {
                if (faults++ == 0)
                    await answer.WriteLineAsync($"wrong  {proof.Holds}");
                if (faults <= Told)
                    await answer.WriteLineAsync($"       {fault}");
            }
            if (faults > Told)
                await answer.WriteLineAsync($"       and {faults - Told} more");
            if (faults == 0)
                await answer.WriteLineAsync($"holds  {proof.Holds}");
            wrong += faults > 0 ? 1 : 0;
        }
        await answer.WriteLineAsync($"{proofs.Count} checks, {wrong} wrong");
        return wrong;
    }
}
