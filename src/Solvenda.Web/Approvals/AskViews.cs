using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data;

namespace Solvenda.Web.Approvals;

/// <summary>Puts together what somebody decides an ask on.</summary>
public sealed class AskViews(AskLoader asks, Judge judge, HouseClock clock)
{
    private const int MostLines = 5;

    public async Task<AskView> OfAsync(SolvendaDb db, long id, Actor who, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(who);
        var ask = await asks.AskAsync(db, id, cancel);
        var (row, open) = (ask.Row, ask.Open);
        var judged = await judge.JudgeAsync(db, open, open.Owner.Hand, cancel);
        var approver = open.People[new PersonId(row.ApproverId)];
        var hand = row.HandId is { } h && open.People.TryGetValue(new PersonId(h), out var person) ? person : null;
        var causes = judged
            .Priced.Sold.Where(l =>
                l.HasPrice
                && Caused(l, row.HandId)
                && !Headroom.Allows(hand?.Authority ?? Authority.None, LineMoney.Of(l))
            )
            .ToList();
        var lines = new List<AskLine>();
        foreach (var line in causes.Take(MostLines))
            lines.Add(await LineAsync(db, open, line, clock.UtcNow, cancel));
        var plain = Plain(judged);
        var waiting = await db
            .Asks.Where(a => a.ApproverId == who.PersonId && a.Outcome == AskOutcome.Waiting)
            .OrderBy(a => a.AskedAt)
            .Select(a => a.Id)
            .ToListAsync(cancel);
        return new AskView(
            row.Id,
            row.Subject,
            open.Order is not null,
            Sentence(row.HandName, open, causes),
            row.HandName,
            row.HandName.Split(' ')[0],
            row.AskedByName,
            open.Owner.Name,
            approver.Name,
            row.Outcome,
            row.Why,
            row.Note,
            row.AskedAt,
            row.Outcome == AskOutcome.Waiting && ask.WhyNot(who.Hand.Person, judged.Approval) is null,
            open.Sheet.Currency,
            [.. ask.Fired.Select(f => f.Words)],
            Rulers(ask, judged, plain, hand?.Authority ?? Authority.None, approver.Authority),
            lines,
            (plain.Tally.TotalWithoutTax - judged.Priced.Tally.TotalWithoutTax).Value,
            judged.Priced.Tally.Margin.Value,
            judged.Priced.Tally.TotalWithoutTax.Value,
            open.Buyer.Name,
            await BoughtAsync(db, open.Buyer.Id, cancel),
            CreditWords(await StandingAsync(db, open, cancel)),
            waiting.IndexOf(id) + 1,
            waiting.Count,
            waiting.Where(w => w != id).Select(w => (long?)w).FirstOrDefault()
        );
    }

    private static bool Caused(PricedLine line, long? hand) =>
        line.Line.ByHand.Kind == ByHandKind.None
        || line.Line.ByHand.By?.Person?.Value == hand
        || line.Line.AlsoBy.Any(h => h.Person?.Value == hand);

    // The same sheet with nothing given by hand.
    private static PricedSheet Plain(Judged judged) =>
        SheetPricer.Price(
            judged.Open.Book,
            judged.Priced.Rates,
            judged.Priced.Buyer,
            judged.Priced.Sheet with
            {
                Lines = [.. judged.Priced.Sheet.Lines.Select(l => l with { ByHand = ByHand.None })],
                Discount = SheetDiscount.None,
                Charges = [],
            }
        );

