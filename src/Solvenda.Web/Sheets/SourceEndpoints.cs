using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Assortments;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Units;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;

namespace Solvenda.Web.Sheets;

/// <summary>
/// Where lines can be taken from: earlier documents of the buyer, assortments, what they usually take.
/// </summary>
/// <param name="Kind">usual, assortment, quote, or order.</param>
/// <param name="Key">By which its lines are asked for.</param>
public sealed record SourceView(string Kind, string Key, string Words, string Rest, DateOnly? Day, int Lines);

/// <summary>A line that can be taken.</summary>
/// <param name="Text">As it would be typed, at the prices of today.</param>
/// <param name="Then">The same with the price that it had; null where it had none in this currency.</param>
/// <param name="Code">Empty for what is not in the catalogue.</param>
/// <param name="Price">What one costs today; null where there is no price.</param>
/// <param name="WhyNot">Why it cannot be taken; empty where it can.</param>
public sealed record SourceLineView(
    LineKind Kind,
    string Text,
    string? Then,
    string Code,
    string Words,
    decimal Quantity,
    string UnitWord,
    decimal? Price,
    decimal? PriceThen,
    string WhyNot
);

/// <param name="Keys">Keys of the lines; empty: all of them.</param>
public sealed record KeepLines(string Name, bool ForAll, IReadOnlyList<long> Keys);

/// <summary>Lines from elsewhere: what a sheet can take, and what is kept of it by a name.</summary>
public static class SourceEndpoints
{
    private const int MostDocuments = 40;
    private const int UsualDays = 365;
    private const int UsualLines = 30;
    private const int CatalogueLines = 60;

    public static void MapSources(this RouteGroupBuilder sheets)
    {
        ArgumentNullException.ThrowIfNull(sheets);
        sheets.MapGet("/{id:long}/sources", Sources).Needs(Rights.Write);
        sheets.MapGet("/{id:long}/sources/{kind}/{key}", Lines).Needs(Rights.Write);
        sheets.MapPost("/{id:long}/assortments", Keep).Needs<SaveAssortment>();
        sheets.MapDelete("/assortments/{assortment:long}", Remove).Needs<RemoveAssortment>();
        sheets.MapPost("/columns", Choose).Needs<ChooseColumns>();
    }

    private static async Task<List<SourceView>> Sources(
        long id,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var buyer = await BuyerOf.SheetAsync(db, id, cancel);
        var me = user.ActorOf().PersonId;
        List<SourceView> sources =
        [
            new("catalogue", "all", "the catalogue", "what is sold", null, 0),
            new("usual", "usual", "their usual", "what they took in a year", null, 0),
        ];
        sources.AddRange(
            (
                await db
                    .Assortments.Where(a => a.OwnerId == null || a.OwnerId == me)
                    .OrderBy(a => a.Name)
                    .ToListAsync(cancel)
            ).Select(a => new SourceView(
                "assortment",
                a.Id.ToString(System.Globalization.CultureInfo.InvariantCulture),
                a.Name,
                a.OwnerId is null ? "the house’s" : "mine",
                null,
                a.Lines.Split('\n').Length
            ))
        );
        var orders = await db
            .Orders.Where(o => o.Dossier.BuyerId == buyer.Id && o.SheetId != id)
            .OrderByDescending(o => o.Id)
            .Take(MostDocuments)
            .Select(o => new SourceView(
                "order",
                o.Number,
                o.Number,
                o.Dossier.Matter,
                DateOnly.FromDateTime(o.CreatedAt),
                o.Sheet.StoredLines.Count
            ))
            .ToListAsync(cancel);
        var quotes = await db
            .Quotes.Where(q =>
                q.Dossier.BuyerId == buyer.Id && q.SheetId != id && q.State != Core.Documents.QuoteState.Replaced
            )
            .OrderByDescending(q => q.Id)
            .Take(MostDocuments)
            .Select(q => new SourceView(
                "quote",
                q.Number,
                q.Number,
                q.Dossier.Matter,
                DateOnly.FromDateTime(q.CreatedAt),
                q.Sheet.StoredLines.Count
            ))
            .ToListAsync(cancel);
        sources.AddRange(orders.Concat(quotes).OrderByDescending(s => s.Day));
        return sources;
    }

    private static async Task<List<SourceLineView>> Lines(
        long id,
        string kind,
        string key,
        string? q,
        ClaimsPrincipal user,
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
        var taker = new Taker(await books.BookAsync(db, cancel), sheet, buyer);
        return kind switch
        {
            "catalogue" => taker.Catalogue(q ?? "", await books.ItemsAsync(db, cancel)),
            "usual" => taker.Usual(await UsualAsync(db, buyer.Id, clock.Today, cancel)),
            "assortment" => taker.Typed(await KeptAsync(db, key, user.ActorOf().PersonId, cancel)),
            "quote" or "order" => taker.Of(await DocumentAsync(db, kind, key, buyer.Id, cancel)),
            _ => throw RefusedException.NotFound("such place to take lines from"),
        };
    }

    // By how often they took it, the newest quantity of each.
    private static async Task<List<SheetLineRow>> UsualAsync(
        SolvendaDb db,
        long buyer,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var since = today.AddDays(-UsualDays).ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        var lines = await db
            .Orders.Where(o => o.Dossier.BuyerId == buyer && o.CreatedAt >= since)
            .OrderByDescending(o => o.Id)
            .SelectMany(o => o.Sheet.StoredLines.Where(l => l.ItemId != null && l.Quantity > 0))
            .AsNoTracking()
            .ToListAsync(cancel);
        return
        [
            .. lines
                .GroupBy(l => l.ItemId)
                .OrderByDescending(g => g.Count())
                .Take(UsualLines)
                .Select(g => g.MaxBy(l => l.SheetId)!),
        ];
    }

