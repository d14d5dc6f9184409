using System.Collections.Immutable;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;

namespace Solvenda.Core.Sheets.Entry;

/// <summary>One way to understand what is typed: which item, and which of the numbers counts it.</summary>
/// <param name="Item">Null: the words stay as they are, as a line that is not in the catalogue.</param>
/// <param name="Line">The line so understood.</param>
/// <param name="Unsaid">Words that the item is not called by; empty where it is called by all of them.</param>
/// <param name="How">How it was found.</param>
public sealed record EntryChoice(Item? Item, QuickLine Line, ImmutableArray<string> Unsaid, string How)
{
    /// <summary>Whether everything that was typed has its place.</summary>
    public bool IsWhole => Item is not null && Unsaid.IsEmpty;
}

/// <summary>
/// What a typed line may mean, the likeliest first. What no item is called by never becomes one by itself: the words
/// stay, and the nearest items stand below them.
/// </summary>
public static class EntryChoices
{
    private const int Most = 8;

    // Of one way to count, so many items.
    private const int MostOfOne = 6;

    // What scores less has hardly a word in common.
    private const decimal Least = 0.25m;

    // Closer than this the words alone do not tell two items apart.
    private const decimal Near = 0.06m;

    /// <param name="aliasOf">What this buyer's own words or code mean; null where they mean nothing that was
    /// learned.</param>
    /// <param name="bought">What this buyer took before, which comes first among equals.</param>
    public static ImmutableArray<EntryChoice> Of(
        QuickLine typed,
        ItemFinder items,
        Func<string, Item?> aliasOf,
        IReadOnlySet<ItemId> bought,
        Language? language
    )
    {
        ArgumentNullException.ThrowIfNull(typed);
        ArgumentNullException.ThrowIfNull(items);
        ArgumentNullException.ThrowIfNull(aliasOf);
        ArgumentNullException.ThrowIfNull(bought);
        var ways = typed.Open.Select(typed.Counting).Prepend(typed).Where(w => w.Words.Length > 0).ToList();
        var found = ways.SelectMany(w => OfOne(w, items, aliasOf, bought, language))
            .OrderBy(r => r.Choice.Unsaid.Length)
            .ThenByDescending(r => r.IsSure)
            .ThenBy(r => r.Rivals)
            .ThenByDescending(r => r.Choice.Line.Quantity is not null)
            .ThenByDescending(r => r.Score)
            .DistinctBy(r => (r.Choice.Item!.Id, r.Choice.Line.Quantity, r.Choice.Line.Unit))
            .Select(r => r.Choice)
            .Take(Most)
            .ToList();
        var words = new EntryChoice(
            null,
            typed.Quantity is null && ways.Count > 1 ? Free(typed) : typed,
            [],
            "as typed"
        );
        if (found.Count > 0 && found[0].IsWhole)
            return [.. found, words];
        return [words, .. found];
    }

    // What is not in the catalogue is counted by a number at the end, and by one with a unit.
    private static QuickLine Free(QuickLine typed) =>
        typed.Open.FirstOrDefault(o => !o.IsBare) is { } measured ? typed.Counting(measured) : typed;

    private readonly record struct Ranked(EntryChoice Choice, decimal Score, bool IsSure, int Rivals);

    private static IEnumerable<Ranked> OfOne(
        QuickLine line,
        ItemFinder items,
        Func<string, Item?> aliasOf,
        IReadOnlySet<ItemId> bought,
        Language? language
    )
    {
        bool Fits(Item item) => line.Unit is not { } unit || item.Factor(unit) is not null;
        if (items.ByCode(line.Words) is { Active: true } exact && Fits(exact))
        {
            yield return new Ranked(new EntryChoice(exact, line, [], "code"), 1m, true, 0);
            yield break;
        }
        if (aliasOf(ItemFinder.Normal(line.Words)) is { } learned && Fits(learned))
            yield return new Ranked(new EntryChoice(learned, line, [], "their words"), 1m, true, 0);
        var best = items
            .Search(line.Words, MostOfOne * 2, id => bought.Contains(id) ? Near : 0m, language)
            .Where(c => c.Score >= Least && Fits(c.Item))
            .Select(c => (c.Item, c.Score, Unsaid: items.Unsaid(line.Words, c.Item, language)))
            .OrderBy(c => c.Unsaid.Length)
            .ThenByDescending(c => c.Score)
            .Take(MostOfOne)
            .ToList();
        var rivals = best.Count(c => c.Unsaid.Length == best[0].Unsaid.Length && best[0].Score - c.Score < Near) - 1;
        foreach (var (item, score, unsaid) in best)
            yield return new Ranked(
                new EntryChoice(item, line, unsaid, bought.Contains(item.Id) ? "they took it before" : "words"),
                score,
                false,
                rivals
            );
    }
}
