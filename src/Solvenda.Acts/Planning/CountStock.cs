using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Planning;

/// <summary>Says what was counted of an item in a warehouse.</summary>
/// <param name="Quantity">In stock units; 0 or more.</param>
/// <param name="Seen">What was thought to be there; another by now is refused.</param>
public sealed record CountStock(string Item, string Warehouse, decimal Quantity, decimal Seen, string Reason)
    : IAct<decimal>;

[Leaves(typeof(StockCounted))]
public sealed class CountStockAct : Act<CountStock, decimal>
{
    public override Right Needs => Rights.Plan;

    public override async Task<decimal> RunAsync(Work work, CountStock input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var item = await StockSteps.ItemAsync(work, input.Item, cancel);
        var warehouse = await StockSteps.WarehouseAsync(work, input.Warehouse, cancel);
        if (input.Quantity is < 0 or > StockSteps.Most)
            throw RefusedException.Bad("quantity", "What was counted is 0 or more.", "quantity");
        var reason = OrderSteps.Reason(input.Reason, "Say why it was counted");
        var before = await work
            .Db.Stock.Where(s => s.ItemId == item.Id && s.Warehouse == warehouse)
            .Select(s => s.OnHand)
            .FirstOrDefaultAsync(cancel);
        if (before != input.Seen)
            throw RefusedException.Clash(
                "stale",
                FormattableString.Invariant(
                    $"There are {before:#,0.######} by now, not {input.Seen:#,0.######}; what you counted was not kept."
                )
            );
        var after = await StockSteps.MoveAsync(
            work,
            new StockMovementRow
            {
                ItemId = item.Id,
                Warehouse = warehouse,
                Day = work.Today,
                Quantity = input.Quantity - before,
                Kind = MovementKind.Counted,
            },
            cancel
        );
        work.Leave(
            new StockCounted(item.Code, warehouse, before, after),
            Work.SubjectOf("items", item.Id),
            why: reason
        );
        return after;
    }
}
