using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>Gathers what buyers owe and will owe, at the rates of today; Core judges.</summary>
public static class CreditFacts
{
    private const int RecordYears = 2;

    /// <summary>For one order: nothing is counted twice. Null for a quote.</summary>
    public static async Task<CreditAtOrder?> OfAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedSheet priced,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(priced);
        if (open.Order is not { } order)
            return null;
        var rates = Rates.On(today, open.Book.Home, open.Book.DatedRates);
        // How late they paid decides nothing; it is read where it is shown.
        var standings = await StandingsAsync(
            db,
            [open.Buyer],
            rates,
            today,
            cancel,
            withRecord: false,
            // Once it is confirmed the exposure has it.
            beside: order.Terms == TermsTrack.Confirmed ? null : order.Id
        );
        var standing = standings[open.Buyer.Id];
        var currency = standing.Limit.Currency;
        var counted = order.Terms == TermsTrack.Confirmed;
        // A frame owes nothing: what is called off of it does. What is invoiced of an order is owed as an invoice.
        var total =
            counted || priced.Sheet.Kind.IsFrame
                ? 0m
                : rates.Convert(
                    priced.Tally.Due.Value - Amount.FromMinor(order.InvoicedMinor, priced.Sheet.Currency).Value,
                    priced.Sheet.Currency,
                    currency
                );
        if (total is null)
            standing = standing with
            {
                MissingRate = rates.Of(currency) is null ? currency.Code : priced.Sheet.Currency.Code,
            };
        return new CreditAtOrder(standing, Amount.Round(total ?? 0m, currency), rates.Of(currency) ?? 1m);
    }

    /// <summary>
    /// What the buyer owes and will owe with every confirmed order. A parent's limit is shared by its children, and
    /// counts what all of them owe.
    /// </summary>
    public static async Task<CreditStanding> StandingAsync(
        SolvendaDb db,
        BuyerRow buyer,
        Rates rates,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(buyer);
        return (await StandingsAsync(db, [buyer], rates, today, cancel))[buyer.Id];
    }

    /// <summary>The same for many, by their keys.</summary>
    /// <param name="withRecord">Also how late they paid in the last years.</param>
    /// <param name="beside">An order that is being changed, or is looked at as if it were: what was confirmed of it is
    /// not counted, since it stands beside the exposure as it is now.</param>
    public static async Task<Dictionary<long, CreditStanding>> StandingsAsync(
        SolvendaDb db,
        IReadOnlyCollection<BuyerRow> buyers,
        Rates rates,
        DateOnly today,
        CancellationToken cancel,
        bool withRecord = true,
        long? beside = null
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(buyers);
        ArgumentNullException.ThrowIfNull(rates);
        var parentIds = buyers.Where(b => b.ParentId is not null).Select(b => b.ParentId!.Value).Distinct().ToList();
        var parents = await db
            .Buyers.AsNoTracking()
            .Where(b => EF.Parameter(parentIds).Contains(b.Id) && b.CreditLimitMinor != null)
            .ToDictionaryAsync(b => b.Id, cancel);
        BuyerRow HolderOf(BuyerRow b) => b.ParentId is { } p && parents.TryGetValue(p, out var parent) ? parent : b;
        var holders = buyers.Select(HolderOf).DistinctBy(h => h.Id).ToList();
        DateOnly? since = withRecord ? today.AddYears(-RecordYears) : null;
        var owed = await Owed.LoadAsync(db, [.. holders.Select(h => h.Id)], since, beside, cancel);
        var standings = holders.ToDictionary(h => h.Id, h => Of(h, owed, rates, today));
        return buyers.ToDictionary(
            b => b.Id,
            b =>
            {
                var holder = HolderOf(b);
                return standings[holder.Id] with
                {
                    SharedWith = holder.Id != b.Id || owed.FamilyOf(b.Id).Count > 1 ? holder.Name : null,
                    Blocked = b.CreditBlocked.Length > 0 ? b.CreditBlocked : holder.CreditBlocked,
                };
            }
        );
    }

    private static CreditStanding Of(BuyerRow holder, Owed owed, Rates rates, DateOnly today)
    {
        var currency = Currency.Of(holder.Currency);
        var sums = new Sums(currency, rates);
        var family = owed.FamilyOf(holder.Id);
        var invoices = owed
            .Invoices.Where(o => family.ContainsKey(o.BuyerId))
            .Select(o => new OpenInvoice(
                o.Number,
                family[o.BuyerId].Name,
                o.Due,
                sums.One(o.Currency.Length > 0 ? o.Currency : family[o.BuyerId].Currency, o.OpenMinor)
            ))
            .ToList();
        var orders = owed.Orders.Where(o => family.ContainsKey(o.BuyerId)).ToList();
        var late = owed.Late.Where(l => family.ContainsKey(l.BuyerId)).ToList();
        return new CreditStanding(
            Amount.FromMinor(holder.CreditLimitMinor ?? 0, currency),
            Amount.Sum(invoices.Select(i => i.Open), currency),
            sums.Add(orders.Where(s => s.Shipped).Select(s => (s.Currency, s.Minor))),
            sums.Add(orders.Where(s => !s.Shipped).Select(s => (s.Currency, s.Minor))),
            sums.Add(owed.Receipts.Where(r => family.ContainsKey(r.BuyerId)).Select(r => (r.Currency, r.Minor))),
            sums.Add(owed.Deposits.Where(d => family.ContainsKey(d.BuyerId)).Select(d => (d.Currency, d.Minor))),
            Math.Max(
                0,
                invoices
                    .Where(i => i.Open.Minor > 0)
                    .Select(i => today.DayNumber - i.Due.DayNumber)
                    .DefaultIfEmpty(0)
                    .Max()
            ),
            holder.GraceDays
        )
        {
            MissingRate = sums.Missing,
            HasLimit = holder.CreditLimitMinor is not null,
            Until = holder.CreditUntil,
            Ended = holder.CreditUntil < today,
            Insured = holder.CreditInsuredMinor is { } insured ? Amount.FromMinor(insured, currency) : null,
            DaysLate = late.Sum(l => l.Times) is > 0 and var times
                ? decimal.Round(late.Sum(l => l.Days) / (decimal)times, 1, MidpointRounding.AwayFromZero)
                : null,
            Invoices = [.. invoices.OrderBy(i => i.Due)],
        };
    }

    private sealed record Member(long Id, string Name, string Currency, long Holder);

    private sealed record Order(long BuyerId, string Currency, bool Shipped, long Minor);

    private sealed record Paid(long BuyerId, long Days, int Times);

    private sealed record Held(long BuyerId, string Currency, long Minor);

    // Everything that some holders of limits and their children owe, in a few trips.
    private sealed record Owed(
        List<Member> Members,
        List<OpenItemRow> Invoices,
        List<Order> Orders,
        List<Held> Deposits,
        List<Held> Receipts,
        List<Paid> Late
    )
    {
        private readonly ILookup<long, Member> _families = Members.ToLookup(m => m.Holder);

        public Dictionary<long, Member> FamilyOf(long holder) => _families[holder].ToDictionary(m => m.Id);

        public static async Task<Owed> LoadAsync(
            SolvendaDb db,
            List<long> holders,
            DateOnly? since,
            long? beside,
            CancellationToken cancel
        )
        {
            var members = await db
                .Buyers.Where(b =>
                    EF.Parameter(holders).Contains(b.Id)
                    || (b.ParentId != null && EF.Parameter(holders).Contains(b.ParentId.Value))
                )
                .Select(b => new
                {
                    b.Id,
                    b.Name,
                    b.Currency,
                    b.ParentId,
                })
                .ToListAsync(cancel);
            var asked = holders.ToHashSet();
            // A child is counted with its parent where that is asked about, and by itself where it is.
            List<Member> all =
            [
                .. members.Where(m => asked.Contains(m.Id)).Select(m => new Member(m.Id, m.Name, m.Currency, m.Id)),
                .. members
                    .Where(m => m.ParentId is { } p && asked.Contains(p))
                    .Select(m => new Member(m.Id, m.Name, m.Currency, m.ParentId!.Value)),
            ];
            var ids = members.ConvertAll(m => m.Id);
            return new Owed(
                all,
                await db
                    .OpenItems.AsNoTracking()
                    .Where(o => o.PaidOn == null && EF.Parameter(ids).Contains(o.BuyerId))
                    .ToListAsync(cancel),
                [.. await OrdersAsync(db, ids, beside, cancel), .. await ChangingAsync(db, ids, beside, cancel)],
                await DepositsAsync(db, ids, cancel),
                await db
                    .Receipts.Where(r =>
                        r.LeftMinor > 0 && r.BuyerId != null && EF.Parameter(ids).Contains(r.BuyerId.Value)
                    )
                    .Select(r => new Held(r.BuyerId!.Value, r.Currency, r.LeftMinor))
                    .ToListAsync(cancel),
                since is { } from ? await LateAsync(db, ids, from, cancel) : []
            );
        }

        private static async Task<List<Order>> OrdersAsync(
            SolvendaDb db,
            List<long> ids,
            long? beside,
            CancellationToken cancel
        )
        {
            var sums = await db
                .Orders.Where(o =>
                    EF.Parameter(ids).Contains(o.Dossier.BuyerId)
                    && o.Id != beside
                    && o.Kind != OrderKinds.Frame
                    && (
                        (o.Terms == TermsTrack.Confirmed && o.Goods != GoodsTrack.Shipped)
                        || (
                            o.Goods == GoodsTrack.Shipped
                            && (o.Money == MoneyTrack.ToInvoice || o.Money == MoneyTrack.PartInvoiced)
                        )
                    )
                )
                // Flat before they are grouped: else each sum is a query of its own.
                .Select(o => new
                {
                    o.Dossier.BuyerId,
                    o.Sheet.Currency,
                    Shipped = o.Goods == GoodsTrack.Shipped,
                    // What is invoiced of it is owed as an invoice.
                    Minor = o.Sheet.TotalWithTaxMinor - o.InvoicedMinor,
                })
                .GroupBy(o => new
                {
                    o.BuyerId,
                    o.Currency,
                    o.Shipped,
                })
                .Select(g => new
                {
                    g.Key.BuyerId,
                    g.Key.Currency,
                    g.Key.Shipped,
                    Minor = g.Sum(o => o.Minor),
                })
                .ToListAsync(cancel);
            return sums.ConvertAll(s => new Order(s.BuyerId, s.Currency, s.Shipped, s.Minor));
        }

        // What was confirmed stands until a change of it is confirmed, whatever is typed meanwhile.
        private static Task<List<Order>> ChangingAsync(
            SolvendaDb db,
            List<long> ids,
            long? beside,
            CancellationToken cancel
        ) =>
            (
                from o in db.Orders
                join v in db.OrderVersions on new { o.Id, No = o.Confirmed } equals new { Id = v.OrderId, v.No }
                where
                    o.Terms == TermsTrack.Open
                    && o.Kind != OrderKinds.Frame
                    && o.ConfirmedAt != null
                    && o.Id != beside
                    && EF.Parameter(ids).Contains(o.Dossier.BuyerId)
                select new Order(
                    o.Dossier.BuyerId,
                    v.Sheet.Currency,
                    false,
                    v.Sheet.TotalWithTaxMinor - o.InvoicedMinor
                )
            ).ToListAsync(cancel);

        // What an invoice took is no longer held.
        private static Task<List<Held>> DepositsAsync(SolvendaDb db, List<long> ids, CancellationToken cancel) =>
            (
                from d in db.Deposits
                join o in db.Orders on d.OrderId equals o.Id
                where
                    EF.Parameter(ids).Contains(o.Dossier.BuyerId)
                    && o.Terms != TermsTrack.Cancelled
                    && d.TakenMinor < d.Minor
                select new Held(o.Dossier.BuyerId, o.Sheet.Currency, d.Minor - d.TakenMinor)
            ).ToListAsync(cancel);

        private static async Task<List<Paid>> LateAsync(
            SolvendaDb db,
            List<long> ids,
            DateOnly since,
            CancellationToken cancel
        )
        {
            var paid = await db
                .OpenItems.Where(o => o.PaidOn >= since && EF.Parameter(ids).Contains(o.BuyerId))
                .Select(o => new
                {
                    o.BuyerId,
                    o.Due,
                    o.PaidOn,
                })
                .ToListAsync(cancel);
            return
            [
                .. paid.GroupBy(p => p.BuyerId)
                    .Select(g => new Paid(
                        g.Key,
                        g.Sum(p => (long)p.PaidOn!.Value.DayNumber - p.Due.DayNumber),
                        g.Count()
                    )),
            ];
        }
    }

    // Sums of several currencies, each carried over and rounded on its own; a currency without a rate is named and
    // never taken one to one.
    private sealed class Sums(Currency currency, Rates rates)
    {
        public string? Missing { get; private set; }

        public Amount One(string code, long minor)
        {
            var from = Currency.Of(code);
            if (rates.Convert(Amount.FromMinor(minor, from).Value, from, currency) is { } value)
                return Amount.Round(value, currency);
            Missing = rates.Of(from) is null ? code : currency.Code;
            return Amount.Zero(currency);
        }

        public Amount Add(IEnumerable<(string Code, long Minor)> sums) =>
            Amount.Sum(sums.GroupBy(s => s.Code).Select(g => One(g.Key, g.Sum(s => s.Minor))), currency);
    }
}
