using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Holds an order by hand, with the reason: it is neither confirmed nor goes out until somebody goes on.
/// </summary>
public sealed record HoldOrder(string Order, string Reason) : IAct<DocumentRef>;

[Leaves(typeof(OrderHeld))]
public sealed class HoldOrderAct(SheetLoader loader) : Act<HoldOrder, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, HoldOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it is held");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        if (order.Terms == TermsTrack.Cancelled || order.Goods == GoodsTrack.Shipped)
            throw RefusedException.Clash("order_state", $"{order.Number} is done with; there is nothing to hold.");
        if (order.HeldWhy.Length > 0)
            throw RefusedException.Clash("order_held", $"It is held already: {order.HeldWhy}");
        order.HeldWhy = reason;
        open.Sheet.Version++;
        work.Leave(new OrderHeld(), open.Subject, open.Dossier.Id, reason);
        return open.Ref;
    }
}
