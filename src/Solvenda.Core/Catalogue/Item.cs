using System.Collections.Immutable;
using Solvenda.Core.Units;

namespace Solvenda.Core.Catalogue;

/// <summary>The key of an item.</summary>
public readonly record struct ItemId(long Value);

/// <summary>How an item is taxed at home: the class that the dated tax rules turn into a category and a rate.</summary>
public enum TaxClass
{
    /// <summary>The country's usual rate.</summary>
    Standard,

    /// <summary>Its reduced rate.</summary>
    Reduced,

    /// <summary>Taxed, at nothing.</summary>
    Zero,

    /// <summary>Not taxed at all.</summary>
    Exempt,
}

/// <summary>A unit that an item is sold in: how many stock units one of it holds.</summary>
public sealed record SalesUnit(Unit Unit, decimal Factor);

/// <summary>A part of a bundle: so many stock units of an item in one stock unit of the bundle.</summary>
public sealed record BundlePart(ItemId Item, decimal Quantity);

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
    string? Successor
)
{
    /// <summary>What it is called in other languages: "sv: …; de: …".</summary>
    public string WordsElsewhere { get; init; } = "";

    /// <summary>What it is called in a language of ISO 639-1; in ours where nobody said.</summary>
    public string WordsIn(string language)
    {
        foreach (var part in WordsElsewhere.Split(';', StringSplitOptions.TrimEntries))
        {
            if (part.Length > 3 && part[2] == ':' && part.StartsWith(language, StringComparison.Ordinal))
                return part[3..].Trim();
        }
        return Words;
    }

    /// <summary>False for what is switched off: it may stand on old sheets, and is sold no more.</summary>
    public bool Active { get; init; } = true;

    /// <summary>Kilograms of one stock unit; null where nobody weighed it.</summary>
    public decimal? WeightKg { get; init; }

    /// <summary>Cubic decimetres of one stock unit; null where it is no matter.</summary>
    public decimal? VolumeDm3 { get; init; }

    /// <summary>Stock units that it is packed by: only whole packs are sold.</summary>
    public decimal? PackMultiple { get; init; }

    /// <summary>Fewest stock units that are sold at once.</summary>
    public decimal? LeastQuantity { get; init; }

    /// <summary>ISO 3166-1 alpha-2 codes of countries that it may not be sold to.</summary>
    public ImmutableArray<string> NotSoldIn { get; init; } = [];

    /// <summary>Channels that it may not be sold by.</summary>
    public ImmutableArray<string> NotByChannel { get; init; } = [];

    /// <summary>Codes of items that do in its place, the nearest first.</summary>
    public ImmutableArray<string> Alternatives { get; init; } = [];

    /// <summary>Why it leaves the Union only under a licence; empty where it needs none.</summary>
    public string ExportNote { get; init; } = "";

    /// <summary>The certificate that comes with it, as EN 10204 names it; empty for none.</summary>
    public string Certificate { get; init; } = "";

    /// <summary>Whether each piece is known by its serial number.</summary>
    public bool HasSerials { get; init; }

    /// <summary>What a bundle is made of; empty for all others.</summary>
    public ImmutableArray<BundlePart> Parts { get; init; } = [];

    /// <summary>
    /// Stock units in one of the unit: the item's own table first, then the fixed measures; null where neither knows.
    /// </summary>
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
