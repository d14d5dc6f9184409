using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Records;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Credit;
using Solvenda.Web.Security;

namespace Solvenda.Web.Buyers;

/// <summary>A document that is open.</summary>
public sealed record OpenDocument(
    string Kind,
    string Number,
    string Matter,
    string Words,
    DateOnly Day,
    string Currency,
    decimal Total
);

/// <summary>What was bought of an item over two years: in stock units, and its net.</summary>
public sealed record BoughtItem(
    string Code,
    string Words,
    decimal Quantity,
    string UnitWord,
    decimal Net,
    DateOnly Last,
    decimal? LastPrice
);

/// <summary>What was bought in a month, without tax.</summary>
public sealed record BoughtMonth(DateOnly Month, decimal Net);

/// <summary>An agreement that holds for the buyer, or for its group.</summary>
public sealed record HeldAgreement(
    long Id,
    string Code,
    string Words,
    bool OfGroup,
    string Covers,
    string Breaks,
    DateOnly From,
    DateOnly? To,
    bool EndsSoon
);

/// <summary>What a buyer's page answers on the telephone. Money is in the buyer's currency.</summary>
/// <param name="AtRates">At which rates what was bought in other currencies was carried over; empty where nothing
/// was.</param>
public sealed record BuyerAnswersView(
    string Currency,
    CreditView Credit,
    decimal ThisYear,
    decimal LastYear,
    string AtRates,
    IReadOnlyList<OpenDocument> Open,
    IReadOnlyList<BoughtMonth> Months,
    IReadOnlyList<BoughtItem> Items,
    IReadOnlyList<HeldAgreement> Agreements,
    IReadOnlyList<NotedTalk> Talks
);

public sealed record NewTalk(string Words);

public static class BuyerEndpoints
{
    private const int SoonDays = 60;

    public static void MapBuyers(this IEndpointRouteBuilder app)
    {
        var buyers = app.MapGroup("/api/buyers/{id:long}").WithTags("Buyers");
        buyers.MapGet("/answers", Answers).Needs(Rights.Look);
        buyers.MapPost("/talks", Talk).Needs<NoteTalk>();
        buyers.MapPost("/orders", Begin).Needs<BeginOrder>();
    }

    private static async Task<BuyerAnswersView> Answers(
        long id,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var buyer =
            await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == id, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        var today = clock.Today;
        var start = new DateOnly(today.Year, today.Month, 1).AddMonths(-23);
        var since = start.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        var book = await books.BookAsync(db, cancel);
        var currency = Currency.Of(buyer.Currency);
        var rates = Rates.On(today, book.Home, book.DatedRates);
        var bought = await BoughtAsync(db, id, since, cancel);
        var byYear = InOne(bought.Select(b => (b.Month.Year, b.Currency, b.Minor)), rates, currency);
        var byMonth = InOne(bought.Select(b => (b.Month, b.Currency, b.Minor)), rates, currency);
        return new BuyerAnswersView(
            buyer.Currency,
            await CreditViews.OfAsync(
                db,
                buyer,
                await CreditFacts.StandingAsync(db, buyer, rates, today, cancel),
                today,
                cancel
            ),
            byYear.GetValueOrDefault(today.Year),
            byYear.GetValueOrDefault(today.Year - 1),
            bought.Any(b => b.Currency != buyer.Currency)
                ? $"other currencies at the rates of {today.ToString("d MMM yyyy", System.Globalization.CultureInfo.InvariantCulture)}"
                : "",
            await OpenDocuments.OfAsync(db, id, cancel),
            [
                .. Enumerable
                    .Range(0, 24)
                    .Select(m => start.AddMonths(m))
                    .Select(m => new BoughtMonth(m, byMonth.GetValueOrDefault(m))),
            ],
            await ItemsAsync(db, id, since, rates, currency, cancel),
            await AgreementsAsync(db, buyer, today, cancel),
            await db
                .Talks.Where(t => t.BuyerId == id)
                .OrderByDescending(t => t.At)
                .Take(50)
                .Select(t => new NotedTalk(t.At, t.Who, t.Words))
                .ToListAsync(cancel)
        );
    }

    private sealed record Bought(DateOnly Month, string Currency, long Minor);

    private static async Task<List<Bought>> BoughtAsync(
        SolvendaDb db,
        long id,
        DateTime since,
        CancellationToken cancel
    )
    {
        var orders = await db
            .Orders.Sold()
            .Where(o => o.Dossier.BuyerId == id && o.CreatedAt >= since)
            .Select(o => new
            {
                o.CreatedAt,
                o.Sheet.Currency,
                o.Sheet.TotalWithoutTaxMinor,
            })
            .ToListAsync(cancel);
        return orders.ConvertAll(o => new Bought(
            new DateOnly(o.CreatedAt.Year, o.CreatedAt.Month, 1),
            o.Currency,
            o.TotalWithoutTaxMinor
        ));
    }

