using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// What was paid on a channel is what is billed, and is not far from our own prices: what differs is the channel's
/// owner's to settle (docs/calculations.md, "Prices with tax").
/// </summary>
public sealed class PaidInFull : ICheck
{
    /// <inheritdoc />
    public string Code => "paid";

    /// <inheritdoc />
    public string Does => "what was paid is what is billed, and not far from our own prices";

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers =>
        [
            new("percent", "percent of our own price that may be missing or too much", 10m, 0m, 100m),
            new("line", "of a line that may be missing or too much, in its currency", 2m, 0m, 1_000m),
        ];

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Stated.Paid is not { } paid)
            return [];
        if (!facts.Stated.ByChannel)
            return
            [
                Stop(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"Their file says that {paid:#,0.00##} are paid, and did not come by the channel itself. Our prices stand."
                    ),
                    null,
                    string.Create(CultureInfo.InvariantCulture, $"said/{paid}")
                ),
            ];
        var tally = facts.Sheet.Tally;
        var billed = tally.TotalWithTax + (tally.Rounding ?? Amount.Zero(tally.TotalWithTax.Currency));
        return Whole(paid, billed).Concat(facts.Sheet.Sold.Where(l => l.IsPaid).SelectMany(l => Line(facts, l)));
    }

    private IEnumerable<Finding> Whole(decimal paid, Amount billed)
    {
        if (billed.Value == paid)
            yield break;
        yield return Stop(
            string.Create(
                CultureInfo.InvariantCulture,
                $"They paid {paid:#,0.00##} {billed.Currency.Code}, this comes to {billed.Value:#,0.00##} with tax: {Math.Abs(billed.Value - paid):#,0.00##} {(billed.Value > paid ? "more" : "less")}."
            ),
            null,
            string.Create(CultureInfo.InvariantCulture, $"paid/{paid}/{billed.Value}")
        );
    }

    private IEnumerable<Finding> Line(CheckFacts facts, PricedLine line)
    {
        if (line.OwnPrice is not { } own || line.Terms.PriceBase == 0)
            yield break;
        var ours = line.Terms.Quantity * own / line.Terms.PriceBase;
        var apart = line.Figures.Net.Value - ours;
        if (
            Math.Abs(apart) <= facts.Number(this, "line")
            || Math.Abs(apart) <= ours * facts.Number(this, "percent") / 100m
        )
            yield break;
        yield return Stop(
            string.Create(
                CultureInfo.InvariantCulture,
                $"They paid {line.Figures.NetPrice:#,0.00##} without tax, ours is {own:#,0.00##}: {Math.Abs(apart):#,0.00} {(apart > 0 ? "more" : "less")} on the line."
            ),
            line.Line.Key,
            string.Create(CultureInfo.InvariantCulture, $"{line.Figures.NetPrice:0.####}/{own:0.####}")
        );
    }

    private Finding Stop(string words, long? line, string subject) =>
        new(Code, Outcome.Stop, words, line, line is null ? "" : "net", WaiveBy.Lead, subject);
}
