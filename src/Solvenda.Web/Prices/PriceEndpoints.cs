using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Prices;

/// <summary>From a quantity on, the price of a unit.</summary>
public sealed record PricePoint(decimal From, decimal Price);

/// <summary>What a buyer would pay, and why.</summary>
/// <param name="Breaks">The prices from quantity to quantity, in the unit asked for.</param>
public sealed record PriceAnswer(
    string Buyer,
    string Item,
    string Words,
    string Currency,
    decimal Quantity,
    string Unit,
    string UnitWord,
    DateOnly Day,
    decimal? Price,
    decimal PriceBase,
    decimal? Total,
    decimal? Cost,
    decimal? Floor,
    decimal? MarginPercent,
    PriceGap Gap,
    string Says,
    IReadOnlyList<StepView> Build,
    IReadOnlyList<PricePoint> Breaks
);

/// <summary>A rise of a family's list prices.</summary>
/// <param name="Percent">Negative for a cut.</param>
/// <param name="Decimals">What the new prices are rounded to, 2 or 4.</param>
public sealed record PriceRise(string Family, string List, decimal Percent, DateOnly From, int Decimals = 2);

/// <summary>A buyer that bought the family in the last twelve months.</summary>
/// <param name="Feels">How it reaches them: by the list, by an agreement that follows it; or not, by a fixed
/// price.</param>
public sealed record AffectedBuyer(long Id, string Name, decimal Bought, string Currency, string Feels);

/// <summary>What a rise moves, and who is affected.</summary>
public sealed record RisePreview(
    IReadOnlyList<MovedPrice> Moved,
    IReadOnlyList<AffectedBuyer> Buyers,
    IReadOnlyList<string> Left
);

public sealed record RiseDone(int Moved);

public static class PriceEndpoints
{
    public static void MapPrices(this IEndpointRouteBuilder app)
    {
        var prices = app.MapGroup("/api/prices").WithTags("Prices").Needs(Rights.Look);
        prices.MapGet("/question", Question);
        prices.MapPost("/rise/preview", Preview);
        prices.MapPost("/rise", Rise).Needs<RaisePrices>();
    }

