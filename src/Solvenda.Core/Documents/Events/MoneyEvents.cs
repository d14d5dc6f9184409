using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>A bank's statement was taken in.</summary>
/// <param name="Came">How many movements of money that came.</param>
/// <param name="Applied">How many of them are applied whole by themselves.</param>
/// <param name="Known">How many were there already.</param>
[EventCode("bank.taken")]
public sealed record BankTaken(string File, int Came, int Applied, int Known) : IEvent;

/// <summary>Money that came was taken for invoices.</summary>
/// <param name="Receipt">The bank's reference.</param>
/// <param name="Takes">Number by number, with how much.</param>
/// <param name="Left">What stays on account.</param>
[EventCode("money.applied")]
public sealed record MoneyApplied(
    string Receipt,
    decimal Amount,
    string Currency,
    ImmutableArray<string> Takes,
    decimal Left
) : IEvent;

/// <summary>Money that came went back, and what was taken of it is open again.</summary>
[EventCode("money.returned")]
public sealed record MoneyReturned(string Receipt, decimal Amount, string Currency, ImmutableArray<string> Opened)
    : IEvent;

/// <summary>Money was noted that no statement of the bank shows.</summary>
/// <param name="How">Cash, a cheque, a card.</param>
[EventCode("money.noted")]
public sealed record MoneyNoted(
    string Receipt,
    decimal Amount,
    string Currency,
    string How,
    ImmutableArray<string> Takes
) : IEvent;

/// <summary>A buyer got money back.</summary>
/// <param name="Document">The credit note, or the money that it was of.</param>
[EventCode("money.paid_back")]
public sealed record MoneyPaidBack(string Document, decimal Amount, string Currency, string Reason) : IEvent;

/// <summary>The small rest of an invoice was written off.</summary>
[EventCode("invoice.written_off")]
public sealed record RestWrittenOff(string Number, decimal Amount, string Currency, string Reason) : IEvent;

/// <summary>A buyer says something against an invoice.</summary>
[EventCode("invoice.disputed")]
public sealed record InvoiceDisputed(string Number, string Reason) : IEvent;

/// <summary>What was said against an invoice is settled.</summary>
[EventCode("invoice.settled")]
public sealed record DisputeSettled(string Number, string Words) : IEvent;

/// <summary>What a credit note left over was taken for an invoice.</summary>
[EventCode("invoice.set_off")]
public sealed record NoteSetOff(string Note, string Invoice, decimal Amount, string Currency) : IEvent;

/// <summary>A buyer was reminded of what is late.</summary>
/// <param name="Step">1 to 3.</param>
/// <param name="Numbers">What of.</param>
[EventCode("buyer.reminded")]
public sealed record BuyerReminded(int Step, ImmutableArray<string> Numbers, string ToldTo) : IEvent;

/// <summary>A buyer got a statement of what is open.</summary>
[EventCode("buyer.statement")]
public sealed record StatementSent(int Items, string ToldTo) : IEvent;

/// <summary>A sales channel paid out what it held for us, less its fees.</summary>
/// <param name="Gross">In home currency.</param>
[EventCode("money.payout")]
public sealed record PayoutTaken(string Receipt, string Channel, decimal Gross, decimal Fees, string Currency) : IEvent;
