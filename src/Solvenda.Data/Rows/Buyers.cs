using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

[Index(nameof(Code), IsUnique = true), Index(nameof(Name))]
public sealed class BuyerRow : IRecordRow, IOwnRow
{
    public long Id { get; set; }

    /// <inheritdoc />
    public string Own { get; set; } = OwnValues.None;
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

    /// <summary>How they pay where it is not in days net, as Core's PaymentPlan writes it; null: in days net.</summary>
    public string? PaymentPlan { get; set; }
    public string? Incoterm { get; set; }
    public string? IncotermPlace { get; set; }
    public string? ShipFrom { get; set; }
    public int TransitDays { get; set; } = 1;

    /// <summary>Percent of what they ordered that they take beyond it; null: as the house says.</summary>
    public decimal? OverDelivery { get; set; }
    public long? AccountManagerId { get; set; }

    /// <summary>Code of the territory; null: none.</summary>
    public string? Territory { get; set; }
    public string? ContactName { get; set; }
    public string? ContactMail { get; set; }
    public string Address { get; set; } = "";
    public string? DeliverTo { get; set; }
    public string? DeliverToCountry { get; set; }

    /// <summary>Minor units of <see cref="Currency"/>; null: no limit is kept.</summary>
    public long? CreditLimitMinor { get; set; }
    public int GraceDays { get; set; } = 7;

    /// <summary>The last day of the limit; null: without end.</summary>
    public DateOnly? CreditUntil { get; set; }

    /// <summary>What an insurer covers, in minor units of <see cref="Currency"/>; null: nothing is insured.</summary>
    public long? CreditInsuredMinor { get; set; }

    /// <summary>Why nothing is sold to them on credit; empty: they are not blocked.</summary>
    public string CreditBlocked { get; set; } = "";

    /// <summary>Inner note, for the house; never printed.</summary>
    public string Note { get; set; } = "";

    /// <summary>Printed on their documents.</summary>
    public string PrintedNote { get; set; } = "";

    /// <summary>For whoever packs for them.</summary>
    public string WarehouseNote { get; set; } = "";

    /// <summary>Whether they take goods only with their certificate.</summary>
    public bool WantsCertificates { get; set; }

    /// <summary>ISO 639-1.</summary>
    public string Language { get; set; } = "en";
    public long? ParentId { get; set; }
    public string? BillTo { get; set; }

    /// <summary>How lines are shipped: all together, whole lines, as it comes, on call.</summary>
    public string? ShippingRule { get; set; }

    /// <summary>How documents go out to them: mail, edi, paper.</summary>
    public string? DocumentsBy { get; set; }

    /// <summary>What goes in a month comes on one invoice.</summary>
    public bool CollectsInvoices { get; set; }
    public string? Phone { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>Another address of a buyer: where goods go, or who pays.</summary>
[Index(nameof(BuyerId), nameof(Code), IsUnique = true)]
public sealed class AddressRow : IRecordRow
{
    public long Id { get; set; }
    public long BuyerId { get; set; }
    public required string Code { get; set; }
    public required string Use { get; set; }
    public required string Words { get; set; }
    public required string Country { get; set; }

    /// <summary>Days on which goods are received: "Mon Tue Wed".</summary>
    public string ReceivingDays { get; set; } = "";
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

[Index(nameof(BuyerId), nameof(Name), IsUnique = true)]
public sealed class ContactRow : IRecordRow
{
    public long Id { get; set; }
    public long BuyerId { get; set; }
    public required string Name { get; set; }
    public string? Mail { get; set; }
    public string? Phone { get; set; }
    public string Does { get; set; } = "";
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>A sign to know a buyer again by; value in capitals.</summary>
[PrimaryKey(nameof(Kind), nameof(Value), nameof(BuyerId))]
public sealed class BuyerSignRow
{
    public long BuyerId { get; set; }
    public required string Kind { get; set; }
    public required string Value { get; set; }
}

/// <summary>A remembered translation of a buyer's words or code, or of everybody's.</summary>
[Index(nameof(BuyerId), nameof(Words), IsUnique = true)]
public sealed class AliasRow : IRecordRow
{
    public long Id { get; set; }

    /// <summary>Null: whoever writes it.</summary>
    public long? BuyerId { get; set; }
    public required string Words { get; set; }
    public long ItemId { get; set; }
    public decimal? Quantity { get; set; }
    public string? Unit { get; set; }
    public string LearnedFrom { get; set; } = "";
    public DateTime LearnedAt { get; set; }

    /// <summary>How many requests it helped to read.</summary>
    public int Helped { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>
/// What a buyer owes, or paid: an invoice, or one that was there before the books began. Less than nothing is owed for
/// what was credited after it was paid.
/// </summary>
[Index(nameof(BuyerId)), Index(nameof(Number)), Index(nameof(InvoiceId))]
public sealed class OpenItemRow
{
    public long Id { get; set; }
    public long BuyerId { get; set; }
    public required string Number { get; set; }

    /// <summary>The document; null where it was taken over from before.</summary>
    public long? InvoiceId { get; set; }

    /// <summary>ISO 4217; empty: the buyer's own.</summary>
    public string Currency { get; set; } = "";
    public DateOnly Due { get; set; }
    public long OpenMinor { get; set; }

    /// <summary>What the ledger has as open of it, in home currency; null where it is not in the ledger yet.</summary>
    public long? HomeMinor { get; set; }

    /// <summary>When it was paid; null while it is open.</summary>
    public DateOnly? PaidOn { get; set; }

    /// <summary>How often the buyer was reminded of it, and when last.</summary>
    public int ReminderStep { get; set; }
    public DateOnly? RemindedOn { get; set; }

    /// <summary>What the buyer says against it; empty where nothing. While it is disputed nobody is reminded of
    /// it.</summary>
    public string Disputed { get; set; } = "";

    /// <summary>Who looks after that, and since when.</summary>
    public string DisputedBy { get; set; } = "";
    public DateOnly? DisputedOn { get; set; }

    /// <summary>What may be taken off where it is paid by then, in its minor units; 0 for nothing.</summary>
    public long EarlyMinor { get; set; }
    public DateOnly? EarlyUntil { get; set; }
}

/// <summary>Money received for an order before it is invoiced; it counts once, until an invoice takes it.</summary>
[Index(nameof(OrderId))]
public sealed class DepositRow
{
    public long Id { get; set; }
    public long OrderId { get; set; }

    /// <summary>Minor units of the order's currency.</summary>
    public long Minor { get; set; }

    /// <summary>What invoices took of it.</summary>
    public long TakenMinor { get; set; }

    /// <summary>The deposit invoice that taxed it, or a part of it, when it came; null where nothing was
    /// taxed.</summary>
    public long? InvoiceId { get; set; }

    /// <summary>What of it was taxed then, with its tax.</summary>
    public long TaxedMinor { get; set; }

    /// <summary>What of that invoices took off; it is in what they took of all.</summary>
    public long TaxedTakenMinor { get; set; }

    /// <summary>What the ledger has as left of it, in home currency; null where it is not in the ledger yet.</summary>
    public long? HomeMinor { get; set; }
    public DateOnly ReceivedOn { get; set; }

    /// <summary>Where it was seen: the bank's reference.</summary>
    public required string Reference { get; set; }
    public required string By { get; set; }
}
