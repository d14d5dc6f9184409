using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Pricing;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Printing;

namespace Solvenda.Web.Sheets;

/// <summary>A sheet with the quote or order it is the body of, and everything it is judged against.</summary>
public sealed class OpenSheet
{
    public required SheetRow Sheet { get; init; }
    public QuoteRow? Quote { get; init; }
    public OrderRow? Order { get; init; }
    public required DossierRow Dossier { get; init; }
    public required PriceBook Book { get; init; }
    public required IReadOnlyDictionary<PersonId, Decider> People { get; init; }
    public required List<AskRow> Asks { get; init; }
    public required List<WaiverRow> Waivers { get; init; }

    /// <summary>The buyer's other addresses that are in use.</summary>
    public required List<AddressRow> Addresses { get; init; }

    /// <summary>The one of them that the goods go to, if it is one of them.</summary>
    public AddressRow? DeliverTo => Addresses.FirstOrDefault(a => a.Use == "deliver-to" && a.Words == Sheet.DeliverTo);

    public BuyerRow Buyer => Dossier.Buyer;

    /// <summary>What is said on it, in its language.</summary>
    public Wording Wording => Wording.Of(Sheet.Language);

    public Decider Seller => People[new PersonId(Quote?.SellerId ?? Order!.SellerId)];

    /// <summary>As it is printed: Q26-00187·B, S26-00311.</summary>
    public string Number => Quote is { } q ? $"{q.Number}·{QuoteMoves.Letter(q.Revision)}" : Order!.Number;

    /// <summary>Number by which history and asks know it.</summary>
    public string Subject => Quote?.Number ?? Order!.Number;

    public bool IsEditable =>
        Quote is { } q ? QuoteMoves.IsOpen(q.State) : Order!.Terms is TermsTrack.Open or TermsTrack.Held;
}

/// <summary>Loads open sheets; the context tracks them where a command means to change them.</summary>
public sealed class SheetLoader(PriceBooks books)
{
    public async Task<OpenSheet> BySheetAsync(SolvendaDb db, long sheetId, CancellationToken cancel)
    {
        var quote = await Quotes(db).FirstOrDefaultAsync(q => q.SheetId == sheetId, cancel);
        var order = quote is null ? await Orders(db).FirstOrDefaultAsync(o => o.SheetId == sheetId, cancel) : null;
        return await OpenAsync(db, quote, order, cancel);
    }

    /// <param name="revision">Null: the newest.</param>
    public async Task<OpenSheet> QuoteAsync(SolvendaDb db, string number, int? revision, CancellationToken cancel)
    {
        var quote = await Quotes(db)
            .Where(q => q.Number == number && (revision == null || q.Revision == revision))
            .OrderByDescending(q => q.Revision)
            .FirstOrDefaultAsync(cancel);
        return await OpenAsync(db, quote, null, cancel);
    }

    public async Task<OpenSheet> OrderAsync(SolvendaDb db, string number, CancellationToken cancel) =>
        await OpenAsync(db, null, await Orders(db).FirstOrDefaultAsync(o => o.Number == number, cancel), cancel);

    private static IQueryable<QuoteRow> Quotes(SolvendaDb db) =>
        db
            .Quotes.Include(q => q.Dossier.Buyer)
            .Include(q => q.Sheet.Lines)
            .Include(q => q.Sheet.Charges)
            .AsSplitQuery();

    private static IQueryable<OrderRow> Orders(SolvendaDb db) =>
        db
            .Orders.Include(o => o.Dossier.Buyer)
            .Include(o => o.Sheet.Lines)
            .Include(o => o.Sheet.Charges)
            .AsSplitQuery();

    private async Task<OpenSheet> OpenAsync(SolvendaDb db, QuoteRow? quote, OrderRow? order, CancellationToken cancel)
    {
        if (quote is null && order is null)
            throw RefusalException.NotFound("such quote or order");
        var sheet = quote?.Sheet ?? order!.Sheet;
        // The grants of the quote hold for its order, as long as nothing got worse.
        var fromQuote = order?.QuoteId is { } quoteId
            ? await db.Quotes.Where(q => q.Id == quoteId).Select(q => (long?)q.SheetId).FirstOrDefaultAsync(cancel)
            : null;
        var buyerId = quote?.Dossier.BuyerId ?? order!.Dossier.BuyerId;
        return new OpenSheet
        {
            Sheet = sheet,
            Quote = quote,
            Order = order,
            Dossier = quote?.Dossier ?? order!.Dossier,
            Addresses = await db
                .Addresses.AsNoTracking()
                .Where(a => a.BuyerId == buyerId && a.Active)
                .OrderBy(a => a.Code)
                .ToListAsync(cancel),
            Book = await books.BookAsync(db, cancel),
            People = (await db.People.AsNoTracking().ToListAsync(cancel))
                .Select(p => p.ToDecider())
                .ToDictionary(d => d.Id),
            Asks = await db
                .Asks.Where(a => a.SheetId == sheet.Id || a.SheetId == fromQuote)
                .OrderBy(a => a.Id)
                .ToListAsync(cancel),
            Waivers = order is null
                ? []
                : await db
                    .Waivers.AsNoTracking()
                    .Where(w => w.OrderId == order.Id)
                    .OrderBy(w => w.Id)
                    .ToListAsync(cancel),
        };
    }
}
