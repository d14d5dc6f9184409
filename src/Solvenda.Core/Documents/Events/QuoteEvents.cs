namespace Solvenda.Core.Documents.Events;

/// <summary>A quote was begun.</summary>
[EventCode("quote.begun")]
public sealed record QuoteBegun(string Revision, string? Request) : IEvent;

/// <summary>A revision left the house.</summary>
/// <param name="By">mail, or paper.</param>
/// <param name="Total">With tax, in its currency.</param>
[EventCode("quote.sent")]
public sealed record QuoteSent(
    string Revision,
    string By,
    string To,
    decimal Total,
    string Currency,
    QuoteState Before,
    QuoteState After
) : IEvent;

/// <summary>A new revision was begun from an old one.</summary>
[EventCode("quote.revised")]
public sealed record QuoteRevised(string From, string To, QuoteState Before, QuoteState After) : IEvent;

/// <summary>A new revision's rate moved its total by more than a hundredth.</summary>
/// <param name="Before">Home currency per unit, of the revision before.</param>
/// <param name="Percent">By which the total moved; negative for less.</param>
[EventCode("quote.rate_moved")]
public sealed record RateMoved(decimal Before, decimal After, decimal Percent) : IEvent;

/// <summary>The buyer opened their link.</summary>
/// <param name="Times">How many times by now.</param>
[EventCode("quote.opened")]
public sealed record QuoteOpened(string Revision, int Times) : IEvent;

/// <summary>A quote was begun from another one, at the prices of its day.</summary>
/// <param name="From">The revision that it is a copy of: Q26-00187·A.</param>
/// <param name="Moved">What moved by the prices of today, in words; empty where nothing did.</param>
/// <param name="ToChoose">Whether the buyer takes one of the two.</param>
[EventCode("quote.copied")]
public sealed record QuoteCopied(string From, string Moved, bool ToChoose) : IEvent;

/// <summary>The buyer said yes.</summary>
/// <param name="Choice">What they took and left of what could be chosen, in words; empty where there was
/// nothing.</param>
[EventCode("quote.accepted")]
public sealed record QuoteAccepted(
    string Revision,
    string? PoNumber,
    QuoteState Before,
    QuoteState After,
    string Choice = ""
) : IEvent;

/// <summary>The buyer said no.</summary>
[EventCode("quote.declined")]
public sealed record QuoteDeclined(string Revision, QuoteState Before, QuoteState After) : IEvent;

/// <summary>The house took it back.</summary>
[EventCode("quote.withdrawn")]
public sealed record QuoteWithdrawn(string Revision, QuoteState Before, QuoteState After) : IEvent;

/// <summary>Its validity ran out.</summary>
[EventCode("quote.lapsed")]
public sealed record QuoteLapsed(string Revision, QuoteState Before, QuoteState After) : IEvent;
