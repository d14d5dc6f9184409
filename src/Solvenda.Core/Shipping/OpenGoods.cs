using System.Collections.Immutable;
using Solvenda.Core.Catalogue;

namespace Solvenda.Core.Shipping;

/// <summary>A shelf: an item in a warehouse.</summary>
public readonly record struct Shelf(ItemId Item, string Warehouse);

/// <summary>What one of a line's unit takes from a shelf.</summary>
/// <param name="PerUnit">In stock units; above 0.</param>
public sealed record GoingNeed(ItemId Item, decimal PerUnit);

/// <summary>A line of a confirmed order, as far as its goods are.</summary>
/// <param name="Warehouse">Where it leaves from.</param>
/// <param name="Open">Neither gone nor being picked, in the order's unit; 0 or more.</param>
/// <param name="Step">Least part of the unit that can go: 1 for pieces and packs, 0.001 for what is measured.</param>
/// <param name="Needs">Empty for what lies on no shelf: services, and what is bought for the order.</param>
public sealed record OpenGoods(
    long Line,
    string Warehouse,
    decimal Open,
    decimal Step,
    ImmutableArray<GoingNeed> Needs
);

/// <summary>So much of a line may go.</summary>
/// <param name="Quantity">In the order's unit; 0 where nothing of it may.</param>
public sealed record GoingPart(long Line, string Warehouse, decimal Quantity, decimal Open)
{
    /// <summary>Whether something of it stays.</summary>
    public bool IsShort => Quantity < Open;
}
