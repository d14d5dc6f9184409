using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>What lies in a warehouse is what was counted, came and went, all together.</summary>
public sealed class StockIsWhatMoved : IProof
{
    /// <inheritdoc />
    public string Holds => "what lies there is what came and went";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var moved = (
            await db
                .StockMovements.AsNoTracking()
                .Select(m => new
                {
                    m.ItemId,
                    m.Warehouse,
                    m.Quantity,
                })
                .ToListAsync(cancel)
        ).GroupBy(m => (m.ItemId, m.Warehouse)).ToDictionary(g => g.Key, g => g.Sum(m => m.Quantity));
        var codes = await db.Items.ToDictionaryAsync(i => i.Id, i => i.Code, cancel);
        foreach (var row in await db.Stock.AsNoTracking().ToListAsync(cancel))
        {
            moved.Remove((row.ItemId, row.Warehouse), out var sum);
            if (sum != row.OnHand)
                yield return FormattableString.Invariant(
                    $"{codes[row.ItemId]} has {row.OnHand:0.######} in {row.Warehouse} where {sum:0.######} moved"
                );
        }
        foreach (var ((item, warehouse), sum) in moved.Where(m => m.Value != 0))
            yield return FormattableString.Invariant(
                $"{codes[item]} moved by {sum:0.######} in {warehouse}, and nothing lies there"
            );
    }
}
