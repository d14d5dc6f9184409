using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Planning;

/// <summary>Promises all open lines anew, and tells those whose days move.</summary>
public sealed record PromiseAnew : IAct<PromisedAnew>;

/// <summary>What came of it.</summary>
/// <param name="Lines">Commitments that moved.</param>
/// <param name="Told">Buyers who were told.</param>
public sealed record PromisedAnew(int Lines, int Orders, int Told);

[Leaves(typeof(CommitmentMoved), typeof(DatesMoved))]
public sealed class PromiseAnewAct(Renewing renewing) : Act<PromiseAnew, PromisedAnew>
{
    public override Right Needs => Rights.Plan;

    public override async Task<PromisedAnew> RunAsync(Work work, PromiseAnew input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        var book = await PromiseBook.LoadAsync(work.Db, null, work.Today, cancel);
        var moves = AnewMove.In(book, work.Today);
        if (moves.Count == 0)
            return new PromisedAnew(0, 0, 0);
        var keys = moves.ConvertAll(m => m.Waiting.Row.Id);
        var rows = await work
            .Db.Commitments.Where(c => EF.Parameter(keys).Contains(c.Id))
            .ToDictionaryAsync(c => c.Id, cancel);
        foreach (var move in moves)
        {
            var row = rows[move.Waiting.Row.Id];
            var before = row.Day;
            (row.Day, row.Quantity) = move.Parts[0];
            foreach (var (day, quantity) in move.Parts.Skip(1))
                work.Db.Commitments.Add(
                    new CommitmentRow
                    {
                        OrderId = row.OrderId,
                        LineKey = row.LineKey,
                        ItemId = row.ItemId,
                        Warehouse = row.Warehouse,
                        Day = day,
                        Quantity = quantity,
                    }
                );
            var (last, moved) = move.Parts[^1];
            work.Leave(
                new CommitmentMoved(
                    "anew",
                    move.Position.Item.Code,
                    moved,
                    move.Position.Item.StockUnit,
                    row.Warehouse,
                    before,
                    row.Warehouse,
                    last
                ),
                move.Waiting.Order.Number
            );
        }
        await work.Db.SaveChangesAsync(cancel);
        var after = (await PromiseBook.LoadAsync(work.Db, null, work.Today, cancel))
            .Positions.SelectMany(p => p.Waits)
            .ToLookup(w => w.Order.Id);
        var (orders, told) = (moves.GroupBy(m => m.Waiting.Order.Id).ToList(), 0);
        foreach (var order in orders)
        {
            var (number, of) = (
                order.First().Waiting.Order.Number,
                order.Select(m => m.Waiting.Row.LineKey).ToHashSet()
            );
            if (await renewing.RenewAsync(work, number, [.. after[order.Key]], of, cancel) is { ToldTo.Length: > 0 })
                told++;
        }
        return new PromisedAnew(moves.Count, orders.Count, told);
    }
}

/// <summary>A commitment that moves when everything is promised anew.</summary>
/// <param name="Parts">The days on which it is taken then, each with how much.</param>
public sealed record AnewMove(
    StockPosition Position,
    Waiting Waiting,
    IReadOnlyList<(DateOnly Day, decimal Quantity)> Parts
)
{
    /// <summary>When the last of it is there then.</summary>
    public DateOnly Arrives => Waiting.Terms.From(Parts[^1].Day, true).Arrives;

    /// <summary>All of them; nothing is changed.</summary>
    public static List<AnewMove> In(PromiseBook book, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(book);
        return
        [
            .. book
                .Positions.OrderBy(p => p.Item.Code, StringComparer.Ordinal)
                .ThenBy(p => p.Warehouse, StringComparer.Ordinal)
                .SelectMany(p =>
                    p.Anew()
                        .Select(a =>
                        {
                            var waiting = p.Waits.First(w => w.Row.Id == a.Wait.Key);
                            return new AnewMove(
                                p,
                                waiting,
                                [
                                    .. a.Parts.Select(t =>
                                        (waiting.Terms.Warehouse.OnOrAfter(today.AddDays(t.Day!.Value)), t.Quantity)
                                    ),
                                ]
                            );
                        })
                        // What comes on a Sunday is taken on the Monday, as before.
                        .Where(m => m.Parts.Count > 1 || m.Parts[0].Day != m.Waiting.Row.Day)
                ),
        ];
    }
}
