using Solvenda.Core.Documents;

namespace Solvenda.Core.Shipping;

/// <summary>How far the goods of a line are, in the order's unit.</summary>
/// <param name="Ordered">What is to be delivered of it: nothing beyond what went, where it is closed short.</param>
/// <param name="Gone">What went.</param>
/// <param name="InWork">What is being picked.</param>
public sealed record GoodsSoFar(decimal Ordered, decimal Gone, decimal InWork)
{
    /// <summary>What nobody began with.</summary>
    public decimal Open => Math.Max(0m, Ordered - Gone - InWork);

    /// <summary>How far the goods of an order are, by those of its lines.</summary>
    public static GoodsTrack TrackOf(IReadOnlyCollection<GoodsSoFar> lines)
    {
        ArgumentNullException.ThrowIfNull(lines);
        if (lines.Any(l => l.Ordered > 0m) && lines.All(l => l.Gone >= l.Ordered))
            return GoodsTrack.Shipped;
        if (lines.Any(l => l.Gone > 0m))
            return GoodsTrack.PartShipped;
        return lines.Any(l => l.InWork > 0m) ? GoodsTrack.Picking : GoodsTrack.Waiting;
    }
}
