using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Pricing;

/// <summary>A price of a list: for one price base of a unit, dated, both days included.</summary>
public sealed record ListPrice(
    string List,
    ItemId Item,
    Unit Unit,
    UnitPrice Price,
    decimal PriceBase,
    DateOnly From,
    DateOnly? To
);

/// <summary>An item's cost from a day on, in home currency per stock unit.</summary>
public sealed record DatedCost(ItemId Item, DateOnly From, decimal Cost);

/// <summary>A family of items and the least margin (percent) that policy lets anyone sell it at.</summary>
public sealed record Family(string Code, string Words, decimal LeastMarginPercent);

/// <summary>
/// Everything that prices are worked out from, as it stands at one moment; built once, then only read.
/// </summary>
public sealed class PriceBook
{
    private readonly FrozenLookup<(string List, ItemId Item), ListPrice> _prices;
    private readonly FrozenLookup<(BuyerId? Buyer, string? Group, ItemId? Item, string? Family), Agreement> _agreements;
    private readonly FrozenLookup<ItemId, DatedCost> _costs;
    private readonly ImmutableDictionary<ItemId, Item> _items;
    private readonly Dictionary<string, Item> _byCode;
    private readonly Dictionary<string, Family> _families;

    /// <summary>Indexes the contents, so that a line finds what holds for it at once.</summary>
    public PriceBook(PriceBookContents contents)
    {
        ArgumentNullException.ThrowIfNull(contents);
        Home = contents.Home;
        SellerCountry = contents.SellerCountry;
        HouseList = contents.HouseList;
        Campaigns = contents.Campaigns;
        HasBreakGroups = contents.Agreements.Any(a => a.BreakGroup is not null);
        Charges = contents.Charges;
        FreightBands = contents.FreightBands;
        FreightZones = contents.FreightZones;
        InsurancePercent = contents.InsurancePercent;
        UsualDays = contents.UsualDays;
        TaxRates = contents.TaxRates;
        DatedRates = contents.Rates;
        GroupLists = contents.GroupLists;
        _items = contents.Items.ToImmutableDictionary(i => i.Id);
        _byCode = contents.Items.ToDictionary(i => i.Code, StringComparer.OrdinalIgnoreCase);
        _families = contents.Families.ToDictionary(f => f.Code);
        _prices = new(contents.Prices, p => (p.List, p.Item));
        _agreements = new(
            contents.Agreements,
            a =>
                (
                    a.Buyer,
                    a.Group,
                    a.Scope == RuleScope.Item ? a.Item : null,
                    a.Scope == RuleScope.Family ? a.Family : null
                )
        );
        _costs = new(contents.Costs, c => c.Item);
    }

    /// <summary>The house's own currency.</summary>
    public Currency Home { get; }

    /// <summary>Country that the house sells from, ISO 3166-1 alpha-2.</summary>
    public string SellerCountry { get; }

    /// <summary>Code of the list that everybody has who has no other.</summary>
    public string HouseList { get; }

    /// <summary>Campaigns of all times.</summary>
    public ImmutableArray<Campaign> Campaigns { get; }

    /// <summary>Whether any agreement reaches its breaks together with others.</summary>
    public bool HasBreakGroups { get; }

    /// <summary>Rules of charges, of all times.</summary>
    public ImmutableArray<ChargeRule> Charges { get; }

    /// <summary>The freight table.</summary>
    public ImmutableArray<FreightBand> FreightBands { get; }

    /// <summary>The freight zone of a country, by ISO 3166-1 alpha-2.</summary>
    public ImmutableDictionary<string, string> FreightZones { get; }

    /// <summary>Premium in percent of the insured value under CIP and CIF; null where none is set.</summary>
    public decimal? InsurancePercent { get; }

    /// <inheritdoc cref="PriceBookContents.UsualDays" />
    public int UsualDays { get; }

    /// <summary>Tax rates of all times.</summary>
    public ImmutableArray<TaxRate> TaxRates { get; }

    /// <summary>Exchange rates of all times.</summary>
    public ImmutableArray<DatedRate> DatedRates { get; }

    /// <summary>Price list of a buyer group, by group.</summary>
    public ImmutableDictionary<string, string> GroupLists { get; }

    /// <summary>All items.</summary>
    public IEnumerable<Item> Items => _items.Values;

    /// <summary>The item of that key; null where there is none.</summary>
    public Item? Find(ItemId id) => _items.GetValueOrDefault(id);

