namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// How far a buyer's credit limit is raised, in home currency. Whoever may let that much go over a limit may give it.
/// </summary>
public sealed class LimitRaised : KeptFigure
{
    /// <inheritdoc />
    public override string Code => "limit-raised";

    /// <inheritdoc />
    public override string Label => "credit limit raised";

    /// <inheritdoc />
    public override string Beyond => "a credit limit is raised further than its setter may";

    /// <inheritdoc />
    public override string Called => "what a credit limit is raised by";

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.CreditOver;

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:#,0.00}");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        value == WholeFigure.Unknown
            ? "a credit limit that no exchange rate carries home"
            : FormattableString.Invariant(
                $"a credit limit {value:#,0} higher, {authority.CreditOver ?? 0m:#,0} may be given alone"
            );
}
