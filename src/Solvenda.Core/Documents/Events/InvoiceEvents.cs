namespace Solvenda.Core.Documents.Events;

/// <summary>An invoice was issued.</summary>
/// <param name="Total">With tax.</param>
/// <param name="ToldTo">Where the buyer got it; empty where it could not be sent.</param>
[EventCode("invoice.issued")]
public sealed record InvoiceIssued(
    string Invoice,
    decimal Total,
    string Currency,
    DateOnly Due,
    string ToldTo,
    MoneyTrack Before,
    MoneyTrack After
) : IEvent;

/// <summary>A deposit invoice was issued for money that came before the goods.</summary>
/// <param name="Total">With tax.</param>
/// <param name="ToldTo">Where the buyer got it; empty where it could not be sent.</param>
[EventCode("invoice.deposit_taxed")]
public sealed record DepositInvoiced(string Invoice, decimal Total, string Currency, string ToldTo) : IEvent;

/// <summary>What an invoice posts on one account went to another, before it was issued.</summary>
/// <param name="From">Code of the account that the rules say.</param>
/// <param name="To">Code of the one that somebody said instead.</param>
[EventCode("invoice.entries_moved")]
public sealed record EntriesMoved(string Invoice, string From, string To, string Reason) : IEvent;

/// <summary>A credit note on an invoice was issued.</summary>
/// <param name="Total">With tax, as it goes back.</param>
/// <param name="ToldTo">Where the buyer got it; empty where it could not be sent.</param>
[EventCode("invoice.credited")]
public sealed record InvoiceCredited(
    string Note,
    string Invoice,
    decimal Total,
    string Currency,
    string ToldTo,
    MoneyTrack Before,
    MoneyTrack After
) : IEvent;

/// <summary>What was owed and held before the ledger was brought into it.</summary>
[EventCode("ledger.opened")]
public sealed record BooksOpened(int Owed, int Held) : IEvent;

/// <summary>The books were closed up to a day.</summary>
[EventCode("ledger.closed")]
public sealed record BooksClosed(DateOnly Until) : IEvent;

/// <summary>The buyer was told what an order will be invoiced for, so that it can be paid ahead.</summary>
/// <param name="Total">With tax.</param>
/// <param name="To">Where it went.</param>
[EventCode("order.pro_forma_sent")]
public sealed record ProFormaSent(decimal Total, string Currency, string To) : IEvent;
