using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
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

/// <summary>One price before and after.</summary>
public sealed record MovedPrice(string Item, string Words, string Unit, string Currency, decimal Before, decimal After);

/// <summary>A buyer that bought the family in the last twelve months.</summary>
/// <param name="Feels">How it reaches them: by the list, by an agreement that follows it; or not, by a fixed price.</param>
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
        var prices = app.MapGroup("/api/prices").WithTags("Prices").RequireAuthorization(May.Look);
        prices.MapGet("/question", Question);
        prices.MapPost("/rise/preview", Preview);
        prices.MapPost("/rise", Rise);
    }

    /// <summary>What would this buyer pay for this item on that day at that quantity?</summary>
    /// <param name="buyer">Code or name.</param>
    /// <param name="unit">Without it the stock unit.</param>
    private static async Task<PriceAnswer> Question(
        string buyer,
        string item,
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
            ?? throw RefusalException.Bad("buyer_unknown", $"We have no buyer “{buyer}”.", "buyer");
        var book = await books.BookAsync(db, cancel);
        var finder = await books.ItemsAsync(db, cancel);
        var found =
            finder.ByCode(item) ?? throw RefusalException.Bad("item_unknown", $"We have no item “{item}”.", "item");
        var of = unit is { Length: > 0 } word
            ? UnitTable.FromCode(word)
                ?? UnitTable.FromWord(word)
                ?? throw RefusalException.Bad("unit", $"“{word}” is not a unit that we know.", "unit")
            : found.StockUnit;
        if (quantity is <= 0 or > 10_000_000m)
            throw RefusalException.Bad("number", "A quantity is above 0 and at most 10 million.", "quantity");
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
            cost,
            BasePrice.Floor(book, rates, At(quantity), build.PriceBase, cost),
            build.Base is { Value: > 0 } net && cost is { } c
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
        var (moved, left) = await MovedAsync(db, body, clock.Today, cancel);
        return new RisePreview([.. moved.Select(m => m.View)], await AffectedAsync(db, body, clock, cancel), left);
    }

    private static async Task<RiseDone> Rise(
        PriceRise body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        Records.RecordEndpoints.Changeable("prices", user);
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var (moved, _) = await MovedAsync(work.Db, body, work.Today, cancel);
                if (moved.Count == 0)
                    throw RefusalException.Bad(
                        "nothing_moves",
                        "No price of this list and family holds on that day; nothing was changed.",
                        "family"
                    );
                foreach (var (row, view) in moved)
                {
                    work.Db.ListPrices.Add(
                        new ListPriceRow
                        {
                            List = row.List,
                            ItemId = row.ItemId,
                            Unit = row.Unit,
                            Currency = row.Currency,
                            PriceBase = row.PriceBase,
                            Price = view.After,
                            From = body.From,
                            To = row.To,
                        }
                    );
                    work.History(
                        $"prices:{row.Id}",
                        null,
                        "record.changed",
                        "to",
                        row.To?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture) ?? "",
                        body.From.AddDays(-1).ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
                    );
                    (row.To, row.Version) = (body.From.AddDays(-1), row.Version + 1);
                }
                work.History(
                    $"families:{body.Family}",
                    null,
                    "prices.risen",
                    string.Create(
                        System.Globalization.CultureInfo.InvariantCulture,
                        $"{moved.Count} prices of {body.Family} by {body.Percent:0.##} % from {body.From:yyyy-MM-dd}"
                    )
                );
                return new RiseDone(moved.Count);
            },
            cancel
        );
    }

    // Prices that hold the day before and have not yet one of their own from then on; what has is left and named.
    private static async Task<(List<(ListPriceRow Row, MovedPrice View)> Moved, List<string> Left)> MovedAsync(
        SolvendaDb db,
        PriceRise body,
        DateOnly today,
        CancellationToken cancel
    )
    {
        if (body.From <= today)
            throw RefusalException.Bad(
                "date",
                "A rise begins tomorrow at the earliest: what holds today was told to buyers.",
                "from"
            );
        if (body.Percent is <= -100 or > 1000 or 0 || body.Decimals is not (2 or 4))
            throw RefusalException.Bad(
                "number",
                "A rise is between −100 and 1,000 %, and not nothing; prices are rounded to 2 or 4 decimals.",
                "percent"
            );
        var rows = await (
            from p in db.ListPrices
            join i in db.Items on p.ItemId equals i.Id
            where
                p.List == body.List
                && i.Family == body.Family
                && p.Active
                && i.Active
                && (p.To == null || p.To >= body.From)
            orderby i.Code, p.Unit, p.From
            select new
            {
                Row = p,
                i.Code,
                i.Words,
            }
        ).ToListAsync(cancel);
        var moved = new List<(ListPriceRow, MovedPrice)>();
        var left = new List<string>();
        foreach (var same in rows.GroupBy(r => (r.Row.ItemId, r.Row.Unit, r.Row.Currency)))
        {
            if (same.FirstOrDefault(r => r.Row.From >= body.From) is { } later)
                left.Add(
                    string.Create(
                        System.Globalization.CultureInfo.InvariantCulture,
                        $"{later.Code} by {later.Row.Unit}: it has a price of its own from {later.Row.From:yyyy-MM-dd}"
                    )
                );
            else if (same.MaxBy(r => r.Row.From) is { } now)
                moved.Add(
                    (
                        now.Row,
                        new MovedPrice(
                            now.Code,
                            now.Words,
                            now.Row.Unit,
                            now.Row.Currency,
                            now.Row.Price,
                            decimal.Round(
                                now.Row.Price * (1 + (body.Percent / 100m)),
                                body.Decimals,
                                MidpointRounding.AwayFromZero
                            )
                        )
                    )
                );
        }
        return (moved, left);
    }

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
            join o in db.Orders on l.SheetId equals o.SheetId
            join i in db.Items on l.ItemId equals i.Id
            where i.Family == body.Family && o.CreatedAt >= since && o.Terms == TermsTrack.Confirmed
            select new
            {
                o.Dossier.BuyerId,
                o.Dossier.Buyer.Name,
                o.Dossier.Buyer.Group,
                o.Dossier.Buyer.Currency,
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
                    var feels =
                        theirs.Count == 0 ? "by the list"
                        : theirs.All(a => a.Kind == RuleKind.Fixed)
                            ? $"not where the price is fixed ({string.Join(", ", theirs.Select(a => a.Code))}); else by the list"
                        : $"by {string.Join(", ", theirs.Where(a => a.Kind != RuleKind.Fixed).Select(a => a.Code))}, which follows the list";
                    return new AffectedBuyer(
                        g.Key.BuyerId,
                        g.Key.Name,
                        Quotes.QuoteEndpoints.Major(g.Sum(b => b.NetMinor), g.Key.Currency),
                        g.Key.Currency,
                        feels
                    );
                })
                .OrderByDescending(b => b.Bought)
                .Take(100),
        ];
    }
}
