using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>An order is what its kind says: a schedule has its days, the counter sells what is there.</summary>
public sealed class KindKept : ICheck
{
    /// <inheritdoc />
    public string Code => "kind";

    /// <inheritdoc />
    public string Does => "an order is what its kind says";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Document != DocumentKind.Order)
            yield break;
        var kind = facts.Sheet.Sheet.Kind;
        if (kind.IsFree && HeadTerms.FreeWhy.In(facts.Head) is null)
            yield return new Finding(
                Code,
                Outcome.Stop,
                $"A {kind.Words} costs nothing: say why.",
                null,
                HeadTerms.FreeWhy.Name
            )
            {
                Cures = [new Cure("G", "say why", "focus", HeadTerms.FreeWhy.Name, "")],
            };
        foreach (var line in facts.Sheet.Sold.Where(l => l.Counts))
        {
            if (Words(kind, line, facts) is var (words, field))
                yield return new Finding(Code, Outcome.Stop, words, line.Line.Key, field);
        }
    }

    private static (string Words, string Field)? Words(OrderKind kind, PricedLine line, CheckFacts facts) =>
        line switch
        {
            { Line.Wanted: null, Item: not null } when kind.HasDays => (
                "A schedule has a day for each line.",
                "wanted"
            ),
            { Item: { Stocked: true } goods } when kind.IsWork => (
                $"{goods.Code} is goods, and the order is for service alone.",
                "item"
            ),
            { Item: { } item } when kind.IsAtCounter && Missing(line, facts) is { } free => (
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{free:#,0.##} {UnitTable.OnSheet(item.StockUnit)} lie there; the counter sells what is there."
                ),
                "quantity"
            ),
            _ => null,
        };

    // What is free, where that is not enough for now.
    private static decimal? Missing(PricedLine line, CheckFacts facts) =>
        facts.Stock.TryGetValue(line.Line.Key, out var stock)
        && stock.FreeNow < line.Line.Quantity * (line.Item!.Factor(line.Line.Unit) ?? 1m)
            ? stock.FreeNow
            : null;
}
