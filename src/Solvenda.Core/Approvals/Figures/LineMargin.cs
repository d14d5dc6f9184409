namespace Solvenda.Core.Approvals.Figures;

/// <summary>The least margin of a line, in percent, after its share of the sheet discount.</summary>
public sealed class LineMargin : LineFigure
{
    /// <inheritdoc />
    public override string Code => "margin";

    /// <inheritdoc />
    public override string Label => "margin, least line";

    /// <inheritdoc />
    public override string Beyond => "a line earns less than its giver must";

    /// <inheritdoc />
    public override string Called => "the least margin of a line";

    /// <inheritdoc />
    public override bool MoreIsWorse => false;

    /// <inheritdoc />
    public override decimal? Of(in LineMoney line) => line.MarginPercent;

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.LeastMarginPercent;

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        authority.LeastMarginPercent is { } least
            ? FormattableString.Invariant($"{value:0.0} % margin on a line, {least:0.##} % is the least alone")
            : FormattableString.Invariant($"{value:0.0} % margin on a line, and none may be decided alone");
}
