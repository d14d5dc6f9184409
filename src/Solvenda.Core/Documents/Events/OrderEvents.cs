using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>An order was begun: from a quote, from a request, or by hand.</summary>
[EventCode("order.begun")]
public sealed record OrderBegun(string Channel, string? Quote, string? Request) : IEvent
{
    /// <summary>The order that it is a copy of; null where it is none.</summary>
    public string? CopyOf { get; init; }

    /// <summary>Other quotes that it was made from, beside the first.</summary>
    public ImmutableArray<string> AlsoOf { get; init; } = [];

    /// <summary>The frame that it was called off of; null where it is of none.</summary>
    public string? CalledOffOf { get; init; }
}

/// <summary>A stop was let pass.</summary>
/// <param name="Words">What had been found.</param>
[EventCode("order.waived")]
public sealed record StopWaived(string Check, long? Line, string Words, decimal Excess) : IEvent
{
    /// <summary>The last day on which it passes; null: without end.</summary>
    public DateOnly? Until { get; init; }
}

/// <summary>Money came for it before it was invoiced.</summary>
/// <param name="Reference">Where it was seen: the bank's.</param>
[EventCode("order.deposit")]
public sealed record DepositNoted(decimal Amount, string Currency, DateOnly ReceivedOn, string Reference) : IEvent;

/// <summary>It was confirmed to the buyer, and its stock committed.</summary>
/// <param name="By">mail, edi, paper.</param>
[EventCode("order.confirmed")]
public sealed record OrderConfirmed(
    string By,
    string To,
    decimal Total,
    string Currency,
    TermsTrack Before,
    TermsTrack After
) : IEvent
{
    /// <summary>What is otherwise than when it was confirmed before, in words; empty the first time.</summary>
    public ImmutableArray<string> Changed { get; init; } = [];
}

/// <summary>A confirmed order was opened again to be changed.</summary>
/// <param name="Version">What was confirmed is kept under this number, from 1.</param>
[EventCode("order.changing")]
public sealed record OrderChanging(int Version, TermsTrack Before, TermsTrack After) : IEvent;

/// <summary>What was being changed was left as it had been confirmed.</summary>
[EventCode("order.left_as_confirmed")]
public sealed record OrderLeftAsConfirmed(TermsTrack Before, TermsTrack After) : IEvent;

/// <summary>It was held by hand: nothing goes on with it.</summary>
[EventCode("order.held")]
public sealed record OrderHeld : IEvent;

/// <summary>It goes on after it was held.</summary>
/// <param name="HeldFor">Why it had been held.</param>
[EventCode("order.went_on")]
public sealed record OrderWentOn(string HeldFor) : IEvent;

/// <summary>It was cancelled, and its stock is free again.</summary>
/// <param name="ToldTo">Where the buyer was told; empty where they were not, since nothing had been confirmed to
/// them.</param>
[EventCode("order.cancelled")]
public sealed record OrderCancelled(string ToldTo, TermsTrack Before, TermsTrack After) : IEvent;

/// <summary>Lines of it were closed short: what is left of them is not delivered, and their stock is free.</summary>
/// <param name="Lines">As they are called.</param>
/// <param name="ToldTo">Where the buyer was told; empty where nobody could be.</param>
/// <param name="Total">What it comes to since, with tax.</param>
[EventCode("order.lines_closed")]
public sealed record LinesClosed(ImmutableArray<string> Lines, string ToldTo, decimal Total, string Currency) : IEvent;

/// <summary>Lines of it are longer, since more went than was ordered, as far as the buyer takes it.</summary>
/// <param name="Lines">As they are called, with how much went beyond.</param>
/// <param name="Total">What it comes to since, with tax.</param>
[EventCode("order.lines_extended")]
public sealed record LinesExtended(ImmutableArray<string> Lines, decimal Total, string Currency) : IEvent;

/// <summary>Lines that were closed short were opened again, for the order to be confirmed anew.</summary>
/// <param name="Lines">As they are called.</param>
[EventCode("order.lines_opened")]
public sealed record LinesOpened(ImmutableArray<string> Lines, TermsTrack Before, TermsTrack After) : IEvent;

/// <summary>A cancelled order was taken up again.</summary>
[EventCode("order.opened_again")]
public sealed record OrderOpenedAgain(TermsTrack Before, TermsTrack After) : IEvent;

/// <summary>What a buyer wants otherwise was put onto their order, to be confirmed.</summary>
/// <param name="Request">Number of their message.</param>
/// <param name="Taken">What was taken, in words.</param>
/// <param name="Left">What was not.</param>
[EventCode("order.change_taken")]
public sealed record ChangeTaken(string Request, ImmutableArray<string> Taken, ImmutableArray<string> Left) : IEvent;

/// <summary>What a buyer wants otherwise was not taken, and they were told.</summary>
/// <param name="ToldTo">Where; empty where there is no mail address.</param>
[EventCode("order.change_refused")]
public sealed record ChangeRefused(string Request, string ToldTo) : IEvent;

/// <summary>A promise can no longer be kept, or can again.</summary>
/// <param name="Before">In words; empty where all could be kept.</param>
[EventCode("order.promise_moved")]
public sealed record PromiseMoved(string Before, string After) : IEvent;

/// <summary>Its checks were run again, and found something else.</summary>
/// <param name="First">The first stop in words; empty where nothing stops it.</param>
[EventCode("order.rechecked")]
public sealed record OrderRechecked(int Before, int After, string First) : IEvent;
