using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Web.Finder;

/// <summary>
/// What is free of an item now, in its stock unit, over all warehouses: on hand less what is promised.
/// </summary>
internal static class StockHere
{
    public static async Task<Dictionary<long, decimal>> FreeAsync(
        SolvendaDb db,
        List<long> items,
        CancellationToken cancel
    )
    {
        var stock = await db
            .Stock.Where(s => items.Contains(s.ItemId))
            .Select(s => new { s.ItemId, s.OnHand })
            .ToListAsync(cancel);
        var committed = (
            await db
                .Commitments.Where(c => items.Contains(c.ItemId))
                .Select(c => new { c.ItemId, c.Quantity })
                .ToListAsync(cancel)
        ).ToLookup(c => c.ItemId, c => c.Quantity);
        return stock
            .GroupBy(s => s.ItemId)
            .ToDictionary(g => g.Key, g => Math.Max(0m, g.Sum(s => s.OnHand) - committed[g.Key].Sum()));
    }
}
