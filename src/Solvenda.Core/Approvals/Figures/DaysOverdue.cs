using Solvenda.Core.Credit;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// Days that the buyer's oldest open invoice is overdue, where that is beyond their days of grace. It is for everybody
/// who may let anything go over a limit.
/// </summary>
public sealed class DaysOverdue : CreditFigure
{
    /// <inheritdoc />
    public override string Code => "overdue";

    /// <inheritdoc />
    public override string Label => "days overdue";

    /// <inheritdoc />
    public override string Beyond => "an order is for a buyer whose oldest invoice is overdue beyond their grace";

    /// <inheritdoc />
    public override string Called => "the days that their oldest invoice is overdue";

    /// <inheritdoc />
    public override decimal? Of(CreditAtOrder credit)
    {
        ArgumentNullException.ThrowIfNull(credit);
        return credit.OverdueDays > 0 ? credit.OverdueDays : null;
    }

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.CreditOver is null ? null : decimal.MaxValue;

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:0} days");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant($"their oldest invoice is {value:0} days overdue");
}
