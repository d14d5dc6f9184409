namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// How far a field that carries money is changed, in percent of what stood there; what stood nowhere, or is no number,
/// counts as 100.
/// </summary>
public sealed class KeptChange : KeptFigure
{
    /// <inheritdoc />
    public override string Code => "kept-change";

    /// <inheritdoc />
    public override string Label => "money on file";

    /// <inheritdoc />
    public override string Beyond => "a field that carries money is changed further than its hand may";

    /// <inheritdoc />
    public override string Called => "what a field that carries money is changed by";

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.DiscountPercent;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant(
            $"money on file changed by {value:0.##} %, {authority.DiscountPercent ?? 0m:0.##} % may be moved alone"
        );
}
