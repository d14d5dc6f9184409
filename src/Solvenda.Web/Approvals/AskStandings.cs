using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Data;

namespace Solvenda.Web.Approvals;

/// <summary>How the buyer and the hand stand, beside what is asked.</summary>
public static class AskStandings
{
    /// <summary>What the buyer bought and earned us, and how they pay.</summary>
    public static async Task<List<AskFact>> OfBuyerAsync(
        SolvendaDb db,
        OpenSheet open,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(clock);
        var facts = await BoughtAsync(db, open, clock.UtcNow, cancel);
        var standing = await CreditFacts.StandingAsync(
            db,
            open.Buyer,
            Rates.On(clock.Today, open.Book.Home, open.Book.DatedRates),
            clock.Today,
            cancel
        );
        facts.AddRange(Credit(standing));
        return facts;
    }

    private static IEnumerable<AskFact> Credit(CreditStanding standing)
    {
        var (exposure, of) = (
            standing.Exposure,
            standing.HasLimit ? standing.Limit.Value.ToString("#,0", CultureInfo.InvariantCulture) : "no limit"
        );
        yield return new AskFact(
            "credit",
            string.Create(CultureInfo.InvariantCulture, $"{exposure.Value:#,0} of {of} {standing.Limit.Currency.Code}"),
            standing.HasLimit && exposure > standing.Limit
        );
        yield return standing.OldestOverdueDays > 0
            ? new AskFact("overdue", $"{standing.OldestOverdueDays} days", standing.OverdueBeyondGrace)
            : new AskFact("overdue", "nothing");
        if (standing.DaysLate is { } late)
            yield return new AskFact("pays", Late(late), late > standing.GraceDays);
        if (standing.Blocked.Length > 0)
            yield return new AskFact("blocked", standing.Blocked, true);
    }

    /// <summary>How late somebody pays on average, as it is said.</summary>
    public static string Late(decimal days) =>
        days switch
        {
            0 => "on the day",
            > 0 => string.Create(CultureInfo.InvariantCulture, $"{days:0.#} days late on average"),
            _ => string.Create(CultureInfo.InvariantCulture, $"{-days:0.#} days early on average"),
        };

    // This year beside the same days of the year before, and what of it was earned; of one currency, the buyer's.
    private static async Task<List<AskFact>> BoughtAsync(
        SolvendaDb db,
        OpenSheet open,
        DateTime now,
        CancellationToken cancel
    )
    {
        var (id, currency) = (open.Buyer.Id, open.Buyer.Currency);
        var begin = new DateTime(now.Year, 1, 1, 0, 0, 0, DateTimeKind.Utc);
        async Task<(long Net, long Margin)> SumAsync(DateTime from, DateTime to)
        {
            var sums = await db
                .Orders.Sold()
                .Where(o =>
                    o.Dossier.BuyerId == id && o.Sheet.Currency == currency && o.CreatedAt >= from && o.CreatedAt < to
                )
                .Select(o => new { o.Sheet.TotalWithoutTaxMinor, o.Sheet.MarginMinor })
                .ToListAsync(cancel);
            return (sums.Sum(s => s.TotalWithoutTaxMinor), sums.Sum(s => s.MarginMinor));
        }
        var year = await SumAsync(begin, now);
        var before = await SumAsync(begin.AddYears(-1), now.AddYears(-1));
        var more =
            before.Net > 0
                ? string.Create(
                    CultureInfo.InvariantCulture,
                    $", {(year.Net - before.Net) * 100m / before.Net:+0;−0} %"
                )
                : "";
        var facts = new List<AskFact>
        {
            new(
                "this year",
                string.Create(CultureInfo.InvariantCulture, $"{Amount.Major(year.Net, currency):#,0} {currency}{more}")
            ),
        };
        if (year.Net > 0)
            facts.Add(
                new AskFact(
                    "earned us",
                    string.Create(CultureInfo.InvariantCulture, $"{year.Margin * 100m / year.Net:0.0} %")
                )
            );
        return facts;
    }

    /// <summary>What the hand gave this quarter beside the others, and what became of what they asked.</summary>
    public static async Task<List<AskFact>> OfHandAsync(
        SolvendaDb db,
        long? hand,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var quarter = new DateTime(today.Year, ((today.Month - 1) / 3 * 3) + 1, 1, 0, 0, 0, DateTimeKind.Utc);
        var given = await (
            from l in db.SheetLines
            join q in db.Quotes on l.SheetId equals q.SheetId
            where q.CreatedAt >= quarter && l.BasePrice > 0 && l.NetPrice != null
            select new
            {
                q.SellerId,
                l.BasePrice,
                l.NetPrice,
            }
        ).ToListAsync(cancel);
        var off = given.ConvertAll(g => (g.SellerId, Off: 1m - (g.NetPrice!.Value / g.BasePrice!.Value)));
        static string Average(IEnumerable<decimal> some) =>
            some.ToList() is { Count: > 0 } all
                ? string.Create(CultureInfo.InvariantCulture, $"{Math.Max(0m, all.Average()) * 100m:0.0} %")
                : "nothing";
        var asks = await db
            .Asks.Where(a => a.HandId == hand && a.AskedAt >= quarter)
            .Select(a => new
            {
                a.Outcome,
                Won = db.Quotes.Any(q => q.SheetId == a.SheetId && q.State == QuoteState.Accepted),
            })
            .ToListAsync(cancel);
        var granted = asks.Where(a => a.Outcome == AskOutcome.Granted).ToList();
        return
        [
            new(
                "gives",
                $"{Average(off.Where(g => g.SellerId == hand).Select(g => g.Off))}, all {Average(off.Select(g => g.Off))}"
            ),
            new("asked, granted", $"{asks.Count}, {granted.Count}"),
            new("granted and won", $"{granted.Count(g => g.Won)} of {granted.Count}"),
        ];
    }
}
