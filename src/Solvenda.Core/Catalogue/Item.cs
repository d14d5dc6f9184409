using System.Collections.Immutable;
using Solvenda.Core.Units;

namespace Solvenda.Core.Catalogue;

/// <summary>The key of an item.</summary>
public readonly record struct ItemId(long Value);

/// <summary>How an item is taxed at home: the class that the dated tax rules turn into a category and a rate.</summary>
public enum TaxClass
{
    Standard,
    Reduced,
    Zero,
    Exempt,
}

/// <summary>A unit that an item is sold in: how many stock units one of it holds.</summary>
public sealed record SalesUnit(Unit Unit, decimal Factor);

/// <summary>What is known of an item. Costs, prices and stock are dated and stand apart.</summary>
/// <param name="Code">Seller's item code, as printed.</param>
/// <param name="LeadDays">Working days until it is bought or made; null where it cannot be.</param>
/// <param name="FloorPrice">Home currency per stock unit; null where only the family's least margin counts.</param>
/// <param name="Stocked">False for services, which need no stock.</param>
public sealed record Item(
    ItemId Id,
    string Code,
    string Words,
    string Family,
    Unit StockUnit,
    ImmutableArray<SalesUnit> SalesUnits,
    TaxClass TaxClass,
    decimal? FloorPrice,
    int? LeadDays,
    bool Stocked,
    string? Gtin,
    string? DangerousGoods,
    string? Successor)
{
    /// <summary>Stock units in one of the unit: the item's own table first, then the fixed measures; null where neither knows.</summary>
    public decimal? Factor(Unit unit)
    {
        if (unit == StockUnit)
            return 1m;
        foreach (var sales in SalesUnits)
        {
            if (sales.Unit == unit)
                return sales.Factor;
        }
        return UnitTable.FixedFactor(unit, StockUnit);
    }
}
