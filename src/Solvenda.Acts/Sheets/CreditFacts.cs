using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>A buyer's credit, and what one order adds to it.</summary>
/// <param name="Standing">Null where no limit is kept.</param>
/// <param name="ThisOrder">In the credit's currency; nothing once it is confirmed, since the exposure has it
/// then.</param>
/// <param name="RateHome">Home currency per unit of the credit's currency.</param>
public sealed record OrderCredit(CreditStanding? Standing, Amount ThisOrder, decimal RateHome);

/// <summary>Gathers what buyers owe and will owe, at the rates of today; Core judges.</summary>
public static class CreditFacts
{
    /// <summary>For one order: nothing is counted twice.</summary>
    public static async Task<OrderCredit> OfAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedSheet priced,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(priced);
        var rates = Rates.On(today, open.Book.Home, open.Book.DatedRates);
        if (open.Order is not { } order)
            return new OrderCredit(null, Amount.Zero(Currency.Of(open.Buyer.Currency)), 1m);
        var standing = await StandingAsync(db, open.Buyer, rates, today, cancel);
        var currency = standing?.Limit.Currency ?? Currency.Of(open.Buyer.Currency);
        var counted = order.Terms == TermsTrack.Confirmed;
        var total = counted ? 0m : rates.Convert(priced.Tally.TotalWithTax.Value, priced.Sheet.Currency, currency);
        if (total is null && standing is not null)
            standing = standing with
            {
                MissingRate = rates.Of(currency) is null ? currency.Code : priced.Sheet.Currency.Code,
            };
        return new OrderCredit(standing, Amount.Round(total ?? 0m, currency), rates.Of(currency) ?? 1m);
    }

    /// <summary>
    /// What the buyer owes and will owe with every confirmed order; null where no limit is kept. A parent's limit is
    /// shared by its children, and counts
    /// what all of them owe.
    /// </summary>
    public static async Task<CreditStanding?> StandingAsync(
        SolvendaDb db,
        BuyerRow buyer,
        Rates rates,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(buyer);
        ArgumentNullException.ThrowIfNull(rates);
        var parent = buyer.ParentId is { } parentId
            ? await db
                .Buyers.AsNoTracking()
                .FirstOrDefaultAsync(b => b.Id == parentId && b.CreditLimitMinor != null, cancel)
            : null;
        var holder = parent ?? buyer;
        if (holder.CreditLimitMinor is not { } limit)
            return null;
        var family = await db
            .Buyers.Where(b => b.Id == holder.Id || b.ParentId == holder.Id)
            .Select(b => new { b.Id, b.Currency })
            .ToDictionaryAsync(b => b.Id, b => b.Currency, cancel);
        var sums = new Sums(Currency.Of(holder.Currency), rates);
        var owed = await OwedAsync(db, family, cancel);
        var orders = await OrdersAsync(db, [.. family.Keys], cancel);
        var zero = Amount.Zero(sums.Currency);
        var standing = new CreditStanding(
            Amount.FromMinor(limit, sums.Currency),
            sums.Add(owed.Select(o => (o.Currency, o.Minor))),
            sums.Add(orders.Where(s => s.Shipped).Select(s => (s.Currency, s.Minor))),
            sums.Add(orders.Where(s => !s.Shipped).Select(s => (s.Currency, s.Minor))),
            zero,
            zero,
            Math.Max(0, owed.Select(o => today.DayNumber - o.Due.DayNumber).DefaultIfEmpty(0).Max()),
            holder.GraceDays
        );
        return standing with
        {
            MissingRate = sums.Missing,
            SharedWith = parent?.Name ?? (family.Count > 1 ? buyer.Name : null),
        };
    }

    private static async Task<List<(string Currency, long Minor, DateOnly Due)>> OwedAsync(
        SolvendaDb db,
        Dictionary<long, string> family,
        CancellationToken cancel
    )
    {
        var ids = family.Keys.ToList();
        var open = await db
            .OpenItems.Where(o => EF.Parameter(ids).Contains(o.BuyerId))
            .Select(o => new
            {
                o.BuyerId,
                o.Due,
                o.OpenMinor,
            })
            .ToListAsync(cancel);
        return open.ConvertAll(o => (family[o.BuyerId], o.OpenMinor, o.Due));
    }

    private static async Task<List<(string Currency, bool Shipped, long Minor)>> OrdersAsync(
        SolvendaDb db,
        List<long> ids,
        CancellationToken cancel
    )
    {
        var sums = await db
            .Orders.Where(o =>
                EF.Parameter(ids).Contains(o.Dossier.BuyerId)
                && (
                    (o.Terms == TermsTrack.Confirmed && o.Goods != GoodsTrack.Shipped)
                    || (o.Goods == GoodsTrack.Shipped && o.Money == MoneyTrack.ToInvoice)
                )
            )
            .GroupBy(o => new { o.Sheet.Currency, Shipped = o.Goods == GoodsTrack.Shipped })
            .Select(g => new
            {
                g.Key.Currency,
                g.Key.Shipped,
                Minor = g.Sum(o => o.Sheet.TotalWithTaxMinor),
            })
            .ToListAsync(cancel);
        return sums.ConvertAll(s => (s.Currency, s.Shipped, s.Minor));
    }

    // Sums of several currencies, each carried over and rounded on its own; a currency without a rate is named and
    // never taken one to one.
    private sealed class Sums(Currency currency, Rates rates)
    {
        public Currency Currency => currency;

        public string? Missing { get; private set; }

        public Amount Add(IEnumerable<(string Code, long Minor)> sums)
        {
            var total = Amount.Zero(currency);
            foreach (var (code, minor) in sums)
            {
                var from = Core.Money.Currency.Of(code);
                if (rates.Convert(Amount.FromMinor(minor, from).Value, from, currency) is { } value)
                    total += Amount.Round(value, currency);
                else
                    Missing = rates.Of(from) is null ? code : currency.Code;
            }
            return total;
        }
    }
}
