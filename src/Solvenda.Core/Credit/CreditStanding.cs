using System.Collections.Immutable;
using Solvenda.Core.Money;

namespace Solvenda.Core.Credit;

/// <summary>An invoice that is not paid, in the credit's currency.</summary>
public sealed record OpenInvoice(string Number, string Buyer, DateOnly Due, Amount Open);

/// <summary>Open invoices by how long they are due.</summary>
/// <param name="NotDue">Due today or later.</param>
public sealed record OpenAges(Amount NotDue, Amount UpTo30, Amount UpTo60, Amount Older);

/// <summary>What a buyer owes and will owe, in its credit currency.</summary>
/// <param name="Limit">Nothing where none is kept: see <see cref="HasLimit"/>.</param>
/// <param name="OpenOrders">Confirmed orders not yet shipped, with tax, without the order looked at.</param>
/// <param name="Deposits">Received for orders that are not invoiced yet.</param>
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

    /// <summary>Whether a limit is kept at all.</summary>
    public bool HasLimit { get; init; } = true;

    /// <summary>The last day of the limit; null where it has none.</summary>
    public DateOnly? Until { get; init; }

    /// <summary>Whether that day is over.</summary>
    public bool Ended { get; init; }

    /// <summary>Why somebody blocked them by hand; empty where nobody did.</summary>
    public string Blocked { get; init; } = "";

    /// <summary>What an insurer covers of it; null where nothing is insured.</summary>
    public Amount? Insured { get; init; }

    /// <summary>How late they paid in the last two years on average, in days; negative before it was due.</summary>
    public decimal? DaysLate { get; init; }

    /// <summary>The invoices that are open, the oldest first.</summary>
    public ImmutableArray<OpenInvoice> Invoices { get; init; } = [];

    /// <summary>What they owe and will owe.</summary>
    public Amount Exposure => OpenInvoices + ShippedNotInvoiced + OpenOrders - ReceiptsNotApplied - Deposits;

    /// <summary>What of it no insurer covers.</summary>
    public Amount Uninsured =>
        Insured is { } cover && Exposure > cover ? Exposure - cover
        : Insured is null ? Exposure
        : Amount.Zero(Limit.Currency);

    /// <summary>limit - exposure - this order; below zero is a stop.</summary>
    public Amount Headroom(Amount thisOrder) => Limit - Exposure - thisOrder;

    /// <summary>Whether the oldest open invoice is overdue beyond the grace days.</summary>
    public bool OverdueBeyondGrace => OldestOverdueDays > GraceDays;

    /// <summary>Open invoices by their age on a day.</summary>
    public OpenAges Aged(DateOnly day)
    {
        Amount Between(int from, int to) =>
            Invoices
                .Where(i => day.DayNumber - i.Due.DayNumber is var late && late >= from && late <= to)
                .Aggregate(Amount.Zero(Limit.Currency), (sum, i) => sum + i.Open);
        return new OpenAges(Between(int.MinValue, 0), Between(1, 30), Between(31, 60), Between(61, int.MaxValue));
    }
}
