using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Shipping;

/// <summary>
/// Goods beyond what was ordered: as much as the buyer takes, or the house where they say nothing. The line is so much
/// longer then, at its price.
/// </summary>
public static class GoingBeyond
{
    /// <summary>Of the lines of a shipment that is picked how much may go beyond it, in the line's unit.</summary>
    public static async Task<ImmutableDictionary<long, decimal>> OfAsync(
        SolvendaDb db,
        ShipmentRow shipment,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(shipment);
        var none = ImmutableDictionary<long, decimal>.Empty;
        if (shipment.State != ShipmentState.Picking)
            return none;
        var of = await db
            .Orders.AsNoTracking()
            .Where(o => o.Id == shipment.OrderId)
            .Select(o => new { o.Sheet, o.Dossier.Buyer.OverDelivery })
            .FirstAsync(cancel);
        var percent = await PercentOfAsync(db, of.Sheet, of.OverDelivery, cancel);
        if (percent == 0m)
            return none;
        // On which day it is asked makes no difference to what went.
        var day = DateOnly.FromDateTime(shipment.BegunAt);
        var goods = (await GoodsBook.OfAsync(db, [shipment.OrderId], day, cancel))[shipment.OrderId];
        return (
            from part in shipment.Lines
            // Of a bundle whole ones go.
            where shipment.Picks.Count(p => p.LineKey == part.LineKey) == 1
            join line in goods.Lines on part.LineKey equals line.Line.Key
            let step = OrderGoods.StepOf(line.Line.Unit)
            let beyond = OverDelivery.Of(line.SoFar, part.Quantity, percent, step)
            where beyond > 0m
            select (part.LineKey, beyond)
        ).ToImmutableDictionary(b => b.LineKey, b => b.beyond);
    }

    /// <summary>How much beyond what was ordered may go of an order, in percent.</summary>
    internal static async Task<decimal> PercentOfAsync(
        SolvendaDb db,
        SheetRow sheet,
        decimal? ofBuyer,
        CancellationToken cancel
    )
    {
        // What was paid for on a channel is what they get.
        if (sheet.ToStated().OnChannel is not null)
            return 0m;
        return ofBuyer
            ?? await db
                .Settings.Where(s => s.Active && s.Code == SettingRow.OverDelivery)
                .Select(s => s.Value)
                .FirstOrDefaultAsync(cancel);
    }

    /// <summary>How much of something may be picked at most, in its stock unit.</summary>
    /// <param name="beyond">What <see cref="OfAsync"/> found.</param>
    public static decimal MostOf(ShipmentRow shipment, ShipmentPickRow pick, IReadOnlyDictionary<long, decimal> beyond)
    {
        ArgumentNullException.ThrowIfNull(shipment);
        ArgumentNullException.ThrowIfNull(pick);
        ArgumentNullException.ThrowIfNull(beyond);
        var part = shipment.Lines.Find(l => l.LineKey == pick.LineKey)?.Quantity ?? 0m;
        return part == 0m
            ? pick.Quantity
            : Math.Round(pick.Quantity * (part + beyond.GetValueOrDefault(pick.LineKey)) / part, 6);
    }

    /// <summary>Notes as picked what of a line goes beyond what was released of it.</summary>
    internal static void Note(IEnumerable<ShipmentRow> made, AskedGoods asked)
    {
        var parts = made.Where(s => s.Lines.Exists(l => l.LineKey == asked.Key)).ToList();
        if (parts is not [var shipment])
            return;
        var released = shipment.Lines.First(l => l.LineKey == asked.Key).Quantity;
        foreach (var pick in shipment.Picks.Where(p => p.LineKey == asked.Key && asked.Quantity > released))
            pick.Picked = Math.Round(pick.Quantity * asked.Quantity / released, 6);
    }

    /// <summary>The lines are longer by what went beyond them; what was confirmed is kept as a version.</summary>
    /// <param name="beyond">By the key of the line, in its unit.</param>
    internal static async Task ExtendAsync(
        Work work,
        OpenSheet open,
        IReadOnlyDictionary<long, decimal> beyond,
        CancellationToken cancel
    )
    {
        if (beyond.Count == 0)
            return;
        await OrderVersions.KeepAsync(work, open, cancel);
        var draft = open.ToDraft();
        var now = OrderVersions.Stand(
            open,
            draft with
            {
                Lines =
                [
                    .. draft.Lines.Select(l => l with { Quantity = l.Quantity + beyond.GetValueOrDefault(l.Key) }),
                ],
            },
            KeptLines.ForAnyQuantity(open.Sheet.Kept, beyond.Keys.ToHashSet())
        );
        OrderVersions.Confirmed(work, open.Order!);
        var total = now.Tally.TotalWithTax;
        work.Leave(
            new LinesExtended(ShipmentSteps.Names(open.Sheet, beyond), total.Value, total.Currency.Code),
            open.Subject,
            open.Dossier.Id
        );
    }
}
