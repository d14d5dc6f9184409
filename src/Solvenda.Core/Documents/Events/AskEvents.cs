using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>Approval was asked for.</summary>
/// <param name="Hand">Whose figures it is about.</param>
/// <param name="Fired">The figures against the limits, in words of that moment.</param>
[EventCode("ask.made")]
public sealed record AskMade(long Ask, string Hand, string Approver, ImmutableArray<string> Fired) : IEvent;

/// <summary>An ask was granted.</summary>
[EventCode("ask.granted")]
public sealed record AskGranted(long Ask, string Approver, QuoteState? Before, QuoteState? After) : IEvent;

/// <summary>An ask came back with a note.</summary>
[EventCode("ask.sent_back")]
public sealed record AskSentBack(long Ask, string Approver, QuoteState? Before, QuoteState? After) : IEvent;
