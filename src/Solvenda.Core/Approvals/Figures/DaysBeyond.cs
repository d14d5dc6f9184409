using Solvenda.Core.Billing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Approvals.Figures;

/// <summary>
/// Days of payment beyond the buyer's own. A buyer who has none on file is measured against the house's usual terms.
/// </summary>
public sealed class DaysBeyond : TermFigure
{
    /// <inheritdoc />
    public override string Code => "terms";

    /// <inheritdoc />
    public override string Label => "days beyond theirs";

    /// <inheritdoc />
    public override string Beyond => "the days to pay go further beyond theirs than the hand may";

    /// <inheritdoc />
    public override string Called => "the days to pay beyond theirs";

    /// <inheritdoc />
    public override string Term => HeadTerms.PaymentDays.Name;

    /// <inheritdoc />
    public override decimal? Of(PricedSheet sheet, Head head)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        return HeadTerms.PlanIn(head) is { } plan ? Math.Max(0, plan.Longest - TheirsOf(sheet)) : null;
    }

    private static int TheirsOf(PricedSheet sheet) =>
        sheet.Buyer.PaymentPlan is { } text && PaymentPlan.Read(text, out _) is { } plan
            ? plan.Longest
            : sheet.Buyer.PaymentDays ?? sheet.Book.UsualDays;

    /// <inheritdoc />
    public override decimal? LimitOf(Authority authority) => authority.TermsDays;

    /// <inheritdoc />
    public override string Show(decimal value) => FormattableString.Invariant($"{value:0} days");

    /// <inheritdoc />
    public override string Say(decimal value, Authority authority) =>
        FormattableString.Invariant(
            $"{value:0} days to pay beyond their own terms, {authority.TermsDays ?? 0} may be given alone"
        );
}
