using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Following;

/// <summary>What of a line waits on a shelf, in stock units.</summary>
public sealed record ShelfNeed(Shelf Shelf, decimal Quantity, DateOnly Day);

/// <summary>The goods of a line of a confirmed order.</summary>
/// <param name="Promised">When the buyer was told that it is there; null where no day was.</param>
/// <param name="Needs">What nobody began with, by shelf; empty where it lies on none.</param>
public sealed record GoodsLine(SheetLine Line, DateOnly? Promised, GoodsSoFar SoFar, ImmutableArray<ShelfNeed> Needs)
{
    /// <summary>The day on which the first of it is to be taken from its shelf; null where it lies on none.</summary>
    public DateOnly? Day => Needs.IsEmpty ? null : Needs.Min(n => n.Day);
}

/// <summary>The goods of a confirmed order, and what of them may go now.</summary>
/// <param name="OnShelf">What lies there for it, when each that waits gets its turn.</param>
public sealed record OrderGoods(
    long Order,
    ShippingRule Rule,
    ImmutableArray<GoodsLine> Lines,
    IReadOnlyDictionary<Shelf, decimal> OnShelf
)
{
    /// <summary>What may go, line by line and warehouse by warehouse, as the buyer wants it.</summary>
    public ImmutableArray<GoingPart> MayGo() => Going.Of(Rule, Open(), OnShelf);

    /// <summary>What could go if the buyer took it as it comes.</summary>
    public ImmutableArray<GoingPart> CouldGo() => Going.Of(ShippingRule.AsItComes, Open(), OnShelf);

    /// <summary>The open goods, those of one item from each of their warehouses apart.</summary>
    public ImmutableArray<OpenGoods> Open() => [.. Lines.Where(l => l.SoFar.Open > 0m).SelectMany(Open)];

    /// <summary>Least part of a unit that can go.</summary>
    public static decimal StepOf(Unit unit) =>
        unit == Unit.Metre
        || unit == Unit.Foot
        || unit == Unit.SquareMetre
        || unit == Unit.Kilogram
        || unit == Unit.Litre
            ? 0.001m
            : 1m;

    private static IEnumerable<OpenGoods> Open(GoodsLine line)
    {
        var step = StepOf(line.Line.Unit);
        var open = line.SoFar.Open;
        var houses = line.Needs.Select(n => n.Shelf.Warehouse).Distinct().ToList();
        // A bundle whose parts lie in several houses goes from none of them: a planner brings them together first.
        if (houses.Count < 2 || line.Needs.Select(n => n.Shelf.Item).Distinct().Skip(1).Any())
            return [new OpenGoods(line.Line.Key, houses.FirstOrDefault() ?? "", open, step, PerUnit(line.Needs, open))];
        // What lies in several houses leaves from each of them.
        var all = line.Needs.Sum(n => n.Quantity);
        return line
            .Needs.GroupBy(n => n.Shelf.Warehouse)
            .Select(g =>
            {
                var part = Math.Round(open * g.Sum(n => n.Quantity) / all, 3, MidpointRounding.AwayFromZero);
                return new OpenGoods(line.Line.Key, g.Key, part, step, PerUnit([.. g], part));
            });
    }

    private static ImmutableArray<GoingNeed> PerUnit(ImmutableArray<ShelfNeed> needs, decimal open) =>
        [.. needs.GroupBy(n => n.Shelf.Item).Select(g => new GoingNeed(g.Key, g.Sum(n => n.Quantity) / open))];
}

/// <summary>Reads how far the goods of orders are, and what lies on the shelves for them; Core decides.</summary>
public static class GoodsBook
{
    /// <summary>Of orders that are confirmed, by their keys.</summary>
    public static async Task<Dictionary<long, OrderGoods>> OfAsync(
        SolvendaDb db,
        IReadOnlyCollection<long> orders,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db
            .Orders.AsNoTracking()
            .Where(o => EF.Parameter(orders).Contains(o.Id))
            .Select(o => new { o.Id, o.Sheet })
            .ToListAsync(cancel);
        var sheets = rows.ConvertAll(r => r.Sheet.Id);
        var lines = (
            await db.SheetLines.AsNoTracking().Where(l => EF.Parameter(sheets).Contains(l.SheetId)).ToListAsync(cancel)
        ).ToLookup(l => l.SheetId);
        var done = (
            await (
                from l in db.Set<ShipmentLineRow>()
                join s in db.Shipments on l.ShipmentId equals s.Id
                where EF.Parameter(orders).Contains(s.OrderId) && s.State != ShipmentState.Dropped
                select new
                {
                    s.OrderId,
                    l.LineKey,
                    l.Quantity,
                    s.State,
                }
            ).ToListAsync(cancel)
        ).ToLookup(l => (l.OrderId, l.LineKey));
        var shelves = await Shelves.LoadAsync(db, orders, today, cancel);
        return rows.ToDictionary(
            r => r.Id,
            r => new OrderGoods(
                r.Id,
                ShippingRules.Of(HeadTerms.ShippingRule.In(r.Sheet.Head)),
                [
                    .. Delivered(r.Sheet, [.. lines[r.Sheet.Id]])
                        .Select(l =>
                        {
                            var of = done[(r.Id, l.Line.Key)].ToList();
                            var gone = of.Where(s => s.State == ShipmentState.Gone).Sum(s => s.Quantity);
                            return new GoodsLine(
                                l.Line,
                                l.Promised,
                                new GoodsSoFar(
                                    l.Line.ClosedWhy.Length > 0 ? gone : l.Line.Quantity,
                                    gone,
                                    of.Where(s => s.State == ShipmentState.Picking).Sum(s => s.Quantity)
                                ),
                                shelves.NeedsOf(r.Id, l.Line.Key)
                            );
                        }),
                ],
                shelves.For(r.Id)
            )
        );
    }

