using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Pricing;

namespace Solvenda.Data.Rows;

[Index(nameof(Code), IsUnique = true), Index(nameof(Words)), Index(nameof(Family), nameof(Words))]
public sealed class ItemRow : IRecordRow, IOwnRow
{
    public long Id { get; set; }

    /// <inheritdoc />
    public string Own { get; set; } = OwnValues.None;
    public required string Code { get; set; }
    public required string Words { get; set; }
    public required string Family { get; set; }
    public required string StockUnit { get; set; }
    public TaxClass TaxClass { get; set; }
    public decimal? FloorPrice { get; set; }
    public int? LeadDays { get; set; }
    public bool Stocked { get; set; } = true;
    public string? Gtin { get; set; }

    /// <summary>UN number and class, as printed; null for what is not dangerous.</summary>
    public string? DangerousGoods { get; set; }

    /// <summary>Ways of transport that it may not go by: post, air.</summary>
    public string ForbiddenModes { get; set; } = "";
    public string? Successor { get; set; }
    public string Alternatives { get; set; } = "";

    /// <summary>Other languages: "sv: …; de: …".</summary>
    public string WordsElsewhere { get; set; } = "";

    /// <summary>Why it leaves the Union only under a licence; empty where it needs none.</summary>
    public string ExportNote { get; set; } = "";

    /// <summary>The certificate that comes with it; empty for none.</summary>
    public string Certificate { get; set; } = "";
    public bool HasSerials { get; set; }

    /// <summary>Whether it goes by lot: whoever picks it says which.</summary>
    public bool HasLots { get; set; }
    public decimal? WeightKg { get; set; }

    /// <summary>Without its packing, in kilograms a stock unit; null: as it weighs.</summary>
    public decimal? NetKg { get; set; }

    /// <summary>Of the Harmonized System, six to ten digits; empty where nobody said.</summary>
    public string HsCode { get; set; } = "";

    /// <summary>ISO 3166-1 alpha-2, where it was made; empty where nobody said.</summary>
    public string Origin { get; set; } = "";
    public decimal? VolumeDm3 { get; set; }
    public string Dimensions { get; set; } = "";
    public decimal? PackMultiple { get; set; }
    public decimal? LeastQuantity { get; set; }

    /// <summary>Countries and channels that it may not be sold to and by, apart by blanks.</summary>
    public string NotSoldIn { get; set; } = "";
    public string NotByChannel { get; set; } = "";

    /// <summary>What a bundle is made of: "CHN-SL-10 x 5; SWV-GV-10 x 1".</summary>
    public string Parts { get; set; } = "";
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
    public List<SalesUnitRow> SalesUnits { get; set; } = [];
}

[PrimaryKey(nameof(ItemId), nameof(Unit))]
public sealed class SalesUnitRow
{
    public long ItemId { get; set; }
    public required string Unit { get; set; }
    public decimal Factor { get; set; }
}

[Index(nameof(Code), IsUnique = true)]
public sealed class FamilyRow : IRecordRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public decimal LeastMarginPercent { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>A picture or a data sheet of an item.</summary>
[Index(nameof(ItemId))]
public sealed class ItemFileRow
{
    public long Id { get; set; }
    public long ItemId { get; set; }
    public required string Name { get; set; }

    /// <summary>What the bytes are, by their first few; never what the sender says.</summary>
    public required string ContentType { get; set; }
    public required byte[] Bytes { get; set; }
    public required string Who { get; set; }
    public DateTime At { get; set; }
}

/// <summary>A price list, by its code: the house list and others.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class PriceListRow : IRecordRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>A group of buyers: for agreements, and with a price list of its own.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class GroupRow : IRecordRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public string? PriceList { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[
    Index(nameof(ItemId)),
    Index(nameof(Price)),
    Index(nameof(List), nameof(ItemId), nameof(Unit), nameof(Currency), nameof(From), IsUnique = true)
]
public sealed class ListPriceRow : IRecordRow
{
    public long Id { get; set; }
    public required string List { get; set; }
    public long ItemId { get; set; }
    public required string Unit { get; set; }
    public decimal Price { get; set; }
    public required string Currency { get; set; }
    public decimal PriceBase { get; set; } = 1m;
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[Index(nameof(BuyerId)), Index(nameof(Group)), Index(nameof(Code), IsUnique = true)]
public sealed class AgreementRow : IRecordRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public long? BuyerId { get; set; }
    public string? Group { get; set; }
    public RuleScope Scope { get; set; }
    public long? ItemId { get; set; }
    public string? Family { get; set; }
    public RuleKind Kind { get; set; }
    public string? Currency { get; set; }
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }
    public bool Combines { get; set; }

    /// <summary>Lines under agreements of one break group reach its breaks together.</summary>
    public string? BreakGroup { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
    public List<AgreementBreakRow> Breaks { get; set; } = [];
}

