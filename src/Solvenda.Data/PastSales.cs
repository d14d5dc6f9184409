using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Units;

namespace Solvenda.Data;

/// <summary>A sale of an item: to whom, when, how much, at what net price per price base of its unit.</summary>
public sealed record SoldBefore(
    DateOnly Day,
    string Buyer,
    string Document,
    decimal Quantity,
    string UnitWord,
    decimal NetPrice,
    string Currency
);

/// <summary>What was sold before.</summary>
public static class PastSales
{
    /// <summary>
    /// The last sales of an item, newest first; to one buyer, or to everybody else where the id is negative.
    /// </summary>
    public static async Task<List<SoldBefore>> OfAsync(
        SolvendaDb db,
        long itemId,
        long buyerId,
        long withoutSheet,
        int most,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var query =
            from l in db.SheetLines
            join o in db.Orders.Sold() on l.SheetId equals o.SheetId
            where
                l.ItemId == itemId
                && l.NetPrice != null
                && l.SheetId != withoutSheet
                && (buyerId > 0 ? o.Dossier.BuyerId == buyerId : o.Dossier.BuyerId != -buyerId)
            orderby o.CreatedAt descending
            select new
            {
                o.CreatedAt,
                o.Dossier.Buyer.Name,
                o.Number,
                l.Quantity,
                l.Unit,
                l.NetPrice,
                o.Sheet.Currency,
            };
        return
        [
            .. (await query.Take(most).ToListAsync(cancel)).Select(s => new SoldBefore(
                DateOnly.FromDateTime(s.CreatedAt),
                s.Name,
                s.Number,
                s.Quantity,
                UnitTable.OnSheet(Unit.Of(s.Unit)),
                s.NetPrice!.Value,
                s.Currency
            )),
        ];
    }
}
