using System.Collections.Immutable;

namespace Solvenda.Core.Promising;

/// <summary>What waits, and by when it is wanted.</summary>
/// <param name="Wanted">The last day, from today, on which taking it still reaches them as wanted; its own day or later
/// where nobody said.</param>
/// <param name="IsFixed">It has its turn and stays where it is: part of it is picked, or it is being changed.</param>
public sealed record Wish(Wait Wait, int Wanted, bool IsFixed = false);

/// <summary>What is promised anew: the days on which it is taken from now on.</summary>
/// <param name="Parts">Each with a day.</param>
public sealed record Repromised(Wait Wait, ImmutableArray<WaitPart> Parts)
{
    /// <summary>When the last of it is taken, in days from today.</summary>
    public int Last => Parts.Max(p => p.Day!.Value);
}

/// <summary>
/// Promises everything that waits for an item in a warehouse anew, after something came or slipped: what cannot be kept
/// moves to the day on which it can, and what had been put off beyond the wanted day moves up where it can
/// (docs/calculations.md, "Promise"). Nothing that can be kept moves, and nobody moves up at the cost of another.
/// </summary>
public static class Repromise
{
    /// <param name="days">How far to look.</param>
    /// <returns>Those that move, in their turn. What no day can be given for stays where it is.</returns>
    public static ImmutableArray<Repromised> Over(
        int days,
        decimal onHand,
        IReadOnlyList<StockMove> incoming,
        IReadOnlyCollection<Wish> waits,
        int? leadDays
    )
    {
        ArgumentNullException.ThrowIfNull(waits);
        var wishes = waits.ToDictionary(w => w.Wait.Key);
        var moved = new SortedDictionary<(int, long), Repromised>();
        var taken = new Dictionary<long, ImmutableArray<WaitPart>>();
        foreach (var one in Allocation.Over(onHand, incoming, waits.Select(w => w.Wait), leadDays))
        {
            var late = one.Missing > 0 && one.Last is not null && !wishes[one.Wait.Key].IsFixed;
            taken[one.Wait.Key] = late ? one.Parts : [new WaitPart(one.Wait.Quantity, one.Wait.Day, Supply.Stock)];
            if (late)
                moved[(one.Wait.Day, one.Wait.Key)] = new Repromised(one.Wait, one.Parts);
        }
        foreach (var wish in waits.Where(w => !w.IsFixed).OrderBy(w => w.Wait.Day).ThenBy(w => w.Wait.Key))
        {
            var wait = wish.Wait;
            var now = taken[wait.Key].Max(p => p.Day!.Value);
            if (now <= wish.Wanted)
                continue;
            var others = taken
                .Where(t => t.Key != wait.Key)
                .SelectMany(t => t.Value)
                .Select(p => new StockMove(p.Day!.Value, p.Quantity));
            if (
                Outlook.Over(days, onHand, incoming, others).FirstDayFor(wait.Quantity) is not { } first
                || first >= now
            )
                continue;
            // Not before it is wanted: what lies ready early lies in the way.
            var day = Math.Max(first, wish.Wanted);
            taken[wait.Key] = [new WaitPart(wait.Quantity, day, Supply.Stock)];
            if (day == wait.Day)
                moved.Remove((wait.Day, wait.Key));
            else
                moved[(wait.Day, wait.Key)] = new Repromised(wait, taken[wait.Key]);
        }
        return [.. moved.Values];
    }
}
