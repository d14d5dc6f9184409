using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Money;
using Solvenda.Core.Quoting;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Quotes;
using Solvenda.Web.Requests;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

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

/// <param name="Currency">That the limit is kept in: the parent's, where it is shared.</param>
/// <param name="SharedWith">The parent whose limit all its children share.</param>
/// <param name="MissingRate">A currency without a rate, so that not all could be added up.</param>
public sealed record OwedView(
    decimal? Limit,
    decimal Owes,
    decimal Exposure,
    int OverdueDays,
    int OpenInvoices,
    string Currency,
    string? SharedWith,
    string? MissingRate
);

/// <summary>What was talked about.</summary>
public sealed record TalkView(DateTime At, string Who, string Words);

/// <summary>What a buyer's page answers on the telephone. Money is in the buyer's currency.</summary>
public sealed record BuyerAnswersView(
    string Currency,
    OwedView Owed,
    decimal ThisYear,
    decimal LastYear,
    IReadOnlyList<OpenDocument> Open,
    IReadOnlyList<BoughtMonth> Months,
    IReadOnlyList<BoughtItem> Items,
    IReadOnlyList<HeldAgreement> Agreements,
    IReadOnlyList<TalkView> Talks
);

public sealed record NewTalk(string Words);

public static class BuyerEndpoints
{
    private const int SoonDays = 60;

    public static void MapBuyers(this IEndpointRouteBuilder app)
    {
        var buyers = app.MapGroup("/api/buyers/{id:long}").WithTags("Buyers");
        buyers.MapGet("/answers", Answers).RequireAuthorization(May.Look);
        buyers.MapPost("/talks", Talk).RequireAuthorization(May.Write);
        buyers.MapPost("/orders", BeginOrder).RequireAuthorization(May.Write);
    }

