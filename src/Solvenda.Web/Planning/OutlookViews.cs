using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Planning;
using Solvenda.Core.Documents;
using Solvenda.Core.Promising;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Planning;

/// <summary>An item's outlook: what went and what comes as one stepped line, who waits, what can be done.</summary>
internal static class OutlookViews
{
    private const int Back = 60;
    private const int MostPast = 400;

    /// <param name="warehouse">Null: the first where it is short, else where most of it is promised.</param>
    public static async Task<OutlookView> OfAsync(
        SolvendaDb db,
        long item,
        string? warehouse,
        DateOnly today,
        bool mayPlan,
        CancellationToken cancel
    )
    {
        var row =
            await db.Items.AsNoTracking().FirstOrDefaultAsync(i => i.Id == item, cancel)
            ?? throw RefusedException.NotFound("such item");
        if (!row.Stocked)
            throw RefusedException.NotFound($"outlook of {row.Code}: it is not kept in stock");
        var names = await HouseDays.WarehouseNamesAsync(db, cancel);
        var book = await PromiseBook.LoadAsync(db, [item], today, cancel);
        var at = Picked(book, warehouse, names);
        var position = book.Find(item, at) ?? new StockPosition(row, at, 0, [], [], today);
        var (usual, asked) = await PlanRows.FactsAsync(db, today, cancel);
        var past = await PastAsync(db, position, cancel);
        return new OutlookView(
            item,
            row.Code,
            row.Words,
            UnitTable.OnSheet(Unit.Of(row.StockUnit)),
            at,
            names,
            today,
            PlanRows.Of(position, usual, asked),
            past,
            Ahead(position),
            [.. position.Outlook.Steps.Select(s => new FreeFrom(today.AddDays(s.Day), s.Free))],
            Waits(book, position),
            await OfferedAsync(db, position, today, cancel),
            position.Anew().Length,
            mayPlan
        );
    }

    private static string Picked(PromiseBook book, string? warehouse, List<string> names) =>
        warehouse is not null
            ? names.Find(n => n == warehouse) ?? throw RefusedException.NotFound("such warehouse")
            : book.Positions.OrderByDescending(p => Shortage.Of(p.Outlook)?.By ?? 0)
                .ThenByDescending(p => p.Waits.Sum(w => w.Row.Quantity))
                .ThenByDescending(p => p.OnHand)
                .Select(p => p.Warehouse)
                .FirstOrDefault()
                ?? names.FirstOrDefault()
                ?? throw RefusedException.NotFound("warehouse yet: make one in the setup");

    private static async Task<List<OutlookStep>> PastAsync(
        SolvendaDb db,
        StockPosition position,
        CancellationToken cancel
    )
    {
        var since = position.Today.AddDays(-Back);
        var moves = await db
            .StockMovements.AsNoTracking()
            .Where(m => m.ItemId == position.Item.Id && m.Warehouse == position.Warehouse && m.Day >= since)
            .OrderByDescending(m => m.Day)
            .ThenByDescending(m => m.Id)
            .Take(MostPast)
            .ToListAsync(cancel);
        // Backwards from what is there now.
        var (level, steps) = (position.OnHand, new List<OutlookStep>());
        foreach (var move in moves)
        {
            steps.Add(
                new OutlookStep(
                    move.Day,
                    move.Quantity,
                    level,
                    move.Kind.ToString().ToLowerInvariant(),
                    move.Kind == MovementKind.Counted ? "counted" : move.Document,
                    move.Kind == MovementKind.Shipped ? move.Document : null
                )
            );
            level -= move.Quantity;
        }
        steps.Reverse();
        return steps;
    }

    private static List<OutlookStep> Ahead(StockPosition position)
    {
        var today = position.Today;
        var moves = position
            .Incoming.Select(i =>
                (Day: Comes(i, today), i.Quantity, Kind: "comes", Words: Said(i, today), Order: (string?)null)
            )
            .Concat(
                position.Waits.Select(w =>
                    (
                        Day: w.Row.Day < today ? today : w.Row.Day,
                        Quantity: -w.Row.Quantity,
                        Kind: "promised",
                        Words: w.Order.Buyer,
                        Order: (string?)w.Order.Number
                    )
                )
            )
            .OrderBy(m => m.Day)
            .ThenByDescending(m => m.Quantity);
        var level = position.OnHand;
        return
        [
            .. moves.Select(m => new OutlookStep(m.Day, m.Quantity, level += m.Quantity, m.Kind, m.Words, m.Order)),
        ];
    }

    private static DateOnly Comes(IncomingRow row, DateOnly today) =>
        today.AddDays(Acts.Sheets.StockFacts.Coming(row.Due, row.Quantity, today).Day);

