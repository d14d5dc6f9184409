using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Orders;

/// <summary>Orders as they were confirmed before a change.</summary>
public static class OrderVersions
{
    /// <summary>
    /// Keeps what was confirmed as a version and opens the order, so that it can be changed; its stock stays committed.
    /// </summary>
    /// <returns>What happened, for the event.</returns>
    /// <exception cref="RefusedException">All of it has gone.</exception>
    public static async Task<OrderChanging> OpenAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        if (open.Order!.Goods == GoodsTrack.Shipped)
            throw RefusedException.Clash(
                "order_begun",
                $"All of {open.Number} has gone; what is wanted beside it is another order. Nothing was changed."
            );
        var changing = await KeepAsync(work, open, cancel);
        open.Sheet.Kept = KeptOf(open);
        return changing;
    }

    /// <summary>
    /// What an order keeps while it is changed. Prices stay those that were confirmed, of lines that went in part
    /// whatever their quantity becomes; freight is worked out for what becomes of it, until an invoice has it.
    /// </summary>
    public static string KeptOf(OpenSheet open)
    {
        var kept = open.Sheet.Kept;
        if (open.Begun is not { } begun)
            return KeptLines.OfLinesOnly(kept);
        kept = KeptLines.ForAnyQuantity(kept, begun.Lines.Keys.ToHashSet());
        return begun.IsBilled ? kept : KeptLines.OfLinesOnly(kept);
    }

    /// <summary>The same whatever of it has gone: its charges stay, and whoever calls sees to it that what went does.
    /// </summary>
    public static async Task<OrderChanging> KeepAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        var order = open.Order!;
        var before = OrderSteps.Move(order, OrderDoing.Change);
        if (open.Begun is { IsBilled: true })
            await NameBilledLinesAsync(work.Db, order, open.Sheet.Priced(open.Buyer, open.Book), cancel);
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

    /// <summary>
    /// Puts an order that stays confirmed as it is by now: prices, charges and what lines were promised stay.
    /// </summary>
    /// <param name="kept">What its lines and charges are kept at.</param>
    internal static PricedSheet Stand(OpenSheet open, Draft draft, string kept)
    {
        var sheet = open.Sheet;
        var promised = sheet.Lines.ToDictionary(l => l.Key, l => l.Promised);
        open.Take(draft);
        sheet.Kept = kept;
        foreach (var line in sheet.Lines)
            line.Promised = promised.GetValueOrDefault(line.Key);
        var now = sheet.Priced(open.Buyer, open.Book);
        sheet.Keep(now);
        sheet.Kept = KeptLines.Write(now);
        return now;
    }

    /// <summary>What stands so is what is confirmed.</summary>
    /// <returns>The terms as they were.</returns>
    internal static TermsTrack Confirmed(Work work, OrderRow order)
    {
        var before = OrderSteps.Move(order, OrderDoing.Confirm);
        (order.ConfirmedAt, order.Confirmed) = (work.Now, order.Confirmed + 1);
        return before;
    }

    // A bill knows the lines of its order by their keys; one from before it did so by their places, which move now.
    private static async Task NameBilledLinesAsync(
        SolvendaDb db,
        OrderRow order,
        PricedSheet then,
        CancellationToken cancel
    )
    {
        var parts = await db.InvoiceParts.Include(p => p.Invoice).Where(p => p.OrderId == order.Id).ToListAsync(cancel);
        if (BillableSheet.Of(then) is not { } whole)
            return;
        foreach (var part in parts)
        {
            var bill = KeptBill.Read(part.Invoice.Kind, part.Bill, Currency.Of(part.Invoice.Currency));
            if (bill.Lines.Length == whole.Parts.Length && bill.Lines.All(l => l.Key == 0))
                part.Bill = KeptBill.Write(
                    bill with
                    {
                        Lines = [.. bill.Lines.Zip(whole.Parts, (l, p) => l with { Key = p.Line.Line.Key })],
                    }
                );
        }
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
