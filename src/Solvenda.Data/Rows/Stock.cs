using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

[PrimaryKey(nameof(ItemId), nameof(Warehouse))]
public sealed class StockRow
{
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }
    public decimal OnHand { get; set; }

    /// <summary>Where it lies: places are walked in their order; empty where nobody said.</summary>
    public string Bin { get; set; } = "";

    /// <summary>Of what goes by lot, the one that lies in front: that which was picked last; empty where nobody
    /// said.</summary>
    public string Lot { get; set; } = "";
}

/// <summary>What is on its way to a warehouse.</summary>
[Index(nameof(ItemId), nameof(Warehouse)), Index(nameof(Reference))]
public sealed class IncomingRow
{
    public long Id { get; set; }
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }
    public DateOnly Due { get; set; }
    public decimal Quantity { get; set; }

    /// <summary>Number of whoever sends it, or of our own request; empty where nobody said.</summary>
    public string Reference { get; set; } = "";

    /// <summary>The day that was said at first.</summary>
    public DateOnly FirstDue { get; set; }
}

/// <summary>Why stock changed.</summary>
public enum MovementKind
{
    /// <summary>It was counted.</summary>
    Counted,

    /// <summary>It came.</summary>
    Arrived,

    /// <summary>It went to a buyer.</summary>
    Shipped,

    /// <summary>A buyer gave it back.</summary>
    Returned,
}

/// <summary>A change of the stock; all of an item and warehouse together are what is on hand.</summary>
[Index(nameof(ItemId), nameof(Warehouse), nameof(Day)), Index(nameof(Document))]
public sealed class StockMovementRow
{
    public long Id { get; set; }
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }
    public DateOnly Day { get; set; }

    /// <summary>In stock units; below zero where it went.</summary>
    public decimal Quantity { get; set; }
    public MovementKind Kind { get; set; }

    /// <summary>Number of the order or the delivery that it was for; empty where it was counted.</summary>
    public string Document { get; set; } = "";
}

/// <summary>What was asked of purchasing or of production.</summary>
[Index(nameof(Number), IsUnique = true), Index(nameof(ItemId), nameof(Warehouse))]
public sealed class SupplyRequestRow
{
    public long Id { get; set; }
    public required string Number { get; set; }
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }

    /// <summary>In stock units.</summary>
    public decimal Quantity { get; set; }
    public DateOnly Wanted { get; set; }
    public required string ByName { get; set; }
    public DateTime At { get; set; }

    /// <summary>How much of it was said to come, or came; what is left waits for an answer.</summary>
    public decimal Answered { get; set; }
}

/// <summary>What a confirmed order took of the stock: stock units of one line, for one day.</summary>
[Index(nameof(ItemId), nameof(Warehouse)), Index(nameof(OrderId))]
public sealed class CommitmentRow
{
    public long Id { get; set; }
    public long OrderId { get; set; }
    public long LineKey { get; set; }
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }
    public DateOnly Day { get; set; }
    public decimal Quantity { get; set; }
}

/// <summary>What is kept back for a quote until a day: stock units of one line. After that day it is nothing.</summary>
[Index(nameof(ItemId), nameof(Warehouse)), Index(nameof(QuoteId))]
public sealed class ReservationRow
{
    public long Id { get; set; }
    public long QuoteId { get; set; }
    public long LineKey { get; set; }
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }
    public decimal Quantity { get; set; }
    public DateOnly Until { get; set; }
}
