using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Planning;
using Solvenda.Core.Shipping;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Shipping;

/// <summary>What was picked for a shipment leaves the shelves, and what was promised of it is kept.</summary>
internal static class FromShelves
{
    /// <summary>Each line of the shipment has what went of it afterwards.</summary>
    /// <exception cref="RefusedException">More was picked than goes.</exception>
    public static async Task LeaveAsync(Work work, ShipmentRow shipment, CancellationToken cancel)
    {
        var beyond = shipment.Picks.Exists(p => p.Picked > p.Quantity)
            ? await GoingBeyond.OfAsync(work.Db, shipment, cancel)
            : [];
        foreach (var line in shipment.Lines)
            await LeaveAsync(work, shipment, line, beyond, cancel);
    }

    // What makes whole units of the line goes, and what was promised of it is kept; the rest lies there still.
    private static async Task LeaveAsync(
        Work work,
        ShipmentRow shipment,
        ShipmentLineRow line,
        IReadOnlyDictionary<long, decimal> beyond,
        CancellationToken cancel
    )
    {
        var picks = shipment.Picks.Where(p => p.LineKey == line.LineKey).ToList();
        var unit = await work
            .Db.SheetLines.Where(l => l.SheetId == shipment.Order.SheetId && l.Key == line.LineKey)
            .Select(l => l.Unit)
            .FirstAsync(cancel);
        var step = OrderGoods.StepOf(Unit.Of(unit));
        var goes = Going.Complete(line.Quantity, step, [.. picks.Select(p => (p.Quantity, p.Picked!.Value))]);
        if (picks is [var only] && only.Picked > only.Quantity)
            goes = Beyond(shipment, line, only, beyond, step);
        foreach (var pick in picks)
        {
            var left =
                goes == line.Quantity
                    ? pick.Quantity
                    : Math.Round(pick.Quantity * goes / line.Quantity, 6, MidpointRounding.AwayFromZero);
            var onHand =
                left == 0m
                    ? 0m
                    : await StockSteps.MoveAsync(
                        work,
                        new StockMovementRow
                        {
                            ItemId = pick.ItemId,
                            Warehouse = shipment.Warehouse,
                            Day = work.Today,
                            Quantity = -left,
                            Kind = MovementKind.Shipped,
                            Document = shipment.Number,
                        },
                        cancel
                    );
            if (onHand < 0m && left > pick.Quantity)
                throw RefusedException.Clash(
                    "not_here",
                    FormattableString.Invariant(
                        $"By the count {left + onHand:0.######} of it lie in {shipment.Warehouse}, and {left:0.######} are to go: count it first."
                    )
                );
            await KeepPromiseAsync(work, shipment, pick, left, cancel);
            pick.Quantity = left;
            // What goes by number and stays after all may go another time.
            if (left == 0m)
                (pick.Serials, pick.Lots) = ("", "");
        }
        line.Quantity = goes;
    }

    // With what goes beyond it; the buyer may take no longer what they did when it was picked.
    private static decimal Beyond(
        ShipmentRow shipment,
        ShipmentLineRow line,
        ShipmentPickRow pick,
        IReadOnlyDictionary<long, decimal> beyond,
        decimal step
    ) =>
        pick.Picked <= GoingBeyond.MostOf(shipment, pick, beyond)
            ? decimal.Floor(line.Quantity * pick.Picked.Value / pick.Quantity / step) * step
            : throw RefusedException.Clash(
                "not_picked",
                FormattableString.Invariant(
                    $"{pick.Picked:0.######} are picked where {pick.Quantity:0.######} are asked for, and so much is not taken any more: say how much goes."
                )
            );

    private static async Task KeepPromiseAsync(
        Work work,
        ShipmentRow shipment,
        ShipmentPickRow pick,
        decimal went,
        CancellationToken cancel
    )
    {
        var promised = await work
            .Db.Commitments.Where(c =>
                c.OrderId == shipment.OrderId
                && c.LineKey == pick.LineKey
                && c.ItemId == pick.ItemId
                && c.Warehouse == shipment.Warehouse
            )
            .OrderBy(c => c.Day)
            .ThenBy(c => c.Id)
            .ToListAsync(cancel);
        foreach (var commitment in promised)
        {
            var kept = Math.Min(commitment.Quantity, went);
            went -= kept;
            commitment.Quantity -= kept;
            if (commitment.Quantity == 0m)
                work.Db.Commitments.Remove(commitment);
        }
    }
}
