using System.Collections.Immutable;

namespace Solvenda.Core.Promising;

/// <summary>What a confirmed order was promised of an item, in stock units.</summary>
/// <param name="Key">Of the commitment.</param>
/// <param name="Day">When it is taken from the shelf, in days from today; one that is late counts as 0.</param>
/// <param name="Quantity">Above 0.</param>
public sealed record Wait(long Key, int Day, decimal Quantity);

/// <summary>Where a part of what waits comes from.</summary>
public enum Supply
{
    /// <summary>It lies on the shelf, or is on its way.</summary>
    Stock,

    /// <summary>It can be bought or made by then; nothing of it is on its way yet.</summary>
    ToBeHad,

    /// <summary>Nothing tells where it should come from.</summary>
    Nowhere,
}

/// <summary>A part of what waits and the day on which it can be taken; null: no day can be given.</summary>
public sealed record WaitPart(decimal Quantity, int? Day, Supply From);

/// <summary>What waits, and what it gets when each gets its turn.</summary>
public sealed record Allotted(Wait Wait, ImmutableArray<WaitPart> Parts)
{
    /// <summary>How much of it can be taken on its day.</summary>
    public decimal Kept => Parts.Where(p => p.Day <= Wait.Day).Sum(p => p.Quantity);

    /// <summary>How much of it cannot.</summary>
    public decimal Missing => Wait.Quantity - Kept;

    /// <summary>How much of it nothing is on its way for.</summary>
    public decimal ToBeHad => Parts.Where(p => p.From != Supply.Stock).Sum(p => p.Quantity);

    /// <summary>When the last of it can be taken; null where no day can be given for some of it.</summary>
    public int? Last => Parts.Any(p => p.Day is null) ? null : Parts.Max(p => p.Day);
}

/// <summary>
/// Gives what is there and what comes to those who wait for it, in one warehouse: the earlier promised day first, and
/// of one day the earlier commitment (docs/calculations.md, "Promise").
/// </summary>
public static class Allocation
{
    // What is left of something that lies there or comes.
    private sealed class Heap(int day, decimal quantity)
    {
        public int Day => day;

        public decimal Left { get; set; } = quantity;
    }

    /// <param name="onHand">Below zero where more went than was counted: what comes makes up for it first.</param>
    /// <param name="incoming">Late ones moved to their day by the caller.</param>
    /// <param name="leadDays">Days from today until it is bought or made; null where it cannot be.</param>
    /// <returns>In the order in which they get their turn.</returns>
    public static ImmutableArray<Allotted> Over(
        decimal onHand,
        IEnumerable<StockMove> incoming,
        IEnumerable<Wait> waits,
        int? leadDays
    )
    {
        var debt = Math.Max(0m, -onHand);
        var heaps = new List<Heap> { new(0, Math.Max(0m, onHand)) };
        foreach (var move in incoming.OrderBy(m => m.Day))
        {
            var owed = Math.Min(debt, move.Quantity);
            debt -= owed;
            heaps.Add(new Heap(Math.Max(0, move.Day), move.Quantity - owed));
        }
        var at = 0;
        var all = ImmutableArray.CreateBuilder<Allotted>();
        foreach (var wait in waits.OrderBy(w => w.Day).ThenBy(w => w.Key))
        {
            var parts = new List<WaitPart>();
            var rest = wait.Quantity;
            // Later than it could be bought, nobody waits for what comes.
            var latest = leadDays is { } lead ? Math.Max(lead, wait.Day) : int.MaxValue;
            while (rest > 0 && at < heaps.Count && heaps[at].Day <= latest)
            {
                var heap = heaps[at];
                var taken = Math.Min(rest, heap.Left);
                Add(parts, new WaitPart(taken, Math.Max(heap.Day, wait.Day), Supply.Stock));
                heap.Left -= taken;
                rest -= taken;
                if (heap.Left == 0)
                    at++;
            }
            if (rest > 0)
                Add(
                    parts,
                    leadDays is null
                        ? new WaitPart(rest, null, Supply.Nowhere)
                        : new WaitPart(rest, latest, Supply.ToBeHad)
                );
            all.Add(new Allotted(wait, [.. parts]));
        }
        return all.ToImmutable();
    }

    // What comes on one day is one part.
    private static void Add(List<WaitPart> parts, WaitPart part)
    {
        if (part.Quantity == 0)
            return;
        if (parts.Count > 0 && parts[^1].Day == part.Day && parts[^1].From == part.From)
            parts[^1] = parts[^1] with { Quantity = parts[^1].Quantity + part.Quantity };
        else
            parts.Add(part);
    }
}
