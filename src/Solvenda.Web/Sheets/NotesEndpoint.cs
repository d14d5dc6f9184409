using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Finder;
using Solvenda.Web.Items;
using Solvenda.Web.Security;

namespace Solvenda.Web.Sheets;

/// <summary>The next quantity from which the price falls.</summary>
/// <param name="From">In the line's unit.</param>
/// <param name="MoreInAll">What that many would cost more than the line does now; less than nothing where they cost
/// less.</param>
public sealed record NextBreak(decimal From, string UnitWord, decimal Price, decimal MoreInAll);

/// <summary>Something else that would do, for less, and is on the shelf.</summary>
/// <param name="Field">What to type where: item, or quantity.</param>
/// <param name="Saves">Of the line's net, in the sheet's currency.</param>
public sealed record Cheaper(string Words, string Field, string Value, decimal Saves);

/// <summary>What stands beside one line: what is known of its item, for this buyer, at this quantity.</summary>
/// <param name="Lost">Rules that were looked at and did not make the price.</param>
/// <param name="Stock">Each warehouse.</param>
/// <param name="Ahead">What comes, and who else waits for it.</param>
/// <param name="ToOthers">The last sales to other buyers.</param>
public sealed record MarginNotes(
    IReadOnlyList<SoldBefore> ToThisBuyer,
    IReadOnlyList<SoldBefore> ToOthers,
    string UnitWord,
    IReadOnlyList<WarehouseView> Stock,
    IReadOnlyList<StockAhead> Ahead,
    NextBreak? Break,
    IReadOnlyList<Cheaper> Cheaper,
    IReadOnlyList<LostRule> Lost,
    string? TheyWrote
);

/// <summary>What stands in the margin of the sheet for one line.</summary>
public static class NotesEndpoint
{
    private const int SalesShown = 3;
    private const int CheaperShown = 3;

    public static void MapNotes(this RouteGroupBuilder sheets)
    {
        ArgumentNullException.ThrowIfNull(sheets);
        sheets.MapGet("/{id:long}/lines/{key:long}/notes", Notes).Needs(Rights.Look);
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
            ?? throw RefusedException.NotFound("such line");
        var wrote = line.AskedWords.Length > 0 ? line.AskedWords : null;
        if (line.ItemId is not { } itemId)
            return new MarginNotes([], [], "", [], [], null, [], [], wrote);
        var sheet = await db.Sheets.AsNoTracking().Include(s => s.StoredLines).FirstAsync(s => s.Id == id, cancel);
        var buyer = await BuyerOf.SheetAsync(db, id, cancel);
        var book = await books.BookAsync(db, cancel);
        var item = book.Find(new(itemId))!;
        var (stock, ahead) = item.Stocked ? await ItemStock.OfAsync(db, itemId, clock.Today, cancel) : ([], []);
        var asked = new LineAsked(book, sheet, line, item, buyer.ToBuyer());
        return new MarginNotes(
            await PastSales.OfAsync(db, itemId, buyer.Id, id, SalesShown, cancel),
            await PastSales.OfAsync(db, itemId, -buyer.Id, id, SalesShown, cancel),
            UnitTable.OnSheet(item.StockUnit),
            stock,
            ahead,
            asked.NextBreak(),
            await CheaperAsync(db, asked, await books.ItemsAsync(db, cancel), cancel),
            // What left the house keeps the price that it had; the rules of today did not make it.
            sheet.Kept.Length > 0
                ? []
                : asked.Lost(),
            wrote
        );
    }

    private static async Task<List<Cheaper>> CheaperAsync(
        SolvendaDb db,
        LineAsked asked,
        Core.Reading.ItemFinder finder,
        CancellationToken cancel
    )
    {
        var others = asked.Alike(finder);
        var free = await StockHere.FreeAsync(db, others.ConvertAll(i => i.Id.Value), cancel);
        return
        [
            .. asked
                .ByAnotherUnit()
                .Concat(others.Where(i => free.GetValueOrDefault(i.Id.Value) >= asked.InStock(i)).Select(asked.Instead))
                .OfType<Cheaper>()
                .OrderByDescending(c => c.Saves)
                .Take(CheaperShown),
        ];
    }
}
