namespace Solvenda.Core.Approvals.Figures;

/// <summary>The highest discount on a line, in percent of its base price.</summary>
public sealed class LineDiscount : LineFigure
{
    /// <inheritdoc />
    public override string Code => "discount";

    /// <inheritdoc />
    public override string Label => "less, highest line";

    /// <inheritdoc />
    public override string Beyond => "a line is given more than its giver may";

    /// <inheritdoc />
    public override string Called => "the highest discount on a line";

    /// <inheritdoc />
    public override decimal? Of(in LineMoney line) => line.DiscountPercent > 0 ? line.DiscountPercent : null;

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.DiscountPercent;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant(
            $"{value:0.##} % discount on a line, {authority.DiscountPercent ?? 0m:0.##} % may be given alone"
        );
}
