using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Formats.Mail;

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
        (order.HeldWhy, order.Stops, order.FirstStop, order.CreditStop) = ("", 0, "", false);
        order.Late = "";
        open.Sheet.Version++;
        OrderSteps.WithdrawAsks(work, open);
        await OrderSteps.FreeAsync(work, order, cancel);
        return new OrderCancelled(order.ConfirmedAt is null ? "" : Tell(work, open), before, order.Terms);
    }

    // Without an address nobody is told, and the event says so.
    private string Tell(Work work, OpenSheet open)
    {
        var to = open.Buyer.ContactMail ?? "";
        if (!MailWriter.IsAddress(to))
            return "";
        var key = $"{open.Order!.Number}.cancelled.{open.Sheet.Version}".ToLowerInvariant();
        Outgoing.Mail(work, seller, key, to, BuyerLetters.Cancelled(open, seller));
        return to;
    }
}