    private Task<CreditStanding?> StandingAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel) =>
        CreditFacts.StandingAsync(
            db,
            open.Buyer,
            Rates.On(clock.Today, open.Book.Home, open.Book.DatedRates),
            clock.Today,
            cancel
        );

    private async Task<List<BoughtView>> BoughtAsync(SolvendaDb db, long buyer, CancellationToken cancel)
    {
        var year = new DateTime(clock.Today.Year, 1, 1, 0, 0, 0, DateTimeKind.Utc);
        var sums = await db
            .Orders.Where(o => o.Dossier.BuyerId == buyer && o.CreatedAt >= year && o.Terms == TermsTrack.Confirmed)
            .GroupBy(o => o.Sheet.Currency)
            .Select(g => new { g.Key, Minor = g.Sum(o => o.Sheet.TotalWithoutTaxMinor) })
            .OrderBy(g => g.Key)
            .ToListAsync(cancel);
        return sums.ConvertAll(s => new BoughtView(s.Key, Amount.Major(s.Minor, s.Key)));
    }

    private static string CreditWords(CreditStanding? standing) =>
        standing is null
            ? "no credit limit is kept"
            : string.Create(
                CultureInfo.InvariantCulture,
                $"owes and will owe {standing.Exposure.Value:#,0} of {standing.Limit.Value:#,0} {standing.Limit.Currency.Code}{(standing.OldestOverdueDays > 0 ? $", {standing.OldestOverdueDays} days overdue" : "")}"
            );

    private static string Sentence(string hand, OpenSheet open, List<PricedLine> causes)
    {
        if (causes is [var l])
        {
            var unit = UnitTable.OnSheet(l.Line.Unit);
            var per = unit.Length > 0 ? $" a {(unit == "m" ? "metre" : unit)}" : " each";
            var less =
                l.DiscountPercent > 0
                    ? string.Create(CultureInfo.InvariantCulture, $"{l.DiscountPercent:0.##} % less: ")
                    : "";
            return string.Create(
                CultureInfo.InvariantCulture,
                $"{hand} asks to sell {l.Line.Words} to {open.Buyer.Name} at {less}{l.Figures.NetPrice:0.0000} {open.Sheet.Currency}{per}."
            );
        }
        return causes.Count > 1
            ? $"{hand} asks to sell {causes.Count} items to {open.Buyer.Name} at less than may be given alone."
            : $"{hand} asks to sell to {open.Buyer.Name} as it stands.";
    }

    // A ruler for each figure that is asked about, as it stands now; the others of its kind are shown beside it.
    private static List<AskRuler> Rulers(
        OpenAsk ask,
        Judged judged,
        PricedSheet plain,
        Authority hand,
        Authority approver
    )
    {
        var rulers = new List<AskRuler>();
        var before = plain.Sold.Where(l => l.HasPrice).Select(LineMoney.Of).ToList();
        var now = judged.Approval.Needs.SelectMany(n => n.Fired).ToLookup(f => f.Figure);
        foreach (var fired in ask.Fired.Where(f => f.Figure != "floor" && f.Value != WholeFigure.Unknown))
        {
            var figure = FigureList.Of(fired.Figure);
            var value = now[fired.Figure].FirstOrDefault()?.Value ?? fired.Value;
            var limit = Known(figure.LimitOf(hand));
            var yours = Known(figure.LimitOf(approver));
            var top = new[] { value, limit ?? 0m, figure.MoreIsWorse ? Math.Min(yours ?? 0m, value * 2) : 0m }.Max();
            rulers.Add(
                new AskRuler(
                    figure.Label,
                    value,
                    figure.Show(value),
                    limit,
                    yours is { } y && y > top * 1.3m ? null : yours,
                    figure switch
                    {
                        LineFigure of when !figure.MoreIsWorse => of.Worst(before),
                        _ when figure.MoreIsWorse && figure is not WholeFigure => 0m,
                        _ => null,
                    },
                    Math.Min(0m, value),
                    figure.MoreIsWorse ? Math.Max(20m, top * 1.3m) : Math.Max(50m, top + 5m),
                    figure.MoreIsWorse
                )
            );
        }
        return rulers;
    }

    private static decimal? Known(decimal? limit) =>
        limit is <= Authority.AnyMargin or >= Authority.AnyValue ? null : limit;

    private static async Task<AskLine> LineAsync(
        SolvendaDb db,
        OpenSheet open,
        PricedLine line,
        DateTime now,
        CancellationToken cancel
    )
    {
        // What is not in the catalogue has neither stock nor a past.
        var item = line.Item;
        var id = item?.Id.Value ?? 0;
        var stock = item is { Stocked: true }
            ? await db.Stock.Where(s => s.ItemId == id).Select(s => s.OnHand).ToListAsync(cancel)
            : null;
        var since = now.AddDays(-180);
        var sold = await (
            from l in db.SheetLines
            join o in db.Orders on l.SheetId equals o.SheetId
            where l.ItemId == id && o.CreatedAt >= since
            select new { l.Quantity, l.Unit }
        ).ToListAsync(cancel);
        var perMonth = sold.Sum(s => s.Quantity * (item?.Factor(Unit.Of(s.Unit)) ?? 1m)) / 6m;
        return new AskLine(
            item?.Code ?? "not in the catalogue",
            line.Line.Words,
            string.Create(
                    CultureInfo.InvariantCulture,
                    $"{line.Line.Quantity:#,0.##} {UnitTable.OnSheet(line.Line.Unit)}"
                )
                .Trim(),
            line.Terms.Base,
            line.Figures.NetPrice,
            line.DiscountPercent,
            LineMoney.Of(line).MarginPercent,
            line.Floor,
            await PastSales.OfAsync(db, id, open.Buyer.Id, open.Sheet.Id, 3, cancel),
            await PastSales.OfAsync(db, id, -open.Buyer.Id, open.Sheet.Id, 2, cancel),
            stock?.Sum(),
            UnitTable.OnSheet(item?.StockUnit ?? line.Line.Unit),
            stock is not null && perMonth > 0 ? decimal.Round(stock.Sum() / perMonth, 1) : null
        );
    }
}
