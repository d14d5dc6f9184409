namespace Solvenda.Core.Documents.Events;

/// <summary>An order was begun: from a quote, from a request, or by hand.</summary>
[EventCode("order.begun")]
public sealed record OrderBegun(string Channel, string? Quote, string? Request) : IEvent;

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
) : IEvent;

/// <summary>Its checks were run again, and found something else.</summary>
/// <param name="First">The first stop in words; empty where nothing stops it.</param>
[EventCode("order.rechecked")]
public sealed record OrderRechecked(int Before, int After, string First) : IEvent;
