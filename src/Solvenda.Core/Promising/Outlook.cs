using System.Collections.Immutable;

namespace Solvenda.Core.Promising;

/// <summary>A quantity that comes or goes on a day (0 = today; late ones were moved to their day by the caller).</summary>
public sealed record StockMove(int Day, decimal Quantity);

/// <summary>An item's stock over time in one warehouse, in stock units, by day from today = 0.</summary>
/// <param name="Projected">on hand + incoming up to the day - committed up to the day.</param>
/// <param name="Free">What can be taken on the day without breaking an earlier promise: the least projection from then on, not below zero.</param>
public sealed record Outlook(ImmutableArray<decimal> Projected, ImmutableArray<decimal> Free)
{
    public static Outlook Over(int days, decimal onHand, IEnumerable<StockMove> incoming, IEnumerable<StockMove> committed)
    {
        var change = new decimal[days];
        foreach (var move in incoming)
            Put(change, move.Day, move.Quantity);
        foreach (var move in committed)
            Put(change, move.Day, -move.Quantity);

        var projected = new decimal[days];
        var running = onHand;
        for (var day = 0; day < days; day++)
            projected[day] = running += change[day];

        var free = new decimal[days];
        var least = decimal.MaxValue;
        for (var day = days - 1; day >= 0; day--)
        {
            least = Math.Min(least, projected[day]);
            free[day] = Math.Max(0m, least);
        }
        return new Outlook([.. projected], [.. free]);
    }

    /// <summary>First day from which the quantity can be taken; null where it is not within the days looked at.</summary>
    public int? FirstDayFor(decimal quantity)
    {
        for (var day = 0; day < Free.Length; day++)
        {
            if (Free[day] >= quantity)
                return day;
        }
        return null;
    }

    private static void Put(decimal[] change, int day, decimal quantity)
    {
        if (day < change.Length)
            change[Math.Max(0, day)] += quantity;
    }
}
