using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Acts.Proofs;

/// <summary>What belongs to something finds it: also where the database itself does not watch over it.</summary>
public sealed class NothingIsOrphaned : IProof
{
    /// <inheritdoc />
    public string Holds => "nothing belongs to something that is gone";

    /// <inheritdoc />
    public async IAsyncEnumerable<string> FaultsAsync(SolvendaDb db, [EnumeratorCancellation] CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var watched = await db
            .Database.SqlQuery<string>($"SELECT \"table\" || ' ' || rowid AS Value FROM pragma_foreign_key_check")
            .ToListAsync(cancel);
        foreach (var row in watched)
            yield return $"{row} names what is not there";
        foreach (var (what, ids) in Loose(db))
        {
            foreach (var id in await ids.ToListAsync(cancel))
                yield return $"{what} {id}";
        }
    }

    private static IEnumerable<(string What, IQueryable<long> Ids)> Loose(SolvendaDb db)
    {
        var sheets = db
            .Quotes.Select(q => q.SheetId)
            .Concat(db.Orders.Select(o => o.SheetId))
            .Concat(db.OrderVersions.Select(v => v.SheetId));
        return
        [
            ("no document has sheet", db.Sheets.Where(s => !sheets.Contains(s.Id)).Select(s => s.Id)),
            ("two documents have sheet", sheets.GroupBy(s => s).Where(g => g.Count() > 1).Select(g => g.Key)),
            (
                "no sheet for ask",
                db.Asks.Where(a => a.SheetId != null && !db.Sheets.Any(s => s.Id == a.SheetId)).Select(a => a.Id)
            ),
            ("no order for waiver", db.Waivers.Where(w => !db.Orders.Any(o => o.Id == w.OrderId)).Select(w => w.Id)),
            (
                "no order for commitment",
                db.Commitments.Where(c => !db.Orders.Any(o => o.Id == c.OrderId)).Select(c => c.Id)
            ),
            (
                "no dossier for request",
                db.Requests.Where(r => r.DossierId != null && !db.Dossiers.Any(d => d.Id == r.DossierId))
                    .Select(r => r.Id)
            ),
            (
                "no item for line of sheet",
                db.SheetLines.Where(l => l.ItemId != null && !db.Items.Any(i => i.Id == l.ItemId))
                    .Select(l => l.SheetId)
            ),
        ];
    }
}
