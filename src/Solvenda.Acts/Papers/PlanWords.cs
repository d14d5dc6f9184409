using Solvenda.Acts.Wordings;
using Solvenda.Core.Billing;

namespace Solvenda.Acts.Papers;

/// <summary>When an invoice is to be paid, in the words of its paper.</summary>
public static class PlanWords
{
    public static string Of(PaymentPlan plan, Wording wording)
    {
        ArgumentNullException.ThrowIfNull(plan);
        ArgumentNullException.ThrowIfNull(wording);
        var first = plan.Shares is [{ Percent: 100m } one]
            ? wording.With(plan.EndOfMonth ? "endOfMonth" : "daysNet", one.Days)
            : wording.With(
                "instalments",
                string.Join(
                    "; ",
                    plan.Shares.Select(s => $"{wording.Number(s.Percent)} % {wording.With("daysNet", s.Days)}")
                )
            );
        return plan.Early is { } early
            ? $"{first}, {wording.With("early", wording.Number(early.Percent), early.Days)}"
            : first;
    }
}
