using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;

namespace Solvenda.Web.Items;

/// <summary>An item's stock in one warehouse, in stock units: what is there, what is promised, what comes.</summary>
public sealed record WarehouseView(string Warehouse, decimal OnHand, decimal Committed, decimal Incoming, decimal Free);

/// <summary>Something that changes the stock ahead: an arrival, or a promise to a buyer.</summary>
public sealed record StockAhead(DateOnly Day, string Warehouse, decimal Quantity, string Words, string? Order);

/// <summary>What was sold in a month, in stock units.</summary>
public sealed record SoldMonth(DateOnly Month, decimal Quantity);

/// <summary>A price of a list, and an agreement on the item itself.</summary>
public sealed record ItemPrice(
    string Words,
    string Unit,
    decimal Price,
    string Currency,
    decimal PriceBase,
    DateOnly From,
    DateOnly? To
);

/// <summary>What an item's page answers on the telephone.</summary>
public sealed record ItemAnswersView(
    string UnitWord,
    bool Stocked,
    IReadOnlyList<WarehouseView> Stock,
    IReadOnlyList<StockAhead> Ahead,
    IReadOnlyList<SoldMonth> Months,
    IReadOnlyList<SoldBefore> Sales,
    IReadOnlyList<ItemPrice> Prices,
    decimal? Cost,
    IReadOnlyList<string> PartOf
);

public static class ItemEndpoints
{
    private const int Months = 12;

    public static void MapItems(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        app.MapGet("/api/items/{id:long}/answers", Answers).WithTags("Items").Needs(Rights.Look);
        app.MapGet("/api/warehouses", Warehouses).WithTags("Items").Needs(Rights.Look);
    }

    /// <summary>Where goods leave from.</summary>
    private static Task<List<string>> Warehouses(SolvendaDb db, CancellationToken cancel) =>
        HouseDays.WarehouseNamesAsync(db, cancel);

    private static async Task<ItemAnswersView> Answers(
        long id,
        System.Security.Claims.ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var item =
            await db.Items.AsNoTracking().Include(i => i.SalesUnits).FirstOrDefaultAsync(i => i.Id == id, cancel)
            ?? throw RefusedException.NotFound("such item");
        var (stock, ahead) = await ItemStock.OfAsync(db, id, clock.Today, cancel);
        return new ItemAnswersView(
            UnitTable.OnSheet(Unit.Of(item.StockUnit)),
            item.Stocked,
            stock,
            ahead,
            await MonthsAsync(db, item, clock.Today, cancel),
            await PastSales.OfAsync(db, id, 0, 0, 12, cancel),
            await PricesAsync(db, id, cancel),
            user.ActorOf().SeesCost ? await CostAsync(db, id, clock.Today, cancel) : null,
            await PartOfAsync(db, item.Code, cancel)
        );
    }

    private static async Task<List<SoldMonth>> MonthsAsync(
        SolvendaDb db,
        ItemRow item,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var start = new DateOnly(today.Year, today.Month, 1).AddMonths(1 - Months);
        var since = start.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        var sold = await (
            from l in db.SheetLines
            join o in db.Orders.Sold() on l.SheetId equals o.SheetId
            where l.ItemId == item.Id && o.CreatedAt >= since
            select new
            {
                l.Quantity,
                l.Unit,
                o.CreatedAt,
            }
        ).ToListAsync(cancel);
        decimal Factor(string unit) => item.SalesUnits.FirstOrDefault(u => u.Unit == unit)?.Factor ?? 1m;
        var byMonth = sold.ToLookup(
            s => new DateOnly(s.CreatedAt.Year, s.CreatedAt.Month, 1),
            s => s.Quantity * Factor(s.Unit)
        );
        return
        [
            .. Enumerable
                .Range(0, Months)
                .Select(m => start.AddMonths(m))
                .Select(m => new SoldMonth(m, byMonth[m].Sum())),
        ];
    }

    private static Task<List<ItemPrice>> PricesAsync(SolvendaDb db, long id, CancellationToken cancel) =>
        db
            .ListPrices.AsNoTracking()
            .Where(p => p.ItemId == id && p.Active)
            .OrderBy(p => p.List)
            .ThenBy(p => p.Unit)
            .ThenBy(p => p.From)
            .Select(p => new ItemPrice(p.List, p.Unit, p.Price, p.Currency, p.PriceBase, p.From, p.To))
            .ToListAsync(cancel);

    private static Task<decimal?> CostAsync(SolvendaDb db, long id, DateOnly today, CancellationToken cancel) =>
        db
            .Costs.Where(c => c.ItemId == id && c.From <= today)
            .OrderByDescending(c => c.From)
            .Select(c => (decimal?)c.Cost)
            .FirstOrDefaultAsync(cancel);

    private static async Task<IReadOnlyList<string>> PartOfAsync(SolvendaDb db, string code, CancellationToken cancel)
    {
        var bundles = await db
            .Items.Where(i => EF.Functions.Like(i.Parts, $"%{code}%"))
            .Select(i => new { i.Code, i.Parts })
            .ToListAsync(cancel);
        return [.. bundles.Where(b => PartsText.Parse(b.Parts).Any(p => p.Code == code)).Select(b => b.Code)];
    }
}
