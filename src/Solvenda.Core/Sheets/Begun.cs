using System.Collections.Immutable;

namespace Solvenda.Core.Sheets;

/// <summary>What of an order's line went, or is being picked, in the line's unit.</summary>
/// <param name="Quantity">More than none.</param>
/// <param name="IsBilled">Whether some of it is on an invoice.</param>
public sealed record BegunLine(decimal Quantity, bool IsBilled);

/// <summary>
/// What of an order that is changed cannot be changed any more: goods that went or are being picked, and what an
/// invoice has (docs/calculations.md, Billing).
/// </summary>
/// <param name="Lines">By their keys.</param>
/// <param name="IsBilled">Whether it has an invoice: then its charges and its discount on the whole stand.</param>
public sealed record Begun(ImmutableDictionary<long, BegunLine> Lines, bool IsBilled)
{
    /// <summary>Whether nothing of a line is left to go.</summary>
    public bool IsAllOf(SheetLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return Lines.TryGetValue(line.Key, out var went) && went.Quantity >= line.Quantity;
    }
}
