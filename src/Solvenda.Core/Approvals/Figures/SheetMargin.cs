using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// The margin of the whole in percent, at the worst that the buyer may choose; null where nobody typed a price or a
/// discount. No policy holds on it yet: it is shown to whoever decides, and kept with what they granted.
/// </summary>
public sealed class SheetMargin : WholeFigure
{
    /// <inheritdoc />
    public override string Code => "sheet-margin";

    /// <inheritdoc />
    public override string Label => "margin, whole sheet";

    /// <inheritdoc />
    public override bool MoreIsWorse => false;

    /// <inheritdoc />
    public override decimal? Of(PricedSheet sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var byHand =
            !sheet.Tally.SheetDiscount.IsZero || sheet.Sold.Any(l => l.Line.ByHand.Kind != Pricing.ByHandKind.None);
        if (!byHand)
            return null;
        var (earned, cost) = (0m, 0m);
        foreach (var l in sheet.Sold.Where(l => l is { HasPrice: true, Terms.Counts: true, Figures.Cost: not null }))
            (earned, cost) = (earned + l.Figures.Earned.Value, cost + l.Figures.Cost!.Value.Value);
        // The buyer takes what lowers it most: options are added from the poorest on, as long as they lower it.
        foreach (
            var option in sheet
                .Sold.Where(l => l is { HasPrice: true, Terms.Counts: false, Figures.Cost: not null })
                .Select(LineMoney.Of)
                .OrderBy(m => m.MarginPercent ?? decimal.MaxValue)
        )
        {
            var (e, c) = (earned + option.Earned.Value, cost + option.Cost!.Value.Value);
            if (Percent(e, c) < Percent(earned, cost) || earned == 0)
                (earned, cost) = (e, c);
        }
        return Percent(earned, cost);
    }

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.LeastMarginPercent;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        authority.LeastMarginPercent is { } least
            ? FormattableString.Invariant($"{value:0.0} % margin on the whole, {least:0.##} % is the least alone")
            : FormattableString.Invariant($"{value:0.0} % margin on the whole, and none may be decided alone");

    private static decimal? Percent(decimal earned, decimal cost) =>
        earned > 0 ? decimal.Round((earned - cost) * 100m / earned, 2, MidpointRounding.AwayFromZero)
        : cost > 0 ? LineMoney.GivenAway
        : null;
}
