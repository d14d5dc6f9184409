using System.Collections.Immutable;
using System.Globalization;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>
/// What was paid on a channel is what we would bill: what differs is the channel's owner's to settle.
/// </summary>
public sealed class PaidInFull : ICheck
{
    /// <inheritdoc />
    public string Code => "paid";

    /// <inheritdoc />
    public string Does => "what was paid is what we would bill";

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers => [new("apart", "so far apart at most", 0.02m, 0m, 100m)];

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Stated.Paid is not { } paid)
            yield break;
        var ours = facts.Sheet.Tally.TotalWithTax;
        if (Math.Abs(ours.Value - paid) <= facts.Number(this, "apart"))
            yield break;
        yield return new Finding(
            Code,
            Outcome.Stop,
            string.Create(
                CultureInfo.InvariantCulture,
                $"They paid {paid:#,0.00##} {ours.Currency.Code}, we would bill {ours.Value:#,0.00##} with tax: {Math.Abs(ours.Value - paid):#,0.00##} {(ours.Value > paid ? "more" : "less")}."
            ),
            null,
            "",
            WaiveBy.Lead,
            string.Create(CultureInfo.InvariantCulture, $"paid/{paid}/{ours.Value}")
        );
    }
}
