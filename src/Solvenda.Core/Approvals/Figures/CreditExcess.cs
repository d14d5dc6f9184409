namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// How far an order is over its buyer's credit limit, in home currency. Nothing over (an overdue invoice alone) is for
/// everybody with credit authority.
/// </summary>
public sealed class CreditExcess : Figure
{
    /// <inheritdoc />
    public override string Code => "credit";

    /// <inheritdoc />
    public override string Label => "over the credit limit";

    /// <inheritdoc />
    public override string Beyond => "an order goes further over the credit limit than its sender may";

    /// <inheritdoc />
    public override string Called => "what an order goes over the credit limit";

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.CreditOver;

    /// <inheritdoc />
    public override bool IsBeyond(decimal value, Authority authority)
    {
        ArgumentNullException.ThrowIfNull(authority);
        return authority.CreditOver is not { } over || value > over;
    }

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:#,0.00}");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant(
            $"{value:#,0} over the credit limit, {authority.CreditOver ?? 0m:#,0} may be let pass alone"
        );
}
