using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Quoting;
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
    public static void MapItems(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        app.MapGet("/api/items/{id:long}/answers", Answers).WithTags("Items").Needs(Rights.Look);
        app.MapGet("/api/warehouses", Warehouses).WithTags("Items").Needs(Rights.Look);
    }

    /// <summary>Where stock lies.</summary>
    private static Task<List<string>> Warehouses(SolvendaDb db, CancellationToken cancel) =>
        db.Stock.Select(s => s.Warehouse).Distinct().OrderBy(w => w).ToListAsync(cancel);

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
        var today = clock.Today;
        var onHand = await db
            .Stock.Where(s => s.ItemId == id)
            .Select(s => new { s.Warehouse, s.OnHand })
            .ToListAsync(cancel);
        var incoming = await db
            .Incoming.Where(s => s.ItemId == id)
            .OrderBy(s => s.Due)
            .Select(s => new
            {
                s.Warehouse,
                s.Due,
                s.Quantity,
            })
            .ToListAsync(cancel);
        var committed = await (
            from c in db.Commitments
            join o in db.Orders on c.OrderId equals o.Id
            where c.ItemId == id
            orderby c.Day
            select new
            {
                c.Warehouse,
                c.Day,
                c.Quantity,
                o.Number,
                o.Dossier.Buyer.Name,
            }
        ).ToListAsync(cancel);
        var start = new DateOnly(today.Year, today.Month, 1).AddMonths(-11);
        var since = start.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        var sold = await (
            from l in db.SheetLines
            join o in db.Orders on l.SheetId equals o.SheetId
            where l.ItemId == id && o.CreatedAt >= since && o.Terms == TermsTrack.Confirmed
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
        var prices = await db
            .ListPrices.AsNoTracking()
            .Where(p => p.ItemId == id && p.Active)
            .OrderBy(p => p.List)
            .ThenBy(p => p.Unit)
            .ThenBy(p => p.From)
            .Select(p => new ItemPrice(p.List, p.Unit, p.Price, p.Currency, p.PriceBase, p.From, p.To))
            .ToListAsync(cancel);
        var partOf = await db
            .Items.Where(i => EF.Functions.Like(i.Parts, $"%{item.Code}%"))
            .Select(i => new { i.Code, i.Parts })
            .ToListAsync(cancel);
        return new ItemAnswersView(
            UnitTable.OnSheet(Unit.Of(item.StockUnit)),
            [
                .. onHand.Select(s =>
                {
                    var promised = committed.Where(c => c.Warehouse == s.Warehouse).Sum(c => c.Quantity);
                    return new WarehouseView(
                        s.Warehouse,
                        s.OnHand,
                        promised,
                        incoming.Where(i => i.Warehouse == s.Warehouse).Sum(i => i.Quantity),
                        Math.Max(0m, s.OnHand - promised)
                    );
                }),
            ],
            [
                .. incoming
                    .Select(i => new StockAhead(i.Due, i.Warehouse, i.Quantity, "arrives", null))
                    .Concat(committed.Select(c => new StockAhead(c.Day, c.Warehouse, -c.Quantity, c.Name, c.Number)))
                    .OrderBy(a => a.Day)
                    .Take(40),
            ],
            [
                .. Enumerable
                    .Range(0, 12)
                    .Select(m => start.AddMonths(m))
                    .Select(m => new SoldMonth(m, byMonth[m].Sum())),
            ],
            await PastSales.OfAsync(db, id, 0, 0, 12, cancel),
            prices,
            !user.ActorOf().SeesCost
                ? null
                : await db
                    .Costs.Where(c => c.ItemId == id && c.From <= today)
                    .OrderByDescending(c => c.From)
                    .Select(c => (decimal?)c.Cost)
                    .FirstOrDefaultAsync(cancel),
            [.. partOf.Where(p => PartsText.Parse(p.Parts).Any(x => x.Code == item.Code)).Select(p => p.Code)]
        );
    }
}
