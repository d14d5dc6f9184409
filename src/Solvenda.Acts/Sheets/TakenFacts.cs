using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;

namespace Solvenda.Acts.Sheets;

/// <summary>Gathers how much the buyer took of the items before; Core judges.</summary>
internal static class TakenFacts
{
    // What they took in older ones says little of what they take next.
    private const int OrdersLookedAt = 60;

    public static async Task<Dictionary<ItemId, TakenBefore>> GatherAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedSheet priced,
        CancellationToken cancel
    )
    {
        var items = priced
            .Sold.Where(l => l.Item is not null)
            .Select(l => l.Item!)
            .DistinctBy(i => i.Id)
            .ToDictionary(i => i.Id);
        if (items.Count == 0)
            return [];
        var sheets = db
            .Orders.Sold()
            .Where(o => o.Dossier.BuyerId == open.Buyer.Id && o.SheetId != open.Sheet.Id)
            .OrderByDescending(o => o.Id)
            .Take(OrdersLookedAt)
            .Select(o => o.SheetId);
        // Least and most of each item in each unit, worked out by the database: the lines themselves may be thousands.
        var taken = await db
            .SheetLines.Where(l => l.ItemId != null && l.Quantity > 0 && sheets.Contains(l.SheetId))
            .GroupBy(l => new { l.ItemId, l.Unit })
            .Select(g => new
            {
                g.Key.ItemId,
                g.Key.Unit,
                Least = g.Min(l => l.Quantity),
                Most = g.Max(l => l.Quantity),
                Times = g.Count(),
            })
            .ToListAsync(cancel);
        return taken
            .Select(t => (Item: items.GetValueOrDefault(new ItemId(t.ItemId!.Value)), Taken: t))
            .Where(t => t.Item is not null)
            .Select(t => (t.Item!.Id, Factor: t.Item.Factor(Unit.Of(t.Taken.Unit)) ?? 0m, t.Taken))
            .Where(t => t.Factor > 0)
            .GroupBy(t => t.Id)
            .ToDictionary(
                g => g.Key,
                g => new TakenBefore(
                    g.Min(t => t.Taken.Least * t.Factor),
                    g.Max(t => t.Taken.Most * t.Factor),
                    g.Sum(t => t.Taken.Times)
                )
            );
    }
}
