using Solvenda.Core.Money;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals;

/// <summary>The money of one line as figures look at it.</summary>
/// <param name="DiscountPercent">Under the base price, whichever way it was typed; negative for a surcharge.</param>
/// <param name="Earned">Net after the share of the sheet discount, without line charges.</param>
/// <param name="Cost">With what a channel keeps; null where nobody knows it.</param>
public readonly record struct LineMoney(decimal DiscountPercent, Amount Earned, Amount? Cost, bool BelowFloor)
{
    /// <summary>
    /// What a line given away counts as: a percentage of nothing does not exist, but it is the worst there is.
    /// </summary>
    public const decimal GivenAway = -10_000m;

    /// <summary>Of a priced line; also where it is optional: it is offered at that price.</summary>
    public static LineMoney Of(PricedLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return new LineMoney(line.DiscountPercent, line.Figures.Earned, line.Figures.CostWithFee, line.BelowFloor)
        {
            CostUnder = line.CostUnder,
            OverAgreedPercent = line.OverAgreed is > 0 and { } agreed
                ? decimal.Round((line.Figures.NetPrice - agreed) * 100m / agreed, 2, MidpointRounding.AwayFromZero)
                : 0m,
        };
    }

    /// <summary>How far a typed cost is under the catalogue's, home currency.</summary>
    public decimal CostUnder { get; init; }

    /// <summary>
    /// How far a price was typed over an agreement, in percent of what is agreed; 0 where it was not.
    /// </summary>
    public decimal OverAgreedPercent { get; init; }

    /// <summary>Margin in percent of what is earned; null without cost, or where neither is anything.</summary>
    public decimal? MarginPercent
    {
        get
        {
            if (Cost is not { } cost)
                return null;
            if (Earned.Minor <= 0)
                return cost.Minor > 0 ? GivenAway : null;
            return decimal.Round((Earned - cost).Minor * 100m / Earned.Minor, 2, MidpointRounding.AwayFromZero);
        }
    }
}
