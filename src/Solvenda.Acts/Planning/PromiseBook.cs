using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Planning;

/// <summary>A confirmed order as planning needs it.</summary>
/// <param name="Movable">False while it is being changed, and once goods of it are picked.</param>
public sealed record PlannedOrder(
    long Id,
    string Number,
    string Buyer,
    int TransitDays,
    bool Movable,
    ShippingRule Rule,
    string ReceivingDays
);

/// <summary>A commitment with the line that it is for.</summary>
/// <param name="Wanted">When the buyer wants it there; null where nobody said.</param>
/// <param name="Promised">When they were told that it is there.</param>
public sealed record Waiting(
    CommitmentRow Row,
    PlannedOrder Order,
    int Position,
    DateOnly? Wanted,
    DateOnly? Promised,
    PromiseTerms Terms
)
{
    /// <summary>Its terms where it leaves from another warehouse.</summary>
    public required Func<string, PromiseTerms> From { get; init; }
}

/// <summary>An item in one warehouse: what is there, what comes, who waits for it.</summary>
public sealed record StockPosition(
    ItemRow Item,
    string Warehouse,
    decimal OnHand,
    ImmutableArray<IncomingRow> Incoming,
    ImmutableArray<Waiting> Waits,
    DateOnly Today
)
{
    /// <summary>What comes, by days from today.</summary>
    public ImmutableArray<StockMove> Comes { get; } =
    [.. Incoming.Select(i => StockFacts.Coming(i.Due, i.Quantity, Today))];

    /// <summary>Days from today until it is bought or made; null where it cannot be.</summary>
    public int? LeadDays { get; } = StockFacts.LeadDays(Item.LeadDays, Today);

    public Outlook Outlook { get; } =
        Outlook.Over(
            StockFacts.Horizon,
            OnHand,
            Incoming.Select(i => StockFacts.Coming(i.Due, i.Quantity, Today)),
            Waits.Select(w => new StockMove(w.Row.Day.DayNumber - Today.DayNumber, w.Row.Quantity))
        );

    /// <summary>Each that waits with what it gets, in their turn.</summary>
    public ImmutableArray<Allotted> Allotted() => Allocation.Over(OnHand, Comes, Waits.Select(Wait), LeadDays);

    /// <summary>What moves when everything is promised anew.</summary>
    public ImmutableArray<Repromised> Anew() =>
        Repromise.Over(
            StockFacts.Horizon,
            OnHand,
            Comes,
            [.. Waits.Select(w => new Wish(Wait(w), Bearable(w), !w.Order.Movable))],
            LeadDays
        );

    /// <summary>What can be done for one that cannot be kept.</summary>
    public ImmutableArray<Relief> ReliefsFor(long commitment, IEnumerable<StockPosition> elsewhere) =>
        Reliefs.For(
            commitment,
            [.. Allotted().Select(a => new Bearing(a, Bearable(Waits.First(w => w.Row.Id == a.Wait.Key))))],
            elsewhere.Select(e => (e.Warehouse, e.Outlook))
        );

    private Wait Wait(Waiting w) => new(w.Row.Id, Math.Max(0, w.Row.Day.DayNumber - Today.DayNumber), w.Row.Quantity);

    // The last day on which taking it is in time.
    private int Bearable(Waiting w) =>
        (w.Wanted ?? w.Promised) is { } day
            ? w.Terms.LatestFor(day).DayNumber - Today.DayNumber
            : Math.Max(0, w.Row.Day.DayNumber - Today.DayNumber);
}

/// <summary>All that was promised of some items or of all, read in a few trips; Core decides on it.</summary>
public sealed class PromiseBook
{
    private readonly Dictionary<(long Item, string Warehouse), StockPosition> _positions;

    private PromiseBook(Dictionary<(long, string), StockPosition> positions) => _positions = positions;

    public IReadOnlyCollection<StockPosition> Positions => _positions.Values;

    /// <summary>An item in a warehouse; null where it never lay there, comes there or is promised from there.</summary>
    public StockPosition? Find(long item, string warehouse) => _positions.GetValueOrDefault((item, warehouse));

    /// <summary>The same item in the other warehouses.</summary>
    public IEnumerable<StockPosition> Elsewhere(StockPosition position) =>
        Positions.Where(p => p.Item.Id == position.Item.Id && p.Warehouse != position.Warehouse);

