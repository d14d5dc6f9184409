using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering;

/// <summary>How a frame and what is called off of it stand to each other.</summary>
/// <param name="Frame">Number of the frame.</param>
/// <param name="Ordered">What the frame has of each line, by its key there, in the unit of the line.</param>
/// <param name="Called">What other orders called off of each.</param>
public sealed record CallOff(
    string Frame,
    IReadOnlyDictionary<long, decimal> Ordered,
    IReadOnlyDictionary<long, decimal> Called
)
{
    /// <summary>What may still be called off of a line of the frame; never under nothing.</summary>
    public decimal RestOf(long key) => Math.Max(0m, Ordered.GetValueOrDefault(key) - Called.GetValueOrDefault(key));

    /// <summary>What may still be called off for a line of a release; null where it is of no frame.</summary>
    public decimal? RestOf(SheetLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return line.From is { } from && Ordered.ContainsKey(from.Key) ? RestOf(from.Key) : null;
    }
}
