using System.Globalization;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// The order fits under the credit limit, and nothing is overdue beyond the grace days. A waiver covers this value, no
/// more.
/// </summary>
public sealed class CreditLimit : ICheck
{
    /// <inheritdoc />
    public string Code => "credit";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order)
            return [];
        return facts.Credit switch
        {
            null => [NoLimit(facts)],
            { MissingRate: { } currency } =>
            [
                Stop(
                    $"There is no exchange rate for {currency}, so what they owe cannot be added up. Enter the rate.",
                    ""
                ) with
                {
                    Waive = WaiveBy.Nobody,
                },
            ],
            { } credit => Kept(facts, credit),
        };
    }

    // Where nobody said how much they may owe, it is for the credit controller to say so for this order.
    private Finding NoLimit(CheckFacts facts)
    {
        var worth = Math.Ceiling(facts.TotalInCredit.Value * facts.CreditRateHome);
        return Stop(
            $"No credit limit is kept for {facts.Buyer.Name}.",
            string.Create(CultureInfo.InvariantCulture, $"no-limit/{worth}"),
            worth
        );
    }

    private IEnumerable<Finding> Kept(CheckFacts facts, CreditStanding credit)
    {
        var headroom = credit.Headroom(facts.TotalInCredit);
        if (headroom.Minor < 0)
        {
            var over = -headroom.Value;
            var shared = credit.SharedWith is { } parent ? $", a limit shared by all of {parent}" : "";
            yield return Stop(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{over:#,0.00} {headroom.Currency.Code} over the credit limit with this order: they owe and will owe {credit.Exposure.Value:#,0.00}, this order is {facts.TotalInCredit.Value:#,0.00} more, and the limit is {credit.Limit.Value:#,0.00}{shared}."
                ),
                string.Create(CultureInfo.InvariantCulture, $"over/{Math.Ceiling(over)}"),
                Math.Ceiling(over * facts.CreditRateHome)
            );
        }
        if (credit.OverdueBeyondGrace)
            yield return Stop(
                $"Their oldest open invoice is {credit.OldestOverdueDays} days overdue; {credit.GraceDays} are allowed.",
                $"overdue/{credit.OldestOverdueDays}"
            );
    }

    private Finding Stop(string words, string fingerprint, decimal excess = 0m) =>
        new(Code, Outcome.Stop, words, null, "", WaiveBy.Credit, fingerprint, excess);
}
