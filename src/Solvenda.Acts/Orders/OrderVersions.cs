using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
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
    /// <exception cref="RefusedException">Something of it is picked or gone.</exception>
    public static async Task<OrderChanging> OpenAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        OrderSteps.MustNotHaveBegun(open.Order!);
        var changing = await KeepAsync(work, open, cancel);
        // Prices stay those that were confirmed; freight is worked out for what becomes of it.
        open.Sheet.Kept = KeptLines.OfLinesOnly(open.Sheet.Kept);
        return changing;
    }

    /// <summary>The same whatever of it has gone: its charges stay, and whoever calls sees to it that what went does.
    /// </summary>
    public static async Task<OrderChanging> KeepAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        var order = open.Order!;
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
        open.Sheet.Version++;
        await work.Db.SaveChangesAsync(cancel);
        return new OrderChanging(order.Confirmed, before, order.Terms);
    }

    /// <summary>Lines as they are called.</summary>
    public static ImmutableArray<string> Names(SheetRow sheet, IReadOnlySet<long> keys)
    {
        var numbers = LineNumbers.Of(sheet.ToDraft().Lines);
        return
        [
            .. sheet
                .Lines.Where(l => keys.Contains(l.Key))
                .OrderBy(l => l.Position)
                .Select(l => $"{numbers.GetValueOrDefault(l.Key)} {l.Words}".Trim()),
        ];
    }

    /// <summary>What lines were promised for, by their keys.</summary>
    public static void Promises(SheetRow from, SheetRow to)
    {
        var promised = from.Lines.ToDictionary(l => l.Key, l => l.Promised);
        foreach (var line in to.Lines)
            line.Promised = promised.GetValueOrDefault(line.Key);
    }
}
