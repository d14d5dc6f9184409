using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Cancels an order of which nothing has gone, with the reason: its stock is free again, and the buyer is told where it
/// was confirmed to them.
/// </summary>
/// <param name="Seen">Version of the sheet; a machine may leave it out.</param>
public sealed record CancelOrder(string Order, string Reason, long? Seen) : IAct<DocumentRef>;

[Leaves(typeof(OrderCancelled))]
public sealed class CancelOrderAct(SheetLoader loader, Seller seller) : Act<CancelOrder, DocumentRef>
{
    public override Right Needs => Rights.Orders;

    public override async Task<DocumentRef> RunAsync(Work work, CancelOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it is cancelled");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        if (order.Terms == TermsTrack.Cancelled)
            throw RefusedException.Clash("order_state", $"{order.Number} is cancelled already.");
        OrderSteps.MustNotHaveBegun(order);
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel, work.Actor);
        var before = OrderSteps.Move(order, OrderDoing.Cancel);
        (order.HeldWhy, order.Stops, order.FirstStop, order.CreditStop) = ("", 0, "", false);
        order.Late = "";
        open.Sheet.Version++;
        OrderSteps.WithdrawAsks(work, open);
        await OrderSteps.FreeAsync(work, order, cancel);
        var told = order.ConfirmedAt is null ? "" : Tell(work, open);
        work.Leave(new OrderCancelled(told, before, order.Terms), open.Subject, open.Dossier.Id, reason);
        return open.Ref;
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
