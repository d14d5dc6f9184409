using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Calendars;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>So much of an item is in somebody's hands for a line, in stock units.</summary>
internal sealed record InHandPick
{
    public required long LineKey { get; init; }
    public required long ItemId { get; init; }
    public required string Warehouse { get; init; }
    public required decimal Quantity { get; init; }
}

/// <summary>Gathers what can be promised for the lines of a sheet; Core decides.</summary>
public static class StockFacts
{
    /// <summary>How far ahead stock is looked at, in days.</summary>
    public const int Horizon = 180;

    // Days within which what is late still comes.
    private const int Grace = 1;

    /// <summary>What is on its way, by days from today; what should have come already counts as soon.</summary>
    public static StockMove Coming(DateOnly due, decimal quantity, DateOnly today) =>
        new(Math.Max(due.DayNumber - today.DayNumber, Grace), quantity);

    /// <summary>Days from today until an item is bought or made; null where it cannot be.</summary>
    public static int? LeadDays(int? workingDays, DateOnly today) =>
        workingDays is { } days ? WorkCalendar.MondayToFriday.Add(today, days).DayNumber - today.DayNumber : null;

    public static async Task<Dictionary<long, LineStock>> GatherAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedSheet priced,
        DateTime localNow,
        CancellationToken cancel
    )
    {
        var today = DateOnly.FromDateTime(localNow);
        var needs = await LeftAsync(db, open, Needs(priced, today), cancel);
        var lines = priced.Sold.ToDictionary(l => l.Line.Key, l => l.Line);
        var found = new Dictionary<long, LineStock>();
        var ways = WayTerms.Of(open.House);
        PromiseTerms Terms(string house, BuyerPlace? place) =>
            priced.Sheet.Kind.IsAtCounter
                ? ways.AtCounter(house)
                : ways.Of(house, open.Buyer.TransitDays, place?.ReceivingDays ?? "");
        // What leaves from another house, or goes to another place, is a consignment of its own.
        foreach (
            var group in needs.GroupBy(n =>
                (House: WarehouseOf(open, lines[n.Line]), Place: lines[n.Line].DeliverTo ?? open.DeliverTo)
            )
        )
        {
            var ids = group.SelectMany(l => l.Needs).Select(n => n.Item.Value).Distinct().ToList();
            var (house, place) = group.Key;
            var outlooks = await OutlooksAsync(db, ids, house, today, open, cancel);
            var terms = Terms(house, place);
            var rule = ShippingRules.Of(HeadTerms.ShippingRule.In(open.Sheet.Head));
            foreach (var (line, stock) in LinePromises.Find([.. group], outlooks, rule, localNow, terms))
                found[line] = stock;
        }
        if (open.Order is { Terms: TermsTrack.Confirmed } order)
            foreach (var days in await InTurnAsync(db, order.Id, needs, today, cancel))
                if (found.TryGetValue(days.Key, out var stock))
                    found[days.Key] = stock with
                    {
                        Promise = days.Any(d => d.Day is null)
                            ? null
                            : days.Select(d =>
                                    Terms(d.Warehouse, lines[days.Key].DeliverTo ?? open.DeliverTo)
                                        .From(today.AddDays(d.Day!.Value), true)
                                )
                                .MaxBy(p => p.Arrives),
                        Parts = [],
                    };
        return found;
    }

    // What of it has gone already is looked for no more; nor is what is being picked for an order that is changed.
    private static async Task<List<LineNeeds>> LeftAsync(
        SolvendaDb db,
        OpenSheet open,
        List<LineNeeds> needs,
        CancellationToken cancel
    )
    {
        if (open.Order is not { Goods: GoodsTrack.Picking or GoodsTrack.PartShipped } order)
            return needs;
        var isOpen = order.Terms == TermsTrack.Open;
        var gone = (
            await (
                from p in db.Set<ShipmentPickRow>()
                join s in db.Shipments on p.ShipmentId equals s.Id
                where
                    s.OrderId == order.Id
                    && (s.State == ShipmentState.Gone || (isOpen && s.State == ShipmentState.Picking))
                select new
                {
                    p.LineKey,
                    p.ItemId,
                    p.Quantity,
                }
            ).ToListAsync(cancel)
        ).ToLookup(p => (p.LineKey, p.ItemId), p => p.Quantity);
        decimal Left(long line, StockNeed need) => need.Quantity - gone[(line, need.Item.Value)].Sum();
        return
        [
            .. needs
                .Select(l =>
                    l with
                    {
                        Needs =
                        [
                            .. l
                                .Needs.Where(n => Left(l.Line, n) > 0m)
                                .Select(n => n with { Quantity = Left(l.Line, n) }),
                        ],
                    }
                )
                .Where(l => !l.Needs.IsEmpty),
        ];
    }

    // What a confirmed order gets when each that waits gets its turn: when the last of each of its commitments can be
    // taken, by the key of the line; null: no day can be given.
    private static async Task<ILookup<long, (string Warehouse, int? Day)>> InTurnAsync(
        SolvendaDb db,
        long order,
        List<LineNeeds> needs,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var lead = needs
            .SelectMany(n => n.Needs)
            .DistinctBy(n => n.Item)
            .ToDictionary(n => n.Item.Value, n => n.LeadDays);
        var ids = lead.Keys.ToList();
        var waits = (
            await db.Commitments.AsNoTracking().Where(c => EF.Parameter(ids).Contains(c.ItemId)).ToListAsync(cancel)
        ).ToLookup(c => (c.ItemId, c.Warehouse));
        var onHand = await db
            .Stock.AsNoTracking()
            .Where(s => EF.Parameter(ids).Contains(s.ItemId))
            .ToDictionaryAsync(s => (s.ItemId, s.Warehouse), s => s.OnHand, cancel);
        var incoming = (
            await db.Incoming.AsNoTracking().Where(s => EF.Parameter(ids).Contains(s.ItemId)).ToListAsync(cancel)
        ).ToLookup(i => (i.ItemId, i.Warehouse), i => Coming(i.Due, i.Quantity, today));
        return waits
            .Where(w => w.Any(c => c.OrderId == order))
            .SelectMany(w =>
            {
                var mine = w.Where(c => c.OrderId == order).ToDictionary(c => c.Id, c => c.LineKey);
                return Allocation
                    .Over(
                        onHand.GetValueOrDefault(w.Key),
                        incoming[w.Key],
                        w.Select(c => new Wait(c.Id, Math.Max(0, c.Day.DayNumber - today.DayNumber), c.Quantity)),
                        lead[w.Key.ItemId]
                    )
                    .Where(a => mine.ContainsKey(a.Wait.Key))
                    .Select(a => (Line: mine[a.Wait.Key], w.Key.Warehouse, a.Last));
            })
            .ToLookup(a => a.Line, a => (a.Warehouse, a.Last));
    }

    /// <summary>The warehouse that a line leaves from; empty where nobody said.</summary>
    public static string WarehouseOf(OpenSheet open, SheetLine line) =>
        line.ShipFrom ?? HeadTerms.ShipFrom.In(open.Sheet.Head) ?? "";

    /// <summary>What each line needs from stock.</summary>
    internal static List<LineNeeds> Needs(PricedSheet priced, DateOnly today)
    {
        // A frame takes nothing itself: what is called off of it does.
        if (priced.Sheet.Kind.IsFrame)
            return [];
        int? Lead(Item item) => LeadDays(item.LeadDays, today);
        var lines = new List<LineNeeds>();
        foreach (var line in priced.Sold)
        {
            var quantity = line.Line.Quantity * (line.Item?.Factor(line.Line.Unit) ?? 1m);
            ImmutableArray<StockNeed> needs = line switch
            {
                { Parts.IsEmpty: false } =>
                [
                    .. line
                        .Parts.Where(p => p.Item.Stocked)
                        .GroupBy(p => p.Item.Id)
                        .Select(g => new StockNeed(g.Key, g.Sum(p => p.Quantity), Lead(g.First().Item))),
                ],
                { Item: { Stocked: true } item } => [new StockNeed(item.Id, quantity, Lead(item))],
                _ => [],
            };
            if (!needs.IsEmpty)
                lines.Add(new LineNeeds(line.Line.Key, quantity, line.Counts, needs));
        }
        return lines;
    }

    private static async Task<Dictionary<ItemId, Outlook>> OutlooksAsync(
        SolvendaDb db,
        List<long> ids,
        string warehouse,
        DateOnly today,
        OpenSheet open,
        CancellationToken cancel
    )
    {
        var order = open.Order?.Id ?? 0;
        var keptBack = await KeptBack.MovesAsync(db, open, ids, warehouse, today, cancel);
        var onHand = await db
            .Stock.Where(s => EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse)
            .ToDictionaryAsync(s => s.ItemId, s => s.OnHand, cancel);
        var incoming = (
            await db
                .Incoming.Where(s => EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse)
                .Select(s => new
                {
                    s.ItemId,
                    s.Due,
                    s.Quantity,
                })
                .ToListAsync(cancel)
        ).ToLookup(i => i.ItemId, i => Coming(i.Due, i.Quantity, today));
        var committed = (
            await db
                .Commitments.Where(s =>
                    EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse && s.OrderId != order
                )
                .Select(s => new
                {
                    s.ItemId,
                    s.Day,
                    s.Quantity,
                })
                .ToListAsync(cancel)
        ).ToLookup(c => c.ItemId, c => new StockMove(c.Day.DayNumber - today.DayNumber, c.Quantity));
        var inHand = await InHandAsync(db, open, warehouse, cancel);
        return ids.ToDictionary(
            id => new ItemId(id),
            id =>
                Outlook.Over(
                    Horizon,
                    onHand.GetValueOrDefault(id),
                    // What is kept back is taken now, and there again on the day after.
                    incoming[id].Concat(keptBack[id].Select(k => k.Back)),
                    committed[id].Concat(keptBack[id].Select(k => k.Taken)).Concat(inHand[id])
                )
        );
    }

    /// <summary>What is being picked for an order.</summary>
    internal static IQueryable<InHandPick> InHand(SolvendaDb db, long order) =>
        from p in db.Set<ShipmentPickRow>()
        join s in db.Shipments on p.ShipmentId equals s.Id
        where s.OrderId == order && s.State == ShipmentState.Picking
        select new InHandPick
        {
            LineKey = p.LineKey,
            ItemId = p.ItemId,
            Warehouse = s.Warehouse,
            Quantity = p.Quantity,
        };

    // What is being picked for an order that is changed is taken.
    private static async Task<ILookup<long, StockMove>> InHandAsync(
        SolvendaDb db,
        OpenSheet open,
        string warehouse,
        CancellationToken cancel
    )
    {
        if (open is not { Begun: not null, Order: { Terms: TermsTrack.Open } order })
            return Enumerable.Empty<StockMove>().ToLookup(_ => 0L);
        var picks = await InHand(db, order.Id).Where(p => p.Warehouse == warehouse).ToListAsync(cancel);
        return picks.ToLookup(p => p.ItemId, p => new StockMove(0, p.Quantity));
    }
}
