using System.Collections.Immutable;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Shipping;

/// <summary>
/// What of an order may go, by how its buyer wants it and what lies on the shelves for it (docs/calculations.md,
/// "Goods that may go").
/// </summary>
public static class Going
{
    /// <param name="lines">In the order of the sheet: the earlier takes first.</param>
    /// <param name="onShelf">What lies there for this order, in stock units; a shelf that is missing is empty.</param>
    /// <param name="called">Whether it was called off: what is on call goes only then.</param>
    /// <returns>One for each line, in its order.</returns>
    public static ImmutableArray<GoingPart> Of(
        ShippingRule rule,
        IReadOnlyList<OpenGoods> lines,
        IReadOnlyDictionary<Shelf, decimal> onShelf,
        bool called = false
    )
    {
        ArgumentNullException.ThrowIfNull(lines);
        ArgumentNullException.ThrowIfNull(onShelf);
        if (rule == ShippingRule.OnCall && !called)
            return [.. lines.Select(l => Part(l, 0m))];
        var left = new Dictionary<Shelf, decimal>(onShelf);
        var parts = lines.Select(l => Part(l, Take(l, left, whole: rule != ShippingRule.AsItComes))).ToList();
        var waits = rule == ShippingRule.AllTogether && parts.Any(p => p.IsShort);
        // What lies on no shelf goes with the goods, and alone only where there are none.
        var goods = lines.Where(l => !l.Needs.IsEmpty && l.Open > 0).Select(l => l.Line).ToHashSet();
        var alone = goods.Count > 0 && parts.TrueForAll(p => !goods.Contains(p.Line) || p.Quantity == 0m);
        return
        [
            .. lines.Zip(parts, (l, p) => waits || (alone && !goods.Contains(l.Line)) ? p with { Quantity = 0m } : p),
        ];
    }

    /// <summary>Of a line, how much came together by what was picked for it: whole steps of its unit.</summary>
    /// <param name="asked">That was to be picked, in the order's unit.</param>
    /// <param name="picked">Of each of its needs, in stock units.</param>
    public static decimal Complete(
        decimal asked,
        decimal step,
        IReadOnlyCollection<(decimal Asked, decimal Picked)> picked
    )
    {
        ArgumentNullException.ThrowIfNull(picked);
        var least = asked;
        foreach (var (wanted, had) in picked)
            if (had < wanted)
                least = Math.Min(least, Floor(asked * had / wanted, step));
        return least;
    }

    private static GoingPart Part(OpenGoods line, decimal quantity) =>
        new(line.Line, line.Warehouse, quantity, line.Open);

    private static decimal Take(OpenGoods line, Dictionary<Shelf, decimal> left, bool whole)
    {
        decimal On(GoingNeed need) => Math.Max(0m, left.GetValueOrDefault(new Shelf(need.Item, line.Warehouse)));
        var may = line
            .Needs.Select(n => Enough(line.Open, n.PerUnit, On(n)) ? line.Open : Floor(On(n) / n.PerUnit, line.Step))
            .Append(line.Open)
            .Min();
        if (whole && may < line.Open)
            return 0m;
        foreach (var need in line.Needs)
        {
            var shelf = new Shelf(need.Item, line.Warehouse);
            left[shelf] = left.GetValueOrDefault(shelf) - (may * need.PerUnit);
        }
        return may;
    }

    // What one unit takes may be a fraction that does not end: a millionth of a stock unit is no shortage.
    private static bool Enough(decimal open, decimal perUnit, decimal on) => (open * perUnit) - on <= 0.000_001m;

    private static decimal Floor(decimal quantity, decimal step) => decimal.Floor(quantity / step) * step;
}
