using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Data;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Confirms an order: commits the stock, fixes dates and prices, and acknowledges to the buyer the way their documents
/// go.
/// </summary>
/// <param name="Seen">Version of the sheet.</param>
public sealed record ConfirmOrder(string Order, long? Seen) : IAct<DocumentRef>;

/// <summary>The acknowledgement, printed ahead; null where it goes in the buyer's own form.</summary>
public sealed record PrintedAcknowledgement(Printed? Paper);

[Leaves(typeof(OrderConfirmed), typeof(DepositNoted))]
public sealed class ConfirmOrderAct(SheetLoader loader, Judge judge, Confirming confirming)
    : PreparedAct<ConfirmOrder, PrintedAcknowledgement, DocumentRef>
{
    public override Right Needs => Rights.Orders;

    protected override async Task<PrintedAcknowledgement> PrepareAsync(
        Ahead ahead,
        ConfirmOrder input,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(ahead);
        ArgumentNullException.ThrowIfNull(input);
        var judged = await MayConfirmAsync(ahead.Db, ahead.Actor, input, cancel);
        return new PrintedAcknowledgement(confirming.Print(judged, ahead.Today));
    }

    protected override async Task<DocumentRef> RunAsync(
        Work work,
        ConfirmOrder input,
        PrintedAcknowledgement prepared,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        var judged = await MayConfirmAsync(work.Db, work.Actor, input, cancel);
        await confirming.ConfirmAsync(work, judged, prepared.Paper, cancel);
        return judged.Open.Ref;
    }

    // Asked when it is printed, and again when it is confirmed.
    private async Task<Judged> MayConfirmAsync(SolvendaDb db, Actor actor, ConfirmOrder input, CancellationToken cancel)
    {
        var open = await loader.OrderAsync(db, input.Order, cancel);
        var order = open.Order!;
        if (order.HeldWhy.Length > 0)
            throw RefusedException.Clash("order_held", $"It is held: {order.HeldWhy}");
        if (Tracks.TermsTable.After(order.Terms, OrderDoing.Confirm) is null)
            throw RefusedException.Clash(
                "sheet_closed",
                order.Terms == TermsTrack.Cancelled ? "It is cancelled." : "It is confirmed already."
            );
        await Versions.MatchAsync(db, open, input.Seen, cancel, actor);
        var judged = await judge.JudgeAsync(db, open, actor.Hand, cancel);
        return judged.Stops.FirstOrDefault() is { } stop
            ? throw RefusedException.Clash("stopped", FoundFact.Of(stop, actor).Words, FoundFact.Of(judged, actor))
            : judged;
    }
}
