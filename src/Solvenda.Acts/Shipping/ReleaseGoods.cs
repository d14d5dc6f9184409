using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Shipping;

/// <summary>Releases goods of a confirmed order to be picked and packed.</summary>
/// <param name="Lines">What is to go; empty: all that may, as the buyer wants it.</param>
public sealed record ReleaseGoods(string Order, ImmutableArray<AskedGoods> Lines) : IAct<ImmutableArray<string>>;

[Leaves(typeof(GoodsReleased))]
public sealed class ReleaseGoodsAct(SheetLoader loader, Releasing releasing) : Act<ReleaseGoods, ImmutableArray<string>>
{
    public override Right Needs => Rights.Ship;

    /// <returns>Numbers of the shipments.</returns>
    public override async Task<ImmutableArray<string>> RunAsync(Work work, ReleaseGoods input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var made = await releasing.ReleaseAsync(work, open, input.Lines, cancel);
        return [.. made.Select(s => s.Number)];
    }
}
