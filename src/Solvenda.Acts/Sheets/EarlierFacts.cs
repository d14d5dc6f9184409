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
    // Of more than so many that look like it nobody reads the list.
    private const int MostAlike = 50;

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
                o.Id,
                o.Number,
                Po = o.Sheet.PoNumber ?? "",
                o.CreatedAt,
                o.RequestId,
                Came = db
                    .Requests.Where(r => r.Id == o.RequestId)
                    .Select(r => (DateTime?)r.ReceivedAt)
                    .FirstOrDefault(),
                IsPast = o.Goods == GoodsTrack.Shipped,
            })
            .ToListAsync(cancel);
        var mine = await ArrivalAsync(db, order, cancel);
        return same.Where(s => new Arrival(s.Came ?? s.CreatedAt, s.RequestId ?? long.MaxValue, s.Id).IsBefore(mine))
            .Select(s => new Earlier(new DocumentRef("order", s.Number), s.Po, DateOnly.FromDateTime(s.CreatedAt), true)
            {
                In = s.IsPast ? EarlierIn.PastOrders : EarlierIn.OpenOrders,
            });
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
            .Select(r => new
            {
                r.Id,
                r.Number,
                r.ReceivedAt,
            })
            .ToListAsync(cancel);
        var mine = await ArrivalAsync(db, order, cancel);
        return requests
            .Where(r => new Arrival(r.ReceivedAt, r.Id, 0).IsBefore(mine))
            .Select(r => new Earlier(
                new DocumentRef("request", r.Number),
                open.Sheet.PoNumber ?? "",
                DateOnly.FromDateTime(r.ReceivedAt),
                true
            )
            {
                In = EarlierIn.Requests,
            });
    }

    // When something came to the house. Of several in one moment the order of their keys decides, so that of the same
    // PO by several ways one is always the first, and no two stop each other.
    private readonly record struct Arrival(DateTime At, long Request, long Order)
    {
        public bool IsBefore(Arrival other) =>
            (At, Request, Order).CompareTo((other.At, other.Request, other.Order)) < 0;
    }

    private static async Task<Arrival> ArrivalAsync(SolvendaDb db, Data.Rows.OrderRow order, CancellationToken cancel)
    {
        var came = order.RequestId is { } request
            ? await db
                .Requests.Where(r => r.Id == request)
                .Select(r => (DateTime?)r.ReceivedAt)
                .FirstOrDefaultAsync(cancel)
            : null;
        return new Arrival(came ?? order.CreatedAt, order.RequestId ?? long.MaxValue, order.Id);
    }

    private static async Task<IEnumerable<Earlier>> SameLinesAsync(
        SolvendaDb db,
        OpenSheet open,
        List<long> buyers,
        CancellationToken cancel
    )
    {
        var mine = ItemsOf(open.Sheet.Lines.Select(l => (l.ItemId, l.Quantity, l.Unit)));
        if (mine.Count == 0)
            return [];
        var alike = await AlikeAsync(db, open.Order!, buyers, mine, cancel);
        if (alike.Count == 0)
            return [];
        var recent = await db
            .Orders.Where(o => EF.Parameter(alike).Contains(o.SheetId))
            .OrderByDescending(o => o.Id)
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
            .Where(r => ItemsOf(r.Lines.Select(l => (l.ItemId, l.Quantity, l.Unit))).SequenceEqual(mine))
            .Select(r => new Earlier(
                new DocumentRef("order", r.Number),
                r.Po,
                DateOnly.FromDateTime(r.CreatedAt),
                false
            ));
    }

    // Looked for by what costs the database little, each order once; lines are read of those alone that can be the
    // same.
    private static Task<List<long>> AlikeAsync(
        SolvendaDb db,
        Data.Rows.OrderRow order,
        List<long> buyers,
        List<(long? ItemId, decimal Quantity, string Unit)> mine,
        CancellationToken cancel
    )
    {
        var since = order.CreatedAt.AddDays(-Repeat.MostDays);
        var (count, items, quantities) = (mine.Count, mine.Sum(l => l.ItemId!.Value), mine.Sum(l => l.Quantity));
        var (id, frame, po) = (order.Id, order.FrameId, order.PoKey);
        var near = db.Orders.Where(o =>
            o.CreatedAt >= since
            && o.Id != id
            // What is called off of one frame is alike.
            && o.Id != frame
            && o.FrameId != id
            && (frame == null || o.FrameId != frame)
            && buyers.Contains(o.Dossier.BuyerId)
            && (o.PoKey != po || po == "")
            && o.Terms != TermsTrack.Cancelled
        );
        return db
            .SheetLines.Where(l => l.ItemId != null && near.Select(o => o.SheetId).Contains(l.SheetId))
            .GroupBy(l => l.SheetId)
            .Where(g =>
                g.Count() == count && g.Sum(l => l.ItemId ?? 0) == items && g.Sum(l => l.Quantity) == quantities
            )
            .Select(g => g.Key)
            .OrderByDescending(s => s)
            .Take(MostAlike)
            .ToListAsync(cancel);
    }

    // What is bought of what, in an order that does not hang on the lines'.
    private static List<(long? ItemId, decimal Quantity, string Unit)> ItemsOf(
        IEnumerable<(long? ItemId, decimal Quantity, string Unit)> lines
    ) => [.. lines.Where(l => l.ItemId != null).Order()];
}
