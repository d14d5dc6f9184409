using System.Globalization;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>Goods that could be there before the buyer takes any.</summary>
public sealed class DeliveryWindow : ICheck
{
    /// <inheritdoc />
    public string Code => "window";

    /// <inheritdoc />
    public string Does => "goods do not come before the buyer takes any";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        if (facts.Stated.NotBefore is not { } from)
            yield break;
        var early = facts
            .Stock.Values.Select(s => s.Promise?.Arrives)
            .Where(a => a < from)
            .OfType<DateOnly>()
            .Order()
            .ToList();
        var lines = early.Count == 1 ? "a line is" : $"{early.Count} lines are";
        if (early.Count > 0)
            yield return new Finding(
                Code,
                Outcome.Notice,
                $"They take it from {Day(from)} on; {lines} promised before, the first on {Day(early[0])}."
            );
    }

    private static string Day(DateOnly day) => day.ToString("d MMM", CultureInfo.InvariantCulture);
}