    // Sums by currency first, then carried into one; what has no rate is not taken one to one, and left out.
    private static Dictionary<TKey, decimal> InOne<TKey>(
        IEnumerable<(TKey Key, string Currency, long Minor)> sums,
        Rates rates,
        Currency into
    )
        where TKey : notnull =>
        sums.GroupBy(s => (s.Key, s.Currency))
            .Select(g =>
                (
                    g.Key.Key,
                    Value: rates.Convert(
                        Amount.Major(g.Sum(s => s.Minor), g.Key.Currency),
                        Currency.Of(g.Key.Currency),
                        into
                    )
                )
            )
            .Where(g => g.Value is not null)
            .GroupBy(g => g.Key)
            .ToDictionary(g => g.Key, g => g.Sum(x => Amount.Round(x.Value!.Value, into).Value));

    private static async Task<List<BoughtItem>> ItemsAsync(
        SolvendaDb db,
        long id,
        DateTime since,
        Rates rates,
        Currency currency,
        CancellationToken cancel
    )
    {
        var lines = await (
            from l in db.SheetLines
            join o in db.Orders.Sold() on l.SheetId equals o.SheetId
            join i in db.Items on l.ItemId equals i.Id
            where o.Dossier.BuyerId == id && o.CreatedAt >= since && !l.Optional
            select new
            {
                i.Id,
                i.Code,
                i.Words,
                i.StockUnit,
                l.Quantity,
                l.Unit,
                l.NetMinor,
                l.NetPrice,
                o.CreatedAt,
                o.Sheet.Currency,
                Factor = i.SalesUnits.Where(u => u.Unit == l.Unit).Select(u => (decimal?)u.Factor).FirstOrDefault(),
            }
        ).ToListAsync(cancel);
        return
        [
            .. lines
                .GroupBy(l => (l.Id, l.Code, l.Words, l.StockUnit))
                .Select(g =>
                    (
                        g.Key,
                        Net: InOne(g.Select(l => (0, l.Currency, l.NetMinor)), rates, currency).GetValueOrDefault(0),
                        Quantity: g.Sum(l => l.Quantity * (l.Factor ?? 1m)),
                        Last: g.MaxBy(l => l.CreatedAt)!
                    )
                )
                .OrderByDescending(g => g.Net)
                .Take(25)
                .Select(g => new BoughtItem(
                    g.Key.Code,
                    g.Key.Words,
                    g.Quantity,
                    UnitTable.OnSheet(Unit.Of(g.Key.StockUnit)),
                    g.Net,
                    DateOnly.FromDateTime(g.Last.CreatedAt),
                    g.Last.NetPrice
                )),
        ];
    }

    private static async Task<List<HeldAgreement>> AgreementsAsync(
        SolvendaDb db,
        BuyerRow buyer,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var rows = await (
            from a in db.Agreements.Include(a => a.Breaks)
            where
                a.Active
                && (a.BuyerId == buyer.Id || (a.Group != null && a.Group == buyer.Group))
                && (a.To == null || a.To >= today)
            orderby a.To, a.Id
            select new { Row = a, Item = db.Items.Where(i => i.Id == a.ItemId).Select(i => i.Code).FirstOrDefault() }
        )
            .AsNoTracking()
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(r => new HeldAgreement(
                r.Row.Id,
                r.Row.Code,
                r.Row.Words,
                r.Row.BuyerId is null,
                r.Item ?? r.Row.Family ?? "everything",
                string.Join(
                    "; ",
                    r.Row.Breaks.OrderBy(b => b.From)
                        .Select(b =>
                            $"{(b.From > 0 ? string.Create(System.Globalization.CultureInfo.InvariantCulture, $"from {b.From:#,0.##}: ") : "")}{Value(r.Row, b.Value)}"
                        )
                ),
                r.Row.From,
                r.Row.To,
                r.Row.To is { } to && to <= today.AddDays(SoonDays)
            )),
        ];
    }

    private static string Value(AgreementRow a, decimal value) =>
        a.Kind == Core.Pricing.RuleKind.PercentOff
            ? string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{value:0.##} % off")
            : string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"{value:0.00##} {a.Currency}{(a.Kind == Core.Pricing.RuleKind.AmountOff ? " off" : "")}"
            );

    private static Task<NotedTalk> Talk(
        long id,
        NewTalk body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new NoteTalk(id, body.Words), cancel);

    private static Task<DocumentRef> Begin(
        long id,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new BeginOrder(id), cancel, key);
}
