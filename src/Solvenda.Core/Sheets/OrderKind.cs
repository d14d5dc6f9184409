using System.Collections.Immutable;
using Solvenda.Core.Sheets.Terms;

namespace Solvenda.Core.Sheets;

/// <summary>
/// What is particular to a kind of order: settings over the one order, so that a new kind is one entry here.
/// </summary>
/// <param name="Words">What it is called; kept on the head.</param>
public sealed record OrderKind(string Words)
{
    /// <summary>Agreed as a whole and called off in parts: it takes nothing from stock itself.</summary>
    public bool IsFrame { get; init; }

    /// <summary>Each line has a day of its own.</summary>
    public bool HasDays { get; init; }

    /// <summary>
    /// Handed over at our own counter: what is there goes now, nothing is carried, and tax is that of home (Directive
    /// 2006/112/EC, article 31).
    /// </summary>
    public bool IsAtCounter { get; init; }

    /// <summary>Work alone, and no goods.</summary>
    public bool IsWork { get; init; }

    /// <summary>Given away: it costs nothing, and needs its reason.</summary>
    public bool IsFree { get; init; }

    /// <summary>Whether goods go to the buyer's door, by a carrier.</summary>
    public bool IsCarried => !IsAtCounter && !IsWork;

    /// <summary>Goods that go as soon as they can. Where nobody said otherwise.</summary>
    public static readonly OrderKind GoodsNow = new("goods now");

    /// <summary>Called off in parts, under the buyer's release numbers.</summary>
    public static readonly OrderKind CallOff = new("call-off") { IsFrame = true };

    /// <summary>Lines with many dates.</summary>
    public static readonly OrderKind Schedule = new("schedule") { HasDays = true };

    /// <summary>Sold over the counter.</summary>
    public static readonly OrderKind Counter = new("counter sale") { IsAtCounter = true };

    /// <summary>Services alone.</summary>
    public static readonly OrderKind Service = new("service") { IsWork = true };

    /// <summary>To be tried.</summary>
    public static readonly OrderKind Sample = new("sample") { IsFree = true };

    /// <summary>In place of what was faulty or lost.</summary>
    public static readonly OrderKind Replacement = new("replacement") { IsFree = true };

    /// <summary>All of them, in the order in which they are offered.</summary>
    public static readonly ImmutableArray<OrderKind> All =
    [
        GoodsNow,
        CallOff,
        Schedule,
        Counter,
        Service,
        Sample,
        Replacement,
    ];

    /// <summary>The kind of a head; goods now where nobody said.</summary>
    public static OrderKind In(Head head) =>
        HeadTerms.Kind.In(head) is { } words ? All.First(k => k.Words == words) : GoodsNow;
}
