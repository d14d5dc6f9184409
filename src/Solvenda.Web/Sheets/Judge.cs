using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Calendars;
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
    IReadOnlyList<Reach> Headroom)
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
        var state = Approval.State(need, figures, open.Asks.Select(a => (a.Outcome, JsonSerializer.Deserialize<SheetFigures>(a.Figures)!)));
        var (credit, inCredit, rateHome) = await CreditAsync(db, open, priced, cancel);
        var facts = new CheckFacts(
            open.Order is null ? DocumentKind.Quote : DocumentKind.Order,
            priced,
            priced.Buyer,
            new HeadTerms(open.Sheet.PoNumber, open.Sheet.PaymentDays, open.Sheet.Incoterm, open.Sheet.IncotermPlace, open.Sheet.DeliverTo, open.Sheet.ShipFrom, open.Sheet.Wanted),
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
            [.. open.Waivers.Select(w => new Waiver(w.Check, w.LineKey, w.Fingerprint, w.Excess, w.ByName, w.Reason))]);
        var findings = CheckList.Run(facts);
        if (open is { IsEditable: true, Order: { } order })
        {
            var stops = findings.Where(f => f.Outcome == Outcome.Stop).ToList();
            (order.Stops, order.FirstStop) = (stops.Count, stops.FirstOrDefault()?.Words ?? "");
        }
        return new Judged(open, priced, figures, need, state, facts, findings, Headroom.Sheet(priced, open.Seller, open.People));
    }

    private async Task<Dictionary<long, LineStock>> StockAsync(SolvendaDb db, OpenSheet open, PricedSheet priced, CancellationToken cancel)
    {
        var lines = priced.Sold.Where(l => l.Item is { Stocked: true }).ToList();
        var warehouse = open.Sheet.ShipFrom ?? "";
        var ids = lines.Select(l => l.Item!.Id.Value).Distinct().ToList();
        var orderId = open.Order?.Id ?? 0;
        var today = clock.Today;
        var onHand = await db.Stock.Where(s => EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse).ToDictionaryAsync(s => s.ItemId, s => s.OnHand, cancel);
        var incoming = (await db.Incoming.Where(s => EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse).Select(s => new { s.ItemId, s.Due, s.Quantity }).ToListAsync(cancel))
            .ToLookup(i => i.ItemId, i => new StockMove(Math.Max(i.Due.DayNumber - today.DayNumber, 1), i.Quantity));
        var committed = (await db.Commitments.Where(s => EF.Parameter(ids).Contains(s.ItemId) && s.Warehouse == warehouse && s.OrderId != orderId).Select(s => new { s.ItemId, s.Day, s.Quantity }).ToListAsync(cancel))
            .ToLookup(c => c.ItemId, c => new StockMove(c.Day.DayNumber - today.DayNumber, c.Quantity));
        var outlooks = ids.ToDictionary(id => id, id => Outlook.Over(Horizon, onHand.GetValueOrDefault(id), incoming[id], committed[id]));
        var terms = new PromiseTerms(CutOff, 1, open.Buyer.TransitDays, WorkCalendar.MondayToFriday, WorkCalendar.MondayToFriday);
        var now = clock.LocalNow;

        var stock = new Dictionary<long, LineStock>();
        // Lines of one item draw on the same stock: the earlier line first.
        var taken = new Dictionary<long, decimal>();
        foreach (var line in lines)
        {
            var item = line.Item!;
            var outlook = outlooks[item.Id.Value];
            var wanted = line.Line.Quantity * (item.Factor(line.Line.Unit) ?? 1m) + taken.GetValueOrDefault(item.Id.Value);
            if (!line.Line.Optional)
                taken[item.Id.Value] = wanted;
            int? lead = item.LeadDays is { } days ? WorkCalendar.MondayToFriday.Add(today, days).DayNumber - today.DayNumber : null;
            stock[line.Line.Key] = new LineStock(outlook.FreeNow, PromiseFinder.Find(outlook, wanted, lead, now, terms));
        }
        return stock;
    }

    private static async Task<List<Earlier>> EarlierAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        var order = open.Order!;
        var buyers = open.Buyer.Group is { } group
            ? await db.Buyers.Where(b => b.Group == group || b.Id == open.Buyer.Id).Select(b => b.Id).ToListAsync(cancel)
            : [open.Buyer.Id];
        var found = new List<Earlier>();
        if (order.PoKey.Length > 0)
        {
            var same = await db.Orders.Where(o => o.PoKey == order.PoKey && o.Id != order.Id && o.Terms != TermsTrack.Cancelled && buyers.Contains(o.Dossier.BuyerId))
                .Select(o => new { o.Number, Po = o.Sheet.PoNumber ?? "", o.CreatedAt }).ToListAsync(cancel);
            found.AddRange(same.Select(s => new Earlier(s.Number, s.Po, DateOnly.FromDateTime(s.CreatedAt), true)));
            var requests = await db.Requests.Where(r => r.PoKey == order.PoKey && r.Id != order.RequestId && r.BuyerId != null && buyers.Contains(r.BuyerId.Value)
                    && (r.State == RequestState.New || r.State == RequestState.NeedsYou))
                .Select(r => new { r.Number, r.ReceivedAt }).ToListAsync(cancel);
            found.AddRange(requests.Select(r => new Earlier(r.Number, open.Sheet.PoNumber ?? "", DateOnly.FromDateTime(r.ReceivedAt), true)));
        }
        var since = order.CreatedAt.AddDays(-Core.Ordering.Checks.Repeat.WithinDays);
        var recent = await db.Orders.Where(o => o.CreatedAt >= since && o.Id != order.Id && o.Dossier.BuyerId == open.Buyer.Id && o.PoKey != order.PoKey && o.Terms != TermsTrack.Cancelled)
            .Select(o => new { o.Number, Po = o.Sheet.PoNumber ?? "", o.CreatedAt, Lines = o.Sheet.Lines.Select(l => new { l.ItemId, l.Quantity, l.Unit }).ToList() }).ToListAsync(cancel);
        var mine = open.Sheet.Lines.Where(l => l.ItemId != null).Select(l => (l.ItemId, l.Quantity, l.Unit)).Order().ToList();
        found.AddRange(recent
            .Where(r => mine.Count > 0 && r.Lines.Where(l => l.ItemId != null).Select(l => (l.ItemId, l.Quantity, l.Unit)).Order().SequenceEqual(mine))
            .Select(r => new Earlier(r.Number, r.Po, DateOnly.FromDateTime(r.CreatedAt), false)));
        return found;
    }

    private async Task<(CreditStanding? Standing, Amount InCredit, decimal RateHome)> CreditAsync(SolvendaDb db, OpenSheet open, PricedSheet priced, CancellationToken cancel)
    {
        var currency = Currency.Of(open.Buyer.Currency);
        var inCredit = priced.Rates.Convert(priced.Tally.TotalWithTax.Value, priced.Sheet.Currency, currency) is { } total ? Amount.Round(total, currency) : priced.Tally.TotalWithTax;
        var rateHome = priced.Rates.Of(currency) ?? 1m;
        if (open.Order is null)
            return (null, inCredit, rateHome);
        return (await StandingAsync(db, open.Buyer, open.Order.Id, cancel), inCredit, rateHome);
    }

    /// <summary>What the buyer owes and will owe, without one order; null where no limit is kept.</summary>
    public async Task<CreditStanding?> StandingAsync(SolvendaDb db, BuyerRow buyer, long withoutOrder, CancellationToken cancel)
    {
        if (buyer.CreditLimitMinor is not { } limit)
            return null;
        var currency = Currency.Of(buyer.Currency);
        var today = clock.Today;
        var open = await db.OpenItems.Where(o => o.BuyerId == buyer.Id).Select(o => new { o.Due, o.OpenMinor }).ToListAsync(cancel);
        var orders = await db.Orders.Where(o => o.Dossier.BuyerId == buyer.Id && o.Id != withoutOrder && o.Terms == TermsTrack.Confirmed && o.Goods != GoodsTrack.Shipped)
            .SumAsync(o => o.Sheet.TotalWithTaxMinor, cancel);
        var shipped = await db.Orders.Where(o => o.Dossier.BuyerId == buyer.Id && o.Id != withoutOrder && o.Goods == GoodsTrack.Shipped && o.Money == MoneyTrack.ToInvoice)
            .SumAsync(o => o.Sheet.TotalWithTaxMinor, cancel);
        var zero = Amount.Zero(currency);
        var overdue = open.Select(o => today.DayNumber - o.Due.DayNumber).DefaultIfEmpty(0).Max();
        return new CreditStanding(
            Amount.FromMinor(limit, currency), Amount.FromMinor(open.Sum(o => o.OpenMinor), currency), Amount.FromMinor(shipped, currency), Amount.FromMinor(orders, currency),
            zero, zero, Math.Max(0, overdue), buyer.GraceDays);
    }
}
