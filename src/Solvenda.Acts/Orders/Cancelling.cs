using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;

namespace Solvenda.Acts.Orders;

/// <summary>Takes an order back: its stock is free again, asks about it are withdrawn, the buyer is told.</summary>
public sealed class Cancelling(Seller seller)
{
    /// <summary>Cancels; refused where it is cancelled already, or where part of it is picked or gone.</summary>
    /// <returns>What happened, for the event.</returns>
    public async Task<OrderCancelled> CancelAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(open);
        var order = open.Order!;
        if (order.Terms == TermsTrack.Cancelled)
            throw RefusedException.Clash("order_state", $"{order.Number} is cancelled already.");
        OrderSteps.MustNotHaveBegun(order);
        var before = OrderSteps.Move(order, OrderDoing.Cancel);
        OrderSteps.NothingStops(order);
        (order.HeldWhy, order.Late) = ("", "");
        open.Sheet.Version++;
        OrderSteps.WithdrawAsks(work, open);
        await OrderSteps.FreeAsync(work, order, cancel);
        var told = order.ConfirmedAt is null
            ? ""
            : Outgoing.Tell(
                work,
                seller,
                $"{order.Number}.cancelled.{open.Sheet.Version}",
                open.Buyer,
                BuyerLetters.Cancelled(open, seller)
            );
        return new OrderCancelled(told, before, order.Terms);
    }
}
