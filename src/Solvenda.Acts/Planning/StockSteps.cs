using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Planning;

/// <summary>What acts on stock have in common.</summary>
internal static class StockSteps
{
    // A hundred thousand times what the demo's house ever had.
    public const decimal Most = 1_000_000_000m;

    /// <summary>The item of that code or key; refused where it is none that is kept in stock.</summary>
    public static async Task<ItemRow> ItemAsync(Work work, string code, CancellationToken cancel)
    {
        var item = await work.Db.Items.AsNoTracking().FirstOrDefaultAsync(i => i.Code == code, cancel);
        return item is { Stocked: true }
            ? item
            : throw RefusedException.Bad(
                "item_unknown",
                item is null ? $"There is no item “{code}”." : $"{code} is not kept in stock.",
                "item"
            );
    }

    /// <summary>A warehouse in use; refused where it is none.</summary>
    public static async Task<string> WarehouseAsync(Work work, string name, CancellationToken cancel)
    {
        var names = await HouseDays.WarehouseNamesAsync(work.Db, cancel);
        return names.Find(n => n.Equals(name.Trim(), StringComparison.OrdinalIgnoreCase))
            ?? throw RefusedException.Bad(
                "warehouse_unknown",
                $"“{name}” is none of the warehouses: {string.Join(", ", names)}.",
                "warehouse"
            );
    }

    /// <summary>Puts a change of the stock on its list, and what is on hand right.</summary>
    /// <returns>What is on hand since.</returns>
    public static async Task<decimal> MoveAsync(Work work, StockMovementRow movement, CancellationToken cancel)
    {
        var row = await work.Db.Stock.FirstOrDefaultAsync(
            s => s.ItemId == movement.ItemId && s.Warehouse == movement.Warehouse,
            cancel
        );
        if (row is null)
            work.Db.Stock.Add(row = new StockRow { ItemId = movement.ItemId, Warehouse = movement.Warehouse });
        row.OnHand += movement.Quantity;
        work.Db.StockMovements.Add(movement);
        return row.OnHand;
    }
}
