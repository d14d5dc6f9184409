using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Web.Commands;
using Solvenda.Web.Security;

namespace Solvenda.Web.Finder;

/// <summary>Something found: a document, a buyer, an item.</summary>
public sealed record Found(string Kind, string Number, string Words, string Rest, string? Path, long? Id);

/// <summary>An item for a line that is being typed.</summary>
public sealed record ItemHit(string Code, string Words, string UnitWord, decimal? List, decimal FreeHere);

/// <summary>What the typed words mean: quantity, unit, and the items that may be meant.</summary>
public sealed record ItemHits(string Words, decimal? Quantity, string? UnitWord, IReadOnlyList<ItemHit> Items);

public static class FindEndpoints
{
    private const int Most = 8;

    public static void MapFind(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/find", Find).WithTags("Find").RequireAuthorization(May.Look);
        app.MapGet("/api/items", Items).WithTags("Find").RequireAuthorization(May.Look);
    }

    private static async Task<List<Found>> Find(string q, SolvendaDb db, PriceBooks books, CancellationToken cancel)
    {
        var text = q.Trim();
        if (text.Length < 2)
            return [];
        var like = $"%{text.Replace("%", "", StringComparison.Ordinal).Replace("_", "", StringComparison.Ordinal)}%";
        var found = new List<Found>();
        found.AddRange(await db.Buyers.Where(b => EF.Functions.Like(b.Name, like) || EF.Functions.Like(b.Code, like)).OrderBy(b => b.Name).Take(Most)
            .Select(b => new Found("buyer", b.Code, b.Name, b.Address, null, b.Id)).ToListAsync(cancel));
        found.AddRange(await db.Requests.Where(r => EF.Functions.Like(r.Number, like) || EF.Functions.Like(r.Subject, like)).OrderByDescending(r => r.Id).Take(4)
            .Select(r => new Found("request", r.Number, r.Subject, r.FromWords, "/requests/" + r.Number, null)).ToListAsync(cancel));
        found.AddRange(await db.Quotes.Where(x => EF.Functions.Like(x.Number, like) || EF.Functions.Like(x.Dossier.Buyer.Name, like)).OrderByDescending(x => x.Id).Take(5)
            .Select(x => new Found("quote", x.Number, x.Dossier.Buyer.Name, x.Dossier.Matter, "/quotes/" + x.Number, null)).ToListAsync(cancel));
        found.AddRange(await db.Orders.Where(x => EF.Functions.Like(x.Number, like) || EF.Functions.Like(x.Sheet.PoNumber!, like) || EF.Functions.Like(x.Dossier.Buyer.Name, like)).OrderByDescending(x => x.Id).Take(5)
            .Select(x => new Found("order", x.Number, x.Dossier.Buyer.Name, x.Sheet.PoNumber ?? "", "/orders/" + x.Number, null)).ToListAsync(cancel));
        return [.. found.DistinctBy(f => (f.Kind, f.Number))];
    }

    /// <summary>Items for what is being typed on a sheet: by code, GTIN or words, with the quantity that stands behind them.</summary>
    private static async Task<ItemHits> Items(string q, SolvendaDb db, PriceBooks books, HouseClock clock, CancellationToken cancel)
    {
        var typed = QuickLine.Parse(q);
        var finder = await books.ItemsAsync(db, cancel);
        var book = await books.BookAsync(db, cancel);
        var exact = finder.ByCode(typed.Words);
        var items = exact is not null
            ? [exact]
            : finder.Search(typed.Words, Most).Where(c => c.Score > 0.2m).Select(c => c.Item)
                .Concat(book.Items.Where(i => typed.Words.Length > 1 && i.Code.StartsWith(typed.Words, StringComparison.OrdinalIgnoreCase)).OrderBy(i => i.Code, StringComparer.Ordinal).Take(Most))
                .DistinctBy(i => i.Id).Take(Most).ToList();
        var ids = items.Select(i => i.Id.Value).ToList();
        var stock = (await db.Stock.Where(s => ids.Contains(s.ItemId)).Select(s => new { s.ItemId, s.OnHand }).ToListAsync(cancel)).ToLookup(s => s.ItemId, s => s.OnHand);
        var committed = (await db.Commitments.Where(c => ids.Contains(c.ItemId)).Select(c => new { c.ItemId, c.Quantity }).ToListAsync(cancel)).ToLookup(c => c.ItemId, c => c.Quantity);
        return new ItemHits(typed.Words, typed.Quantity, typed.Unit is { } u ? UnitTable.OnSheet(u) : null,
            [.. items.Select(i => new ItemHit(i.Code, i.Words, UnitTable.OnSheet(i.StockUnit), book.ListPriceOn(i, clock.Today), Math.Max(0m, stock[i.Id.Value].Sum() - committed[i.Id.Value].Sum())))]);
    }
}
