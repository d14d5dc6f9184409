using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>Something about one ask.</summary>
public interface IAskEvent : IEvent
{
    /// <summary>Key of the ask.</summary>
    long Ask { get; }
}

/// <summary>Approval was asked for.</summary>
/// <param name="Hand">Whose figures it is about.</param>
/// <param name="Approver">Who has it first: "A or B" where any one of them decides.</param>
/// <param name="Fired">The figures against the limits, in words of that moment.</param>
[EventCode("ask.made")]
public sealed record AskMade(long Ask, string Hand, string Approver, ImmutableArray<string> Fired) : IAskEvent;

/// <summary>An ask was granted.</summary>
/// <param name="UpTo">The figure that was granted less far than asked, in words; empty: as asked.</param>
[EventCode("ask.granted")]
public sealed record AskGranted(long Ask, string Approver, QuoteState? Before, QuoteState? After, string UpTo = "")
    : IAskEvent;

/// <summary>One of several who are asked in turn said yes; the next has it.</summary>
[EventCode("ask.handed_on")]
public sealed record AskHandedOn(long Ask, string Approver, string Next) : IAskEvent;

/// <summary>An ask came back with a note.</summary>
/// <param name="Marks">Keys of the lines that it is about.</param>
[EventCode("ask.sent_back")]
public sealed record AskSentBack(
    long Ask,
    string Approver,
    QuoteState? Before,
    QuoteState? After,
    ImmutableArray<long> Marks = default
) : IAskEvent;

/// <summary>Whoever asked took it back.</summary>
[EventCode("ask.withdrawn")]
public sealed record AskWithdrawn(long Ask, QuoteState? Before, QuoteState? After) : IAskEvent;

/// <summary>Something was asked back, or answered, without deciding.</summary>
[EventCode("ask.talked")]
public sealed record AskTalked(long Ask, bool IsQuestion) : IAskEvent;

/// <summary>Whoever had it gave it to somebody else.</summary>
[EventCode("ask.passed_on")]
public sealed record AskPassedOn(long Ask, string From, string To) : IAskEvent;

/// <summary>It moved on by itself: nobody answered in time, or who had it is away or left.</summary>
/// <param name="To">Who has it now; empty where nobody above may decide it, and it stays.</param>
/// <param name="Reason">overdue, away, reminded.</param>
[EventCode("ask.moved")]
public sealed record AskMoved(long Ask, string From, string To, string Reason) : IAskEvent;