    // Of its lines those that are delivered: no words, and nothing of what was offered that nobody took.
    private static IEnumerable<(SheetLine Line, DateOnly? Promised)> Delivered(SheetRow sheet, List<SheetLineRow> rows)
    {
        sheet.Have(rows);
        var promised = rows.ToDictionary(l => l.Key, l => l.Promised);
        var lines = sheet.ToDraft().Lines;
        var counted = Choices.Counted(lines);
        return lines
            .Where(l => l.Kind == LineKind.Item && (counted.Contains(l.Key) || l.ClosedWhy.Length > 0))
            .Select(l => (l, promised[l.Key]));
    }

    // What waits on the shelves, whose turn it is, and what each gets.
    private sealed class Shelves
    {
        private readonly ILookup<(long Order, long Line), ShelfNeed> _needs;
        private readonly Dictionary<long, Dictionary<Shelf, decimal>> _gets;

        private Shelves(ILookup<(long, long), ShelfNeed> needs, Dictionary<long, Dictionary<Shelf, decimal>> gets) =>
            (_needs, _gets) = (needs, gets);

        public ImmutableArray<ShelfNeed> NeedsOf(long order, long line) => [.. _needs[(order, line)]];

        public IReadOnlyDictionary<Shelf, decimal> For(long order) => _gets.GetValueOrDefault(order) ?? [];

        public static async Task<Shelves> LoadAsync(
            SolvendaDb db,
            IReadOnlyCollection<long> orders,
            DateOnly today,
            CancellationToken cancel
        )
        {
            var items = await db
                .Commitments.Where(c => EF.Parameter(orders).Contains(c.OrderId))
                .Select(c => c.ItemId)
                .Distinct()
                .ToListAsync(cancel);
            var commitments = await db
                .Commitments.AsNoTracking()
                .Where(c => EF.Parameter(items).Contains(c.ItemId))
                .OrderBy(c => c.Day)
                .ThenBy(c => c.Id)
                .ToListAsync(cancel);
            var picks = await (
                from p in db.Set<ShipmentPickRow>()
                join s in db.Shipments on p.ShipmentId equals s.Id
                where s.State == ShipmentState.Picking && EF.Parameter(items).Contains(p.ItemId)
                select new
                {
                    s.OrderId,
                    p.LineKey,
                    p.ItemId,
                    s.Warehouse,
                    p.Quantity,
                }
            ).ToListAsync(cancel);
            var stock = await db
                .Stock.AsNoTracking()
                .Where(s => EF.Parameter(items).Contains(s.ItemId))
                .ToListAsync(cancel);
            var free = stock.ToDictionary(s => new Shelf(new ItemId(s.ItemId), s.Warehouse), s => s.OnHand);
            foreach (var pick in picks)
            {
                var shelf = new Shelf(new ItemId(pick.ItemId), pick.Warehouse);
                free[shelf] = free.GetValueOrDefault(shelf) - pick.Quantity;
            }
            var waits = Waits(
                commitments,
                picks
                    .GroupBy(p => (p.OrderId, p.LineKey, p.ItemId, p.Warehouse))
                    .ToDictionary(g => g.Key, g => g.Sum(p => p.Quantity))
            );
            return new Shelves(
                waits.ToLookup(
                    w => (w.Row.OrderId, w.Row.LineKey),
                    w => new ShelfNeed(new Shelf(new ItemId(w.Row.ItemId), w.Row.Warehouse), w.Left, w.Row.Day)
                ),
                Gets(free, waits, today)
            );
        }

        // What is being picked is no longer waited for, the earliest of it first.
        private static List<(CommitmentRow Row, decimal Left)> Waits(
            List<CommitmentRow> commitments,
            Dictionary<(long Order, long Line, long Item, string Warehouse), decimal> inWork
        )
        {
            var waits = new List<(CommitmentRow, decimal)>();
            foreach (var c in commitments)
            {
                var key = (c.OrderId, c.LineKey, c.ItemId, c.Warehouse);
                var taken = Math.Min(inWork.GetValueOrDefault(key), c.Quantity);
                if (taken > 0m)
                    inWork[key] -= taken;
                if (c.Quantity > taken)
                    waits.Add((c, c.Quantity - taken));
            }
            return waits;
        }

        private static Dictionary<long, Dictionary<Shelf, decimal>> Gets(
            Dictionary<Shelf, decimal> free,
            List<(CommitmentRow Row, decimal Left)> waits,
            DateOnly today
        )
        {
            var gets = new Dictionary<long, Dictionary<Shelf, decimal>>();
            foreach (var onShelf in waits.GroupBy(w => new Shelf(new ItemId(w.Row.ItemId), w.Row.Warehouse)))
            {
                var rows = onShelf.ToDictionary(w => w.Row.Id, w => w.Row.OrderId);
                var turns = onShelf.Select(w => new Wait(
                    w.Row.Id,
                    Math.Max(0, w.Row.Day.DayNumber - today.DayNumber),
                    w.Left
                ));
                foreach (var got in Allocation.Over(free.GetValueOrDefault(onShelf.Key), [], turns, null))
                {
                    var order = rows[got.Wait.Key];
                    if (!gets.TryGetValue(order, out var mine))
                        gets[order] = mine = [];
                    mine[onShelf.Key] =
                        mine.GetValueOrDefault(onShelf.Key)
                        + got.Parts.Where(p => p.From == Supply.Stock).Sum(p => p.Quantity);
                }
            }
            return gets;
        }
    }
}
