using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Solvenda.Core.Money;

namespace Solvenda.Core.Billing;

/// <summary>Who sells, or who buys, as an invoice names them.</summary>
/// <param name="Address">Its lines.</param>
/// <param name="Country">ISO 3166-1 alpha-2.</param>
/// <param name="TaxNumber">For value added tax, with its country; empty where there is none.</param>
public sealed record InvoiceParty(
    string Name,
    ImmutableArray<string> Address,
    string Country,
    string TaxNumber,
    string Mail
);

/// <summary>A line of an invoice.</summary>
/// <param name="Key">Of the order's line; a bundle of mixed tax has several lines of one.</param>
/// <param name="Number">As the order numbers it.</param>
/// <param name="TheirCode">The buyer's own; empty for none.</param>
/// <param name="Unit">UN/ECE Recommendation 20.</param>
/// <param name="Price">Net, per <paramref name="PriceBase"/> (EN 16931, BT-146 and BT-149).</param>
/// <param name="Net">EN 16931, BT-131.</param>
public sealed record InvoiceLine(
    long Key,
    string Number,
    string Code,
    string TheirCode,
    string Words,
    decimal Quantity,
    string Unit,
    decimal Price,
    decimal PriceBase,
    decimal Net,
    string TaxCategory,
    decimal TaxPercent
)
{
    /// <summary>Of an invoice for several orders: the one that it is of; empty where all are of one.</summary>
    public string Order { get; init; } = "";

    /// <summary>The buyer's number of that order; empty as <see cref="Order"/> is.</summary>
    public string PoNumber { get; init; } = "";
}

/// <summary>Taken off, or charged on, a whole invoice, under one tax (EN 16931, BG-20 and BG-21).</summary>
public sealed record InvoiceExtra(string Words, decimal Amount, string TaxCategory, decimal TaxPercent);

/// <summary>The tax of one category and rate (EN 16931, BG-23).</summary>
public sealed record InvoiceTax(string Category, decimal Percent, decimal Basis, decimal Tax);

/// <summary>A part of an invoice that is due on a day of its own.</summary>
public sealed record InvoiceDue(DateOnly Due, decimal Amount);

/// <summary>
/// An invoice or a credit note as it was issued, in figures and words: what its papers and files are written from. It
/// never changes.
/// </summary>
/// <param name="Order">The numbers of all, where it is for several.</param>
/// <param name="PoNumber">The same of the buyer's.</param>
/// <param name="Credits">The invoice that a credit note names; empty for an invoice.</param>
/// <param name="CreditsDay">The day of that invoice; null for an invoice.</param>
/// <param name="Language">ISO 639-1, of its papers.</param>
/// <param name="Shipments">Numbers of what went, where goods are billed.</param>
/// <param name="Prepaid">EN 16931, BT-113.</param>
/// <param name="Bank">Where it is paid to.</param>
/// <param name="Rate">Home currency for one unit of its own, on its day.</param>
public sealed record IssuedInvoice(
    BillKind Kind,
    string Number,
    DateOnly Day,
    DateOnly Due,
    string Currency,
    InvoiceParty Seller,
    InvoiceParty Buyer,
    string DeliverTo,
    string DeliverToCountry,
    DateOnly? Delivered,
    string Order,
    string PoNumber,
    string Matter,
    string Credits,
    DateOnly? CreditsDay,
    string Reason,
    string Language,
    string SaidTerms,
    ImmutableArray<string> Shipments,
    ImmutableArray<InvoiceLine> Lines,
    ImmutableArray<InvoiceExtra> Allowances,
    ImmutableArray<InvoiceExtra> Charges,
    ImmutableArray<InvoiceTax> Taxes,
    decimal Prepaid,
    string Bank,
    decimal Rate
)
{
    /// <summary>Its parts, where it is paid in several; empty where it is paid at once.</summary>
    public ImmutableArray<InvoiceDue> Dues { get; init; } = [];

    /// <summary>Whether it is for several orders, which its lines name.</summary>
    [JsonIgnore]
    public bool IsCollected => Lines.Any(l => l.Order.Length > 0);

    /// <summary>EN 16931, BT-106.</summary>
    [JsonIgnore]
    public decimal Nets => Lines.Sum(l => l.Net);

    /// <summary>EN 16931, BT-109.</summary>
    [JsonIgnore]
    public decimal TotalWithoutTax => Taxes.Sum(t => t.Basis);

    /// <summary>EN 16931, BT-110.</summary>
    [JsonIgnore]
    public decimal TotalTax => Taxes.Sum(t => t.Tax);

    /// <summary>EN 16931, BT-112.</summary>
    [JsonIgnore]
    public decimal TotalWithTax => TotalWithoutTax + TotalTax;

    /// <summary>EN 16931, BT-115.</summary>
    [JsonIgnore]
    public decimal ToPay => TotalWithTax - Prepaid;

    /// <summary>
    /// By how much a line differs from its quantity at its price; an allowance or a charge on the line carries it.
    /// </summary>
    public decimal DifferenceOf(InvoiceLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return line.Net
            - Amount
                .Round(line.Quantity * line.Price / line.PriceBase, Solvenda.Core.Money.Currency.Of(Currency))
                .Value;
    }
}