    private static async Task<BuyerAnswersView> Answers(
        long id,
        SolvendaDb db,
        Judge judge,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var buyer =
            await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == id, cancel)
            ?? throw RefusalException.NotFound("such buyer");
        var today = clock.Today;
        var start = new DateOnly(today.Year, today.Month, 1).AddMonths(-23);
        var since = start.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        var orders = await db
            .Orders.Where(o => o.Dossier.BuyerId == id && o.CreatedAt >= since && o.Terms == TermsTrack.Confirmed)
            .Select(o => new { o.CreatedAt, o.Sheet.TotalWithoutTaxMinor })
            .ToListAsync(cancel);
        var currency = Currency.Of(buyer.Currency);
        var book = await books.BookAsync(db, cancel);
        decimal Major(long minor) => Amount.FromMinor(minor, currency).Value;
        decimal InYear(int year) => Major(orders.Where(o => o.CreatedAt.Year == year).Sum(o => o.TotalWithoutTaxMinor));
        var byMonth = orders.ToLookup(
            o => new DateOnly(o.CreatedAt.Year, o.CreatedAt.Month, 1),
            o => o.TotalWithoutTaxMinor
        );
        return new BuyerAnswersView(
            buyer.Currency,
            await OwedAsync(db, judge, Rates.On(today, book.Home, book.DatedRates), buyer, cancel),
            InYear(today.Year),
            InYear(today.Year - 1),
            await OpenAsync(db, id, cancel),
            [
                .. Enumerable
                    .Range(0, 24)
                    .Select(m => start.AddMonths(m))
                    .Select(m => new BoughtMonth(m, Major(byMonth[m].Sum()))),
            ],
            await ItemsAsync(db, id, since, currency, cancel),
            await AgreementsAsync(db, buyer, today, cancel),
            await db
                .Talks.Where(t => t.BuyerId == id)
                .OrderByDescending(t => t.At)
                .Take(50)
                .Select(t => new TalkView(t.At, t.Who, t.Words))
                .ToListAsync(cancel)
        );
    }

    private static async Task<OwedView> OwedAsync(
        SolvendaDb db,
        Judge judge,
        Rates rates,
        BuyerRow buyer,
        CancellationToken cancel
    )
    {
        var standing = await judge.StandingAsync(db, buyer, 0, rates, cancel);
        var open = await db.OpenItems.Where(o => o.BuyerId == buyer.Id).Select(o => o.OpenMinor).ToListAsync(cancel);
        return new OwedView(
            standing?.Limit.Value,
            Amount.FromMinor(open.Sum(), Currency.Of(buyer.Currency)).Value,
            standing?.Exposure.Value ?? 0m,
            standing?.OldestOverdueDays ?? 0,
            open.Count,
            standing?.Limit.Currency.Code ?? buyer.Currency,
            standing?.SharedWith,
            standing?.MissingRate
        );
    }

    private static async Task<List<OpenDocument>> OpenAsync(SolvendaDb db, long id, CancellationToken cancel)
    {
        var quotes = await db
            .Quotes.Where(q =>
                q.Dossier.BuyerId == id
                && (
                    q.State == QuoteState.Drafting
                    || q.State == QuoteState.InApproval
                    || q.State == QuoteState.Cleared
                    || q.State == QuoteState.WithCustomer
                )
            )
            .OrderByDescending(q => q.Id)
            .Take(20)
            .Select(q => new
            {
                q.Number,
                q.Dossier.Matter,
                q.State,
                q.CreatedAt,
                q.Sheet.Currency,
                q.Sheet.TotalWithTaxMinor,
            })
            .ToListAsync(cancel);
        var orders = await db
            .Orders.Where(o =>
                o.Dossier.BuyerId == id && o.Terms != TermsTrack.Cancelled && o.Goods != GoodsTrack.Shipped
            )
            .OrderByDescending(o => o.Id)
            .Take(20)
            .Select(o => new
            {
                o.Number,
                o.Dossier.Matter,
                o.Terms,
                o.Goods,
                o.CreatedAt,
                o.Sheet.Currency,
                o.Sheet.TotalWithTaxMinor,
            })
            .ToListAsync(cancel);
        return
        [
            .. quotes.Select(q => new OpenDocument(
                "quote",
                q.Number,
                q.Matter,
                q.State == QuoteState.WithCustomer ? "with them" : "being written",
                DateOnly.FromDateTime(q.CreatedAt),
                q.Currency,
                QuoteEndpoints.Major(q.TotalWithTaxMinor, q.Currency)
            )),
            .. orders.Select(o => new OpenDocument(
                "order",
                o.Number,
                o.Matter,
                o.Terms == TermsTrack.Confirmed
                    ? o.Goods == GoodsTrack.Picking
                        ? "being picked"
                        : "confirmed"
                    : "not confirmed yet",
                DateOnly.FromDateTime(o.CreatedAt),
                o.Currency,
                QuoteEndpoints.Major(o.TotalWithTaxMinor, o.Currency)
            )),
        ];
    }

    private static async Task<List<BoughtItem>> ItemsAsync(
        SolvendaDb db,
        long id,
        DateTime since,
        Currency currency,
        CancellationToken cancel
    )
    {
        var lines = await (
            from l in db.SheetLines
            join o in db.Orders on l.SheetId equals o.SheetId
            join i in db.Items on l.ItemId equals i.Id
            where o.Dossier.BuyerId == id && o.CreatedAt >= since && o.Terms == TermsTrack.Confirmed && !l.Optional
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
                        Net: g.Sum(l => l.NetMinor),
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
                    Amount.FromMinor(g.Net, currency).Value,
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

    private static async Task<TalkView> Talk(
        long id,
        NewTalk body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        if (string.IsNullOrWhiteSpace(body.Words))
            throw RefusalException.Bad("note_missing", "What was talked about?", "words");
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                if (!await work.Db.Buyers.AnyAsync(b => b.Id == id, cancel))
                    throw RefusalException.NotFound("such buyer");
                var row = new TalkRow
                {
                    BuyerId = id,
                    At = work.Now,
                    Who = work.Actor.Name,
                    Words = body.Words.Trim()[..Math.Min(2_000, body.Words.Trim().Length)],
                };
                work.Db.Talks.Add(row);
                return new TalkView(row.At, row.Who, row.Words);
            },
            cancel
        );
    }

    /// <summary>An order without a quote: from the buyer's page, over the telephone.</summary>
    private static async Task<Turned> BeginOrder(
        long id,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var buyer =
                    await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == id, cancel)
                    ?? throw RefusalException.NotFound("such buyer");
                var dossier = new DossierRow
                {
                    Number = await work.NumberAsync(Series.Dossier, cancel),
                    BuyerId = buyer.Id,
                    Buyer = buyer,
                    Matter = "",
                    CreatedAt = work.Now,
                };
                work.Db.Dossiers.Add(dossier);
                await work.Db.SaveChangesAsync(cancel);
                var order = await DocumentMaker.OrderAsync(
                    work,
                    dossier,
                    DocumentMaker.SheetFor(buyer, work.Today, null),
                    buyer,
                    "phone",
                    cancel
                );
                return new Turned("order", order.Number);
            },
            cancel
        );
}
