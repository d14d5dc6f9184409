using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Shipping;

/// <summary>Shows a shipment to whoever picks it, in the order in which the shelves are walked.</summary>
internal static class ShipmentViews
{
    public static async Task<ShipmentView> OfAsync(SolvendaDb db, string number, bool mayShip, CancellationToken cancel)
    {
        var shipment =
            await db
                .Shipments.AsNoTracking()
                .Include(s => s.Lines)
                .Include(s => s.Picks)
                .Include(s => s.Order.Sheet.StoredLines)
                .Include(s => s.Order.Dossier.Buyer)
                .FirstOrDefaultAsync(s => s.Number == number, cancel)
            ?? throw RefusedException.NotFound("such shipment");
        var ids = shipment.Picks.ConvertAll(p => p.ItemId);
        var items = await db
            .Items.AsNoTracking()
            .Where(i => EF.Parameter(ids).Contains(i.Id))
            .ToDictionaryAsync(i => i.Id, cancel);
        var bins = await db
            .Stock.AsNoTracking()
            .Where(s => s.Warehouse == shipment.Warehouse && EF.Parameter(ids).Contains(s.ItemId))
            .ToDictionaryAsync(s => s.ItemId, cancel);
        var sheet = shipment.Order.Sheet;
        var beyond = await GoingBeyond.OfAsync(db, shipment, cancel);
        decimal Most(ShipmentPickRow pick) => GoingBeyond.MostOf(shipment, pick, beyond);
        var lines = sheet.ToDraft().Lines.ToDictionary(l => l.Key);
        return new ShipmentView(
            shipment.Number,
            shipment.Version,
            shipment.Order.Number,
            shipment.Order.Dossier.Buyer.Name,
            shipment.State,
            shipment.Warehouse,
            shipment.Carrier,
            shipment.Wave,
            shipment.DeliverTo,
            shipment.ByName,
            HeadTerms.ForWarehouse.In(sheet.Head) ?? "",
            [
                .. shipment
                    .Picks.Select(p => Of(p, items[p.ItemId], bins.GetValueOrDefault(p.ItemId), lines, Most(p)))
                    .OrderBy(p => p.Bin.Length == 0)
                    .ThenBy(p => p.Bin, StringComparer.Ordinal)
                    .ThenBy(p => p.Item, StringComparer.Ordinal)
                    .ThenBy(p => p.Line),
            ],
            [
                .. shipment
                    .Lines.Where(l => !shipment.Picks.Exists(p => p.LineKey == l.LineKey))
                    .Select(l => $"{Releasing.Said(l.Quantity, lines[l.LineKey].Unit)} {lines[l.LineKey].Words}"),
            ],
            shipment.Parcels,
            shipment.WeightKg,
            shipment.Tracking,
            await Sending.FollowAtAsync(db, shipment, cancel),
            shipment.Day,
            shipment.Delivered,
            shipment.PrintId is not null,
            ExportPapers.Needed(sheet.Head, shipment.Order.Dossier.Buyer),
            mayShip
        );
    }

    /// <summary>How far the goods of an order are.</summary>
    public static async Task<OrderGoodsView> OfOrderAsync(
        SolvendaDb db,
        string number,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var found =
            await db
                .Orders.Where(o => o.Number == number)
                .Select(o => new { o.Id, o.Sheet.Head })
                .FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such order");
        var (order, kind) = (found.Id, OrderKind.In(found.Head));
        var goods = (await GoodsBook.OfAsync(db, [order], today, cancel))[order];
        var could = goods.CouldGo().ToLookup(p => p.Line, p => p.Quantity);
        var shipments = await db
            .Shipments.AsNoTracking()
            .Where(s => s.OrderId == order)
            .OrderBy(s => s.No)
            .ToListAsync(cancel);
        var follow = new List<ShipmentOfOrder>();
        foreach (var s in shipments)
            follow.Add(
                new ShipmentOfOrder(
                    s.Number,
                    s.State,
                    s.Carrier,
                    s.Tracking,
                    await Sending.FollowAtAsync(db, s, cancel),
                    s.Day,
                    s.Delivered
                )
            );
        return new OrderGoodsView(
            number,
            kind.IsFrame,
            kind.IsAtCounter,
            [
                .. goods.Lines.Select(l => new GoodsLineView(
                    l.Line.Key,
                    l.Line.Words,
                    UnitTable.OnSheet(l.Line.Unit),
                    l.SoFar.Ordered,
                    l.SoFar.Gone,
                    l.SoFar.InWork,
                    could[l.Line.Key].Sum(),
                    l.Promised
                )),
            ],
            follow
        );
    }

    private static PickView Of(
        ShipmentPickRow pick,
        ItemRow item,
        StockRow? shelf,
        Dictionary<long, SheetLine> lines,
        decimal most
    ) =>
        new(
            pick.LineKey,
            shelf?.Bin ?? "",
            item.Code,
            item.Words,
            pick.Quantity,
            pick.Picked,
            UnitTable.OnSheet(Unit.Of(item.StockUnit)),
            item.HasSerials,
            pick.Serials.Split(' ', StringSplitOptions.RemoveEmptyEntries),
            item.HasLots,
            pick.Lots,
            shelf?.Lot ?? "",
            lines[pick.LineKey].ForWarehouse,
            most
        );
}
