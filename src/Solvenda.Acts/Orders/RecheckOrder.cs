using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Runs the checks of an order again, since stock, credit and other documents change without it; and keeps for lists
/// what stops an open one, and which promise of a confirmed one can no longer be kept.
/// </summary>
/// <param name="Sheet">Key of its sheet.</param>
public sealed record RecheckOrder(long Sheet) : IAct<int>;

[Leaves(typeof(OrderRechecked), typeof(PromiseMoved))]
public sealed class RecheckOrderAct(SheetLoader loader, Judge judge) : Act<RecheckOrder, int>
{
    public override Right Needs => Rights.House;

    /// <returns>How many stops there are.</returns>
    public override async Task<int> RunAsync(Work work, RecheckOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        if (open.Order is not { } order)
            return 0;
        if (order.Terms == TermsTrack.Confirmed)
            return await PromisesAsync(work, open, order, cancel);
        if (!open.IsEditable)
            return 0;
        var (before, first) = (order.Stops, order.FirstStop);
        Settling.KeepStops(await judge.JudgeAsync(work.Db, open, open.Owner.Hand, cancel));
        if (before != order.Stops || first != order.FirstStop)
            work.Leave(new OrderRechecked(before, order.Stops, order.FirstStop), open.Subject, open.Dossier.Id);
        return order.Stops;
    }

    private async Task<int> PromisesAsync(Work work, OpenSheet open, OrderRow order, CancellationToken cancel)
    {
        var words = OrderSteps.Late(await judge.JudgeAsync(work.Db, open, open.Owner.Hand, cancel));
        if (words == order.Late)
            return 0;
        work.Leave(new PromiseMoved(order.Late, words), open.Subject, open.Dossier.Id);
        order.Late = words;
        return 0;
    }
}
