using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Pricing;

namespace Solvenda.Data.Rows;

[Index(nameof(Code), IsUnique = true)]
public sealed class ItemRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }
    public required string Family { get; set; }
    public required string StockUnit { get; set; }
    public TaxClass TaxClass { get; set; }
    public decimal? FloorPrice { get; set; }
    public int? LeadDays { get; set; }
    public bool Stocked { get; set; } = true;
    public string? Gtin { get; set; }
    public string? DangerousGoods { get; set; }
    public string? Successor { get; set; }
    public List<SalesUnitRow> SalesUnits { get; set; } = [];
}

[PrimaryKey(nameof(ItemId), nameof(Unit))]
public sealed class SalesUnitRow
{
    public long ItemId { get; set; }
    public required string Unit { get; set; }
    public decimal Factor { get; set; }
}

[PrimaryKey(nameof(Code))]
public sealed class FamilyRow
{
    public required string Code { get; set; }
    public required string Words { get; set; }
    public decimal LeastMarginPercent { get; set; }
}

[Index(nameof(ItemId))]
public sealed class ListPriceRow
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
}

[Index(nameof(BuyerId)), Index(nameof(Group)), Index(nameof(Code), IsUnique = true)]
public sealed class AgreementRow
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
    public List<AgreementBreakRow> Breaks { get; set; } = [];
}

[PrimaryKey(nameof(AgreementId), nameof(From))]
public sealed class AgreementBreakRow
{
    public long AgreementId { get; set; }
    public decimal From { get; set; }
    public decimal Value { get; set; }
}

[PrimaryKey(nameof(ItemId), nameof(From))]
public sealed class CostRow
{
    public long ItemId { get; set; }
    public DateOnly From { get; set; }
    public decimal Cost { get; set; }
}

[PrimaryKey(nameof(Class), nameof(From))]
public sealed class TaxRateRow
{
    public TaxClass Class { get; set; }
    public DateOnly From { get; set; }
    public DateOnly? To { get; set; }
    public decimal Percent { get; set; }
}

[PrimaryKey(nameof(Currency), nameof(Day))]
public sealed class ExchangeRateRow
{
    public required string Currency { get; set; }
    public DateOnly Day { get; set; }
    public decimal Rate { get; set; }
}

/// <summary>Counts changes of anything a price is made from; a price book made at another count is thrown away.</summary>
[PrimaryKey(nameof(Name))]
public sealed class Counter
{
    public const string PriceBook = "price-book";

    public required string Name { get; set; }
    public long Value { get; set; }
}
