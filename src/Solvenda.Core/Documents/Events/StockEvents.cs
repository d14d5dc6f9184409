using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>A line of a confirmed order and the day on which it is there.</summary>
/// <param name="Line">Its position on the sheet, from 1.</param>
/// <param name="Before">Null where no day had been given.</param>
public sealed record LineDate(int Line, string Words, DateOnly? Before, DateOnly After);

/// <summary>What was committed to an order leaves on another day, or from another warehouse.</summary>
/// <param name="Way">How: elsewhere, take, split, or anew where everything was promised anew.</param>
[EventCode("order.commitment_moved")]
public sealed record CommitmentMoved(
    string Way,
    string Item,
    decimal Quantity,
    string Unit,
    string From,
    DateOnly Before,
    string To,
    DateOnly After
) : IEvent;

/// <summary>Lines of a confirmed order come on other days than was told.</summary>
/// <param name="ToldTo">Where the buyer was told; empty where they could not be.</param>
[EventCode("order.dates_moved")]
public sealed record DatesMoved(ImmutableArray<LineDate> Lines, string ToldTo) : IEvent;

/// <summary>Stock was counted.</summary>
[EventCode("stock.counted")]
public sealed record StockCounted(string Item, string Warehouse, decimal Before, decimal After) : IEvent;

/// <summary>More was asked of purchasing or production.</summary>
/// <param name="Number">By which whoever gets it answers.</param>
[EventCode("stock.asked_for")]
public sealed record StockAskedFor(
    string Number,
    string Item,
    string Warehouse,
    decimal Quantity,
    string Unit,
    DateOnly Wanted
) : IEvent;

/// <summary>It was said that something comes, or on another day than before.</summary>
/// <param name="Before">The day that was said before; null: it is new.</param>
[EventCode("stock.expected")]
public sealed record StockExpected(
    string Reference,
    string Item,
    string Warehouse,
    decimal Quantity,
    DateOnly? Before,
    DateOnly Due
) : IEvent;

/// <summary>Something came.</summary>
/// <param name="Delivery">Number of the delivery.</param>
[EventCode("stock.arrived")]
public sealed record StockArrived(
    string Reference,
    string Delivery,
    string Item,
    string Warehouse,
    decimal Quantity,
    decimal OnHand
) : IEvent;
