using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Finder;

/// <summary>
/// Something found: a document, a buyer, an item, a person. Without a path there is no page to go to.
/// </summary>
public sealed record Found(string Kind, string Number, string Words, string Rest, string? Path, long? Id);

/// <summary>An item for a line that is being typed.</summary>
public sealed record ItemHit(string Code, string Words, string UnitWord, decimal? List, decimal FreeHere);

/// <summary>What the typed words mean: quantity, unit, and the items that may be meant.</summary>
public sealed record ItemHits(string Words, decimal? Quantity, string? UnitWord, IReadOnlyList<ItemHit> Items);

public static class FindEndpoints
{
    private const int Most = 8;
    private const int MostFound = 40;

    public static void MapFind(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/find", Find).WithTags("Find").Needs(Rights.Look);
        app.MapGet("/api/items", Items).WithTags("Find").Needs(Rights.Look);
    }

    private static async Task<List<Found>> Find(
        string q,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var text = q.Trim();
        if (text.Length < 2)
            return [];
        var found = await FindIndex.SearchAsync(db, text, MostFound, cancel);
        // What is called so before what it only says something about; then people and what is bought and sold first,
        // then documents; a quote's revisions are one.
        var paid = await LastPaid.FindAsync(
            db,
            await books.ItemsAsync(db, cancel),
            await books.BookAsync(db, cancel),
            clock.Today,
            text,
            cancel
        );
        var ofItem = await WhereIsIt.OfItemAsync(db, await books.ItemsAsync(db, cancel), text, cancel);
        return await WhereIsIt.SaidAsync(
            db,
            [
                .. paid,
                .. Together([.. ofItem, .. found.Where(f => f.Near).Select(Of).OfType<Found>()]),
                .. Together(found.Where(f => !f.Near).Select(Of).OfType<Found>()),
            ],
            cancel
        );
    }

    private static IEnumerable<Found> Together(IEnumerable<Found> found) =>
        [
            .. found
                .DistinctBy(f => (f.Kind, f.Path))
                .GroupBy(f => f.Kind)
                .OrderBy(g => Array.IndexOf(Order, g.Key))
                .SelectMany(g => g.Take(6)),
        ];

    private static readonly string[] Order = ["buyer", "item", "contact", "quote", "order", "request", "person"];

    private static Found? Of(FoundRow f) =>
        f.Kind switch
        {
            FoundKind.Buyer => new Found("buyer", f.Number, f.Words, f.Rest, $"/records/buyers/{f.Id}", f.Id),
            FoundKind.Item => new Found("item", f.Number, f.Words, f.Rest, $"/records/items/{f.Id}", f.Id),
            FoundKind.Contact => new Found("contact", "", f.Words, f.Rest, $"/records/contacts/{f.Id}", f.Id),
            FoundKind.Quote => new Found("quote", f.Number, f.Words, f.Rest, $"/quotes/{f.Number}", null),
            FoundKind.Order => new Found("order", f.Number, f.Words, f.Rest, $"/orders/{f.Number}", null),
            FoundKind.Request => new Found("request", f.Number, f.Words, f.Rest, $"/requests/{f.Number}", null),
            FoundKind.Person => new Found("person", "", f.Words, f.Rest, null, f.Id),
            _ => throw new ArgumentOutOfRangeException(nameof(f)),
        };

    /// <summary>
    /// Items for what is being typed on a sheet: by code, GTIN or words, with the quantity that stands behind them.
    /// </summary>
    private static async Task<ItemHits> Items(
        string q,
        SolvendaDb db,
        PriceBooks books,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var typed = QuickLine.Parse(q);
        var finder = await books.ItemsAsync(db, cancel);
        var book = await books.BookAsync(db, cancel);
        var exact = finder.ByCode(typed.Words);
        var items = exact is not null
            ? [exact]
            : finder
                .Search(typed.Words, Most)
                .Where(c => c.Score > 0.2m)
                .Select(c => c.Item)
                .Concat(
                    book.Items.Where(i =>
                            typed.Words.Length > 1 && i.Code.StartsWith(typed.Words, StringComparison.OrdinalIgnoreCase)
                        )
                        .OrderBy(i => i.Code, StringComparer.Ordinal)
                        .Take(Most)
                )
                .DistinctBy(i => i.Id)
                .Take(Most)
                .ToList();
        var ids = items.Select(i => i.Id.Value).ToList();
        var free = await StockHere.FreeAsync(db, ids, cancel);
        return new ItemHits(
            typed.Words,
            typed.Quantity,
            typed.Unit is { } u ? UnitTable.OnSheet(u) : null,
            [
                .. items.Select(i => new ItemHit(
                    i.Code,
                    i.Words,
                    UnitTable.OnSheet(i.StockUnit),
                    book.ListPriceOn(i, clock.Today),
                    free.GetValueOrDefault(i.Id.Value)
                )),
            ]
        );
    }
}