    private static string Said(IncomingRow row, DateOnly today)
    {
        var reference = row.Reference.Length > 0 ? row.Reference : "comes";
        var slipped = row.FirstDue == default ? 0 : row.Due.DayNumber - row.FirstDue.DayNumber;
        return row.Due < today ? $"{reference}, was due {Day(row.Due)}"
            : slipped > 0 ? $"{reference}, {slipped} day{(slipped == 1 ? "" : "s")} later than first said"
            : reference;
    }

    private static ImmutableArray<WaitView> Waits(PromiseBook book, StockPosition position)
    {
        var unit = UnitTable.OnSheet(Unit.Of(position.Item.StockUnit));
        var rows = position.Waits.ToDictionary(w => w.Row.Id);
        return
        [
            .. position
                .Allotted()
                .Select(a =>
                {
                    var w = rows[a.Wait.Key];
                    return new WaitView(
                        w.Row.Id,
                        w.Row.Day,
                        w.Order.Number,
                        w.Order.Buyer,
                        w.Wanted,
                        w.Promised,
                        a.Wait.Quantity,
                        a.Kept,
                        a.Missing > 0 && a.Last is { } last ? position.Today.AddDays(last) : null,
                        a.ToBeHad,
                        w.Order.Movable ? "" : "being picked or changed: it stays",
                        a.Missing > 0
                            ?
                            [
                                .. position
                                    .ReliefsFor(w.Row.Id, book.Elsewhere(position))
                                    .Where(r => r.Way == ReliefWay.Take ? rows[r.From].Order.Movable : w.Order.Movable)
                                    .Select(r => Said(r, rows, w, position, unit)),
                            ]
                            : []
                    );
                }),
        ];
    }

    private static ReliefView Said(
        Relief relief,
        Dictionary<long, Waiting> rows,
        Waiting w,
        StockPosition position,
        string unit
    )
    {
        var day = position.Today.AddDays(relief.Day);
        var quantity = $"{Number(relief.Quantity)} {unit}".Trim();
        var terms = relief.Way == ReliefWay.Elsewhere ? w.From(relief.Warehouse) : w.Terms;
        var arrives = terms.From(terms.Warehouse.OnOrAfter(day), true).Arrives;
        return relief.Way switch
        {
            ReliefWay.Elsewhere => new(
                relief.Sign,
                $"{quantity} from {relief.Warehouse}",
                w.Promised is { } promised && arrives <= promised
                    ? $"there on {Day(arrives)}, as promised"
                    : $"there on {Day(arrives)}, and tell them",
                w.Promised is { } kept && arrives > kept
            ),
            ReliefWay.Take => new(
                relief.Sign,
                $"{quantity} from {rows[relief.From].Order.Number}, {rows[relief.From].Order.Buyer}",
                relief.Hurts == 0
                    ? $"wanted {Day(rows[relief.From].Wanted ?? rows[relief.From].Promised ?? day)}: nobody is hurt"
                    : $"{relief.Hurts} day{(relief.Hurts == 1 ? "" : "s")} later than they want it, and tell them",
                relief.Hurts > 0
            ),
            _ => new(
                relief.Sign,
                relief.Quantity >= w.Row.Quantity ? $"all of it on {Day(day)}" : $"the rest, {quantity}, on {Day(day)}",
                $"there on {Day(arrives)}, and tell them",
                true
            ),
        };
    }

    // Quotes that are with buyers: what they would take if all were accepted.
    private static async Task<List<OutlookStep>> OfferedAsync(
        SolvendaDb db,
        StockPosition position,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var offered = await (
            from q in db.Quotes
            join l in db.SheetLines on q.SheetId equals l.SheetId
            where q.State == QuoteState.WithCustomer && q.ValidUntil >= today && l.ItemId == position.Item.Id
            select new
            {
                q.Number,
                q.ValidUntil,
                l.Quantity,
                l.Unit,
                q.Dossier.Buyer.Name,
            }
        ).ToListAsync(cancel);
        var factors = await db
            .Items.Where(i => i.Id == position.Item.Id)
            .SelectMany(i => i.SalesUnits)
            .ToDictionaryAsync(u => u.Unit, u => u.Factor, cancel);
        return
        [
            .. offered
                .OrderBy(o => o.ValidUntil)
                .Select(o => new OutlookStep(
                    o.ValidUntil,
                    o.Quantity * factors.GetValueOrDefault(o.Unit, 1m),
                    0,
                    "offered",
                    o.Name,
                    o.Number
                )),
        ];
    }

    private static string Number(decimal value) => value.ToString("#,0.###", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("d MMM", CultureInfo.InvariantCulture);
}
