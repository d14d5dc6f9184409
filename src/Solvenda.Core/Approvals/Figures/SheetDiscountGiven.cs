using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>The discount on the whole sheet, in percent of its goods.</summary>
public sealed class SheetDiscountGiven : TermFigure
{
    /// <inheritdoc />
    public override string Code => "sheet-discount";

    /// <inheritdoc />
    public override string Label => "less, whole sheet";

    /// <inheritdoc />
    public override string Beyond => "more is taken off the whole than its giver may";

    /// <inheritdoc />
    public override string Called => "the discount on the whole";

    /// <inheritdoc />
    public override string Term => HeadTerms.SheetDiscount.Name;

    /// <inheritdoc />
    public override decimal? Of(PricedSheet sheet, Head head)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        if (sheet.Sheet.Discount.Percent is { } percent)
            return percent;
        return sheet.Tally.Goods.IsZero || sheet.Tally.SheetDiscount.IsZero
            ? null
            : decimal.Round(
                sheet.Tally.SheetDiscount.Value * 100m / sheet.Tally.Goods.Value,
                4,
                MidpointRounding.AwayFromZero
            );
    }

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.DiscountPercent;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant(
            $"{value:0.##} % discount on all, {authority.DiscountPercent ?? 0m:0.##} % may be given alone"
        );
}
