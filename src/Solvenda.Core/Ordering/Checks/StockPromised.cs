using System.Globalization;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Core.Ordering.Checks;

/// <summary>Every line has a date that we can keep, and it is not after the date they want.</summary>
public sealed class StockPromised : ICheck
{
    /// <summary>Its code.</summary>
    public const string Name = "stock";

    /// <inheritdoc />
    public string Code => Name;

    /// <inheritdoc />
    public string Does => "every line has a date that can be kept";

    /// <inheritdoc />
    public bool Goes => true;

    /// <inheritdoc />
    public IEnumerable<Finding> Run(CheckFacts facts) => facts.Promised is { } kept ? Since(facts, kept) : Made(facts);

    // A promise that was given and can no longer be kept.
    private IEnumerable<Finding> Since(CheckFacts facts, IReadOnlyDictionary<long, DateOnly?> kept)
    {
        foreach (var line in facts.Sheet.Sold)
        {
            var key = line.Line.Key;
            if (kept.GetValueOrDefault(key) is not { } promised || !facts.Stock.TryGetValue(key, out var stock))
                continue;
            if (stock.Promise is { } now && now.Arrives <= promised)
                continue;
            yield return new Finding(
                Code,
                Outcome.Notice,
                stock.Promise is { } later
                    ? $"Promised for {Day(promised)}; {Day(later.Arrives)} at the earliest by now."
                    : $"Promised for {Day(promised)}; no date can be given by now.",
                key,
                "wanted"
            );
        }
    }

    private IEnumerable<Finding> Made(CheckFacts facts)
    {
        foreach (var line in facts.Sheet.Sold.Where(l => l.Item is not null && l.Line.Quantity > 0))
        {
            if (!facts.Stock.TryGetValue(line.Line.Key, out var stock))
                continue;
            var free = string.Create(
                    CultureInfo.InvariantCulture,
                    $"{stock.FreeNow:#,0.##} {UnitTable.OnSheet(line.Item!.StockUnit)}"
                )
                .Trim();
            if (stock.Promise is not { } promise)
            {
                yield return new Finding(
                    Code,
                    Outcome.Stop,
                    $"Only {free} free, and more is neither on its way nor to be had: no date can be given.",
                    line.Line.Key,
                    "quantity",
                    WaiveBy.Lead,
                    $"none/{line.Line.Quantity.ToString(CultureInfo.InvariantCulture)}"
                );
            }
            else if ((line.Line.Wanted ?? HeadTerms.Wanted.Day(facts.Head)) is { } wanted && promise.Arrives > wanted)
            {
                yield return new Finding(
                    Code,
                    facts.Document == DocumentKind.Order ? Outcome.Stop : Outcome.Notice,
                    $"Wanted by {Day(wanted)}, there by {Day(promise.Arrives)} at the earliest; {free} free now.",
                    line.Line.Key,
                    "wanted",
                    WaiveBy.Lead,
                    promise.Arrives.ToString("O", CultureInfo.InvariantCulture)
                )
                {
                    Cures =
                        facts.Document == DocumentKind.Order
                            ?
                            [
                                new Cure(
                                    "L",
                                    "offer the later date",
                                    "waive",
                                    "",
                                    "We offer the later date; the acknowledgement tells them."
                                ),
                            ]
                            : [],
                };
            }
        }
    }

    private static string Day(DateOnly day) => day.ToString("d MMM", CultureInfo.InvariantCulture);
}
