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