[PrimaryKey(nameof(AgreementId), nameof(From))]
public sealed class AgreementBreakRow
{
    public long AgreementId { get; set; }
    public decimal From { get; set; }
    public decimal Value { get; set; }
}

[Index(nameof(ItemId), nameof(From), IsUnique = true)]
public sealed class CostRow : IRecordRow
{
    public long Id { get; set; }
    public long ItemId { get; set; }
    public DateOnly From { get; set; }
    public decimal Cost { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[Index(nameof(Country), nameof(Class), nameof(From), IsUnique = true)]
public sealed class TaxRateRow : IRecordRow
{
    public long Id { get; set; }

    /// <summary>Where the house is registered beside its own country; null: at home.</summary>
    public string? Country { get; set; }
    public TaxClass Class { get; set; }
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }
    public decimal Percent { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[Index(nameof(Currency), nameof(Day), IsUnique = true)]
public sealed class ExchangeRateRow : IRecordRow
{
    public long Id { get; set; }
    public required string Currency { get; set; }
    public DateOnly Day { get; set; }
    public decimal Rate { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[Index(nameof(Code), IsUnique = true)]
public sealed class CampaignRow : IRecordRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public RuleScope Scope { get; set; } = RuleScope.All;
    public long? ItemId { get; set; }
    public string? Family { get; set; }
    public RuleKind Kind { get; set; }
    public decimal Value { get; set; }
    public string? Currency { get; set; }
    public string? Channel { get; set; }
    public long? BuyerId { get; set; }
    public string? Group { get; set; }
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[Index(nameof(Code), IsUnique = true)]
public sealed class ChargeRuleRow : IRecordRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public ChargeBasis Basis { get; set; }
    public RuleScope Scope { get; set; } = RuleScope.All;
    public long? ItemId { get; set; }
    public string? Family { get; set; }
    public bool DangerousOnly { get; set; }
    public string? Unit { get; set; }
    public decimal? BelowGoods { get; set; }
    public decimal Amount { get; set; }
    public required string Currency { get; set; }
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>The freight zone of a country.</summary>
[Index(nameof(Country), IsUnique = true)]
public sealed class FreightZoneRow : IRecordRow
{
    public long Id { get; set; }
    public required string Country { get; set; }
    public required string Zone { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[Index(nameof(Zone), nameof(Service), nameof(UpToKg), nameof(From), IsUnique = true)]
public sealed class FreightBandRow : IRecordRow
{
    public long Id { get; set; }
    public required string Zone { get; set; }
    public required string Service { get; set; }
    public decimal UpToKg { get; set; }
    public decimal Price { get; set; }
    public required string Currency { get; set; }
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>A single figure of the house that an administrator sets, such as the insurance premium.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class SettingRow : IRecordRow
{
    /// <summary>Premium in percent under CIP and CIF.</summary>
    public const string InsurancePercent = "insurance-percent";

    /// <summary>Days to pay where nothing was agreed with a buyer.</summary>
    public const string UsualDays = "usual-days-to-pay";

    /// <summary>Days late for the three letters that remind of what is owed; 0 for the first: none goes.</summary>
    public const string FirstReminder = "first-reminder-days";
    public const string SecondReminder = "second-reminder-days";
    public const string ThirdReminder = "third-reminder-days";

    /// <summary>What of an invoice may be written off, in home currency.</summary>
    public const string WriteOff = "write-off-up-to";

    /// <summary>Percent of what was ordered that may go beyond it, where a buyer says nothing of it.</summary>
    public const string OverDelivery = "over-delivery-percent";

    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public decimal Value { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>
/// Counts changes of anything a price is made from; a price book made at another count is thrown away.
/// </summary>
[PrimaryKey(nameof(Name))]
public sealed class Counter
{
    public const string PriceBook = "price-book";
    public const string House = "house";

    public required string Name { get; set; }
    public long Value { get; set; }
}
