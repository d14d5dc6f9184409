using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>The order is worth the work: its goods come to the least that the house takes an order for.</summary>
public sealed class LeastValue : ICheck
{
    /// <inheritdoc />
    public string Code => "least-value";

    /// <inheritdoc />
    public string Does => "the goods come to the least that an order is taken for";

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers =>
        [new("least", "at least, in home currency; 0: any", 0m, 0m, 1_000_000m)];

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var least = facts.Number(this, "least");
        if (
            facts.Document != DocumentKind.Order
            || least == 0m
            || facts.Sheet.Sheet.Kind.IsFree
            || !facts.Sheet.Sold.Any()
        )
            yield break;
        var goods = facts.Sheet.Tally.Goods;
        if (
            facts.Sheet.Rates.Convert(goods.Value, goods.Currency, facts.Sheet.Book.Home) is not { } home
            || home >= least
        )
            yield break;
        yield return new Finding(
            Code,
            Outcome.Stop,
            string.Create(
                CultureInfo.InvariantCulture,
                $"The goods come to {goods.Value:#,0.00##} {goods.Currency.Code}; an order is taken from {least:#,0.##} on."
            ),
            null,
            "",
            WaiveBy.Lead,
            string.Create(CultureInfo.InvariantCulture, $"least/{least}")
        );
    }
}
