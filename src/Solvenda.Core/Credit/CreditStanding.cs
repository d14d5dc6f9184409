using Solvenda.Core.Money;

namespace Solvenda.Core.Credit;

/// <summary>What a buyer owes and will owe, in its credit currency.</summary>
/// <param name="OpenOrders">Confirmed orders not yet shipped, with tax, without the order looked at.</param>
/// <param name="OldestOverdueDays">Days past due of the oldest open item; 0 for none.</param>
public sealed record CreditStanding(
    Amount Limit,
    Amount OpenInvoices,
    Amount ShippedNotInvoiced,
    Amount OpenOrders,
    Amount ReceiptsNotApplied,
    Amount Deposits,
    int OldestOverdueDays,
    int GraceDays
)
{
    /// <summary>A currency without a rate, so that not all of it could be added up; null where all could.</summary>
    public string? MissingRate { get; init; }

    /// <summary>The parent whose limit it is, shared by its children; null for the buyer's own.</summary>
    public string? SharedWith { get; init; }

    /// <summary>What they owe and will owe.</summary>
    public Amount Exposure => OpenInvoices + ShippedNotInvoiced + OpenOrders - ReceiptsNotApplied - Deposits;

    /// <summary>limit - exposure - this order; below zero is a stop.</summary>
    public Amount Headroom(Amount thisOrder) => Limit - Exposure - thisOrder;

    /// <summary>Whether the oldest open invoice is overdue beyond the grace days.</summary>
    public bool OverdueBeyondGrace => OldestOverdueDays > GraceDays;
}
