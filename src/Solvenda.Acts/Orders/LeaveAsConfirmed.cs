using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;

namespace Solvenda.Acts.Orders;

/// <summary>Leaves an order that was being changed as it had been confirmed.</summary>
public sealed record LeaveAsConfirmed(string Order) : IAct<DocumentRef>;

[Leaves(typeof(OrderLeftAsConfirmed))]
public sealed class LeaveAsConfirmedAct(SheetLoader loader) : Act<LeaveAsConfirmed, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, LeaveAsConfirmed input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        var version =
            await work
                .Db.OrderVersions.Include(v => v.Sheet.StoredLines)
                .FirstOrDefaultAsync(v => v.OrderId == order.Id && v.No == order.Confirmed, cancel)
            ?? throw RefusedException.Clash("order_state", $"{order.Number} was not confirmed yet.");
        var before = OrderSteps.Move(order, OrderDoing.LeaveAsConfirmed);
        var kept = version.Sheet;
        open.Sheet.Take(kept.ToDraft() with { NextKey = open.Sheet.NextKey });
        open.Sheet.Kept = kept.Kept;
        OrderVersions.Promises(kept, open.Sheet);
        open.Sheet.Keep(open.Sheet.Priced(open.Buyer, open.Book));
        order.PoKey = PoKey.Of(open.Sheet.PoNumber, HeadTerms.Release.In(open.Sheet.Head));
        OrderSteps.NothingStops(order);
        open.Sheet.Version++;
        OrderSteps.WithdrawAsks(work, open);
        // The next change keeps it anew.
        work.Db.OrderVersions.Remove(version);
        work.Db.Sheets.Remove(kept);
        work.Leave(new OrderLeftAsConfirmed(before, order.Terms), open.Subject, open.Dossier.Id);
        return open.Ref;
    }
}
