using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>The demo's stock: what lies there, what comes, what went; and where it is short.</summary>
internal sealed class DemoStock(
    SolvendaDb db,
    IReadOnlyList<DemoCatalogue.Entry> catalogue,
    Random random,
    DateOnly today
)
{
    public const string Quay = "Skerrow quay";
    private const string Depot = "Ardmoyle depot";

    // So far back the list of what moved goes.
    private const int Back = 60;

    private readonly Dictionary<(long, string), StockRow> _lies = [];
    private readonly List<CommitmentRow> _promised = [];
    private readonly HashSet<CommitmentRow> _waits = [];
    private readonly List<StockMovementRow> _went = [];

    // What the story leans on stays as it is.
    private readonly HashSet<long> _set = [];
    private int _orders = 4470;

    /// <summary>What lies there, and what is on its way.</summary>
    public void Add()
    {
        foreach (var (row, list, _, _) in catalogue.Where(e => e.Row.Stocked))
        {
            var plenty = row.StockUnit == "C62" ? 2400m : 18_000m;
            var onHand = Math.Round(plenty / Math.Max(1m, list / 4m) * (decimal)(0.4 + random.NextDouble()), 0);
            // A few have none, a few far too much.
            if (row.Id % 29 == 0)
                onHand = 0;
            if (row.Id % 37 == 0)
                onHand *= 8;
            decimal? set = row.Code switch
            {
                "BB2-10-NV" => 1_240m,
                "PS3-12-WH" => 5_200m,
                "SHK-BOW-10" => 3_140m,
                "SET-MOOR-10" => 9m,
                "CLT-BZ-08" => 400m,
                _ => null,
            };
            if (set is not null)
                _set.Add(row.Id);
            onHand = set ?? onHand;
            Lies(row, Quay, onHand);
            Lies(row, Depot, Math.Round(onHand * 0.3m, 0));
            if (row.Id % 3 == 0 || row.Code is "BB2-10-NV" or "SET-MOOR-10")
            {
                var due = today.AddDays(row.Code == "BB2-10-NV" ? 8 : random.Next(2, 30));
                var comes = row.Code switch
                {
                    "BB2-10-NV" => 2_000m,
                    "SET-MOOR-10" => 12m,
                    _ => Math.Max(10m, Math.Round(plenty / list, 0)),
                };
                Comes(row.Id, due, due, comes);
            }
        }
    }

    /// <summary>What went to a buyer; long ago, and nobody asks any more.</summary>
    public void Went(long item, decimal quantity, DateOnly day, string order)
    {
        if (day >= today.AddDays(-Back) && day < today)
            _went.Add(
                new StockMovementRow
                {
                    ItemId = item,
                    Warehouse = Quay,
                    Day = day,
                    Quantity = -quantity,
                    Kind = MovementKind.Shipped,
                    Document = order,
                }
            );
    }

    /// <summary>What is promised to a buyer.</summary>
    /// <param name="waits">Nobody picks it yet.</param>
    public void Promise(CommitmentRow row, bool waits)
    {
        if (waits)
            _waits.Add(row);
        _promised.Add(row);
        db.Commitments.Add(row);
    }

    /// <summary>Whether so much lies at the quay beyond what is promised.</summary>
    public bool Holds(ItemRow item, decimal quantity) =>
        item is { Stocked: true, Parts: "" }
        && !_set.Contains(item.Id)
        && _lies[(item.Id, Quay)].OnHand - _promised.Where(p => p.ItemId == item.Id).Sum(p => p.Quantity) >= quantity;

    /// <summary>Two items fall short of what is promised.</summary>
    public void Shorten()
    {
        // Those that most wait for, and for much; on some days of the year there are few of them, and others do.
        var busy = _promised
            .GroupBy(p => p.ItemId)
            .Where(g => g.MaxBy(p => p.Day) is { Quantity: >= 10 } last && _waits.Contains(last))
            .OrderByDescending(g => g.Min(p => p.Quantity) >= 20 ? g.Count() : 1)
            .ThenBy(g => g.Key);
        var late = 3;
        foreach (
            var waits in busy.Where(g => !db.Incoming.Local.Any(i => i.ItemId == g.Key) && !_set.Contains(g.Key))
                .Take(2)
        )
        {
            var last = waits.MaxBy(w => w.Day)!;
            var rows = waits.Where(w => w != last).OrderBy(w => w.Day).Append(last).ToList();
            // What lies there does for all but a part of the last; the rest was to come before it, and slipped.
            Set(waits.Key, Quay, rows.Sum(r => r.Quantity) - Math.Ceiling(rows[^1].Quantity / 2));
            Comes(
                waits.Key,
                rows[^1].Day.AddDays(late + 1),
                rows[^1].Day.AddDays(-late),
                Math.Ceiling(rows.Sum(r => r.Quantity))
            );
            Set(waits.Key, Depot, late == 3 ? Math.Ceiling(rows[^1].Quantity) : 0);
            late--;
        }
    }

    /// <summary>Once all orders are there: what moved adds up to what lies there.</summary>
    public void Finish()
    {
        foreach (var ((item, warehouse), row) in _lies)
            Opening(item, warehouse, row.OnHand);
    }

    // Counted at first, one delivery since, and what went.
    private void Opening(long item, string warehouse, decimal onHand)
    {
        var went = _went.Where(m => m.ItemId == item && m.Warehouse == warehouse).OrderBy(m => m.Day).ToList();
        var came = today.AddDays(-random.Next(18, 40));
        var since = -went.Where(m => m.Day >= came).Sum(m => m.Quantity);
        var delivery = went.Count == 0 ? 0m : Math.Floor((onHand + since) * 0.4m);
        db.StockMovements.Add(
            new StockMovementRow
            {
                ItemId = item,
                Warehouse = warehouse,
                Day = today.AddDays(-Back),
                Quantity = onHand - delivery - went.Sum(m => m.Quantity),
                Kind = MovementKind.Counted,
            }
        );
        if (delivery > 0)
            db.StockMovements.Add(
                new StockMovementRow
                {
                    ItemId = item,
                    Warehouse = warehouse,
                    Day = came,
                    Quantity = delivery,
                    Kind = MovementKind.Arrived,
                    Document = $"B{today.Year % 100:00}-{++_orders}",
                }
            );
        db.StockMovements.AddRange(went);
    }

    // Nothing looks for what changed while so much is written.
    private void Set(long item, string warehouse, decimal onHand)
    {
        var row = _lies[(item, warehouse)];
        row.OnHand = onHand;
        db.Stock.Update(row);
    }

    private void Lies(ItemRow item, string warehouse, decimal onHand) =>
        db.Stock.Add(
            _lies[(item.Id, warehouse)] = new StockRow
            {
                ItemId = item.Id,
                Lot = item.HasLots ? DemoGoods.LotOf(item.Id, today.Year) : "",
                Warehouse = warehouse,
                OnHand = onHand,
                // Heavy things low and near the door: A for ropes and chain on drums, then row by row.
                Bin = string.Create(
                    System.Globalization.CultureInfo.InvariantCulture,
                    $"{(char)('A' + (item.Id / 24))}-{(item.Id * 7 % 24) + 1:00}"
                ),
            }
        );

    private void Comes(long item, DateOnly due, DateOnly first, decimal quantity) =>
        db.Incoming.Add(
            new IncomingRow
            {
                ItemId = item,
                Warehouse = Quay,
                Due = due,
                FirstDue = first,
                Quantity = quantity,
                Reference = $"B{today.Year % 100:00}-{++_orders}",
            }
        );
}
