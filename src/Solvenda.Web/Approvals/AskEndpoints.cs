using System.Globalization;
using System.Security.Claims;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Pricing;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Quotes;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Approvals;

/// <summary>A figure asked, as a ruler: where it stands, what the seller and the approver may.</summary>
/// <param name="Before">The figure with nothing given by hand; null where it does not apply.</param>
public sealed record AskRuler(
    string Words,
    decimal Figure,
    decimal? SellersLimit,
    decimal? YourLimit,
    decimal? Before,
    decimal From,
    decimal To,
    bool MoreIsWorse
);

/// <summary>A line that causes the ask.</summary>
public sealed record AskLine(
    string Code,
    string Words,
    string Quantity,
    decimal? BasePrice,
    decimal? NetPrice,
    decimal DiscountPercent,
    decimal? MarginPercent,
    decimal? Floor,
    IReadOnlyList<SoldBefore> ToThisBuyer,
    IReadOnlyList<SoldBefore> ToOthers,
    decimal? Stock,
    string UnitWord,
    decimal? MonthsOfStock
);

/// <summary>Everything to decide on in one look.</summary>
public sealed record AskView(
    long Id,
    string Subject,
    bool IsOrder,
    string Sentence,
    string Seller,
    string SellerFirst,
    string Approver,
    AskOutcome Outcome,
    string Why,
    string Note,
    DateTime AskedAt,
    bool Mine,
    string Currency,
    IReadOnlyList<string> Fired,
    IReadOnlyList<AskRuler> Rulers,
    IReadOnlyList<AskLine> Lines,
    decimal Costs,
    decimal Earns,
    decimal Total,
    string Buyer,
    decimal BoughtThisYear,
    string CreditWords,
    int Position,
    int Waiting,
    long? Next
);

public sealed record Decision(string? Note = null);

public static class AskEndpoints
{
    public static void MapAsks(this IEndpointRouteBuilder app)
    {
        var asks = app.MapGroup("/api/asks").WithTags("Asks");
        asks.MapGet("/{id:long}", Get).RequireAuthorization(May.Look);
        asks.MapPost("/{id:long}/grant", Grant).RequireAuthorization(May.Decide);
        asks.MapPost("/{id:long}/send-back", SendBack).RequireAuthorization(May.Decide);
    }

