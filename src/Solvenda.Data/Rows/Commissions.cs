using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Billing;

namespace Solvenda.Data.Rows;

/// <summary>By which plan somebody earns on what is invoiced.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class CommissionPlanRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }

    /// <summary>What it is called.</summary>
    public required string Code { get; set; }

    /// <summary>The seller whose orders it is for; null: of more.</summary>
    public long? SellerId { get; set; }

    /// <summary>The lead of the team whose orders it is for; null: of all.</summary>
    public long? LeadId { get; set; }
    public CommissionOn On { get; set; }

    /// <summary>Of what it is on, above 0.</summary>
    public decimal Percent { get; set; }

    /// <summary>Who shares it (Core's CommissionShares): "Sorcha Quill 60; Leandro Paz 40"; empty: all is the
    /// seller's.</summary>
    public string Shares { get; set; } = "";

    /// <summary>Orders that are invoiced from that day on; null: from the beginning.</summary>
    public DateOnly? From { get; set; }

    /// <summary>And up to that one; null: without end.</summary>
    public DateOnly? Until { get; set; }
}

/// <summary>What somebody earns of an invoice, or gives back of a credit note. It is never changed.</summary>
[Index(nameof(InvoiceId)), Index(nameof(Day))]
public sealed class CommissionRow
{
    public long Id { get; set; }
    public long InvoiceId { get; set; }
    public InvoiceRow Invoice { get; set; } = null!;
    public long OrderId { get; set; }
    public OrderRow Order { get; set; } = null!;

    /// <summary>Whose it is, by name.</summary>
    public required string Name { get; set; }
    public required string Plan { get; set; }
    public CommissionOn On { get; set; }
    public decimal Percent { get; set; }

    /// <summary>Their share of it, in percent.</summary>
    public decimal Share { get; set; }
    public required string Currency { get; set; }

    /// <summary>What it is on, in minor units; below 0 of a credit note.</summary>
    public long BasisMinor { get; set; }
    public long Minor { get; set; }
    public DateOnly Day { get; set; }
}
