using System.Collections.Immutable;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Calendars;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Credit;
using Solvenda.Core.Money;
using Solvenda.Core.Ordering;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Sheets;

/// <summary>A sheet priced and judged: figures, what it needs, what its checks found.</summary>
public sealed record Judged(
    OpenSheet Open,
    PricedSheet Priced,
    SheetFigures Figures,
    ApprovalNeed Need,
    ApprovalState Approval,
    CheckFacts Facts,
    IReadOnlyList<Finding> Findings,
    IReadOnlyList<Reach> Headroom
)
{
    public bool Stopped => Findings.Any(f => f.Outcome == Outcome.Stop);
}

/// <summary>Prices a sheet and runs its checks: gathers the facts, Core decides.</summary>
public sealed class Judge(HouseClock clock)
{
    // How far ahead stock is looked at, in days.
    private const int Horizon = 180;

    private static readonly TimeOnly CutOff = new(15, 0);

    public async Task<Judged> JudgeAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        var priced = open.Sheet.Reprice(open.Buyer, open.Book);
        var figures = SheetFigures.Of(priced);
        var need = Core.Approvals.Route.Find(figures, open.Seller, open.People);
        var state = Approval.State(
            need,
            figures,
            open.Asks.Select(a => (a.Outcome, JsonSerializer.Deserialize<SheetFigures>(a.Figures)!))
        );
        var (credit, inCredit, rateHome) = await CreditAsync(db, open, priced, cancel);
        var facts = new CheckFacts(
            open.Order is null ? DocumentKind.Quote : DocumentKind.Order,
            priced,
            priced.Buyer,
            new HeadTerms(
                open.Sheet.PoNumber,
                open.Sheet.PaymentDays,
                open.Sheet.Incoterm,
                open.Sheet.IncotermPlace,
                open.Sheet.DeliverTo,
                open.Sheet.ShipFrom,
                open.Sheet.Wanted
            )
            {
                DocumentsBy = open.Sheet.DocumentsBy,
                AnswersByEdi =
                    open.Sheet.DocumentsBy == DocumentsBy.Edi
                    && open.Order?.RequestId is { } request
                    && await db.Requests.AnyAsync(r => r.Id == request && r.Text.StartsWith("ISA"), cancel),
            },
            open.Order is null ? [] : await EarlierAsync(db, open, cancel),
            await StockAsync(db, open, priced, cancel),
            credit,
            need,
            state,
            figures,
            open.Seller.Authority,
            priced.Sold.ToDictionary(l => l.Line.Key, l => Headroom.Line(l, priced, open.Seller.Authority)),
            inCredit,
            rateHome,
            [.. open.Waivers.Select(w => new Waiver(w.Check, w.LineKey, w.Fingerprint, w.Excess, w.ByName, w.Reason))]
        );
        var findings = CheckList.Run(facts);
        if (open is { IsEditable: true, Order: { } order })
        {
            var stops = findings.Where(f => f.Outcome == Outcome.Stop).ToList();
            (order.Stops, order.FirstStop) = (stops.Count, stops.FirstOrDefault()?.Words ?? "");
        }
        return new Judged(
            open,
            priced,
            figures,
            need,
            state,
            facts,
            findings,
            Headroom.Sheet(priced, open.Seller, open.People)
        );
    }

    private async Task<Dictionary<long, LineStock>> StockAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedSheet priced,
        CancellationToken cancel
    )
    {
        var today = clock.Today;
        int? Lead(Item item) =>
            item.LeadDays is { } days ? WorkCalendar.MondayToFriday.Add(today, days).DayNumber - today.DayNumber : null;
        var lines = new List<LineNeeds>();
        foreach (var line in priced.Sold)
        {
            var quantity = line.Line.Quantity * (line.Item?.Factor(line.Line.Unit) ?? 1m);
            ImmutableArray<StockNeed> needs = line switch
            {
                { Parts.IsEmpty: false } =>
                [
                    .. line
                        .Parts.Where(p => p.Item.Stocked)
                        .GroupBy(p => p.Item.Id)
                        .Select(g => new StockNeed(g.Key, g.Sum(p => p.Quantity), Lead(g.First().Item))),
                ],
                { Item: { Stocked: true } item } => [new StockNeed(item.Id, quantity, Lead(item))],
                _ => [],
            };
            if (!needs.IsEmpty)
                lines.Add(new LineNeeds(line.Line.Key, quantity, !line.Line.Optional, needs));
        }
        var warehouse = open.Sheet.ShipFrom ?? "";
        var ids = lines.SelectMany(l => l.Needs).Select(n => n.Item.Value).Distinct().ToList();
        var orderId = open.Order?.Id ?? 0;
        var onHand = await db
            .Stock.Where(s => EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse)
            .ToDictionaryAsync(s => s.ItemId, s => s.OnHand, cancel);
        var incoming = (
            await db
                .Incoming.Where(s => EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse)
                .Select(s => new
                {
                    s.ItemId,
                    s.Due,
                    s.Quantity,
                })
                .ToListAsync(cancel)
        ).ToLookup(i => i.ItemId, i => new StockMove(Math.Max(i.Due.DayNumber - today.DayNumber, 1), i.Quantity));
        var committed = (
            await db
                .Commitments.Where(s =>
                    EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse && s.OrderId != orderId
                )
                .Select(s => new
                {
                    s.ItemId,
                    s.Day,
                    s.Quantity,
                })
                .ToListAsync(cancel)
        ).ToLookup(c => c.ItemId, c => new StockMove(c.Day.DayNumber - today.DayNumber, c.Quantity));
        var outlooks = ids.ToDictionary(
            id => new ItemId(id),
            id => Outlook.Over(Horizon, onHand.GetValueOrDefault(id), incoming[id], committed[id])
        );
        var terms = new PromiseTerms(
            CutOff,
            1,
            open.Buyer.TransitDays,
            WorkCalendar.MondayToFriday,
            WorkCalendar.On(open.DeliverTo?.ReceivingDays ?? "")
        );
        return LinePromises.Find(lines, outlooks, ShippingRules.Of(open.Sheet.ShippingRule), clock.LocalNow, terms);
    }

    private static async Task<List<Earlier>> EarlierAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        var order = open.Order!;
        var buyers = open.Buyer.Group is { } group
            ? await db
                .Buyers.Where(b => b.Group == group || b.Id == open.Buyer.Id)
                .Select(b => b.Id)
                .ToListAsync(cancel)
            : [open.Buyer.Id];
        var found = new List<Earlier>();
        if (order.PoKey.Length > 0)
        {
            var same = await db
                .Orders.Where(o =>
                    o.PoKey == order.PoKey
                    && o.Id != order.Id
                    && o.Terms != TermsTrack.Cancelled
                    && buyers.Contains(o.Dossier.BuyerId)
                )
                .Select(o => new
                {
                    o.Number,
                    Po = o.Sheet.PoNumber ?? "",
                    o.CreatedAt,
                })
                .ToListAsync(cancel);
            found.AddRange(same.Select(s => new Earlier(s.Number, s.Po, DateOnly.FromDateTime(s.CreatedAt), true)));
            var requests = await db
                .Requests.Where(r =>
                    r.PoKey == order.PoKey
                    && r.Id != order.RequestId
                    && r.BuyerId != null
                    && buyers.Contains(r.BuyerId.Value)
                    && (r.State == RequestState.New || r.State == RequestState.NeedsYou)
                )
                .Select(r => new { r.Number, r.ReceivedAt })
                .ToListAsync(cancel);
            found.AddRange(
                requests.Select(r => new Earlier(
                    r.Number,
                    open.Sheet.PoNumber ?? "",
                    DateOnly.FromDateTime(r.ReceivedAt),
                    true
                ))
            );
        }
        var since = order.CreatedAt.AddDays(-Core.Ordering.Checks.Repeat.WithinDays);
        var recent = await db
            .Orders.Where(o =>
                o.CreatedAt >= since
                && o.Id != order.Id
                && o.Dossier.BuyerId == open.Buyer.Id
                && o.PoKey != order.PoKey
                && o.Terms != TermsTrack.Cancelled
            )
            .Select(o => new
            {
                o.Number,
                Po = o.Sheet.PoNumber ?? "",
                o.CreatedAt,
                Lines = o
                    .Sheet.Lines.Select(l => new
                    {
                        l.ItemId,
                        l.Quantity,
                        l.Unit,
                    })
                    .ToList(),
            })
            .ToListAsync(cancel);
        var mine = open
            .Sheet.Lines.Where(l => l.ItemId != null)
            .Select(l => (l.ItemId, l.Quantity, l.Unit))
            .Order()
            .ToList();
        found.AddRange(
            recent
                .Where(r =>
                    mine.Count > 0
                    && r.Lines.Where(l => l.ItemId != null)
                        .Select(l => (l.ItemId, l.Quantity, l.Unit))
                        .Order()
                        .SequenceEqual(mine)
                )
                .Select(r => new Earlier(r.Number, r.Po, DateOnly.FromDateTime(r.CreatedAt), false))
        );
        return found;
    }

    private async Task<(CreditStanding? Standing, Amount InCredit, decimal RateHome)> CreditAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedSheet priced,
        CancellationToken cancel
    )
    {
        var standing = open.Order is null
            ? null
            : await StandingAsync(db, open.Buyer, open.Order.Id, priced.Rates, cancel);
        var currency = standing?.Limit.Currency ?? Currency.Of(open.Buyer.Currency);
        var total = priced.Rates.Convert(priced.Tally.TotalWithTax.Value, priced.Sheet.Currency, currency);
        if (total is null && standing is not null)
            standing = standing with
            {
                MissingRate = priced.Rates.Of(currency) is null ? currency.Code : priced.Sheet.Currency.Code,
            };
        return (standing, Amount.Round(total ?? 0m, currency), priced.Rates.Of(currency) ?? 1m);
    }

    /// <summary>What the buyer owes and will owe, without one order; null where no limit is kept. A parent's limit is shared by its children, and counts what all of them owe.</summary>
    public async Task<CreditStanding?> StandingAsync(
        SolvendaDb db,
        BuyerRow buyer,
        long withoutOrder,
        Rates rates,
        CancellationToken cancel
    )
    {
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
        var ids = family.Keys.ToList();
        var currency = Currency.Of(holder.Currency);
        string? missing = null;
        Amount Add(IEnumerable<(string Code, long Minor)> sums)
        {
            var total = Amount.Zero(currency);
            foreach (var (code, minor) in sums)
            {
                var from = Currency.Of(code);
                if (rates.Convert(Amount.FromMinor(minor, from).Value, from, currency) is { } value)
                    total += Amount.Round(value, currency);
                else
                    missing = rates.Of(from) is null ? code : currency.Code;
            }
            return total;
        }
        var today = clock.Today;
        var open = await db
            .OpenItems.Where(o => EF.Parameter(ids).Contains(o.BuyerId))
            .Select(o => new
            {
                o.BuyerId,
                o.Due,
                o.OpenMinor,
            })
            .ToListAsync(cancel);
        var sums = await db
            .Orders.Where(o =>
                EF.Parameter(ids).Contains(o.Dossier.BuyerId)
                && o.Id != withoutOrder
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
        var zero = Amount.Zero(currency);
        var overdue = open.Select(o => today.DayNumber - o.Due.DayNumber).DefaultIfEmpty(0).Max();
        return new CreditStanding(
            Amount.FromMinor(limit, currency),
            Add(open.GroupBy(o => family[o.BuyerId]).Select(g => (g.Key, g.Sum(o => o.OpenMinor)))),
            Add(sums.Where(s => s.Shipped).Select(s => (s.Currency, s.Minor))),
            Add(sums.Where(s => !s.Shipped).Select(s => (s.Currency, s.Minor))),
            zero,
            zero,
            Math.Max(0, overdue),
            holder.GraceDays
        )
        {
            MissingRate = missing,
            SharedWith = parent?.Name ?? (family.Count > 1 ? buyer.Name : null),
        };
    }
}
