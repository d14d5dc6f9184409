using System.Collections.Immutable;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Promising;

/// <summary>What a line takes from the shelf, in stock units.</summary>
/// <param name="LeadDays">Calendar days from today until it is bought or made; null where it cannot be.</param>
public sealed record StockNeed(ItemId Item, decimal Quantity, int? LeadDays);

/// <summary>A line and what it takes: its item, or the parts of its bundle.</summary>
/// <param name="Quantity">Of the line itself, in its stock unit.</param>
/// <param name="Holds">False for an optional line: it is looked at, and takes nothing from the lines behind it.</param>
public sealed record LineNeeds(long Line, decimal Quantity, bool Holds, ImmutableArray<StockNeed> Needs);

/// <summary>A part of a line's quantity and when it can be there.</summary>
public sealed record PromisedPart(decimal Quantity, Promise Promise);

/// <summary>
/// What a line's stock looks like: free now, what can be promised (null: no date at all), and what it takes.
/// </summary>
public sealed record LineStock(decimal FreeNow, Promise? Promise)
{
    /// <summary>What it takes from stock, item by item.</summary>
    public ImmutableArray<StockNeed> Needs { get; init; } = [];

    /// <summary>Where the rule is "as it comes" and it comes in several: each with its date, in stock units.</summary>
    public ImmutableArray<PromisedPart> Parts { get; init; } = [];
}

/// <summary>
/// Promises for the lines of a sheet together: lines of one item draw on the same stock, the earlier first
/// (docs/calculations.md, "Promise").
/// </summary>
public static class LinePromises
{
    /// <summary>By the key of the line; none for an order on call.</summary>
    public static Dictionary<long, LineStock> Find(
        IReadOnlyList<LineNeeds> lines,
        IReadOnlyDictionary<ItemId, Outlook> outlooks,
        ShippingRule rule,
        DateTime now,
        PromiseTerms terms
    )
    {
        ArgumentNullException.ThrowIfNull(lines);
        var found = new Dictionary<long, LineStock>();
        if (rule == ShippingRule.OnCall)
            return found;
        var taken = new Dictionary<ItemId, decimal>();
        foreach (var line in lines)
        {
            var before = line.Needs.ToDictionary(n => n.Item, n => taken.GetValueOrDefault(n.Item));
            var promises = line
                .Needs.Select(n =>
                    PromiseFinder.Find(outlooks[n.Item], before[n.Item] + n.Quantity, n.LeadDays, now, terms)
                )
                .ToList();
            found[line.Line] = new LineStock(
                FreeNow(line, outlooks),
                promises.Contains(null) ? null : promises.MaxBy(p => p!.Taken)
            )
            {
                Needs = line.Needs,
                Parts =
                    rule == ShippingRule.AsItComes && line.Needs is [var only]
                        ? PromiseFinder.Split(
                            outlooks[only.Item],
                            before[only.Item],
                            only.Quantity,
                            only.LeadDays,
                            now,
                            terms
                        )
                        : [],
            };
            foreach (var need in line.Needs.Where(_ => line.Holds))
                taken[need.Item] = before[need.Item] + need.Quantity;
        }
        var held = lines.Where(l => l.Holds).Select(l => found[l.Line]).ToList();
        if (rule == ShippingRule.AllTogether && held.Count > 0 && held.All(s => s.Promise is not null))
        {
            var last = held.MaxBy(s => s.Promise!.Taken)!.Promise;
            foreach (var line in lines.Where(l => l.Holds))
                found[line.Line] = found[line.Line] with { Promise = last };
        }
        return found;
    }

    // Of a bundle: so many whole ones as the scarcest part allows.
    private static decimal FreeNow(LineNeeds line, IReadOnlyDictionary<ItemId, Outlook> outlooks) =>
        line.Needs is [var only]
            ? outlooks[only.Item].FreeNow * (only.Quantity == 0 ? 1m : line.Quantity / only.Quantity)
        : line.Quantity == 0 ? 0m
        : line
            .Needs.Where(n => n.Quantity > 0)
            .Select(n => decimal.Floor(outlooks[n.Item].FreeNow * line.Quantity / n.Quantity))
            .DefaultIfEmpty(0m)
            .Min();
}
