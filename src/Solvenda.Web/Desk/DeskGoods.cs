using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Shipping;
using Solvenda.Data;

namespace Solvenda.Web.Desk;

/// <summary>What is to leave the house today, warehouse by warehouse.</summary>
internal static class DeskGoods
{
    public static async Task<List<DeskItem>> OfAsync(SolvendaDb db, DateOnly today, CancellationToken cancel)
    {
        var due = await (
            from o in db.Orders
            join c in db.Commitments on o.Id equals c.OrderId
            where o.Terms == TermsTrack.Confirmed && o.HeldWhy == "" && o.Goods != GoodsTrack.Shipped && c.Day <= today
            // What is being picked is on its way already.
            where !db.Shipments.Any(s => s.OrderId == o.Id && s.State == ShipmentState.Picking)
            group o.Id by c.Warehouse into g
            select new { Warehouse = g.Key, Orders = g.Distinct().Count() }
        ).ToDictionaryAsync(g => g.Warehouse, g => g.Orders, cancel);
        var picking = await db
            .Shipments.Where(s => s.State == ShipmentState.Picking)
            .GroupBy(s => s.Warehouse)
            .Select(g => new { g.Key, Shipments = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Shipments, cancel);
        return
        [
            .. due
                .Keys.Union(picking.Keys)
                .Order(StringComparer.Ordinal)
                .Select(house => new DeskItem(
                    due.ContainsKey(house) ? Urgency.Today : Urgency.WhenThereIsTime,
                    "goods",
                    "",
                    $"/goods?warehouse={Uri.EscapeDataString(house)}",
                    house,
                    due.TryGetValue(house, out var orders)
                        ? string.Create(
                            CultureInfo.InvariantCulture,
                            $"{orders} {(orders == 1 ? "order leaves" : "orders leave")} today"
                        )
                        : "",
                    picking.TryGetValue(house, out var shipments)
                        ? string.Create(CultureInfo.InvariantCulture, $"{shipments} being picked")
                        : "none is being picked",
                    "goods",
                    null,
                    "",
                    null,
                    "pick",
                    2
                )),
        ];
    }
}
