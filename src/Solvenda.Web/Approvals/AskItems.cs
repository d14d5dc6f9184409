using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;

namespace Solvenda.Web.Approvals;

/// <summary>
/// What is known of the items of lines that are asked about: what they sold for, stock, what we paid.
/// </summary>
public static class AskItems
{
    private const int MostDots = 60;
    private const int Years = 2;
    private const int StockDays = 180;

    public static async Task<AskItem> OfAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedLine line,
        DateTime now,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(line);
        // What is not in the catalogue has neither stock nor a past.
        var item = line.Item;
        return new AskItem(
            line.Line.Key,
            item?.Code ?? "not in the catalogue",
            line.Line.Words,
            Per(line),
            line.Figures.NetPrice,
            line.Terms.Base,
            line.Floor,
            item is null ? [] : await SalesAsync(db, open, line, now, cancel),
            item is { Stocked: true } ? await StockAsync(db, item, now, cancel) : "",
            item is null ? "" : await PaidAsync(db, open, item, cancel)
        );
    }

    /// <summary>What a price is for, as it is said.</summary>
    public static string Per(PricedLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        var unit = UnitTable.OnSheet(line.Line.Unit);
        if (line.Terms.PriceBase != 1m)
            return string.Create(CultureInfo.InvariantCulture, $"per {line.Terms.PriceBase:0.##} {unit}").Trim();
        return unit switch
        {
            "" => "each",
            "m" => "a metre",
            _ => $"a {unit}",
        };
    }

    // Only what can be compared: sold in the same unit and the same currency.
    private static async Task<List<SaleDot>> SalesAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedLine line,
        DateTime now,
        CancellationToken cancel
    )
    {
        var since = now.AddYears(-Years);
        var (id, unit, currency) = (line.Item!.Id.Value, line.Line.Unit.Code, open.Sheet.Currency);
        var sold = await (
            from l in db.SheetLines
            join o in db.Orders.Sold() on l.SheetId equals o.SheetId
            where
                l.ItemId == id
                && l.NetPrice != null
                && l.Unit == unit
                && o.Sheet.Currency == currency
                && o.CreatedAt >= since
            orderby o.CreatedAt descending
            select new
            {
                o.CreatedAt,
                o.Dossier.BuyerId,
                o.Dossier.Buyer.Name,
                o.Number,
                l.Quantity,
                l.NetPrice,
            }
        )
            .Take(MostDots)
            .ToListAsync(cancel);
        sold.Reverse();
        return sold.ConvertAll(s => new SaleDot(
            DateOnly.FromDateTime(s.CreatedAt),
            s.Name,
            s.BuyerId == open.Buyer.Id,
            Quantity(s.Quantity, line.Line.Unit),
            s.NetPrice!.Value,
            s.Number
        ));
    }

    private static async Task<string> StockAsync(SolvendaDb db, Item item, DateTime now, CancellationToken cancel)
    {
        var id = item.Id.Value;
        var onHand = (await db.Stock.Where(s => s.ItemId == id).Select(s => s.OnHand).ToListAsync(cancel)).Sum();
        var since = now.AddDays(-StockDays);
        var sold = await (
            from l in db.SheetLines
            join o in db.Orders.Sold() on l.SheetId equals o.SheetId
            where l.ItemId == id && o.CreatedAt >= since
            select new { l.Quantity, l.Unit }
        ).ToListAsync(cancel);
        var perMonth = sold.Sum(s => s.Quantity * item.Factor(Unit.Of(s.Unit))) / (StockDays / 30m);
        var words = Quantity(onHand, item.StockUnit);
        return (perMonth, onHand) switch
        {
            (_, <= 0) => "none",
            (> 0, _) when onHand / perMonth is var months => string.Create(
                CultureInfo.InvariantCulture,
                $"{words}, enough for {(months < 1.5m ? "a month" : $"{months:0} months")}"
            ),
            _ => $"{words}, none sold in half a year",
        };
    }

    private static async Task<string> PaidAsync(SolvendaDb db, OpenSheet open, Item item, CancellationToken cancel)
    {
        var (id, day) = (item.Id.Value, open.Sheet.PricingDate);
        var paid = await db
            .Costs.Where(c => c.ItemId == id && c.Active && c.From <= day)
            .OrderByDescending(c => c.From)
            .Select(c => new { c.From, c.Cost })
            .FirstOrDefaultAsync(cancel);
        return paid is null
            ? ""
            : string.Create(
                CultureInfo.InvariantCulture,
                $"{paid.Cost:0.0000} {open.Book.Home.Code} a {PieceOf(item)}, since {paid.From:d MMM yyyy}"
            );
    }

    private static string PieceOf(Item item) =>
        UnitTable.OnSheet(item.StockUnit) is { Length: > 0 } unit ? unit : "piece";

    private static string Quantity(decimal quantity, Unit unit) =>
        string.Create(CultureInfo.InvariantCulture, $"{quantity:#,0.##} {UnitTable.OnSheet(unit)}").Trim();
}
