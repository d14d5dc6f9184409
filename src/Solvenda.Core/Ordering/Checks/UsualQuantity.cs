using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>How much of an item a buyer took before, in stock units.</summary>
/// <param name="Times">In so many orders.</param>
public sealed record TakenBefore(decimal Least, decimal Most, int Times);

/// <summary>
/// A quantity unlike any that this buyer took before, with the slip that is likely: the number that they usually say,
/// in another unit.
/// </summary>
public sealed class UsualQuantity : ICheck
{
    /// <summary>So many times more than ever, or less, is unlike them.</summary>
    public const decimal Far = 5m;

    /// <summary>Fewer orders say nothing about what is usual.</summary>
    public const int EnoughTimes = 3;

    /// <inheritdoc />
    public ImmutableArray<CheckNumber> Numbers => [new("times", "times more than ever, or less", Far, 1.5m, 1_000m)];

    /// <inheritdoc />
    public string Code => "unusual";

    /// <inheritdoc />
    public string Does => "quantities are about what this buyer takes";

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var far = facts.Number(this, "times");
        foreach (var line in facts.Sheet.Sold)
        {
            if (
                line is { Item: { } item, Line.Quantity: > 0 }
                && item.Factor(line.Line.Unit) is { } factor
                && facts.TakenBefore.TryGetValue(item.Id, out var before)
                && before.Times >= EnoughTimes
                && IsFar(line.Line.Quantity * factor, before, far)
            )
                yield return Say(line, item, before, far);
        }
    }

    private static bool IsFar(decimal units, TakenBefore before, decimal far) =>
        units > before.Most * far || units * far < before.Least;

    private Finding Say(PricedLine line, Item item, TakenBefore before, decimal far)
    {
        var unit = UnitTable.OnSheet(item.StockUnit);
        var usual =
            before.Least == before.Most
                ? string.Create(CultureInfo.InvariantCulture, $"{before.Most:#,0.######} {unit}")
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"{before.Least:#,0.######} to {before.Most:#,0.######} {unit}"
                );
        var slip = Slip(line.Line, item, before, far);
        var words = $"They took {usual.TrimEnd()} at a time before.";
        return new Finding(
            Code,
            Outcome.Notice,
            slip is { } meant ? $"{words} By {Word(line.Line.Unit)} for {Word(meant)}?" : words,
            line.Line.Key,
            "quantity",
            Fingerprint: string.Create(CultureInfo.InvariantCulture, $"{line.Line.Quantity} {line.Line.Unit.Code}")
        )
        {
            Cures = slip is { } by
                ?
                [
                    new Cure(
                        "Q",
                        string.Create(CultureInfo.InvariantCulture, $"{line.Line.Quantity:0.######} {Word(by)}"),
                        "set",
                        "quantity",
                        string.Create(CultureInfo.InvariantCulture, $"{line.Line.Quantity:0.######} {by.Code}")
                    ),
                ]
                : [],
        };
    }

    // The unit in which the same number is what they usually take.
    private static Unit? Slip(SheetLine line, Item item, TakenBefore before, decimal far) =>
        new[] { item.StockUnit }
            .Concat(item.SalesUnits.Select(u => u.Unit))
            .Where(u => u != line.Unit && item.Factor(u) is { } f && !IsFar(line.Quantity * f, before, far))
            .Cast<Unit?>()
            .FirstOrDefault();

    private static string Word(Unit unit) => UnitTable.OnSheet(unit) is { Length: > 0 } word ? word : "piece";
}
