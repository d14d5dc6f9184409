using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Data;

namespace Solvenda.Web.Items;

/// <summary>An item's stock: in each warehouse, and what moves it ahead.</summary>
internal static class ItemStock
{
    private const int MostAhead = 40;

    public static async Task<(List<WarehouseView> Stock, List<StockAhead> Ahead)> OfAsync(
        SolvendaDb db,
        long item,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var onHand = await db
            .Stock.Where(s => s.ItemId == item)
            .Select(s => new { s.Warehouse, s.OnHand })
            .ToListAsync(cancel);
        var incoming = await db
            .Incoming.Where(s => s.ItemId == item)
            .OrderBy(s => s.Due)
            .Select(s => new StockAhead(s.Due, s.Warehouse, s.Quantity, "arrives", null))
            .ToListAsync(cancel);
        var committed = await (
            from c in db.Commitments
            join o in db.Orders on c.OrderId equals o.Id
            where c.ItemId == item
            orderby c.Day
            select new StockAhead(c.Day, c.Warehouse, -c.Quantity, o.Dossier.Buyer.Name, o.Number)
        ).ToListAsync(cancel);
        var keptBack = await (
            from r in KeptBack.On(db, today)
            join q in db.Quotes on r.QuoteId equals q.Id
            where r.ItemId == item
            select new StockAhead(
                r.Until,
                r.Warehouse,
                -r.Quantity,
                "kept back for " + q.Dossier.Buyer.Name + ", " + q.Number,
                null
            )
        ).ToListAsync(cancel);
        var stock = onHand.ConvertAll(s =>
        {
            var promised = -committed.Where(c => c.Warehouse == s.Warehouse).Sum(c => c.Quantity);
            var comes = incoming.Where(i => i.Warehouse == s.Warehouse).Sum(i => i.Quantity);
            return new WarehouseView(s.Warehouse, s.OnHand, promised, comes, Math.Max(0m, s.OnHand - promised));
        });
        return (stock, [.. incoming.Concat(committed).Concat(keptBack).OrderBy(a => a.Day).Take(MostAhead)]);
    }
}
