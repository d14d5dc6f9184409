using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Data;

namespace Solvenda.Web.Buyers;

/// <summary>What is open with a buyer, the newest of each kind.</summary>
internal static class OpenDocuments
{
    private const int Most = 20;

    public static async Task<List<OpenDocument>> OfAsync(SolvendaDb db, long buyer, CancellationToken cancel) =>
        [.. await QuotesAsync(db, buyer, cancel), .. await OrdersAsync(db, buyer, cancel)];

    private static async Task<IEnumerable<OpenDocument>> QuotesAsync(
        SolvendaDb db,
        long buyer,
        CancellationToken cancel
    )
    {
        var quotes = await db
            .Quotes.Where(q =>
                q.Dossier.BuyerId == buyer
                && (
                    q.State == QuoteState.Drafting
                    || q.State == QuoteState.InApproval
                    || q.State == QuoteState.Cleared
                    || q.State == QuoteState.WithCustomer
                )
            )
            .OrderByDescending(q => q.Id)
            .Take(Most)
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
        return quotes.Select(q => new OpenDocument(
            "quote",
            q.Number,
            q.Matter,
            q.State == QuoteState.WithCustomer ? "with them" : "being written",
            DateOnly.FromDateTime(q.CreatedAt),
            q.Currency,
            Amount.Major(q.TotalWithTaxMinor, q.Currency)
        ));
    }

    private static async Task<IEnumerable<OpenDocument>> OrdersAsync(
        SolvendaDb db,
        long buyer,
        CancellationToken cancel
    )
    {
        var orders = await db
            .Orders.Where(o =>
                o.Dossier.BuyerId == buyer && o.Terms != TermsTrack.Cancelled && o.Goods != GoodsTrack.Shipped
            )
            .OrderByDescending(o => o.Id)
            .Take(Most)
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
        return orders.Select(o => new OpenDocument(
            "order",
            o.Number,
            o.Matter,
            Words(o.Terms, o.Goods),
            DateOnly.FromDateTime(o.CreatedAt),
            o.Currency,
            Amount.Major(o.TotalWithTaxMinor, o.Currency)
        ));
    }

    private static string Words(TermsTrack terms, GoodsTrack goods) =>
        terms != TermsTrack.Confirmed ? "not confirmed yet"
        : goods == GoodsTrack.Picking ? "being picked"
        : "confirmed";
}