    /// <summary>What would this buyer pay for this item on that day at that quantity?</summary>
    /// <param name="buyer">Code or name.</param>
    /// <param name="unit">Without it the stock unit.</param>
    private static async Task<PriceAnswer> Question(
        string buyer,
        string item,
        ClaimsPrincipal user,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel,
        decimal quantity = 1m,
        string? unit = null,
        DateOnly? day = null,
        string? channel = null
    )
    {
        var row =
            await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Code == buyer || b.Name == buyer, cancel)
            ?? throw RefusedException.Bad("buyer_unknown", $"We have no buyer “{buyer}”.", "buyer");
        var book = await books.BookAsync(db, cancel);
        var finder = await books.ItemsAsync(db, cancel);
        var found =
            finder.ByCode(item) ?? throw RefusedException.Bad("item_unknown", $"We have no item “{item}”.", "item");
        var of = unit is { Length: > 0 } word
            ? UnitTable.FromCode(word)
                ?? UnitTable.FromWord(word)
                ?? throw RefusedException.Bad("unit", $"“{word}” is not a unit that we know.", "unit")
            : found.StockUnit;
        if (quantity is <= 0 or > 10_000_000m)
            throw RefusedException.Bad("number", "A quantity is above 0 and at most 10 million.", "quantity");
        var sees = user.ActorOf().SeesCost;
        var on = day ?? clock.Today;
        var rates = Rates.On(on, book.Home, book.DatedRates);
        var who = row.ToBuyer();
        var currency = Currency.Of(row.Currency);
        PriceQuestion At(decimal many) => new(found, many, of, who, currency, on, channel);
        var build = BasePrice.Find(book, rates, At(quantity));
        var cost = BasePrice.Cost(book, rates, At(quantity), build.PriceBase);
        var total = build.Base is { } b ? Amount.Round(quantity * b.Value / build.PriceBase, currency) : (Amount?)null;
        return new PriceAnswer(
            row.Name,
            found.Code,
            found.Words,
            currency.Code,
            quantity,
            of.Code,
            UnitTable.OnSheet(of),
            on,
            build.Base?.Value,
            build.PriceBase,
            total?.Value,
            sees ? cost : null,
            sees ? BasePrice.Floor(book, rates, At(quantity), build.PriceBase, cost) : null,
            sees && build.Base is { Value: > 0 } net && cost is { } c
                ? decimal.Round((net.Value - c) * 100m / net.Value, 2, MidpointRounding.AwayFromZero)
                : null,
            build.Gap,
            Says(build.Gap, found, of, currency, on),
            [.. build.Steps.Select(s => new StepView(s.Kind, s.Words, s.Rule, s.From, s.To, s.Price))],
            Breaks(book, who, found, of, on, many => BasePrice.Find(book, rates, At(many)).Base?.Value)
        );
    }

    private static string Says(PriceGap gap, Core.Catalogue.Item item, Unit unit, Currency currency, DateOnly day) =>
        gap switch
        {
            PriceGap.NoListPrice => $"No price list has {item.Code} on {day:d MMMM yyyy}: put one in under Prices.",
            PriceGap.NoRate =>
                $"There is no exchange rate to {currency.Code} on or before {day:d MMMM yyyy}: put one in under Exchange rates.",
            PriceGap.NoUnit => $"{item.Code} is not sold by {unit.Code}: put it in under its sales units.",
            _ => "",
        };

    private static List<PricePoint> Breaks(
        PriceBook book,
        Core.Buyers.Buyer buyer,
        Core.Catalogue.Item item,
        Unit unit,
        DateOnly day,
        Func<decimal, decimal?> at
    )
    {
        if (item.Factor(unit) is not { } factor)
            return [];
        var points = new List<PricePoint>();
        foreach (
            var from in book.AgreementsFor(buyer, item)
                .Where(a => a.HoldsOn(day))
                .SelectMany(a => a.Breaks)
                .Select(b => b.From)
                .Append(0m)
                .Distinct()
                .Order()
        )
        {
            var quantity = Math.Max(from / factor, 0.000001m);
            if (at(quantity) is { } price && (points.Count == 0 || points[^1].Price != price))
                points.Add(new PricePoint(decimal.Round(from / factor, 6), price));
        }
        return points;
    }

    private static async Task<RisePreview> Preview(
        PriceRise body,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var (moved, left) = await RaisePricesAct.MovedAsync(db, ActOf(body), clock.Today, cancel);
        return new RisePreview([.. moved.Select(m => m.View)], await AffectedAsync(db, body, clock, cancel), left);
    }

    private static async Task<RiseDone> Rise(
        PriceRise body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => new(await acts.RunAsync(user.ActorOf(), ActOf(body), cancel));

    private static RaisePrices ActOf(PriceRise body) =>
        new(body.Family, body.List, body.Percent, body.From, body.Decimals);

    private static async Task<List<AffectedBuyer>> AffectedAsync(
        SolvendaDb db,
        PriceRise body,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var since = clock.UtcNow.AddYears(-1);
        var bought = await (
            from l in db.SheetLines
            join o in db.Orders.Sold() on l.SheetId equals o.SheetId
            join i in db.Items on l.ItemId equals i.Id
            where i.Family == body.Family && o.CreatedAt >= since
            select new
            {
                o.Dossier.BuyerId,
                o.Dossier.Buyer.Name,
                o.Dossier.Buyer.Group,
                o.Sheet.Currency,
                l.NetMinor,
            }
        ).ToListAsync(cancel);
        var agreements = await db
            .Agreements.AsNoTracking()
            .Where(a =>
                a.Active
                && a.From <= body.From
                && (a.To == null || a.To >= body.From)
                && (
                    a.Family == body.Family
                    || a.Scope == RuleScope.All
                    || db.Items.Any(i => i.Id == a.ItemId && i.Family == body.Family)
                )
            )
            .ToListAsync(cancel);
        return
        [
            .. bought
                .GroupBy(b => (b.BuyerId, b.Name, b.Group, b.Currency))
                .Select(g =>
                {
                    var theirs = agreements
                        .Where(a => a.BuyerId == g.Key.BuyerId || (a.Group is not null && a.Group == g.Key.Group))
                        .ToList();
                    return new AffectedBuyer(
                        g.Key.BuyerId,
                        g.Key.Name,
                        Amount.Major(g.Sum(b => b.NetMinor), g.Key.Currency),
                        g.Key.Currency,
                        Feels(theirs)
                    );
                })
                .OrderByDescending(b => b.Bought)
                .Take(100),
        ];
    }

    private static string Feels(List<AgreementRow> theirs)
    {
        if (theirs.Count == 0)
            return "by the list";
        static string Codes(IEnumerable<AgreementRow> rows) => string.Join(", ", rows.Select(a => a.Code));
        return theirs.All(a => a.Kind == RuleKind.Fixed)
            ? $"not where the price is fixed ({Codes(theirs)}); else by the list"
            : $"by {Codes(theirs.Where(a => a.Kind != RuleKind.Fixed))}, which follows the list";
    }
}
