using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
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

/// <summary>The next quantity from which the price falls.</summary>
public sealed record NextBreak(decimal From, string UnitWord, decimal Price);

/// <summary>Rows of a spreadsheet, a tab between cells.</summary>
/// <param name="After">Key of the line that they go behind; null: at the end.</param>
public sealed record RowsPasted(string Text, long? After);

/// <summary>The sheet after rows were pasted; how many lines they became, and how many are to be put right.</summary>
public sealed record PasteAnswer(SheetAnswer Answer, int Lines, int ToFix, string Words);

public static class SheetEndpoints
{
    public static void MapSheets(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var sheets = app.MapGroup("/api/sheets").WithTags("Sheets");
        sheets.MapPost("/{id:long}/edits", Edit).Needs<EditSheet>();
        sheets.MapPost("/{id:long}/paste", Paste).Needs<PasteRows>();
        sheets.MapPost("/{id:long}/undo", Undo).Needs<UndoEdit>();
        sheets.MapPost("/{id:long}/redo", Redo).Needs<RedoEdit>();
        sheets.MapEntry();
        sheets.MapGet("/{id:long}/lines/{key:long}/notes", Notes).Needs(Rights.Look);
    }

    /// <summary>
    /// Carries edits out on the version that the screen saw; answers with the whole sheet priced and judged anew.
    /// </summary>
    private static async Task<SheetAnswer> Edit(
        long id,
        SheetEdit[] edits,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        return SheetAnswer.Of(await acts.RunAsync(actor, new EditSheet(id, edits, Seen.Of(ifMatch)), cancel), actor);
    }

    /// <summary>Puts rows of a spreadsheet onto the sheet, behind a line or at the end.</summary>
    private static async Task<PasteAnswer> Paste(
        long id,
        RowsPasted rows,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var done = await acts.RunAsync(actor, new PasteRows(id, rows.Text, rows.After, Seen.Of(ifMatch)), cancel);
        return new PasteAnswer(SheetAnswer.Of(done.Judged, actor), done.Lines, done.ToFix, done.Words);
    }

    /// <summary>Takes one's own last change back.</summary>
    private static async Task<SheetAnswer> Undo(long id, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel)
    {
        var actor = user.ActorOf();
        return SheetAnswer.Of(await acts.RunAsync(actor, new UndoEdit(id), cancel), actor);
    }

    /// <summary>Puts in again what one took back last.</summary>
    private static async Task<SheetAnswer> Redo(long id, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel)
    {
        var actor = user.ActorOf();
        return SheetAnswer.Of(await acts.RunAsync(actor, new RedoEdit(id), cancel), actor);
    }

    private static async Task<MarginNotes> Notes(
        long id,
        long key,
        SolvendaDb db,
        PriceBooks books,
        CancellationToken cancel
    )
    {
        var line =
            await db.SheetLines.AsNoTracking().FirstOrDefaultAsync(l => l.SheetId == id && l.Key == key, cancel)
            ?? throw RefusedException.NotFound("such line");
        var wrote = line.AskedWords.Length > 0 ? line.AskedWords : null;
        if (line.ItemId is not { } itemId)
            return new MarginNotes([], null, "", null, null, null, wrote);
        var sheet = await db.Sheets.AsNoTracking().FirstAsync(s => s.Id == id, cancel);
        var buyerId =
            await db
                .Quotes.Where(q => q.SheetId == id)
                .Select(q => (long?)q.Dossier.BuyerId)
                .FirstOrDefaultAsync(cancel)
            ?? await db.Orders.Where(o => o.SheetId == id).Select(o => o.Dossier.BuyerId).FirstAsync(cancel);
        var book = await books.BookAsync(db, cancel);
        var item = book.Find(new(itemId))!;
        var warehouse = HeadTerms.ShipFrom.In(sheet.Head);
        var incoming = await db
            .Incoming.Where(i => i.ItemId == itemId && i.Warehouse == warehouse)
            .OrderBy(i => i.Due)
            .Select(i => new { i.Due, i.Quantity })
            .FirstOrDefaultAsync(cancel);
        var buyer = (await db.Buyers.AsNoTracking().FirstAsync(b => b.Id == buyerId, cancel)).ToBuyer();
        return new MarginNotes(
            await PastSales.OfAsync(db, itemId, buyerId, id, 4, cancel),
            item.Stocked ? await FreeAsync(db, itemId, warehouse, cancel) : null,
            UnitTable.OnSheet(item.StockUnit),
            incoming?.Due,
            incoming?.Quantity,
            BreakAfter(book, buyer, item, line, sheet),
            wrote
        );
    }

    private static async Task<decimal> FreeAsync(
        SolvendaDb db,
        long itemId,
        string? warehouse,
        CancellationToken cancel
    )
    {
        var onHand = await db
            .Stock.Where(s => s.ItemId == itemId && s.Warehouse == warehouse)
            .Select(s => (decimal?)s.OnHand)
            .FirstOrDefaultAsync(cancel);
        var committed = await db
            .Commitments.Where(c => c.ItemId == itemId && c.Warehouse == warehouse)
            .Select(c => c.Quantity)
            .ToListAsync(cancel);
        return Math.Max(0m, (onHand ?? 0m) - committed.Sum());
    }

    private static NextBreak? BreakAfter(
        Core.Pricing.PriceBook book,
        Core.Buyers.Buyer buyer,
        Core.Catalogue.Item item,
        SheetLineRow line,
        SheetRow sheet
    )
    {
        var unit = Unit.Of(line.Unit);
        if (item.Factor(unit) is not { } factor)
            return null;
        var rates = sheet.RatesOf(book);
        var currency = Core.Money.Currency.Of(sheet.Currency);
        decimal? At(decimal quantity) =>
            Core
                .Pricing.BasePrice.Find(
                    book,
                    rates,
                    new(item, quantity / factor, unit, buyer, currency, sheet.PricingDate)
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
        return next.Price is { } price ? new NextBreak(next.From, UnitTable.OnSheet(item.StockUnit), price) : null;
    }
}
