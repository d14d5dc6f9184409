using System.Globalization;
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
        if (facts.Document != DocumentKind.Order)
            yield break;
        if (facts.Credit is not { } credit)
        {
            // Where nobody said how much they may owe, it is for the credit controller to say so for this order.
            var worth = Math.Ceiling(facts.TotalInCredit.Value * facts.CreditRateHome);
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"No credit limit is kept for {facts.Buyer.Name}.",
                null,
                "",
                WaiveBy.Credit,
                string.Create(CultureInfo.InvariantCulture, $"no-limit/{worth}"),
                worth
            );
            yield break;
        }
        if (credit.MissingRate is { } currency)
        {
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"There is no exchange rate for {currency}, so what they owe cannot be added up. Enter the rate.",
                null,
                "",
                WaiveBy.Nobody
            );
            yield break;
        }
        var headroom = credit.Headroom(facts.TotalInCredit);
        if (headroom.Minor < 0)
        {
            var over = -headroom.Value;
            var words = string.Create(
                CultureInfo.InvariantCulture,
                $"{over:#,0.00} {headroom.Currency.Code} over the credit limit with this order: they owe and will owe {credit.Exposure.Value:#,0.00} of {credit.Limit.Value:#,0}{(credit.SharedWith is { } parent ? $", a limit shared by all of {parent}" : "")}."
            );
            yield return new Finding(
                Code,
                Outcome.Stop,
                words,
                null,
                "",
                WaiveBy.Credit,
                $"over/{Math.Ceiling(over).ToString(CultureInfo.InvariantCulture)}",
                Math.Ceiling(over * facts.CreditRateHome)
            );
        }
        if (credit.OverdueBeyondGrace)
        {
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"Their oldest open invoice is {credit.OldestOverdueDays} days overdue; {credit.GraceDays} are allowed.",
                null,
                "",
                WaiveBy.Credit,
                $"overdue/{credit.OldestOverdueDays}"
            );
        }
    }
}
