using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>Orders as they were confirmed before a change.</summary>
internal static class OrderVersions
{
    /// <summary>
    /// Keeps what was confirmed as a version and opens the order, so that it can be changed; its stock stays committed.
    /// </summary>
    /// <returns>What happened, for the event.</returns>
    public static async Task<OrderChanging> OpenAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
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
        return new OrderChanging(order.Confirmed, before, order.Terms);
    }

    /// <summary>Closes lines short for a reason; for none it opens them again.</summary>
    public static void Close(SheetRow sheet, IReadOnlySet<long> keys, string reason)
    {
        var draft = sheet.ToDraft();
        sheet.Take(
            draft with
            {
                Lines = [.. draft.Lines.Select(l => keys.Contains(l.Key) ? l with { ClosedWhy = reason } : l)],
            }
        );
        foreach (var line in sheet.Lines.Where(l => keys.Contains(l.Key)))
            line.Promised = null;
    }

    /// <summary>What lines were promised for, by their keys.</summary>
    public static void Promises(SheetRow from, SheetRow to)
    {
        var promised = from.Lines.ToDictionary(l => l.Key, l => l.Promised);
        foreach (var line in to.Lines)
            line.Promised = promised.GetValueOrDefault(line.Key);
    }
}
