using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Desk;

/// <summary>Asks on the desk: what waits for this person's answer, and where their own are.</summary>
public static class DeskAsks
{
    public static async Task<List<DeskItem>> OfAsync(SolvendaDb db, long id, DateTime now, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await (
            from a in db.Asks.AsNoTracking().Include(a => a.Holders)
            where
                a.Outcome == AskOutcome.Waiting
                && (a.Holders.Any(h => h.PersonId == id) || a.AskedById == id || a.OwnerId == id)
            select new
            {
                Ask = a,
                Currency = a.Sheet == null ? "" : a.Sheet.Currency,
                TotalWithTaxMinor = a.Sheet == null ? 0L : a.Sheet.TotalWithTaxMinor,
                Buyer = db.Quotes.Where(q => q.SheetId == a.SheetId).Select(q => q.Dossier.Buyer.Name).FirstOrDefault()
                    ?? db.Orders.Where(o => o.SheetId == a.SheetId).Select(o => o.Dossier.Buyer.Name).FirstOrDefault(),
                With = (from h in a.Holders join p in db.People on h.PersonId equals p.Id select p.Name).ToList(),
            }
        ).ToListAsync(cancel);
        return
        [
            .. rows.Select(r =>
            {
                var (held, question) = (r.Ask.Holders.Exists(h => h.PersonId == id), r.Ask.Question);
                var (urgency, reason, act, rank) = (held, question) switch
                {
                    (true, null) => (
                        r.Ask.Urgent ? Urgency.AtOnce : Urgency.Today,
                        $"your answer asked by {Last(r.Ask.AskedByName)}",
                        "decide",
                        r.Ask.Urgent ? -1 : 0
                    ),
                    (true, _) => (Urgency.WhenThereIsTime, $"you asked {Last(r.Ask.AskedByName)} something", "look", 5),
                    (_, { } asked) => (Urgency.AtOnce, $"{Last(r.With[0])} asks: {asked}", "answer", 0),
                    _ => (
                        Urgency.WhenThereIsTime,
                        $"with {string.Join(" or ", r.With)} {Since(r.Ask.AskedAt, now)}",
                        "look",
                        6
                    ),
                };
                return new DeskItem(
                    urgency,
                    held && question is null || !held && question is not null ? "ask" : "asked",
                    r.Ask.SheetId is null ? "" : r.Ask.Subject,
                    $"/asks/{r.Ask.Id}",
                    r.Buyer ?? r.Ask.About,
                    reason,
                    Words(r.Ask),
                    "ask",
                    r.Ask.AskedAt,
                    r.Currency,
                    r.Currency.Length > 0 ? Amount.Major(r.TotalWithTaxMinor, r.Currency) : null,
                    act,
                    rank
                );
            }),
        ];
    }

    private static string Words(AskRow ask) => AskFacts.FiredOf(ask).Select(f => f.Words).FirstOrDefault() ?? "";

    private static string Last(string name) => name.Split(' ')[^1];

    private static string Since(DateTime at, DateTime now) =>
        (now - at) switch
        {
            { TotalMinutes: < 60 } t => $"for {Math.Max(1, (int)t.TotalMinutes)} min",
            { TotalHours: < 24 } t => $"for {(int)t.TotalHours} h",
            var t => $"for {(int)t.TotalDays} d",
        };
}
