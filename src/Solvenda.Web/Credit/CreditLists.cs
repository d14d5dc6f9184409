using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Data;

namespace Solvenda.Web.Credit;

/// <summary>The controller's list: who is over, who will be, who is overdue, and what waits because of it.</summary>
public sealed class CreditLists(PriceBooks books, HouseClock clock)
{
    public async Task<CreditList> OfAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var today = clock.Today;
        var book = await books.BookAsync(db, cancel);
        var rates = Rates.On(today, book.Home, book.DatedRates);
        var buyers = await db.Buyers.AsNoTracking().Where(b => b.Active && !b.IsProspect).ToListAsync(cancel);
        var standings = await CreditFacts.StandingsAsync(db, buyers, rates, today, cancel);
        var byId = buyers.ToDictionary(b => b.Id);
        // Those that share a limit are one row: the parent's.
        long HolderOf(long buyer) =>
            byId.TryGetValue(buyer, out var b)
            && b.ParentId is { } p
            && byId.TryGetValue(p, out var parent)
            && parent.CreditLimitMinor is not null
                ? p
                : buyer;
        var quotes = Group(await QuotesAsync(db, cancel), HolderOf);
        var held = (await HeldAsync(db, cancel)).ToLookup(h => HolderOf(h.BuyerId), h => h.Number);
        List<CreditRow> rows =
        [
            .. buyers
                .Where(b => HolderOf(b.Id) == b.Id)
                .Select(b => Row(b.Id, b.Code, b.Name, standings[b.Id], quotes, rates, today, [.. held[b.Id]]))
                .Where(r => r.Limit is not null || r.Exposure != 0 || r.Held.Count > 0 || r.Blocked.Length > 0)
                .OrderByDescending(r => r.Held.Count > 0)
                .ThenByDescending(r => r.Over > 0)
                .ThenByDescending(r => r.BeyondGrace)
                .ThenByDescending(r => r.WillBeOver)
                .ThenBy(r => r.Name, StringComparer.Ordinal),
        ];
        return new CreditList(
            rows,
            rows.Count(r => r.Over > 0),
            rows.Count(r => r.WillBeOver && r.Over == 0),
            rows.Count(r => r.BeyondGrace),
            rows.Count(r => r.Held.Count > 0),
            rows.Count(r => r.Limit is null)
        );
    }

    private static CreditRow Row(
        long id,
        string code,
        string name,
        CreditStanding s,
        ILookup<long, (string Currency, long Minor)> quotes,
        Rates rates,
        DateOnly today,
        IReadOnlyList<string> held
    )
    {
        var currency = s.Limit.Currency;
        var missing = s.MissingRate;
        var quoted = Amount.Zero(currency);
        foreach (var (from, minor) in quotes[id])
        {
            if (rates.Convert(Amount.Major(minor, from), Currency.Of(from), currency) is { } value)
                quoted += Amount.Round(value, currency);
            else
                missing ??= from;
        }
        var ages = s.Aged(today);
        var over = s.HasLimit && s.Exposure > s.Limit ? (s.Exposure - s.Limit).Value : 0m;
        return new CreditRow(
            id,
            code,
            name,
            currency.Code,
            s.HasLimit ? s.Limit.Value : null,
            s.Until,
            s.Exposure.Value,
            over,
            (s.Exposure + quoted).Value,
            s.HasLimit && s.Exposure + quoted > s.Limit,
            (ages.UpTo30 + ages.UpTo60 + ages.Older).Value,
            s.OldestOverdueDays,
            s.OverdueBeyondGrace,
            s.DaysLate,
            s.Blocked,
            missing,
            held
        );
    }

    private static ILookup<long, (string Currency, long Minor)> Group(
        List<(long BuyerId, string Currency, long Minor)> sums,
        Func<long, long> holder
    ) => sums.ToLookup(s => holder(s.BuyerId), s => (s.Currency, s.Minor));

    // Quotes that may still become orders: the newest revision of each.
    private static async Task<List<(long BuyerId, string Currency, long Minor)>> QuotesAsync(
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var sums = await db
            .Quotes.Where(q =>
                q.State == QuoteState.WithCustomer || q.State == QuoteState.InApproval || q.State == QuoteState.Cleared
            )
            .GroupBy(q => new { q.Dossier.BuyerId, q.Sheet.Currency })
            .Select(g => new
            {
                g.Key.BuyerId,
                g.Key.Currency,
                Minor = g.Sum(q => q.Sheet.TotalWithTaxMinor),
            })
            .ToListAsync(cancel);
        return sums.ConvertAll(s => (s.BuyerId, s.Currency, s.Minor));
    }

    private static async Task<List<(long BuyerId, string Number)>> HeldAsync(SolvendaDb db, CancellationToken cancel)
    {
        var held = await db
            .Orders.Where(o => (o.Terms == TermsTrack.Open || o.Terms == TermsTrack.Held) && o.CreditStop)
            .OrderBy(o => o.Id)
            .Select(o => new { o.Dossier.BuyerId, o.Number })
            .ToListAsync(cancel);
        return held.ConvertAll(h => (h.BuyerId, h.Number));
    }
}