    private static async Task<string> KeptAsync(SolvendaDb db, string key, long? me, CancellationToken cancel) =>
        long.TryParse(key, out var id)
        && await db.Assortments.FirstOrDefaultAsync(a => a.Id == id && (a.OwnerId == null || a.OwnerId == me), cancel)
            is { } kept
            ? kept.Lines
            : throw RefusedException.NotFound("such assortment");

    // Only what was the same buyer's.
    private static async Task<SheetRow> DocumentAsync(
        SolvendaDb db,
        string kind,
        string number,
        long buyer,
        CancellationToken cancel
    )
    {
        var sheets =
            kind == "order"
                ? db.Orders.Where(o => o.Number == number && o.Dossier.BuyerId == buyer).Select(o => o.SheetId)
                : db
                    .Quotes.Where(q => q.Number == number && q.Dossier.BuyerId == buyer)
                    .OrderByDescending(q => q.Revision)
                    .Select(q => q.SheetId)
                    .Take(1);
        return await db
                .Sheets.AsNoTracking()
                .Include(s => s.StoredLines)
                .FirstOrDefaultAsync(s => sheets.Contains(s.Id), cancel)
            ?? throw RefusedException.NotFound("such document of this buyer");
    }

    private static async Task<long> Keep(
        long id,
        KeepLines body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => await acts.RunAsync(user.ActorOf(), new SaveAssortment(id, body.Keys, body.Name, body.ForAll), cancel);

    private static async Task<long> Remove(
        long assortment,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => await acts.RunAsync(user.ActorOf(), new RemoveAssortment(assortment), cancel);

    private static async Task<string> Choose(
        string[] columns,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => await acts.RunAsync(user.ActorOf(), new ChooseColumns(columns), cancel);

    // Says lines as they would be typed on one sheet, with what they cost there today.
    private sealed class Taker(PriceBook book, SheetRow sheet, BuyerRow buyer)
    {
        private readonly Rates _rates = sheet.RatesOf(book);
        private readonly Currency _currency = Currency.Of(sheet.Currency);

        // By words; without them in the order of their codes.
        public List<SourceLineView> Catalogue(string words, ItemFinder finder) =>
            [
                .. (
                    words.Trim().Length < 2
                        ? book.Items.OrderBy(i => i.Code, StringComparer.Ordinal)
                        : finder.Search(words, CatalogueLines).Where(c => c.Score > 0.2m).Select(c => c.Item)
                )
                    .Where(i => i.Active)
                    .Take(CatalogueLines)
                    .Select(i => RowOf($"{i.Code} x 1 {i.StockUnit.Code}")),
            ];

        public List<SourceLineView> Usual(List<SheetLineRow> lines) =>
            [.. Lines(lines).Select(l => Shown(l.Line, null, 1m))];

        public List<SourceLineView> Of(SheetRow from) =>
            [
                .. Lines(from.Lines.OrderBy(l => l.Position))
                    .Select(l =>
                        Shown(l.Line, from.Currency == sheet.Currency ? l.Row.NetPrice : null, l.Row.PriceBase)
                    ),
            ];

        public List<SourceLineView> Typed(string text) => [.. text.Split('\n').Select(RowOf)];

        private static IEnumerable<(SheetLineRow Row, SheetLine Line)> Lines(IEnumerable<SheetLineRow> rows) =>
            rows.Select(r => (r, r.AsTyped()));

        private SourceLineView RowOf(string row)
        {
            if (row.StartsWith("# ", StringComparison.Ordinal) || row.StartsWith("// ", StringComparison.Ordinal))
            {
                var kind = row[0] == '#' ? LineKind.Heading : LineKind.Comment;
                return new SourceLineView(kind, row, null, "", row[(row.IndexOf(' ') + 1)..], 0m, "", null, null, "");
            }
            var typed = QuickLine.Parse(row.TrimStart('+', ' '));
            var item = book.FindByCode(typed.Words);
            var unit = typed.Unit ?? item?.StockUnit ?? Unit.Piece;
            return new SourceLineView(
                row[0] == '+' ? LineKind.Charge : LineKind.Item,
                row,
                null,
                item?.Code ?? "",
                item?.Words ?? typed.Words,
                typed.Quantity ?? 1m,
                UnitTable.OnSheet(unit),
                item is null ? typed.NetPrice : Price(item, typed.Quantity ?? 1m, unit)?.Base?.Value,
                null,
                WhyNot(item)
            );
        }

        private SourceLineView Shown(SheetLine line, decimal? then, decimal priceBase)
        {
            var item = line.Item is { } id ? book.Find(id) : null;
            var build = item is null ? null : Price(item, line.Quantity, line.Unit);
            var priceThen =
                then is { } price && (build is null || build.PriceBase == priceBase) ? price : (decimal?)null;
            return new SourceLineView(
                line.Kind,
                AssortmentLines.Text(line, book, null),
                priceThen is { } typed && line.HasFigures ? AssortmentLines.Text(line, book, typed) : null,
                item?.Code ?? "",
                line.Words,
                line.Quantity,
                UnitTable.OnSheet(line.Unit),
                build?.Base?.Value ?? (item is null ? priceThen : null),
                priceThen,
                WhyNot(item)
            );
        }

        private static string WhyNot(Item? item) => item is { Active: false } ? "sold no more" : "";

        private PriceBuild? Price(Item item, decimal quantity, Unit unit) =>
            quantity is <= 0 or > LineFields.MostQuantity
                ? null
                : BasePrice.Find(
                    book,
                    _rates,
                    new PriceQuestion(
                        item,
                        quantity,
                        unit,
                        buyer.ToBuyer(),
                        _currency,
                        sheet.PricingDate,
                        sheet.Channel
                    )
                );
    }
}
