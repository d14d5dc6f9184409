using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Shipping;

/// <summary>
/// Ships an order in one step: what is handed over at the counter, and what a warehouse of somebody else's says that it
/// sent. What is to go counts as picked whole.
/// </summary>
/// <param name="Lines">What goes; empty: all that may, as the buyer wants it.</param>
public sealed record ShipOrder(string Order, ImmutableArray<AskedGoods> Lines) : IAct<ImmutableArray<string>>;

[Leaves(typeof(GoodsReleased), typeof(ShipmentSent), typeof(LinesExtended))]
public sealed class ShipOrderAct(SheetLoader loader, Releasing releasing, Sending sending)
    : Act<ShipOrder, ImmutableArray<string>>
{
    public override Right Needs => Rights.Ship;

    /// <returns>Numbers of the shipments.</returns>
    public override async Task<ImmutableArray<string>> RunAsync(Work work, ShipOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var made = await releasing.ReleaseAsync(work, open, input.Lines, cancel, goesNow: true);
        foreach (var asked in input.Lines.IsDefault ? [] : input.Lines)
            GoingBeyond.Note(made, asked);
        foreach (var shipment in made)
            await sending.SendAsync(work, open, shipment, asAsked: true, cancel);
        return [.. made.Select(s => s.Number)];
    }
}
