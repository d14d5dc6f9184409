using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>There is a rate for the currency, and it is the one that the buyer deals in.</summary>
public sealed class CurrencyKnown : ICheck
{
    /// <inheritdoc />
    public string Code => "currency";

    /// <inheritdoc />
    public string Does => "the currency has a rate, and is the buyer’s own";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var (currency, home) = (facts.Sheet.Sheet.Currency, facts.Sheet.Book.Home);
        if (currency != home && facts.Sheet.Rates.Convert(1m, currency, home) is null)
            yield return new Finding(
                Code,
                facts.Document == DocumentKind.Order ? Outcome.Stop : Outcome.Notice,
                $"There is no rate of {currency.Code} on the pricing date: nobody can say what it is worth.",
                null,
                "currency",
                WaiveBy.Nobody
            );
        if (currency != facts.Buyer.Currency)
            yield return new Finding(
                Code,
                Outcome.Notice,
                $"It is in {currency.Code}; {facts.Buyer.Name} usually deals in {facts.Buyer.Currency.Code}.",
                null,
                "currency"
            );
    }
}
