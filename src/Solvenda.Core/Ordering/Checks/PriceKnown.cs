using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>Every line sold has a price: no price is never zero.</summary>
public sealed class PriceKnown : ICheck
{
    /// <inheritdoc />
    public string Code => "price";

    /// <inheritdoc />
    public string Does => "every line has a price";

    /// <inheritdoc />
    public bool IsFixed => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        foreach (var line in facts.Sheet.Sold.Where(l => l.Item is not null && !l.HasPrice))
        {
            var words = line.Build.Gap switch
            {
                PriceGap.NoUnit => $"{line.Item!.Code} is not sold by {line.Line.Unit.Code}.",
                PriceGap.NoRate => $"There is no exchange rate to {facts.Sheet.Sheet.Currency.Code} on this day.",
                _ => $"No price list has {line.Item!.Code} on this day.",
            };
            yield return new Finding(
                Code,
                Outcome.Stop,
                words,
                line.Line.Key,
                line.Build.Gap == PriceGap.NoUnit ? "unit" : "item"
            )
            {
                Cures =
                    line.Build.Gap == PriceGap.NoUnit
                        ? [new Cure("U", $"by {line.Item!.StockUnit.Code}", "set", "unit", line.Item.StockUnit.Code)]
                        : [],
            };
        }
        foreach (var line in facts.Sheet.Sold.Where(l => l.Line.Kind == LineKind.Charge && !l.HasPrice))
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"Nobody said what “{line.Line.Words}” is charged at.",
                line.Line.Key,
                "net"
            );
        if (facts.Sheet.Tally.DiscountRefused)
            yield return new Finding(
                Code,
                Outcome.Stop,
                "The discount on the sheet is more than its lines are worth; nothing was taken off.",
                null,
                "sheetDiscount"
            );
    }
}
