using Solvenda.Core.Sheets;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// The margin of the whole in percent, at the worst that the buyer may choose; null where nobody typed a price or a
/// discount. It is shown to whoever decides, and kept with what they granted.
/// </summary>
public sealed class SheetMargin : WholeFigure
{
    /// <inheritdoc />
    public override string Code => "sheet-margin";

    /// <inheritdoc />
    public override string Label => "margin, whole sheet";

    /// <inheritdoc />
    public override string Beyond => "the whole earns less than its sender must";

    /// <inheritdoc />
    public override string Called => "the margin of the whole";

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
        var lines = sheet.Sold.Where(l => l is { HasPrice: true, Figures.Cost: not null }).ToList();
        var worst = WorstChoice.Of(
            lines.Where(l => !Choices.IsOpen(l.Line)).Select(Of),
            lines.Where(l => l.Line.OneOf.Length > 0).GroupBy(l => l.Line.OneOf, Of),
            lines.Where(l => l.Line.Optional && l.Line.OneOf.Length == 0).Select(Of)
        );
        return Percent(worst.Earned, worst.Cost);
    }

    private static EarnedFor Of(PricedLine line) =>
        new(line.Figures.Earned.Value, line.Figures.CostWithFee!.Value.Value);

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
