using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Shipping;

/// <summary>So much of a line is to go.</summary>
/// <param name="Key">Of the line.</param>
/// <param name="Quantity">In the order's unit.</param>
public sealed record AskedGoods(long Key, decimal Quantity);

/// <summary>
/// Releases goods of confirmed orders: makes the shipments that they go with. Nothing leaves the stock yet.
/// </summary>
public sealed class Releasing(Judge judge)
{
    /// <summary>Makes the shipments of what may go.</summary>
    /// <param name="asked">What is to go; empty: all that may, as the buyer wants it.</param>
    /// <param name="goesNow">It goes in the same step, and with it what the buyer takes beyond what they
    /// ordered.</param>
    /// <returns>One for each warehouse and place.</returns>
    public async Task<ImmutableArray<ShipmentRow>> ReleaseAsync(
        Work work,
        OpenSheet open,
        ImmutableArray<AskedGoods> asked,
        CancellationToken cancel,
        bool goesNow = false
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(open);
        var order = open.Order!;
        var judged = await MayShipAsync(work, open, judge, cancel);
        var goods = (await GoodsBook.OfAsync(work.Db, [order.Id], work.Today, cancel))[order.Id];
        var beyond = goesNow
            ? await GoingBeyond.PercentOfAsync(work.Db, open.Sheet, open.Buyer.OverDelivery, cancel)
            : 0m;
        var parts = asked.IsDefaultOrEmpty ? MayGo(order, goods) : Asked(order, goods, asked, beyond);
        var carriers = await Carriers.InUseAsync(work.Db, cancel);
        var last = await work.Db.Shipments.Where(s => s.OrderId == order.Id).MaxAsync(s => (int?)s.No, cancel) ?? 0;
        var lines = goods.Lines.ToDictionary(l => l.Line.Key);
        // What lies on no shelf leaves with what does.
        var house =
            parts.FirstOrDefault(p => p.Warehouse.Length > 0)?.Warehouse
            ?? HeadTerms.ShipFrom.In(open.Sheet.Head)
            ?? "";
        var opened = goods.Open().ToLookup(o => (o.Line, o.Warehouse));
        var made = new List<ShipmentRow>();
        foreach (
            var group in parts
                .Where(p => p.Quantity > 0m)
                .GroupBy(p =>
                    (House: p.Warehouse.Length > 0 ? p.Warehouse : house, To: PlaceOf(open, lines[p.Line].Line))
                )
        )
        {
            var shipment = new ShipmentRow
            {
                Number = string.Create(CultureInfo.InvariantCulture, $"{order.Number}/{++last}"),
                OrderId = order.Id,
                Order = order,
                No = last,
                Warehouse = group.Key.House,
                DeliverTo = group.Key.To,
                BegunAt = work.Now,
            };
            foreach (var part in group)
                Add(shipment, part, opened[(part.Line, part.Warehouse)].First(), lines[part.Line]);
            shipment.WeightKg = WeightOf(shipment, open);
            shipment.Carrier = judged.Priced.Sheet.Kind.IsAtCounter
                ? ""
                : Carriers.For(carriers, judged.Priced.Freight.Service ?? "", shipment.WeightKg);
            work.Db.Shipments.Add(shipment);
            made.Add(shipment);
        }
        await work.Db.SaveChangesAsync(cancel);
        foreach (var shipment in made)
            await LeaveAsync(work, open, shipment, cancel);
        return [.. made];
    }

    /// <summary>Refuses to ship what may not be: not confirmed, held, a frame, or over the credit limit.</summary>
    public static async Task<Judged> MayShipAsync(Work work, OpenSheet open, Judge judge, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(judge);
        var order = open.Order!;
        if (order.Terms != TermsTrack.Confirmed)
            throw RefusedException.Clash(
                "order_state",
                order.Terms == TermsTrack.Cancelled
                    ? $"{order.Number} is cancelled; nothing of it goes."
                    : $"{order.Number} is not confirmed; nothing of it goes before it is."
            );
        if (order.HeldWhy.Length > 0)
            throw RefusedException.Clash("order_held", $"{order.Number} is held: {order.HeldWhy}");
        if (OrderKind.In(open.Sheet.Head).IsFrame)
            throw RefusedException.Clash(
                "frame",
                $"{order.Number} is a frame: goods go with what is called off of it."
            );
        var judged = await judge.JudgeAsync(work.Db, open, work.Actor.Hand, cancel);
        var credit = judged.Stops.FirstOrDefault(f => f.Check == "credit");
        return credit is null
            ? judged
            : throw RefusedException.Clash(
                "stopped",
                FoundFact.Of(credit, work.Actor).Words,
                FoundFact.Of(judged, work.Actor)
            );
    }

    private static ImmutableArray<GoingPart> MayGo(OrderRow order, OrderGoods goods)
    {
        var parts = goods.MayGo();
        if (parts.Any(p => p.Quantity > 0m))
            return parts;
        if (parts.IsEmpty)
            throw RefusedException.Clash(
                "all_gone",
                goods.Lines.Any(l => l.SoFar.InWork > 0m)
                    ? $"All of {order.Number} is being picked already."
                    : $"All of {order.Number} has gone."
            );
        throw RefusedException.Clash(
            "not_here",
            goods.Rule switch
            {
                ShippingRule.OnCall => $"{order.Number} goes when they call it off; say which lines, and how much.",
                ShippingRule.AllTogether =>
                    $"{order.Number} goes all together, and {Waits(goods, parts)} is not all there yet.",
                _ => $"Nothing of {order.Number} is there to go yet: {Waits(goods, parts)}.",
            }
        );
    }

