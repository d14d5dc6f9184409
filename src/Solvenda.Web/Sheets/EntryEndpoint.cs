using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Finder;
using Solvenda.Web.Security;

namespace Solvenda.Web.Sheets;

/// <summary>What this buyer paid for an item last.</summary>
public sealed record PaidLast(DateOnly Day, decimal Quantity, string UnitWord, decimal Price, string Currency);

/// <summary>One way to understand the typed line; the first is what Enter takes.</summary>
/// <param name="Code">Null: the words stay, as a line that is not in the catalogue.</param>
/// <param name="Text">The same in words that mean nothing else: what is sent to add it.</param>
/// <param name="Quantity">Null where none was typed.</param>
/// <param name="Price">What one costs this buyer, without what was typed; null where there is no price.</param>
/// <param name="Net">What was typed, with its discount; null where no price was.</param>
/// <param name="Unsaid">Words that the item is not called by.</param>
/// <param name="Pieces">Which piece of the text was taken for what.</param>
public sealed record EntryChoiceView(
    string? Code,
    string Words,
    string Text,
    decimal? Quantity,
    string UnitWord,
    decimal? Price,
    decimal PriceBase,
    decimal? Net,
    decimal? DiscountPercent,
    DateOnly? Wanted,
    string Note,
    decimal? FreeHere,
    PaidLast? Last,
    string How,
    IReadOnlyList<string> Unsaid,
    IReadOnlyList<EntryPiece> Pieces
);

/// <summary>How a line that is being typed is understood.</summary>
public sealed record EntryView(string Currency, IReadOnlyList<EntryChoiceView> Choices);

/// <summary>Understands a line while it is typed on a sheet: for its buyer, in its currency and language.</summary>
public static class EntryEndpoint
{
    // What a buyer took in older ones says little of what they take next.
    private const int OrdersLookedAt = 200;

    public static void MapEntry(this RouteGroupBuilder sheets)
    {
        ArgumentNullException.ThrowIfNull(sheets);
        sheets.MapGet("/{id:long}/entry", Understand).Needs(Rights.Write);
    }

    private static async Task<EntryView> Understand(
        long id,
        string q,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var sheet =
            await db.Sheets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id, cancel)
            ?? throw RefusedException.NotFound("such sheet");
        var buyer = await BuyerOf.SheetAsync(db, id, cancel);
        var code = HeadTerms.Language.In(sheet.Head) ?? buyer.Language;
        var language = Language.All.FirstOrDefault(l => l.Code == code);
        var items = await books.ItemsAsync(db, cancel);
        var bought = await BoughtAsync(db, buyer.Id, cancel);
        var aliases = await db
            .Aliases.AsNoTracking()
            .Where(a => a.Active && (a.BuyerId == buyer.Id || a.BuyerId == null))
            .OrderByDescending(a => a.BuyerId)
            .Select(a => new { a.Words, a.ItemId })
            .ToListAsync(cancel);
        var choices = EntryChoices.Of(
            QuickLine.Undecided(q, clock.Today, language),
            items,
            words => aliases.Find(a => a.Words == words) is { } alias ? items.ById(new ItemId(alias.ItemId)) : null,
            bought,
            language
        );
        var priced = new Priced(await books.BookAsync(db, cancel), sheet, buyer.ToBuyer());
        var ids = choices.Where(c => c.Item is not null).Select(c => c.Item!.Id.Value).Distinct().ToList();
        var free = await StockHere.FreeAsync(db, ids, cancel);
        var last = await LastAsync(db, ids, buyer.Id, cancel);
        return new EntryView(
            sheet.Currency,
            [.. choices.Select(c => Shown(c, priced, free, last.GetValueOrDefault(c.Item?.Id.Value ?? 0)))]
        );
    }

    // From the buyer's own orders on: going through the lines of all of them is no work for a key press.
    private static async Task<HashSet<ItemId>> BoughtAsync(SolvendaDb db, long buyer, CancellationToken cancel)
    {
        var sheets = db
            .Orders.Where(o => o.Dossier.BuyerId == buyer)
            .OrderByDescending(o => o.Id)
            .Take(OrdersLookedAt)
            .Select(o => o.SheetId);
        var items = await db
            .SheetLines.Where(l => l.ItemId != null && sheets.Contains(l.SheetId))
            .Select(l => l.ItemId!.Value)
            .Distinct()
            .ToListAsync(cancel);
        return [.. items.Select(i => new ItemId(i))];
    }

    private static async Task<Dictionary<long, PaidLast>> LastAsync(
        SolvendaDb db,
        List<long> items,
        long buyer,
        CancellationToken cancel
    )
    {
        var last = new Dictionary<long, PaidLast>();
        foreach (var item in items)
        {
            if (await PastSales.OfAsync(db, item, buyer, 0, 1, cancel) is [var sold, ..])
                last[item] = new PaidLast(sold.Day, sold.Quantity, sold.UnitWord, sold.NetPrice, sold.Currency);
        }
        return last;
    }

    // Prices one item for the sheet's buyer, as a line of its own.
    private sealed class Priced(PriceBook book, SheetRow sheet, Buyer buyer)
    {
        private readonly Rates _rates = sheet.RatesOf(book);

        public PriceBuild Of(Item item, decimal quantity, Unit unit) =>
            BasePrice.Find(
                book,
                _rates,
                new PriceQuestion(
                    item,
                    quantity,
                    unit,
                    buyer,
                    Currency.Of(sheet.Currency),
                    sheet.PricingDate,
                    sheet.Channel
                ),
                null
            );
    }

    private static EntryChoiceView Shown(
        EntryChoice choice,
        Priced priced,
        IReadOnlyDictionary<long, decimal> free,
        PaidLast? last
    )
    {
        var (item, line) = (choice.Item, choice.Line);
        var unit = line.Unit ?? item?.StockUnit ?? Unit.Piece;
        var build = item is null ? null : priced.Of(item, Math.Min(line.Quantity ?? 1m, LineFields.MostQuantity), unit);
        return new EntryChoiceView(
            item?.Code,
            item?.Words ?? line.Words,
            line.Said(item?.Code),
            line.Quantity,
            UnitTable.OnSheet(unit),
            build?.Base?.Value,
            build?.PriceBase ?? 1m,
            line.NetPrice,
            line.DiscountPercent,
            line.Wanted,
            line.Note,
            item is { Stocked: true } ? free.GetValueOrDefault(item.Id.Value) : null,
            last,
            choice.How,
            choice.Unsaid,
            line.Pieces
        );
    }
}
