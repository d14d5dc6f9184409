using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>
/// Goods that are kept back for quotes until a day (docs/calculations.md, "Promise"): shown apart, and nothing beyond
/// that day.
/// </summary>
public static class KeptBack
{
    /// <summary>What is kept back on a day, for quotes that are still to become an order.</summary>
    /// <param name="withoutQuote">A quote that looks itself; 0: none.</param>
    /// <param name="withoutOrder">An order that looks itself, which may have been made from one; 0: none.</param>
    public static IQueryable<ReservationRow> On(
        SolvendaDb db,
        DateOnly day,
        long withoutQuote = 0,
        long withoutOrder = 0
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        return from r in db.Reservations
            join q in db.Quotes on r.QuoteId equals q.Id
            where
                r.Until >= day
                && q.Id != withoutQuote
                && (
                    q.OrderId == null
                        ? q.State == QuoteState.Drafting
                            || q.State == QuoteState.InApproval
                            || q.State == QuoteState.Cleared
                            || q.State == QuoteState.WithCustomer
                            || q.State == QuoteState.Accepted
                        // Until its order is confirmed, and has the stock itself.
                        : q.OrderId != withoutOrder && q.Order!.Terms == TermsTrack.Open && q.Order.ConfirmedAt == null
                )
            select r;
    }

    /// <summary>
    /// What is kept back for others of some items in a warehouse, as an outlook takes it: away now, and there again on
    /// the day after.
    /// </summary>
    internal static async Task<ILookup<long, (StockMove Taken, StockMove Back)>> MovesAsync(
        SolvendaDb db,
        OpenSheet open,
        List<long> items,
        string warehouse,
        DateOnly today,
        CancellationToken cancel
    ) =>
        (
            await On(db, today, open.Quote?.Id ?? 0, open.Order?.Id ?? 0)
                .Where(r => EF.Parameter(items).Contains(r.ItemId) && r.Warehouse == warehouse)
                .Select(r => new
                {
                    r.ItemId,
                    r.Until,
                    r.Quantity,
                })
                .ToListAsync(cancel)
        ).ToLookup(
            r => r.ItemId,
            r => (new StockMove(0, r.Quantity), new StockMove(r.Until.DayNumber - today.DayNumber + 1, r.Quantity))
        );

    /// <summary>Keeps back for a quote what its head says, and no more what it said before.</summary>
    internal static async Task RenewAsync(Work work, Judged judged, CancellationToken cancel)
    {
        if (judged.Open.Quote is not { } quote)
            return;
        work.Db.Reservations.RemoveRange(
            await work.Db.Reservations.Where(r => r.QuoteId == quote.Id).ToListAsync(cancel)
        );
        if (HeadTerms.KeptBack.Day(judged.Open.Sheet.Head) is not { } until)
            return;
        var lines = judged.Priced.Sheet.Lines.ToDictionary(l => l.Key);
        foreach (var need in StockFacts.Needs(judged.Priced, work.Today).Where(n => n.Holds))
        foreach (var part in need.Needs)
            work.Db.Reservations.Add(
                new ReservationRow
                {
                    QuoteId = quote.Id,
                    LineKey = need.Line,
                    ItemId = part.Item.Value,
                    Warehouse = StockFacts.WarehouseOf(judged.Open, lines[need.Line]),
                    Quantity = part.Quantity,
                    Until = until,
                }
            );
    }
}