    private static string Waits(OrderGoods goods, ImmutableArray<GoingPart> parts)
    {
        var could = goods.CouldGo().Where(p => p.IsShort).Select(p => p.Line).DefaultIfEmpty(parts[0].Line).First();
        return goods.Lines.First(l => l.Line.Key == could).Line.Words;
    }

    // What somebody names goes whatever the rule: they say so.
    private static ImmutableArray<GoingPart> Asked(
        OrderRow order,
        OrderGoods goods,
        ImmutableArray<AskedGoods> asked,
        decimal beyond
    )
    {
        var could = Going.Of(ShippingRule.AsItComes, goods.Open(), goods.OnShelf, called: true);
        var parts = ImmutableArray.CreateBuilder<GoingPart>();
        foreach (var one in asked)
        {
            var line =
                goods.Lines.FirstOrDefault(l => l.Line.Key == one.Key)
                ?? throw RefusedException.Bad(
                    "line_gone",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{order.Number} has no line {one.Key} that is delivered; nothing was released."
                    ),
                    "lines"
                );
            var step = OrderGoods.StepOf(line.Line.Unit);
            if (one.Quantity <= 0m || one.Quantity % step != 0m)
                throw RefusedException.Bad(
                    "quantity",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{one.Quantity:0.######} of {line.Line.Words} cannot go; nothing was released."
                    ),
                    "lines"
                );
            if (asked.Count(a => a.Key == one.Key) > 1)
                throw RefusedException.Bad("line_twice", $"{line.Line.Words} is named twice.", "lines");
            var left = one.Quantity;
            foreach (var part in could.Where(p => p.Line == one.Key && p.Quantity > 0m))
            {
                var taken = Math.Min(left, part.Quantity);
                parts.Add(part with { Quantity = taken });
                if ((left -= taken) == 0m)
                    break;
            }
            var isBeyond = one.Quantity - left == line.SoFar.Open && left <= MostBeyond(line, beyond);
            if (left > 0m && !isBeyond)
                throw RefusedException.Clash(
                    "not_here",
                    line.SoFar.Open < one.Quantity
                        ? $"Of {line.Line.Words} only {Said(line.SoFar.Open, line.Line.Unit)} is left to go."
                        : $"Of {line.Line.Words} only {Said(one.Quantity - left, line.Line.Unit)} lies there for it."
                );
        }
        return parts.ToImmutable();
    }

    // All that is left of a line goes, and from one shelf.
    private static decimal MostBeyond(GoodsLine line, decimal percent) =>
        percent > 0m && line.Needs.Select(n => n.Shelf).Distinct().Count() == 1
            ? OverDelivery.Of(
                line.SoFar with
                {
                    InWork = line.SoFar.InWork + line.SoFar.Open,
                },
                line.SoFar.Open,
                percent,
                OrderGoods.StepOf(line.Line.Unit)
            )
            : 0m;

    /// <summary>So much of a unit, as it is said.</summary>
    public static string Said(decimal quantity, Unit unit) =>
        string.Create(CultureInfo.InvariantCulture, $"{quantity:#,0.###} {UnitTable.OnSheet(unit)}").Trim();

    private static void Add(ShipmentRow shipment, GoingPart part, OpenGoods open, GoodsLine line)
    {
        shipment.Lines.Add(new ShipmentLineRow { LineKey = part.Line, Quantity = part.Quantity });
        foreach (var need in open.Needs)
            shipment.Picks.Add(
                new ShipmentPickRow
                {
                    LineKey = part.Line,
                    ItemId = need.Item.Value,
                    // The last part of it takes what is left, to the last millionth.
                    Quantity =
                        part.Quantity == open.Open
                            ? line
                                .Needs.Where(n => n.Shelf == new Shelf(need.Item, part.Warehouse))
                                .Sum(n => n.Quantity)
                            : Math.Round(part.Quantity * need.PerUnit, 6, MidpointRounding.AwayFromZero),
                }
            );
    }

    private static string PlaceOf(OpenSheet open, SheetLine line) =>
        line.DeliverTo?.Words ?? HeadTerms.DeliverTo.In(open.Sheet.Head) ?? open.Buyer.Address;

    private static decimal? WeightOf(ShipmentRow shipment, OpenSheet open)
    {
        var weights = shipment.Picks.Select(p => open.Book.Find(new ItemId(p.ItemId))?.WeightKg * p.Quantity).ToList();
        return weights.Contains(null) ? null : decimal.Round(weights.Sum()!.Value, 1, MidpointRounding.AwayFromZero);
    }

    private static async Task LeaveAsync(Work work, OpenSheet open, ShipmentRow shipment, CancellationToken cancel)
    {
        var (before, after) = await Follow.GoodsAsync(work, open.Order!, cancel);
        work.Leave(
            new GoodsReleased(
                shipment.Number,
                shipment.Warehouse,
                shipment.Carrier,
                ShipmentSteps.Names(open.Sheet, shipment),
                before,
                after
            ),
            open.Subject,
            open.Dossier.Id
        );
    }
}
