using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

[Index(nameof(Code), IsUnique = true), Index(nameof(Name))]
public sealed class BuyerRow
{
    public long Id { get; set; }
    public required string Code { get; set; }
    public required string Name { get; set; }
    public required string Country { get; set; }
    public required string Currency { get; set; }
    public string? Group { get; set; }
    public string? PriceList { get; set; }
    public string? TaxNumber { get; set; }
    public bool TaxExempt { get; set; }
    public bool IsProspect { get; set; }
    public bool PoNumberRequired { get; set; }
    public int? PaymentDays { get; set; }
    public string? Incoterm { get; set; }
    public string? IncotermPlace { get; set; }
    public string? ShipFrom { get; set; }
    public int TransitDays { get; set; } = 1;
    public long? AccountManagerId { get; set; }
    public string? ContactName { get; set; }
    public string? ContactMail { get; set; }
    public string Address { get; set; } = "";
    public string? DeliverTo { get; set; }
    public string? DeliverToCountry { get; set; }

    /// <summary>Minor units of <see cref="Currency"/>; null: no limit is kept.</summary>
    public long? CreditLimitMinor { get; set; }
    public int GraceDays { get; set; } = 7;
    public string Note { get; set; } = "";
}

/// <summary>A sign to know a buyer again by; value in capitals.</summary>
[PrimaryKey(nameof(Kind), nameof(Value), nameof(BuyerId))]
public sealed class BuyerSignRow
{
    public long BuyerId { get; set; }
    public required string Kind { get; set; }
    public required string Value { get; set; }
}

/// <summary>A remembered translation of a buyer's words or code.</summary>
[Index(nameof(BuyerId), nameof(Words), IsUnique = true)]
public sealed class AliasRow
{
    public long Id { get; set; }
    public long BuyerId { get; set; }
    public required string Words { get; set; }
    public long ItemId { get; set; }
    public decimal? Quantity { get; set; }
    public string? Unit { get; set; }
    public string LearnedFrom { get; set; } = "";
    public DateTime LearnedAt { get; set; }
}

/// <summary>What a buyer owes: an invoice not yet paid.</summary>
[Index(nameof(BuyerId))]
public sealed class OpenItemRow
{
    public long Id { get; set; }
    public long BuyerId { get; set; }
    public required string Number { get; set; }
    public DateOnly Due { get; set; }
    public long OpenMinor { get; set; }
}
