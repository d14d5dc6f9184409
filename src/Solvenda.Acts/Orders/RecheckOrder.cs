using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Runs the checks of an open order again, since stock, credit and other documents change without it; and keeps for
/// lists what they find.
/// </summary>
/// <param name="Sheet">Key of its sheet.</param>
public sealed record RecheckOrder(long Sheet) : IAct<int>;

[Leaves(typeof(OrderRechecked))]
public sealed class RecheckOrderAct(SheetLoader loader, Judge judge) : Act<RecheckOrder, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many stops there are.</returns>
    public override async Task<int> RunAsync(Work work, RecheckOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        if (open is not { IsEditable: true, Order: { } order })
            return 0;
        var (before, first) = (order.Stops, order.FirstStop);
        Settling.KeepStops(await judge.JudgeAsync(work.Db, open, open.Owner.Hand, cancel));
        if (before != order.Stops || first != order.FirstStop)
            work.Leave(new OrderRechecked(before, order.Stops, order.FirstStop), open.Subject, open.Dossier.Id);
        return order.Stops;
    }
}