    /// <summary>The item of that code, in whatever case; null where there is none.</summary>
    public Item? FindByCode(string code) => _byCode.GetValueOrDefault(code.Trim());

    /// <summary>The item's family; null where it has none.</summary>
    public Family? FamilyOf(Item item) => _families.GetValueOrDefault(item.Family);

    /// <summary>The cost on the day in home currency per stock unit; null where none is known.</summary>
    public decimal? CostOf(ItemId item, DateOnly day) =>
        _costs[item].Where(c => c.From <= day).MaxBy(c => c.From)?.Cost;

    /// <summary>The price list of a group; null where the group has none.</summary>
    public string? GroupList(string? group) => group is null ? null : GroupLists.GetValueOrDefault(group);

    /// <summary>Prices of an item on a list, of all times.</summary>
    public ReadOnlySpan<ListPrice> PricesOf(string list, ItemId item) => _prices[(list, item)];

    /// <summary>The house's list price of a stock unit on the day; null where there is none.</summary>
    public decimal? ListPriceOn(Item item, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(item);
        ListPrice? latest = null;
        foreach (var p in PricesOf(HouseList, item.Id))
        {
            if (
                p.Unit == item.StockUnit
                && p.From <= day
                && (p.To is null || day <= p.To)
                && (latest is null || p.From > latest.From)
            )
                latest = p;
        }
        return latest?.Price.Value;
    }

    /// <summary>The campaigns meant for this buyer, item and channel, not yet judged by date.</summary>
    public IEnumerable<Campaign> CampaignsFor(Buyer buyer, Item item, string? channel) =>
        Campaigns.IsEmpty ? [] : Campaigns.Where(c => c.Covers(buyer, item, channel));

    /// <summary>
    /// The agreements that cover this buyer and item, of every rank, the narrowest first, not yet judged by date or
    /// quantity.
    /// </summary>
    public IReadOnlyList<Agreement> AgreementsFor(Buyer buyer, Item item)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(item);
        Agreement[] found = [];
        Add(ref found, _agreements[(buyer.Id, null, item.Id, null)]);
        Add(ref found, _agreements[(buyer.Id, null, null, item.Family)]);
        Add(ref found, _agreements[(buyer.Id, null, null, null)]);
        if (buyer.Group is not { } group)
            return found;
        Add(ref found, _agreements[(null, group, item.Id, null)]);
        Add(ref found, _agreements[(null, group, null, item.Family)]);
        Add(ref found, _agreements[(null, group, null, null)]);
        return found;
    }

    // Mostly one rank has something, so nothing is copied.
    private static void Add(ref Agreement[] found, Agreement[] more) =>
        found =
            found.Length == 0 ? more
            : more.Length == 0 ? found
            : [.. found, .. more];

    private sealed class FrozenLookup<TKey, TValue>(IEnumerable<TValue> values, Func<TValue, TKey> key)
        where TKey : notnull
    {
        private readonly Dictionary<TKey, TValue[]> _rows = values
            .GroupBy(key)
            .ToDictionary(g => g.Key, g => g.ToArray());

        public TValue[] this[TKey k] => _rows.TryGetValue(k, out var found) ? found : [];
    }
}

/// <summary>What a price book is made from.</summary>
public sealed record PriceBookContents(
    Currency Home,
    string SellerCountry,
    string HouseList,
    ImmutableArray<Item> Items,
    ImmutableArray<Family> Families,
    ImmutableArray<ListPrice> Prices,
    ImmutableArray<Agreement> Agreements,
    ImmutableArray<Campaign> Campaigns,
    ImmutableArray<DatedCost> Costs,
    ImmutableArray<TaxRate> TaxRates,
    ImmutableArray<DatedRate> Rates,
    ImmutableDictionary<string, string> GroupLists
)
{
    /// <summary>Rules of charges.</summary>
    public ImmutableArray<ChargeRule> Charges { get; init; } = [];

    /// <summary>The freight table.</summary>
    public ImmutableArray<FreightBand> FreightBands { get; init; } = [];

    /// <summary>Zones by country.</summary>
    public ImmutableDictionary<string, string> FreightZones { get; init; } = ImmutableDictionary<string, string>.Empty;

    /// <summary>Insurance in percent of the goods; null where none is sold.</summary>
    public decimal? InsurancePercent { get; init; }

    /// <summary>Days to pay, net, that the house gives where nothing was agreed.</summary>
    public int UsualDays { get; init; } = 30;
}
