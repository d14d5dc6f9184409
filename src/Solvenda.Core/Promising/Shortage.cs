using System.Collections.Immutable;

namespace Solvenda.Core.Promising;

/// <summary>Where the stock of an item falls short of what was promised, in one warehouse.</summary>
/// <param name="From">The first day on which it does, from today.</param>
/// <param name="By">By how much at most, in stock units.</param>
/// <param name="Lasting">By how much once all that is on its way has come; 0: it is a matter of days alone.</param>
public sealed record Shortage(int From, decimal By, decimal Lasting)
{
    /// <summary>Null where everything promised can be taken on its day.</summary>
    public static Shortage? Of(Outlook outlook)
    {
        ArgumentNullException.ThrowIfNull(outlook);
        var steps = outlook.Levels.ToList();
        return steps.FirstOrDefault(s => s.Level < 0) is { Level: < 0 } first
            ? new Shortage(first.Day, -steps.Min(s => s.Level), Math.Max(0m, -steps[^1].Level))
            : null;
    }

    /// <summary>
    /// How much to ask for so that nothing is short and a time of usual demand is covered too, rounded up to whole
    /// packs.
    /// </summary>
    /// <param name="by">Short by so much.</param>
    /// <param name="usual">What goes in that time.</param>
    /// <param name="pack">What it is bought by; 1 or more.</param>
    public static decimal Propose(decimal by, decimal usual, decimal pack)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(pack, 0.000001m);
        return decimal.Ceiling(Math.Max(0m, by + usual) / pack) * pack;
    }
}

/// <summary>What a planner can do so that a promise holds, or is told anew.</summary>
/// <param name="Way">By <see cref="ReliefWay"/>.</param>
/// <param name="Quantity">What is moved, in stock units.</param>
/// <param name="Day">When that can be taken, in days from today.</param>
public sealed record Relief(ReliefWay Way, decimal Quantity, int Day)
{
    /// <summary>The other warehouse; empty for the other ways.</summary>
    public string Warehouse { get; init; } = "";

    /// <summary>The commitment that gives; 0 for the other ways.</summary>
    public long From { get; init; }

    /// <summary>By how many days whoever gives is then later than they want it; 0: nobody is hurt.</summary>
    public int Hurts { get; init; }

    /// <summary>The same as long as it means the same: by it one that was shown is known again.</summary>
    public string Sign =>
        string.Create(
            System.Globalization.CultureInfo.InvariantCulture,
            $"{Way}/{Warehouse}/{From}/{Quantity:0.######}/{Day}"
        );
}

/// <summary>The ways of a <see cref="Relief"/>.</summary>
public enum ReliefWay
{
    /// <summary>What is missing leaves from another warehouse.</summary>
    Elsewhere,

    /// <summary>Another order that could have it earlier waits instead.</summary>
    Take,

    /// <summary>What is there goes on its day, the rest when it comes.</summary>
    Split,
}

/// <summary>A commitment and how long whoever it is for can wait.</summary>
/// <param name="Bearable">The last day, from today, on which taking it still reaches them as wanted.</param>
public sealed record Bearing(Allotted Allotted, int Bearable);

/// <summary>Finds what can be done for a promise that cannot be kept.</summary>
public static class Reliefs
{
    /// <summary>In the order in which they hurt least; empty where nothing is missing.</summary>
    /// <param name="all">All that wait for the item in the warehouse, in their turn.</param>
    /// <param name="elsewhere">The outlook of the item in each other warehouse.</param>
    public static ImmutableArray<Relief> For(
        long key,
        IReadOnlyList<Bearing> all,
        IEnumerable<(string Warehouse, Outlook Outlook)> elsewhere
    )
    {
        var one = all.Single(b => b.Allotted.Wait.Key == key).Allotted;
        if (one.Missing <= 0)
            return [];
        var found = new List<Relief>();
        foreach (var (warehouse, outlook) in elsewhere)
        {
            if (
                outlook.FirstDayFor(one.Missing) is { } day
                && day <= Math.Max(one.Wait.Day, (one.Last ?? int.MaxValue) - 1)
            )
                found.Add(
                    new Relief(ReliefWay.Elsewhere, one.Missing, Math.Max(day, one.Wait.Day)) { Warehouse = warehouse }
                );
        }
        if (one.Last is { } last)
        {
            var giver = all.Where(b => Gives(b.Allotted, one))
                .Select(b => (b.Allotted.Wait, Hurts: Math.Max(0, last - b.Bearable)))
                .OrderBy(g => g.Hurts)
                .ThenByDescending(g => g.Wait.Day)
                .FirstOrDefault();
            var split = new Relief(ReliefWay.Split, one.Missing, last);
            Relief[] take = giver.Wait is null
                ? []
                : [new Relief(ReliefWay.Take, one.Missing, last) { From = giver.Wait.Key, Hurts = giver.Hurts }];
            // Whoever would be hurt for another comes last.
            found.AddRange(giver.Hurts == 0 ? [.. take, split] : [split, .. take]);
        }
        return [.. found];
    }

    // One that has as much on its day, from what is there before this one needs it.
    private static bool Gives(Allotted giver, Allotted taker) =>
        giver.Wait.Key != taker.Wait.Key
        && giver.Wait.Day <= taker.Wait.Day
        && giver.Parts.Where(p => p.From == Supply.Stock && p.Day <= taker.Wait.Day).Sum(p => p.Quantity)
            >= taker.Missing;
}
