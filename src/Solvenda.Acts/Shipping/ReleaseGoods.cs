using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Shipping;

/// <summary>Releases goods of a confirmed order to be picked and packed.</summary>
/// <param name="Lines">What is to go; empty: all that may, as the buyer wants it.</param>
/// <param name="Wave">What it is released with, to be picked together; empty: it goes alone.</param>
public sealed record ReleaseGoods(string Order, ImmutableArray<AskedGoods> Lines, string Wave)
    : IAct<ImmutableArray<string>>;

[Leaves(typeof(GoodsReleased))]
public sealed class ReleaseGoodsAct(SheetLoader loader, Releasing releasing) : Act<ReleaseGoods, ImmutableArray<string>>
{
    private const int MostLetters = 40;

    public override Right Needs => Rights.Ship;

    /// <returns>Numbers of the shipments.</returns>
    public override async Task<ImmutableArray<string>> RunAsync(Work work, ReleaseGoods input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var wave = input.Wave.Trim();
        if (wave.Length > MostLetters)
            throw RefusedException.Bad("wave", $"A wave is called by at most {MostLetters} letters.", "wave");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var made = await releasing.ReleaseAsync(work, open, input.Lines, cancel);
        foreach (var shipment in made)
            shipment.Wave = wave;
        return [.. made.Select(s => s.Number)];
    }
}
