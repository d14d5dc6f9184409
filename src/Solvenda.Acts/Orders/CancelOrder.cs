using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Cancels an order of which nothing has gone, with the reason: its stock is free again, and the buyer is told where it
/// was confirmed to them.
/// </summary>
/// <param name="Seen">Version of the sheet; a machine may leave it out.</param>
public sealed record CancelOrder(string Order, string Reason, long? Seen) : IAct<DocumentRef>;

[Leaves(typeof(OrderCancelled))]
public sealed class CancelOrderAct(SheetLoader loader, Cancelling cancelling) : Act<CancelOrder, DocumentRef>
{
    public override Right Needs => Rights.Orders;

    public override async Task<DocumentRef> RunAsync(Work work, CancelOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it is cancelled");
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel, work.Actor);
        work.Leave(await cancelling.CancelAsync(work, open, cancel), open.Subject, open.Dossier.Id, reason);
        return open.Ref;
    }
}
