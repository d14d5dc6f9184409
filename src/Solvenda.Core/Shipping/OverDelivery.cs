namespace Solvenda.Core.Shipping;

/// <summary>Goods beyond what was ordered, as far as their buyer takes them (docs/calculations.md, Billing).</summary>
public static class OverDelivery
{
    /// <summary>The most that a buyer can be said to take beyond what they ordered, in percent.</summary>
    public const decimal Most = 25m;

    /// <summary>
    /// How much may go with a part of a line beyond it, in the line's unit: none unless all else of the line has gone,
    /// so that what goes beyond it goes once.
    /// </summary>
    /// <param name="line">How far the line is, the part counted as being picked.</param>
    /// <param name="part">In the line's unit.</param>
    /// <param name="percent">Of what was ordered, from 0.</param>
    /// <param name="step">Least part of its unit that can go.</param>
    public static decimal Of(GoodsSoFar line, decimal part, decimal percent, decimal step)
    {
        ArgumentNullException.ThrowIfNull(line);
        return part > 0m && line.Gone + part == line.Ordered && line.InWork == part
            ? decimal.Floor(line.Ordered * percent / 100m / step) * step
            : 0m;
    }
}