    /// <param name="items">Of these; null: of all.</param>
    public static async Task<PromiseBook> LoadAsync(
        SolvendaDb db,
        IReadOnlyCollection<long>? items,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var of = await db
            .Items.AsNoTracking()
            .Where(i => i.Stocked && (items == null || EF.Parameter(items).Contains(i.Id)))
            .ToDictionaryAsync(i => i.Id, cancel);
        var stock = await db
            .Stock.AsNoTracking()
            .Where(s => EF.Parameter(of.Keys).Contains(s.ItemId))
            .ToListAsync(cancel);
        var incoming = (
            await db.Incoming.AsNoTracking().Where(s => EF.Parameter(of.Keys).Contains(s.ItemId)).ToListAsync(cancel)
        ).ToLookup(i => (i.ItemId, i.Warehouse));
        var waits = (await WaitsAsync(db, of.Keys, today, cancel)).ToLookup(w => (w.Row.ItemId, w.Row.Warehouse));
        var onHand = stock.ToDictionary(s => (s.ItemId, s.Warehouse), s => s.OnHand);
        return new PromiseBook(
            onHand
                .Keys.Concat(incoming.Select(i => i.Key))
                .Concat(waits.Select(w => w.Key))
                .Distinct()
                .ToDictionary(
                    k => k,
                    k => new StockPosition(
                        of[k.ItemId],
                        k.Warehouse,
                        onHand.GetValueOrDefault(k),
                        [.. incoming[k].OrderBy(i => i.Due)],
                        [.. waits[k]],
                        today
                    )
                )
        );
    }

    private static async Task<List<Waiting>> WaitsAsync(
        SolvendaDb db,
        IReadOnlyCollection<long> items,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var ways = await WayTerms.LoadAsync(db, today, cancel);
        var rows = await (
            from c in db.Commitments.AsNoTracking()
            where EF.Parameter(items).Contains(c.ItemId)
            join o in db.Orders on c.OrderId equals o.Id
            join line in db.SheetLines
                on new { o.SheetId, Key = c.LineKey } equals new { line.SheetId, line.Key }
                into told
            from l in told.DefaultIfEmpty()
            select new
            {
                Row = c,
                Position = l == null ? 0 : l.Position,
                Wanted = l == null ? null : l.Wanted,
                Promised = l == null ? null : l.Promised,
                Says = l == null ? "" : l.Says,
            }
        ).ToListAsync(cancel);
        var ids = rows.Select(r => r.Row.OrderId).Distinct().ToList();
        var orders = await OrdersAsync(db, ids, cancel);
        return
        [
            .. rows.Select(r =>
            {
                var (order, wanted) = orders[r.Row.OrderId];
                var receiving = SheetMapping.PlaceOf(r.Says)?.ReceivingDays ?? order.ReceivingDays;
                return new Waiting(
                    r.Row,
                    order,
                    r.Position,
                    r.Wanted ?? wanted,
                    r.Promised,
                    ways.Of(r.Row.Warehouse, order.TransitDays, receiving)
                )
                {
                    From = warehouse => ways.Of(warehouse, order.TransitDays, receiving),
                };
            }),
        ];
    }

    private static async Task<Dictionary<long, (PlannedOrder Order, DateOnly? Wanted)>> OrdersAsync(
        SolvendaDb db,
        List<long> ids,
        CancellationToken cancel
    )
    {
        var places = (
            await db.Addresses.AsNoTracking().Where(a => a.Active && a.ReceivingDays != "").ToListAsync(cancel)
        ).ToLookup(a => a.BuyerId);
        var orders = await db
            .Orders.Where(o => EF.Parameter(ids).Contains(o.Id))
            .Select(o => new
            {
                o.Id,
                o.Number,
                o.Terms,
                o.Goods,
                o.Dossier.BuyerId,
                o.Dossier.Buyer.Name,
                o.Dossier.Buyer.TransitDays,
                o.Sheet.Head,
                o.Sheet.Wanted,
            })
            .ToListAsync(cancel);
        return orders.ToDictionary(
            o => o.Id,
            o =>
                (
                    new PlannedOrder(
                        o.Id,
                        o.Number,
                        o.Name,
                        o.TransitDays,
                        o.Terms == TermsTrack.Confirmed && o.Goods == GoodsTrack.Waiting,
                        ShippingRules.Of(HeadTerms.ShippingRule.In(o.Head)),
                        places[o.BuyerId].FirstOrDefault(p => p.Words == HeadTerms.DeliverTo.In(o.Head))?.ReceivingDays
                            ?? ""
                    ),
                    o.Wanted
                )
        );
    }
}
