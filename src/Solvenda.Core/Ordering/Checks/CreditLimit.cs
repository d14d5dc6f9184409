using System.Globalization;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The order fits under the credit limit, and nothing is overdue beyond the grace days. Whoever may decide on credit
/// is asked by a policy, or lets it pass at their desk: for this order, up to a value and a day.
/// </summary>
public sealed class CreditLimit : ICheck
{
    /// <inheritdoc />
    public string Code => "credit";

    /// <inheritdoc />
    public string Does => "the order fits under the credit limit, and nothing is overdue";

    /// <inheritdoc />
    public bool IsFixed => true;

    /// <inheritdoc />
    public bool Goes => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        // What is paid already asks nobody for credit.
        if (facts.Credit is not { } at || facts.Sheet.IsPaid)
            yield break;
        if (at.Stop == CreditStop.NoRate)
        {
            yield return Stop(
                $"There is no exchange rate for {at.Standing.MissingRate}, so what they owe cannot be added up. Enter the rate.",
                ""
            ) with
            {
                Waive = WaiveBy.Nobody,
            };
            yield break;
        }
        if (at.Stop != CreditStop.None)
            yield return Asked(
                facts,
                "credit",
                Stop(Words(facts, at), string.Create(Plain, $"{Kind(at.Stop)}/{at.ExcessHome}"), at.ExcessHome)
            );
        if (at.OverdueDays > 0)
            yield return Asked(
                facts,
                "overdue",
                Stop(
                    $"Their oldest open invoice is {at.OverdueDays} days overdue; {at.Standing.GraceDays} are allowed.",
                    $"overdue/{at.OverdueDays}"
                )
            );
    }

    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    private static string Kind(CreditStop stop) =>
        stop switch
        {
            CreditStop.Over => "over",
            CreditStop.Blocked => "blocked",
            _ => "no-limit",
        };

    private static string Words(CheckFacts facts, CreditAtOrder at)
    {
        var credit = at.Standing;
        return at.Stop switch
        {
            CreditStop.Blocked => $"{facts.Buyer.Name} is blocked: {credit.Blocked}.",
            CreditStop.NoLimit => $"No credit limit is kept for {facts.Buyer.Name}.",
            CreditStop.Ended => string.Create(
                Plain,
                $"The credit limit of {facts.Buyer.Name} ended on {credit.Until:d MMM yyyy}."
            ),
            _ when at.ThisOrder.Minor == 0 => string.Create(
                Plain,
                $"They owe and will owe {credit.Exposure.Value:#,0.00} {credit.Exposure.Currency.Code} by now, over their limit of {credit.Limit.Value:#,0.00}."
            ),
            _ => string.Create(
                Plain,
                $"{at.Excess.Value:#,0.00} {at.Excess.Currency.Code} over the credit limit with this order: they owe and will owe {credit.Exposure.Value:#,0.00}, this order is {at.ThisOrder.Value:#,0.00} more, and the limit is {credit.Limit.Value:#,0.00}{(credit.SharedWith is { } parent ? $", a limit shared by all of {parent}" : "")}."
            ),
        };
    }

    // Where a policy asks somebody about it, the answer to the ask is what lets it pass.
    private static Finding Asked(CheckFacts facts, string figure, Finding stop)
    {
        var asked = facts.Approval.Needs.SelectMany(n => n.Policies).Where(p => p.Policy.Figure == figure).ToList();
        if (asked.Count == 0)
            return stop;
        var who = string.Join(" and ", asked.Select(p => p.AskedNow.Names ?? "nobody").Distinct());
        return asked.Min(p => p.State) switch
        {
            ApprovalState.Granted => stop with
            {
                Outcome = Outcome.Notice,
                Words = $"{stop.Words} Granted.",
                IsAsked = true,
            },
            ApprovalState.Waiting => stop with { Words = $"{stop.Words} {who} has the ask.", IsAsked = true },
            _ when asked.Exists(p => p.AskedNow == RouteStep.Nobody) => stop,
            _ => stop with { IsAsked = true, Cures = [new Cure("A", $"ask {who}", "ask", "", "")] },
        };
    }

    private Finding Stop(string words, string fingerprint, decimal excess = 0m) =>
        new(Code, Outcome.Stop, words, null, "", WaiveBy.Credit, fingerprint, excess);
}
