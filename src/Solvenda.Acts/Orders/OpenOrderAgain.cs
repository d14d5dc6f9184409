using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Orders;

/// <summary>Takes a cancelled order up again: it is open, is checked anew, and is confirmed anew.</summary>
public sealed record OpenOrderAgain(string Order) : IAct<DocumentRef>;

[Leaves(typeof(OrderOpenedAgain))]
public sealed class OpenOrderAgainAct(SheetLoader loader, Settling settling) : Act<OpenOrderAgain, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, OpenOrderAgain input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        if (order.Terms != TermsTrack.Cancelled)
            throw RefusedException.Clash("order_state", $"{order.Number} is not cancelled.");
        var before = OrderSteps.Move(order, OrderDoing.OpenAgain);
        // Nothing that was confirmed stands any more: it was cancelled.
        order.ConfirmedAt = null;
        // Prices stay, and freight is worked out for what becomes of it.
        open.Sheet.Kept = KeptLines.OfLinesOnly(open.Sheet.Kept);
        foreach (var line in open.Sheet.Lines)
            line.Promised = null;
        open.Sheet.Version++;
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new OrderOpenedAgain(before, order.Terms), open.Subject, open.Dossier.Id);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, input.Order, cancel), cancel);
        return open.Ref;
    }
}
