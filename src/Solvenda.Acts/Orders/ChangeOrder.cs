using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>
/// Opens a confirmed order again to be changed. What was confirmed is kept as a version, its stock stays committed, and
/// it holds until the change is confirmed.
/// </summary>
public sealed record ChangeOrder(string Order) : IAct<DocumentRef>;

[Leaves(typeof(OrderChanging))]
public sealed class ChangeOrderAct(SheetLoader loader, Settling settling) : Act<ChangeOrder, DocumentRef>
{
    public override Right Needs => Rights.Write;

    public override async Task<DocumentRef> RunAsync(Work work, ChangeOrder input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        var order = open.Order!;
        OrderSteps.MustNotHaveBegun(order);
        var before = OrderSteps.Move(order, OrderDoing.Change);
        var kept = Drafting.CopyOf(open.Sheet, null);
        kept.Kept = open.Sheet.Kept;
        Promises(open.Sheet, kept);
        kept.Keep(kept.Priced(open.Buyer, open.Book));
        // One that was confirmed before anybody counted was confirmed once.
        order.Confirmed = Math.Max(1, order.Confirmed);
        work.Db.OrderVersions.Add(
            new OrderVersionRow
            {
                OrderId = order.Id,
                No = order.Confirmed,
                Sheet = kept,
                ConfirmedAt = order.ConfirmedAt ?? order.CreatedAt,
            }
        );
        // Prices stay those that were confirmed; freight is worked out for what becomes of it.
        open.Sheet.Kept = KeptLines.OfLinesOnly(open.Sheet.Kept);
        open.Sheet.Version++;
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new OrderChanging(order.Confirmed, before, order.Terms), open.Subject, open.Dossier.Id);
        await settling.SettleAsync(work, await loader.OrderAsync(work.Db, input.Order, cancel), cancel);
        return open.Ref;
    }

    /// <summary>What lines were promised for, by their keys.</summary>
    internal static void Promises(SheetRow from, SheetRow to)
    {
        var promised = from.Lines.ToDictionary(l => l.Key, l => l.Promised);
        foreach (var line in to.Lines)
            line.Promised = promised.GetValueOrDefault(line.Key);
    }
}
