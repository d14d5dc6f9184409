using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Channels;

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
        await OrderSteps.FreeAsync(work, order, null, cancel);
        return new OrderCancelled(Tell(work, open, order), before, order.Terms);
    }

    // A channel always, since it has the order whatever we said of it; a buyer once it was confirmed to them.
    private string Tell(Work work, OpenSheet open, OrderRow order)
    {
        var key = $"{order.Number}.cancelled.{open.Sheet.Version}";
        if (Confirming.CameByChannel(open))
        {
            var message = ChannelNotice.Cancelled(open.Sheet.PoNumber ?? "", order.Number, work.Now);
            var channel = open.Sheet.Channel ?? "";
            work.Send(Confirming.ByChannel, key.ToLowerInvariant(), channel, message.Name, message.Bytes);
            return channel;
        }
        return order.ConfirmedAt is null
            ? ""
            : Outgoing.Tell(work, seller, key, open.Buyer, BuyerLetters.Cancelled(open, seller));
    }
}
