using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Security;

namespace Solvenda.Web.Sheets;

/// <summary>What stands in the margin of the sheet for one line.</summary>
public sealed record MarginNotes(
    IReadOnlyList<SoldBefore> ToThisBuyer,
    decimal? FreeNow,
    string UnitWord,
    DateOnly? NextIncoming,
    decimal? NextIncomingQuantity,
    NextBreak? Break,
    string? TheyWrote
);

/// <summary>A sale of an item: to whom, when, how much, at what net price per price base of its unit.</summary>
public sealed record SoldBefore(
    DateOnly Day,
    string Buyer,
    string Document,
    decimal Quantity,
    string UnitWord,
    decimal NetPrice,
    string Currency
);

/// <summary>The next quantity from which the price falls.</summary>
public sealed record NextBreak(decimal From, string UnitWord, decimal Price);

public static class SheetEndpoints
{
    public static void MapSheets(this IEndpointRouteBuilder app)
    {
        var sheets = app.MapGroup("/api/sheets").WithTags("Sheets");
        sheets.MapPost("/{id:long}/edits", Edit).RequireAuthorization(May.Write);
        sheets.MapGet("/{id:long}/lines/{key:long}/notes", Notes).RequireAuthorization(May.Look);
    }

    /// <summary>Carries edits out on the version that the screen saw; answers with the whole sheet priced and judged anew.</summary>
    private static async Task<SheetView> Edit(
        long id,
        SheetEdit[] edits,
        [FromHeader(Name = "If-Match")] string? ifMatch,
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
                var open = await loader.BySheetAsync(work.Db, id, cancel);
                if (!open.IsEditable)
                    throw RefusalException.Clash(
                        "sheet_closed",
                        open.Quote is not null
                            ? "This revision left the house; a change takes a new revision."
                            : "The order is confirmed; it is not changed here any more."
                    );
                await Versions.MatchAsync(work.Db, open, ifMatch, cancel);
                foreach (var edit in edits)
                {
                    var (words, before, after) = SheetEditor.Apply(open, edit, work);
                    if (before != after)
                        work.History(open.Subject, open.Dossier.Id, "sheet.edited", words, before, after);
                }
                open.Sheet.Version++;
                var judged = await judge.JudgeAsync(work.Db, open, cancel);
                ReworkWhereWorse(open, judged, work);
                return SheetView.Of(judged);
            },
            cancel
        );

    // A grant covers the figures asked about and anything no worse. Whatever is worse, or no longer what was asked, goes back to drafting.
    private static void ReworkWhereWorse(OpenSheet open, Judged judged, Work work)
    {
        var covered = judged.Approval is ApprovalState.Granted or ApprovalState.Waiting;
        if (!covered)
        {
            foreach (var ask in open.Asks.Where(a => a.Outcome == AskOutcome.Waiting && a.SheetId == open.Sheet.Id))
            {
                (ask.Outcome, ask.DecidedAt, ask.Note) = (AskOutcome.Withdrawn, work.Now, "overtaken by a change");
                work.History(
                    open.Subject,
                    open.Dossier.Id,
                    "quote.ask_withdrawn",
                    "the ask was withdrawn: the sheet changed"
                );
            }
        }
        if (open.Quote is { State: QuoteState.InApproval or QuoteState.Cleared } quote && !covered)
        {
            work.History(
                open.Subject,
                open.Dossier.Id,
                "quote.rework",
                "back to drafting: the sheet changed",
                quote.State.ToString(),
                nameof(QuoteState.Drafting)
            );
            quote.State = QuoteMoves.After(quote.State, QuoteAct.Rework)!.Value;
        }
    }

    private static async Task<MarginNotes> Notes(
        long id,
        long key,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var line =
            await db.SheetLines.AsNoTracking().FirstOrDefaultAsync(l => l.SheetId == id && l.Key == key, cancel)
            ?? throw RefusalException.NotFound("such line");
        var sheet = await db.Sheets.AsNoTracking().FirstAsync(s => s.Id == id, cancel);
        var buyerId =
            await db
                .Quotes.Where(q => q.SheetId == id)
                .Select(q => (long?)q.Dossier.BuyerId)
                .FirstOrDefaultAsync(cancel)
            ?? await db.Orders.Where(o => o.SheetId == id).Select(o => o.Dossier.BuyerId).FirstAsync(cancel);
        if (line.ItemId is not { } itemId)
            return new MarginNotes([], null, "", null, null, null, Wrote(line));
        var book = await books.BookAsync(db, cancel);
        var item = book.Find(new(itemId))!;
        var word = Core.Units.UnitTable.OnSheet(item.StockUnit);
        var incoming = await db
            .Incoming.Where(i => i.ItemId == itemId && i.Warehouse == sheet.ShipFrom)
            .OrderBy(i => i.Due)
            .Select(i => new { i.Due, i.Quantity })
            .FirstOrDefaultAsync(cancel);
        var onHand = await db
            .Stock.Where(s => s.ItemId == itemId && s.Warehouse == sheet.ShipFrom)
            .Select(s => (decimal?)s.OnHand)
            .FirstOrDefaultAsync(cancel);
        var committed = await db
            .Commitments.Where(c => c.ItemId == itemId && c.Warehouse == sheet.ShipFrom)
            .Select(c => c.Quantity)
            .ToListAsync(cancel);
        var buyer = (await db.Buyers.AsNoTracking().FirstAsync(b => b.Id == buyerId, cancel)).ToBuyer();
        return new MarginNotes(
            await SalesAsync(db, itemId, buyerId, id, 4, cancel),
            item.Stocked ? Math.Max(0m, (onHand ?? 0m) - committed.Sum()) : null,
            word,
            incoming?.Due,
            incoming?.Quantity,
            BreakAfter(book, buyer, item, line, sheet),
            Wrote(line)
        );
    }

    /// <summary>The last sales of an item, newest first; to one buyer, or to everybody else where the id is negative.</summary>
    public static async Task<List<SoldBefore>> SalesAsync(
        SolvendaDb db,
        long itemId,
        long buyerId,
        long withoutSheet,
        int most,
        CancellationToken cancel
    )
    {
        var query =
            from l in db.SheetLines
            join o in db.Orders on l.SheetId equals o.SheetId
            where
                l.ItemId == itemId
                && l.NetPrice != null
                && l.SheetId != withoutSheet
                && o.Terms == TermsTrack.Confirmed
                && (buyerId > 0 ? o.Dossier.BuyerId == buyerId : o.Dossier.BuyerId != -buyerId)
            orderby o.CreatedAt descending
            select new
            {
                o.CreatedAt,
                o.Dossier.Buyer.Name,
                o.Number,
                l.Quantity,
                l.Unit,
                l.NetPrice,
                o.Sheet.Currency,
            };
        return
        [
            .. (await query.Take(most).ToListAsync(cancel)).Select(s => new SoldBefore(
                DateOnly.FromDateTime(s.CreatedAt),
                s.Name,
                s.Number,
                s.Quantity,
                Core.Units.UnitTable.OnSheet(Core.Units.Unit.Of(s.Unit)),
                s.NetPrice!.Value,
                s.Currency
            )),
        ];
    }

    private static NextBreak? BreakAfter(
        Core.Pricing.PriceBook book,
        Core.Buyers.Buyer buyer,
        Core.Catalogue.Item item,
        SheetLineRow line,
        SheetRow sheet
    )
    {
        var unit = Core.Units.Unit.Of(line.Unit);
        if (item.Factor(unit) is not { } factor)
            return null;
        var rates = sheet.RatesOf(book);
        decimal? At(decimal quantity) =>
            Core
                .Pricing.BasePrice.Find(
                    book,
                    rates,
                    new(item, quantity / factor, unit, buyer, Core.Money.Currency.Of(sheet.Currency), sheet.PricingDate)
                )
                .Base?.Value;
        var now = At(line.Quantity * factor);
        var next = book.AgreementsFor(buyer, item)
            .Where(a => a.HoldsOn(sheet.PricingDate))
            .SelectMany(a => a.Breaks)
            .Select(b => b.From)
            .Where(f => f > line.Quantity * factor)
            .Order()
            .Select(f => (From: f, Price: At(f)))
            .FirstOrDefault(b => b.Price < now);
        return next.Price is { } price
            ? new NextBreak(next.From, Core.Units.UnitTable.OnSheet(item.StockUnit), price)
            : null;
    }

    private static string? Wrote(SheetLineRow line) => line.AskedWords.Length > 0 ? line.AskedWords : null;
}
