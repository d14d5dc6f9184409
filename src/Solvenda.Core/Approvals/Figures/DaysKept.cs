namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// Days to pay that are put on a buyer's file beyond those that stood there, or beyond the house's usual.
/// </summary>
public sealed class DaysKept : KeptFigure
{
    /// <inheritdoc />
    public override string Code => "days-kept";

    /// <inheritdoc />
    public override string Label => "days to pay on file";

    /// <inheritdoc />
    public override string Beyond => "a buyer is given more days to pay on file than its giver may";

    /// <inheritdoc />
    public override string Called => "the days to pay that a buyer is given on file";

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.TermsDays;

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:0} days");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant(
            $"{value:0} days to pay more on file, {authority.TermsDays ?? 0} may be given alone"
        );
}
