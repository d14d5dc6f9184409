using Microsoft.EntityFrameworkCore;

namespace Solvenda.Data.Rows;

[PrimaryKey(nameof(ItemId), nameof(Warehouse))]
public sealed class StockRow
{
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }
    public decimal OnHand { get; set; }
}

[Index(nameof(ItemId), nameof(Warehouse))]
public sealed class IncomingRow
{
    public long Id { get; set; }
    public long ItemId { get; set; }
    public required string Warehouse { get; set; }
    public DateOnly Due { get; set; }
    public decimal Quantity { get; set; }
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
