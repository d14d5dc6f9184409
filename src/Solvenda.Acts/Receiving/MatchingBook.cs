using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Receiving;
using Solvenda.Data;

namespace Solvenda.Acts.Receiving;

/// <summary>Reads what is owed and who pays from which account; Core matches.</summary>
internal static class MatchingBook
{
    /// <summary>Kind of a sign by which a buyer is known: the account that they pay from.</summary>
    public const string PaysFrom = "iban";

    public static async Task<Matching> LoadAsync(SolvendaDb db, CancellationToken cancel)
    {
        var owed = await (
            from o in db.OpenItems
            join b in db.Buyers on o.BuyerId equals b.Id
            where o.OpenMinor >= 0
            select new Owed(
                o.Id,
                o.Number,
                db.Invoices.Where(i => i.Id == o.InvoiceId).Select(i => i.Order.Number).FirstOrDefault() ?? "",
                o.BuyerId,
                o.Currency == "" ? b.Currency : o.Currency,
                o.OpenMinor,
                o.Due
            )
            {
                EarlyOff = o.EarlyMinor,
                EarlyUntil = o.EarlyUntil,
            }
        ).ToListAsync(cancel);
        var accounts = await db.BuyerSigns.Where(s => s.Kind == PaysFrom).ToListAsync(cancel);
        var names = await db.Buyers.Where(b => b.Active).Select(b => new { b.Id, b.Name }).ToListAsync(cancel);
        return new Matching(
            owed,
            // What several pay from says of none of them.
            accounts
                .GroupBy(a => Matching.KeyOf(a.Value))
                .Where(g => g.Count() == 1)
                .ToDictionary(g => g.Key, g => g.First().BuyerId),
            names.Select(n => (n.Name, n.Id))
        );
    }
}
