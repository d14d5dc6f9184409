using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Proofs;

/// <summary>
/// Stock is committed to confirmed orders that wait, as much as their lines need, and to nothing else.
/// </summary>
public sealed class StockIsCommittedOnce(PriceBooks books) : IProof
{
    /// <inheritdoc />
    public string Holds => "stock is committed to what is confirmed, once";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var others = await db
            .Orders.Where(o =>
                (
                    o.Goods == GoodsTrack.Shipped
                    || (
                        o.Terms != TermsTrack.Confirmed
                        // What is being changed keeps what was confirmed.
                        && (o.Terms != TermsTrack.Open || o.ConfirmedAt == null)
                    )
                ) && db.Commitments.Any(c => c.OrderId == o.Id)
            )
            .Select(o => o.Number)
            .ToListAsync(cancel);
        foreach (var number in others)
            yield return $"{number} is not confirmed, or all of it went, and it has stock committed";
        var book = await books.BookAsync(db, cancel);
        var waiting = await db
            .Orders.AsNoTracking()
            .Include(o => o.Sheet.StoredLines)
            .Include(o => o.Dossier.Buyer)
            .Where(o => o.Terms == TermsTrack.Confirmed && o.Goods != GoodsTrack.Shipped)
            .ToListAsync(cancel);
        var gone = await GoneAsync(db, cancel);
        var committed = (await db.Commitments.AsNoTracking().ToListAsync(cancel)).ToLookup(c => c.OrderId);
        foreach (var order in waiting)
        {
            if (Differs(order, order.Sheet, committed[order.Id], book, gone) is { } fault)
                yield return fault;
        }
        var changing = await db
            .Orders.AsNoTracking()
            .Include(o => o.Dossier.Buyer)
            .Where(o => o.Terms == TermsTrack.Open && o.ConfirmedAt != null)
            .ToListAsync(cancel);
        foreach (var order in changing)
        {
            var version = await db
                .OrderVersions.AsNoTracking()
                .Include(v => v.Sheet.StoredLines)
                .FirstOrDefaultAsync(v => v.OrderId == order.Id && v.No == order.Confirmed, cancel);
            if (version is null)
                yield return $"{order.Number} is being changed, and what was confirmed is gone";
            else if (Differs(order, version.Sheet, committed[order.Id], book, gone) is { } fault)
                yield return fault;
        }
    }

    // What left the shelf for lines is no longer waited for.
    private static async Task<Dictionary<(long Order, long LineKey, long ItemId), decimal>> GoneAsync(
        SolvendaDb db,
        CancellationToken cancel
    ) =>
        (
            await (
                from p in db.Set<ShipmentPickRow>()
                join s in db.Shipments on p.ShipmentId equals s.Id
                where s.State == ShipmentState.Gone
                group p.Quantity by new
                {
                    s.OrderId,
                    p.LineKey,
                    p.ItemId,
                } into g
                select new { g.Key, Quantity = g.Sum() }
            ).ToListAsync(cancel)
        ).ToDictionary(g => (g.Key.OrderId, g.Key.LineKey, g.Key.ItemId), g => g.Quantity);

    private static string? Differs(
        OrderRow order,
        SheetRow sheet,
        IEnumerable<CommitmentRow> committed,
        Core.Pricing.PriceBook book,
        Dictionary<(long Order, long LineKey, long ItemId), decimal> gone
    )
    {
        var onCall = ShippingRules.Of(HeadTerms.ShippingRule.In(sheet.Head)) == ShippingRule.OnCall;
        var priced = sheet.Priced(order.Dossier.Buyer, book);
        var needed = StockFacts
            .Needs(priced, sheet.PricingDate)
            .Where(l => l.Holds && !onCall)
            .SelectMany(l => l.Needs.Select(n => (Key: l.Line, Item: n.Item.Value, n.Quantity)))
            .Select(n => (n.Key, n.Item, Left: n.Quantity - gone.GetValueOrDefault((order.Id, n.Key, n.Item))))
            .Where(n => n.Left > 0m)
            .ToDictionary(n => (LineKey: n.Key, ItemId: n.Item), n => n.Left);
        foreach (var line in committed.GroupBy(c => (c.LineKey, c.ItemId), c => c.Quantity))
        {
            if (!needed.Remove(line.Key, out var quantity))
                return $"{order.Number} has stock committed to a line that needs none";
            if (quantity != line.Sum())
                return $"{order.Number} has {line.Sum():0.######} committed where {quantity:0.######} is needed";
        }
        return needed.Count > 0
            ? $"{order.Number} is confirmed, and has nothing committed to {needed.Count} of its lines"
            : null;
    }
}
