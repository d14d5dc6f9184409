using Solvenda.Core.Credit;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// How far an order is over its buyer's credit limit, in home currency; where no limit holds, what the money that is
/// there does not cover.
/// </summary>
public sealed class CreditExcess : CreditFigure
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
    public override decimal? Of(CreditAtOrder credit)
    {
        ArgumentNullException.ThrowIfNull(credit);
        // A block is no excess: whoever set it lifts it, or lets one order pass.
        return credit is { Stop: not CreditStop.Blocked, ExcessHome: > 0 and var excess } ? excess : null;
    }

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
