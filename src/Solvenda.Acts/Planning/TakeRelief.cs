using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Promising;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Planning;

/// <summary>Does for a promise that cannot be kept what was offered.</summary>
/// <param name="Sign">Which of what was offered (<see cref="Relief.Sign"/>).</param>
public sealed record TakeRelief(long Commitment, string Sign) : IAct<int>;

[Leaves(typeof(CommitmentMoved), typeof(DatesMoved))]
public sealed class TakeReliefAct(Renewing renewing) : Act<TakeRelief, int>
{
    public override Right Needs => Rights.Plan;

    /// <returns>How many buyers were told another day.</returns>
    public override async Task<int> RunAsync(Work work, TakeRelief input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Commitments.FirstOrDefaultAsync(c => c.Id == input.Commitment, cancel)
            ?? throw RefusedException.NotFound("such commitment any more");
        var book = await PromiseBook.LoadAsync(work.Db, [row.ItemId], work.Today, cancel);
        var position = book.Find(row.ItemId, row.Warehouse)!;
        var relief =
            position.ReliefsFor(row.Id, book.Elsewhere(position)).FirstOrDefault(r => r.Sign == input.Sign)
            ?? throw RefusedException.Clash(
                "relief_gone",
                $"The stock of {position.Item.Code} is not what it was; that cannot be done any more. Nothing was moved."
            );
        var from = relief.Way == ReliefWay.Take ? relief.From : row.Id;
        var gives = position.Waits.First(w => w.Row.Id == from);
        if (!gives.Order.Movable)
            throw RefusedException.Clash(
                "order_state",
                $"{gives.Order.Number} is being changed or picked; nothing of it moves."
            );
        var terms = relief.Way == ReliefWay.Elsewhere ? gives.From(relief.Warehouse) : gives.Terms;
        var day = terms.Warehouse.OnOrAfter(work.Today.AddDays(relief.Day));
        await MoveAsync(work, from, relief, day, cancel);
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(
            new CommitmentMoved(
                relief.Way.ToString().ToLowerInvariant(),
                position.Item.Code,
                relief.Quantity,
                position.Item.StockUnit,
                row.Warehouse,
                gives.Row.Day,
                relief.Way == ReliefWay.Elsewhere ? relief.Warehouse : row.Warehouse,
                day
            ),
            gives.Order.Number
        );
        var after = await PromiseBook.LoadAsync(work.Db, [row.ItemId], work.Today, cancel);
        var told = 0;
        foreach (var order in new[] { gives.Order, position.Waits.First(w => w.Row.Id == row.Id).Order }.Distinct())
        {
            var waits = after.Positions.SelectMany(p => p.Waits).Where(w => w.Order.Id == order.Id).ToList();
            // Whoever takes from another is there as promised.
            IReadOnlySet<long> of =
                order.Id == gives.Order.Id ? new HashSet<long> { gives.Row.LineKey } : ImmutableHashSet<long>.Empty;
            if (await renewing.RenewAsync(work, order.Number, waits, of, cancel) is { ToldTo.Length: > 0 })
                told++;
        }
        return told;
    }

    // What moves becomes a commitment of its own; all of it, and it is the same one on another day.
    private static async Task MoveAsync(Work work, long key, Relief relief, DateOnly day, CancellationToken cancel)
    {
        var row = await work.Db.Commitments.FirstAsync(c => c.Id == key, cancel);
        var warehouse = relief.Way == ReliefWay.Elsewhere ? relief.Warehouse : row.Warehouse;
        if (relief.Quantity >= row.Quantity)
        {
            (row.Warehouse, row.Day) = (warehouse, day);
            return;
        }
        row.Quantity -= relief.Quantity;
        work.Db.Commitments.Add(
            new CommitmentRow
            {
                OrderId = row.OrderId,
                LineKey = row.LineKey,
                ItemId = row.ItemId,
                Warehouse = warehouse,
                Day = day,
                Quantity = relief.Quantity,
            }
        );
    }
}
