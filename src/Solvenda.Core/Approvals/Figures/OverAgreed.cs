namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// How far a price was typed over what is agreed with the buyer, in percent of it. Whoever may move a price down may
/// move it up as far.
/// </summary>
public sealed class OverAgreed : LineFigure
{
    /// <inheritdoc />
    public override string Code => "over-agreed";

    /// <inheritdoc />
    public override string Label => "over the agreement";

    /// <inheritdoc />
    public override string Beyond => "a price is typed further over an agreement than its giver may";

    /// <inheritdoc />
    public override string Called => "what a price is over its agreement";

    /// <inheritdoc />
    public override decimal? Of(in LineMoney line) => line.OverAgreedPercent > 0 ? line.OverAgreedPercent : null;

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.DiscountPercent;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant(
            $"{value:0.##} % over the agreed price, {authority.DiscountPercent ?? 0m:0.##} % may be moved alone"
        );
}