    private static async Task<AskView> Get(
        long id,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var ask =
            await db.Asks.AsNoTracking().FirstOrDefaultAsync(a => a.Id == id, cancel)
            ?? throw RefusalException.NotFound("such ask");
        var open = await loader.BySheetAsync(db, ask.SheetId, cancel);
        var judged = await judge.JudgeAsync(db, open, cancel);
        var me = user.ActorOf().PersonId;
        var approver = open.People[new PersonId(ask.ApproverId)];
        var causes = judged.Priced.Sold.Where(l => l.HasPrice && Beyond(l, open.Seller.Authority)).ToList();
        var lines = new List<AskLine>();
        foreach (var line in causes.Take(5))
            lines.Add(await LineAsync(db, open, line, clock, cancel));
        var plain = SheetPricer.Price(
            open.Book,
            judged.Priced.Rates,
            judged.Priced.Buyer,
            judged.Priced.Sheet with
            {
                Lines = [.. judged.Priced.Sheet.Lines.Select(l => l with { ByHand = ByHand.None })],
                Discount = SheetDiscount.None,
            }
        );
        var waiting = await db
            .Asks.Where(a => a.ApproverId == me && a.Outcome == AskOutcome.Waiting)
            .OrderBy(a => a.AskedAt)
            .Select(a => a.Id)
            .ToListAsync(cancel);
        var at = waiting.IndexOf(id);
        var year = new DateTime(clock.Today.Year, 1, 1, 0, 0, 0, DateTimeKind.Utc);
        var bought = await db
            .Orders.Where(o =>
                o.Dossier.BuyerId == open.Buyer.Id && o.CreatedAt >= year && o.Terms == TermsTrack.Confirmed
            )
            .SumAsync(o => o.Sheet.TotalWithoutTaxMinor, cancel);
        var standing = await judge.StandingAsync(db, open.Buyer, open.Order?.Id ?? 0, judged.Priced.Rates, cancel);
        return new AskView(
            ask.Id,
            ask.Subject,
            open.Order is not null,
            Sentence(open, causes),
            open.Seller.Name,
            open.Seller.Name.Split(' ')[0],
            approver.Name,
            ask.Outcome,
            ask.Why,
            ask.Note,
            ask.AskedAt,
            me is { } my
                && my != ask.SellerId
                && ask.Outcome == AskOutcome.Waiting
                && Core.Approvals.Route.MayDecide(
                    open.People[new PersonId(my)],
                    new PersonId(ask.SellerId),
                    judged.Figures
                ),
            open.Sheet.Currency,
            [.. JsonSerializer.Deserialize<Fired[]>(ask.Fired)!.Select(f => f.Words)],
            Rulers(judged, plain, open.Seller.Authority, approver.Authority),
            lines,
            (plain.Tally.TotalWithoutTax - judged.Priced.Tally.TotalWithoutTax).Value,
            judged.Priced.Tally.Margin.Value,
            judged.Priced.Tally.TotalWithoutTax.Value,
            open.Buyer.Name,
            QuoteEndpoints.Major(bought, open.Buyer.Currency),
            standing is null
                ? "no credit limit is kept"
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"owes and will owe {standing.Exposure.Value:#,0} of {standing.Limit.Value:#,0} {standing.Limit.Currency.Code}{(standing.OldestOverdueDays > 0 ? $", {standing.OldestOverdueDays} days overdue" : "")}"
                ),
            at + 1,
            waiting.Count,
            waiting.Where(w => w != id).Select(w => (long?)w).FirstOrDefault()
        );
    }

    private static bool Beyond(PricedLine line, Authority authority)
    {
        var of = new SheetFigures(
            line.DiscountPercent,
            0m,
            SheetFigures.MarginOf(line),
            null,
            line.BelowFloor ? 1 : 0,
            0m
        );
        return Policies.All.Any(p => p.Fires(of, authority));
    }

    private static string Sentence(OpenSheet open, List<PricedLine> causes)
    {
        if (causes.Count == 1 && causes[0] is { } l)
        {
            var unit = UnitTable.OnSheet(l.Line.Unit);
            var per = unit.Length > 0 ? $" a {(unit == "m" ? "metre" : unit)}" : " each";
            var less =
                l.DiscountPercent > 0
                    ? string.Create(CultureInfo.InvariantCulture, $"{l.DiscountPercent:0.##} % less: ")
                    : "";
            return string.Create(
                CultureInfo.InvariantCulture,
                $"{open.Seller.Name} asks to sell {l.Line.Words} to {open.Buyer.Name} at {less}{l.Figures.NetPrice:0.0000} {open.Sheet.Currency}{per}."
            );
        }
        return causes.Count > 1
            ? $"{open.Seller.Name} asks to sell {causes.Count} items to {open.Buyer.Name} at less than may be given alone."
            : $"{open.Seller.Name} asks to sell to {open.Buyer.Name} as it stands.";
    }

    private static List<AskRuler> Rulers(Judged judged, PricedSheet plain, Authority seller, Authority approver)
    {
        var rulers = new List<AskRuler>();
        var f = judged.Figures;
        if (f.HighestLineDiscount > 0)
            rulers.Add(
                new AskRuler(
                    "less, highest line",
                    f.HighestLineDiscount,
                    seller.DiscountPercent,
                    approver.DiscountPercent,
                    0m,
                    0m,
                    Math.Max(20m, f.HighestLineDiscount * 1.3m),
                    true
                )
            );
        if (f.SheetDiscount > 0)
            rulers.Add(
                new AskRuler(
                    "less, whole sheet",
                    f.SheetDiscount,
                    seller.DiscountPercent,
                    approver.DiscountPercent,
                    0m,
                    0m,
                    Math.Max(20m, f.SheetDiscount * 1.3m),
                    true
                )
            );
        if (f.LeastLineMargin is { } least)
            rulers.Add(
                new AskRuler(
                    "margin, least line",
                    least,
                    seller.LeastMarginPercent,
                    Known(approver.LeastMarginPercent),
                    SheetFigures.Of(plain).LeastLineMargin,
                    Math.Min(0m, least),
                    Math.Max(50m, least + 5m),
                    false
                )
            );
        if (f.SheetMargin is { } whole)
            rulers.Add(
                new AskRuler(
                    "margin, whole sheet",
                    whole,
                    seller.LeastMarginPercent,
                    Known(approver.LeastMarginPercent),
                    plain.Tally.MarginPercent,
                    Math.Min(0m, whole),
                    Math.Max(50m, whole + 5m),
                    false
                )
            );
        return rulers;
    }

    private static decimal? Known(decimal? margin) => margin <= Authority.AnyMargin ? null : margin;

    private static async Task<AskLine> LineAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedLine line,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var item = line.Item!;
        var stock = item.Stocked
            ? await db.Stock.Where(s => s.ItemId == item.Id.Value).Select(s => s.OnHand).ToListAsync(cancel)
            : null;
        var since = clock.UtcNow.AddDays(-180);
        var sold = await (
            from l in db.SheetLines
            join o in db.Orders on l.SheetId equals o.SheetId
            where l.ItemId == item.Id.Value && o.CreatedAt >= since
            select new { l.Quantity, l.Unit }
        ).ToListAsync(cancel);
        var perMonth = sold.Sum(s => s.Quantity * (item.Factor(Unit.Of(s.Unit)) ?? 1m)) / 6m;
        return new AskLine(
            item.Code,
            line.Line.Words,
            string.Create(
                    CultureInfo.InvariantCulture,
                    $"{line.Line.Quantity:#,0.##} {UnitTable.OnSheet(line.Line.Unit)}"
                )
                .Trim(),
            line.Terms.Base,
            line.Figures.NetPrice,
            line.DiscountPercent,
            SheetFigures.MarginOf(line),
            line.Floor,
            await SheetEndpoints.SalesAsync(db, item.Id.Value, open.Buyer.Id, open.Sheet.Id, 3, cancel),
            await SheetEndpoints.SalesAsync(db, item.Id.Value, -open.Buyer.Id, open.Sheet.Id, 2, cancel),
            stock?.Sum(),
            UnitTable.OnSheet(item.StockUnit),
            stock is not null && perMonth > 0 ? decimal.Round(stock.Sum() / perMonth, 1) : null
        );
    }

    private static Task<DocumentRef> Grant(
        long id,
        Decision body,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    ) =>
        DecideAsync(
            id,
            AskOutcome.Granted,
            QuoteAct.Grant,
            "granted",
            body.Note ?? "",
            user,
            commands,
            loader,
            judge,
            cancel
        );

    private static Task<DocumentRef> SendBack(
        long id,
        Decision body,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    ) =>
        string.IsNullOrWhiteSpace(body.Note)
            ? throw RefusalException.Bad("note_missing", "Say what should change; the seller reads it.", "note")
            : DecideAsync(
                id,
                AskOutcome.SentBack,
                QuoteAct.SendBack,
                "sent_back",
                body.Note,
                user,
                commands,
                loader,
                judge,
                cancel
            );

    private static async Task<DocumentRef> DecideAsync(
        long id,
        AskOutcome outcome,
        QuoteAct act,
        string what,
        string note,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var ask =
                    await work.Db.Asks.FirstOrDefaultAsync(a => a.Id == id, cancel)
                    ?? throw RefusalException.NotFound("such ask");
                if (ask.Outcome != AskOutcome.Waiting)
                    throw RefusalException.Clash("ask_decided", "It was decided or withdrawn already.");
                var open = await loader.BySheetAsync(work.Db, ask.SheetId, cancel);
                var judged = await judge.JudgeAsync(work.Db, open, cancel);
                var me = open.People[new PersonId(work.Actor.PersonId!.Value)];
                if (
                    !Core.Approvals.Route.MayDecide(
                        me,
                        new PersonId(ask.SellerId),
                        JsonSerializer.Deserialize<SheetFigures>(ask.Figures)!
                    ) || !Core.Approvals.Route.MayDecide(me, open.Seller.Id, judged.Figures)
                )
                    throw RefusalException.Forbidden(
                        me.Id.Value == ask.SellerId
                            ? "Nobody decides on their own sheet."
                            : "These figures are beyond your authority."
                    );
                (ask.Outcome, ask.DecidedAt, ask.DecidedById, ask.Note) = (outcome, work.Now, me.Id.Value, note.Trim());
                if (open.Quote is { } quote)
                    QuoteEndpoints.Move(quote, act);
                work.History(
                    open.Subject,
                    open.Dossier.Id,
                    $"{(open.Quote is null ? "order" : "quote")}.{what}",
                    $"{(outcome == AskOutcome.Granted ? "granted" : "sent back")} by {me.Name}",
                    nameof(AskOutcome.Waiting),
                    outcome.ToString(),
                    note.Trim()
                );
                return new DocumentRef(open.Quote is null ? "order" : "quote", open.Subject);
            },
            cancel
        );
}

/// <summary>A document by kind and number.</summary>
public sealed record DocumentRef(string Kind, string Number);
