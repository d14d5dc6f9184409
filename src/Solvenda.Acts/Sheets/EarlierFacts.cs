using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Data;

namespace Solvenda.Acts.Sheets;

/// <summary>
/// Gathers the documents of the buyer and its credit group that carry the same PO, or the same lines; Core judges.
/// </summary>
internal static class EarlierFacts
{
    public static async Task<List<Earlier>> GatherAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        var buyers = await FamilyAsync(db, open, cancel);
        var found = new List<Earlier>();
        if (open.Order!.PoKey.Length > 0)
        {
            found.AddRange(await SamePoOrdersAsync(db, open, buyers, cancel));
            found.AddRange(await SamePoRequestsAsync(db, open, buyers, cancel));
        }
        found.AddRange(await SameLinesAsync(db, open, buyers, cancel));
        return found;
    }

    // The buyer, its group, and those that share a credit limit with it.
    private static async Task<List<long>> FamilyAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        var (id, group, parent) = (open.Buyer.Id, open.Buyer.Group, open.Buyer.ParentId);
        return await db
            .Buyers.Where(b =>
                b.Id == id
                || (group != null && b.Group == group)
                || b.ParentId == id
                || (parent != null && (b.Id == parent || b.ParentId == parent))
            )
            .Select(b => b.Id)
            .ToListAsync(cancel);
    }

    private static async Task<IEnumerable<Earlier>> SamePoOrdersAsync(
        SolvendaDb db,
        OpenSheet open,
        List<long> buyers,
        CancellationToken cancel
    )
    {
        var order = open.Order!;
        var same = await db
            .Orders.Where(o =>
                o.PoKey == order.PoKey
                && o.Id != order.Id
                && o.Terms != TermsTrack.Cancelled
                && buyers.Contains(o.Dossier.BuyerId)
            )
            .Select(o => new
            {
                o.Number,
                Po = o.Sheet.PoNumber ?? "",
                o.CreatedAt,
            })
            .ToListAsync(cancel);
        return same.Select(s => new Earlier(
            new DocumentRef("order", s.Number),
            s.Po,
            DateOnly.FromDateTime(s.CreatedAt),
            true
        ));
    }

    private static async Task<IEnumerable<Earlier>> SamePoRequestsAsync(
        SolvendaDb db,
        OpenSheet open,
        List<long> buyers,
        CancellationToken cancel
    )
    {
        var order = open.Order!;
        var requests = await db
            .Requests.Where(r =>
                r.PoKey == order.PoKey
                && r.Id != order.RequestId
                && r.BuyerId != null
                && buyers.Contains(r.BuyerId.Value)
                && (r.State == RequestState.New || r.State == RequestState.NeedsYou)
            )
            .Select(r => new { r.Number, r.ReceivedAt })
            .ToListAsync(cancel);
        return requests.Select(r => new Earlier(
            new DocumentRef("request", r.Number),
            open.Sheet.PoNumber ?? "",
            DateOnly.FromDateTime(r.ReceivedAt),
            true
        ));
    }

    private static async Task<IEnumerable<Earlier>> SameLinesAsync(
        SolvendaDb db,
        OpenSheet open,
        List<long> buyers,
        CancellationToken cancel
    )
    {
        var order = open.Order!;
        var mine = open
            .Sheet.Lines.Where(l => l.ItemId != null)
            .Select(l => (l.ItemId, l.Quantity, l.Unit))
            .Order()
            .ToList();
        if (mine.Count == 0)
            return [];
        var since = order.CreatedAt.AddDays(-Repeat.MostDays);
        var recent = await db
            .Orders.Where(o =>
                o.CreatedAt >= since
                && o.Id != order.Id
                && buyers.Contains(o.Dossier.BuyerId)
                && (o.PoKey != order.PoKey || order.PoKey == "")
                && o.Terms != TermsTrack.Cancelled
            )
            .Select(o => new
            {
                o.Number,
                Po = o.Sheet.PoNumber ?? "",
                o.CreatedAt,
                Lines = o
                    .Sheet.StoredLines.Select(l => new
                    {
                        l.ItemId,
                        l.Quantity,
                        l.Unit,
                    })
                    .ToList(),
            })
            .ToListAsync(cancel);
        return recent
            .Where(r =>
                r.Lines.Where(l => l.ItemId != null)
                    .Select(l => (l.ItemId, l.Quantity, l.Unit))
                    .Order()
                    .SequenceEqual(mine)
            )
            .Select(r => new Earlier(
                new DocumentRef("order", r.Number),
                r.Po,
                DateOnly.FromDateTime(r.CreatedAt),
                false
            ));
    }
}
