using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;

namespace Solvenda.Data.Rows;

/// <summary>Goods of an order that the buyer wants to give back.</summary>
[Index(nameof(Number), IsUnique = true), Index(nameof(OrderId)), Index(nameof(State))]
public sealed class ReturnRow
{
    public long Id { get; set; }

    /// <summary>The order's, and which of its returns: S26-00311/R1.</summary>
    public required string Number { get; set; }
    public long OrderId { get; set; }
    public OrderRow Order { get; set; } = null!;

    /// <summary>From 1.</summary>
    public int No { get; set; }
    public ReturnState State { get; set; }
    public ReturnFor For { get; set; }

    /// <summary>Why the buyer gives it back.</summary>
    public required string Reason { get; set; }

    /// <summary>Why they may not, or on what terms they may; empty where nothing was said.</summary>
    public string Answer { get; set; } = "";
    public DateOnly Day { get; set; }
    public string ByName { get; set; } = "";

    /// <summary>Where the buyer was told; empty where they were not.</summary>
    public string ToldTo { get; set; } = "";

    /// <summary>The day on which the goods were here; null before.</summary>
    public DateOnly? BackOn { get; set; }

    /// <summary>What settled it: numbers of credit notes, or of the order that replaces it; empty before.</summary>
    public string SettledBy { get; set; } = "";

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
    public List<ReturnLineRow> Lines { get; set; } = [];
}

/// <summary>A line of the order, as far as it comes back.</summary>
[PrimaryKey(nameof(ReturnId), nameof(LineKey))]
public sealed class ReturnLineRow
{
    public long ReturnId { get; set; }

    /// <summary>Of the order's sheet.</summary>
    public long LineKey { get; set; }

    /// <summary>In the order's unit: what is to come back; once it is here, what came.</summary>
    public decimal Quantity { get; set; }

    /// <summary>What of it went back to the shelf, in the order's unit.</summary>
    public decimal ToStock { get; set; }
}
