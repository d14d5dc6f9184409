using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Billing;
using Solvenda.Core.Ledger;

namespace Solvenda.Data.Rows;

/// <summary>An invoice or a credit note as it was issued. Nothing of it is ever changed.</summary>
[Index(nameof(Number), IsUnique = true), Index(nameof(OrderId)), Index(nameof(BuyerId)), Index(nameof(Day))]
public sealed class InvoiceRow
{
    public long Id { get; set; }
    public required string Number { get; set; }
    public BillKind Kind { get; set; }

    /// <summary>The order that it is for; of several the first.</summary>
    public long OrderId { get; set; }
    public OrderRow Order { get; set; } = null!;
    public long BuyerId { get; set; }

    /// <summary>The invoice that a credit note names; null for an invoice.</summary>
    public long? CreditsId { get; set; }
    public DateOnly Day { get; set; }
    public DateOnly Due { get; set; }
    public required string Currency { get; set; }
    public long TotalWithoutTaxMinor { get; set; }
    public long TotalWithTaxMinor { get; set; }
    public long PrepaidMinor { get; set; }

    /// <summary>Home currency for one unit of its own, on its day.</summary>
    public decimal Rate { get; set; }

    /// <summary>Why there is a credit note; empty for an invoice.</summary>
    public string Reason { get; set; } = "";

    /// <summary>Where the buyer got it; empty where it could not be sent.</summary>
    public string ToldTo { get; set; } = "";
    public string ByName { get; set; } = "";
    public DateTime At { get; set; }

    /// <summary>As it was printed; null where nothing was.</summary>
    public long? PrintId { get; set; }

    /// <summary>All that stands on it, as JSON (Core's IssuedInvoice).</summary>
    public string Document { get; set; } = "";

    /// <summary>One for each order that it is for.</summary>
    public List<InvoicePartRow> Parts { get; set; } = [];
}

/// <summary>What of an invoice or a credit note is of an order.</summary>
[Index(nameof(OrderId))]
public sealed class InvoicePartRow
{
    public long Id { get; set; }
    public long InvoiceId { get; set; }
    public InvoiceRow Invoice { get; set; } = null!;
    public long OrderId { get; set; }
    public OrderRow Order { get; set; } = null!;
    public long TotalWithTaxMinor { get; set; }

    /// <summary>What deposit invoices had taxed of it before, and it took off, with tax.</summary>
    public long DeductedMinor { get; set; }

    /// <summary>Its figures, line by line as the order has them, as JSON (KeptBill).</summary>
    public string Bill { get; set; } = "";
}

/// <summary>An account of the ledger.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class AccountRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }
    public required string Code { get; set; }
    public required string Words { get; set; }

    /// <summary>What the rules of posting use it for.</summary>
    public AccountUse Use { get; set; }

    /// <summary>UNCL 5305: used for this category alone; empty for all.</summary>
    public string TaxCategory { get; set; } = "";
}

/// <summary>One side of a double entry. It is never changed; what was wrong is reversed by another.</summary>
[Index(nameof(Day)), Index(nameof(Document)), Index(nameof(Account))]
public sealed class EntryRow
{
    public long Id { get; set; }
    public DateOnly Day { get; set; }

    /// <summary>Number of what it comes from: of an invoice, or of money that came.</summary>
    public required string Document { get; set; }
    public required string Account { get; set; }

    /// <summary>The account that the rules said, where somebody moved it before it was issued; empty where nobody
    /// did.</summary>
    public string MovedFrom { get; set; } = "";

    /// <summary>The house's, ISO 4217.</summary>
    public required string Currency { get; set; }

    /// <summary>In minor units; one of the two is zero.</summary>
    public long DebitMinor { get; set; }
    public long CreditMinor { get; set; }
    public string Words { get; set; } = "";
    public DateTime At { get; set; }
    public string ByName { get; set; } = "";
}

/// <summary>Money that came, as the bank shows it.</summary>
[Index(nameof(Account), nameof(Reference), IsUnique = true), Index(nameof(State), nameof(Day)), Index(nameof(BuyerId))]
public sealed class ReceiptRow
{
    public long Id { get; set; }

    /// <summary>Ours, where it came to.</summary>
    public required string Account { get; set; }

    /// <summary>The bank's own for it.</summary>
    public required string Reference { get; set; }

    /// <summary>The statement that it stood on.</summary>
    public string Statement { get; set; } = "";
    public DateOnly Day { get; set; }
    public long Minor { get; set; }
    public required string Currency { get; set; }
    public string Payer { get; set; } = "";
    public string PayerAccount { get; set; } = "";

    /// <summary>What the payer wrote.</summary>
    public string Words { get; set; } = "";

    /// <summary>Whose it is; null before somebody knows.</summary>
    public long? BuyerId { get; set; }
    public ReceiptState State { get; set; }

    /// <summary>Why it did not go by itself; empty where it did.</summary>
    public string Why { get; set; } = "";

    /// <summary>What nothing was taken of yet; and what the ledger has that as.</summary>
    public long LeftMinor { get; set; }
    public long LeftHomeMinor { get; set; }
    public DateTime At { get; set; }
    public string ByName { get; set; } = "";

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
}

/// <summary>How far money that came is.</summary>
public enum ReceiptState
{
    /// <summary>Somebody has to say what it is for.</summary>
    Open,

    /// <summary>All of it is taken, or stays on account because somebody said so.</summary>
    Done,

    /// <summary>It went back.</summary>
    Returned,
}

/// <summary>What was taken of something owed: by money that came, or by a credit note.</summary>
[Index(nameof(OpenItemId)), Index(nameof(ReceiptId))]
public sealed class PaidRow
{
    public long Id { get; set; }
    public long OpenItemId { get; set; }
    public long? ReceiptId { get; set; }

    /// <summary>The credit note; null for money.</summary>
    public long? CreditId { get; set; }

    /// <summary>Why it is gone without money or a note: what was written off, taken off for paying early, or paid
    /// back.</summary>
    public string Reason { get; set; } = "";

    /// <summary>Minor units of what is owed.</summary>
    public long Minor { get; set; }

    /// <summary>What the ledger had it as.</summary>
    public long HomeMinor { get; set; }
    public DateOnly Day { get; set; }
    public DateTime At { get; set; }
    public string ByName { get; set; } = "";
}
