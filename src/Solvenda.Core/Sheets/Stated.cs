using System.Collections.Immutable;

namespace Solvenda.Core.Sheets;

/// <summary>A charge or an allowance that a document of the buyer's states; an allowance is negative.</summary>
/// <param name="Kind">freight, insurance, allowance, or what they call it.</param>
/// <param name="Amount">In the currency of their document.</param>
public sealed record StatedAmount(string Kind, decimal Amount);

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
}
