using System.Collections.Immutable;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Sheets;

/// <summary>A charge or an allowance that a document of the buyer's states; an allowance is negative.</summary>
/// <param name="Kind">freight, insurance, allowance, or what they call it.</param>
/// <param name="Amount">In the currency of their document.</param>
public sealed record StatedAmount(string Kind, decimal Amount);

/// <summary>
/// What was paid on a channel, with tax: its prices hold, charge by charge, whatever ours are (docs/calculations.md,
/// "Prices with tax").
/// </summary>
/// <param name="Total">For all of it.</param>
/// <param name="Shipping">Of it for what is not goods.</param>
/// <param name="Fee">What the channel keeps.</param>
public sealed record PaidOnChannel(decimal Total, decimal Shipping, decimal Fee);

/// <summary>Something that the buyer asks beside the goods, in their words.</summary>
public sealed record StatedRemark(RemarkKind Kind, string Words);

/// <summary>
/// What the buyer's document states beside its lines. It is kept beside ours and compared, and never taken by itself:
/// taking theirs is a choice that is
/// judged like typing.
/// </summary>
/// <param name="Incoterm">In capitals; null where they say none.</param>
/// <param name="Total">Without tax, where they state one.</param>
public sealed record Stated(
    int? PaymentDays,
    string? Incoterm,
    string? IncotermPlace,
    string? DeliverTo,
    ImmutableArray<StatedAmount> Amounts,
    decimal? Total
)
{
    /// <summary>Nothing is stated.</summary>
    public static readonly Stated Nothing = new(null, null, null, null, [], null);

    /// <summary>The first day on which they take the goods; null where any day up to the wanted one will do.</summary>
    public DateOnly? NotBefore { get; init; }

    /// <summary>What was paid for all of it, with tax; null where it does not say.</summary>
    public decimal? Paid { get; init; }

    /// <summary>
    /// Whether the channel itself says so: anybody can write a file that says so too, and that is not believed.
    /// </summary>
    public bool ByChannel { get; init; }

    /// <summary>What the channel keeps of it, in its currency; null where it does not say.</summary>
    public decimal? Fee { get; init; }

    /// <summary>What was paid as the sheet has it; null where nothing was.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public PaidOnChannel? OnChannel =>
        ByChannel && Paid is { } paid
            ? new PaidOnChannel(paid, Amounts.Where(a => a.Amount > 0).Sum(a => a.Amount), Fee ?? 0m)
            : null;

    /// <summary>What else they asked for: each goes along until somebody has seen to it.</summary>
    public ImmutableArray<StatedRemark> Remarks { get; init; } = [];

    /// <summary>Whether it states anything at all.</summary>
    [System.Text.Json.Serialization.JsonIgnore]
    public bool IsNothing =>
        PaymentDays is null
        && Incoterm is null
        && IncotermPlace is null
        && DeliverTo is null
        && Amounts.IsDefaultOrEmpty
        && Total is null
        && NotBefore is null
        && Paid is null
        && Fee is null
        && Remarks.IsDefaultOrEmpty;
}
