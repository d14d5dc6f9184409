using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Planning;
using Solvenda.Core.Promising;
using Solvenda.Core.Units;
using Solvenda.Data;

namespace Solvenda.Web.Planning;

/// <summary>What planners see of positions: demand by day, what comes, what is short, what would do.</summary>
internal static class PlanRows
{
    // Where an item cannot be bought by a known day, what is asked for is wanted within so many days.
    private const int UsualLead = 14;

    // What went is looked at so far back.
    private const int Back = 90;

    /// <summary>What each item's lead time usually takes, in stock units a day; and what was asked for.</summary>
    public static async Task<(
        Dictionary<(long, string), decimal> Usual,
        Dictionary<(long, string), decimal> Asked
    )> FactsAsync(SolvendaDb db, DateOnly today, CancellationToken cancel)
    {
        var since = today.AddDays(-Back);
        var went = await db
            .StockMovements.Where(m => m.Kind == Data.Rows.MovementKind.Shipped && m.Day >= since)
            .Select(m => new
            {
                m.ItemId,
                m.Warehouse,
                m.Quantity,
            })
            .ToListAsync(cancel);
        var asked = await db
            .SupplyRequests.Where(r => r.Answered < r.Quantity)
            .Select(r => new
            {
                r.ItemId,
                r.Warehouse,
                Open = r.Quantity - r.Answered,
            })
            .ToListAsync(cancel);
        return (
            went.GroupBy(m => (m.ItemId, m.Warehouse)).ToDictionary(g => g.Key, g => -g.Sum(m => m.Quantity) / Back),
            asked.GroupBy(m => (m.ItemId, m.Warehouse)).ToDictionary(g => g.Key, g => g.Sum(m => m.Open))
        );
    }

    public static PlanRow Of(
        StockPosition position,
        IReadOnlyDictionary<(long, string), decimal> usual,
        IReadOnlyDictionary<(long, string), decimal> asked
    )
    {
        ArgumentNullException.ThrowIfNull(position);
        var today = position.Today;
        var key = (position.Item.Id, position.Warehouse);
        var shortage = Shortage.Of(position.Outlook);
        var days = new decimal[4];
        foreach (var wait in position.Waits)
        {
            var ahead = wait.Row.Day.DayNumber - today.DayNumber;
            days[
                ahead <= 0 ? 0
                : ahead <= 7 ? 1
                : ahead <= 14 ? 2
                : 3
            ] += wait.Row.Quantity;
        }
        var next = position.Incoming.FirstOrDefault();
        var lead = position.LeadDays ?? UsualLead;
        var open = asked.GetValueOrDefault(key);
        return new PlanRow(
            position.Item.Id,
            position.Item.Code,
            position.Item.Words,
            UnitTable.OnSheet(Unit.Of(position.Item.StockUnit)),
            position.Warehouse,
            position.OnHand,
            days,
            position.Incoming.Sum(i => i.Quantity),
            next?.Due,
            next is null
                ? 0
                : Math.Max(
                    next.FirstDue == default ? 0 : next.Due.DayNumber - next.FirstDue.DayNumber,
                    today.DayNumber - next.Due.DayNumber
                ),
            shortage is null ? null : today.AddDays(shortage.From),
            shortage?.By ?? 0,
            position.Allotted().Count(a => a.Missing > 0),
            open,
            shortage is null || open >= shortage.Lasting
                ? 0
                : Shortage.Propose(shortage.Lasting - open, decimal.Round(usual.GetValueOrDefault(key) * lead, 3), 1m),
            today.AddDays(Math.Max(1, Math.Min(shortage?.From ?? lead, lead)))
        );
    }

    public static AnewRow Of(AnewMove move)
    {
        ArgumentNullException.ThrowIfNull(move);
        return new AnewRow(
            move.Waiting.Order.Number,
            move.Waiting.Order.Buyer,
            move.Waiting.Position,
            move.Position.Item.Code,
            move.Position.Warehouse,
            move.Waiting.Row.Quantity,
            UnitTable.OnSheet(Unit.Of(move.Position.Item.StockUnit)),
            move.Waiting.Promised,
            move.Arrives,
            move.Waiting.Wanted
        );
    }
}
