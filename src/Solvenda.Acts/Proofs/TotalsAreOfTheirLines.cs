using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Money;
using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>
/// What lists show of a sheet is what its lines come to. Of those that are fixed: an open one follows the prices until
/// it is looked at.
/// </summary>
public sealed class TotalsAreOfTheirLines(PriceBooks books) : IProof
{
    private const int AtOnce = 200;

    /// <inheritdoc />
    public string Holds => "totals are of their lines";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var book = await books.BookAsync(db, cancel);
        var documents = await db
            .Quotes.Select(q => new
            {
                q.SheetId,
                q.Number,
                q.Dossier.BuyerId,
            })
            .Concat(
                db.Orders.Select(o => new
                {
                    o.SheetId,
                    o.Number,
                    o.Dossier.BuyerId,
                })
            )
            .ToListAsync(cancel);
        foreach (var some in documents.Chunk(AtOnce))
        {
            var ids = some.Select(d => d.SheetId).ToList();
            var sheets = await db
                .Sheets.AsNoTracking()
                .Include(s => s.StoredLines)
                .Where(s => EF.Parameter(ids).Contains(s.Id) && s.Kept != "")
                .ToDictionaryAsync(s => s.Id, cancel);
            foreach (var document in some)
            {
                if (!sheets.TryGetValue(document.SheetId, out var sheet))
                    continue;
                var buyer = await db.Buyers.AsNoTracking().FirstAsync(b => b.Id == document.BuyerId, cancel);
                var tally = sheet.Priced(buyer, book).Tally;
                var (kept, now) = (sheet.TotalWithoutTaxMinor, tally.TotalWithoutTax);
                if (kept != now.Minor)
                    yield return $"{document.Number} is listed at {Amount.FromMinor(kept, now.Currency).Value}, its lines come to {now.Value} {now.Currency.Code}";
            }
        }
    }
}
