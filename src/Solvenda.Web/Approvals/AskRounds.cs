using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Approvals;

/// <summary>The rounds of an ask: what was said, what changed since the last, what waits beside it.</summary>
public static class AskRounds
{
    private const int MostChanges = 4;

    /// <summary>The note of the last round and what changed since; empty where this is the first.</summary>
    public static List<string> SinceLast(OpenAsk ask)
    {
        ArgumentNullException.ThrowIfNull(ask);
        var last = ask
            .Open.Asks.Where(a => a.Id < ask.Row.Id && a.HandId == ask.Row.HandId && a.DecidedById is not null)
            .MaxBy(a => a.Id);
        if (last is null)
            return [];
        var (then, now) = (AskFacts.ShownOf(last), AskFacts.ShownOf(ask.Row));
        var words = new List<string>
        {
            (last.Outcome, last.UpTo) switch
            {
                (AskOutcome.SentBack, _) => $"sent back: “{last.Note}”",
                (_, { } most) => $"granted up to {FigureList.Of(last.UpToFigure).Show(most)}",
                _ => "granted",
            },
        };
        string Code(long key) =>
            ask.Open.Sheet.Lines.FirstOrDefault(l => l.Key == key)?.Words is { Length: > 0 } w ? w : "a line";
        words.AddRange(
            now.Lines.Select(l => (Now: l, Then: then.Lines.FirstOrDefault(t => t.Key == l.Key)))
                .Where(l => l.Then is null || l.Then.DiscountPercent != l.Now.DiscountPercent)
                .Take(MostChanges)
                .Select(l =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{Code(l.Now.Key)}: {l.Then?.DiscountPercent ?? 0m:0.##} % became {l.Now.DiscountPercent:0.##} %"
                    )
                )
        );
        var away = then.GivenAway - now.GivenAway;
        if (away != 0)
            words.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{Math.Abs(away):#,0.00} {(away > 0 ? "less" : "more")} given away"
                )
            );
        return words;
    }

    /// <summary>Everything that was said about an ask, and done with it.</summary>
    public static async Task<List<AskSaid>> SaidAsync(SolvendaDb db, AskRow ask, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(ask);
        var events = await db
            .Events.AsNoTracking()
            .Where(e => e.Subject == ask.Subject && e.Code.StartsWith("ask."))
            .OrderBy(e => e.Id)
            .ToListAsync(cancel);
        return
        [
            .. from row in events
            let facts = EventCodes.FromJson(row.Code, row.Facts) as IAskEvent
            where facts is not null && facts.Ask == ask.Id
            from word in Dossiers.EventWords.Of(row)
            select new AskSaid(row.At, row.Who, word.Words, row.Why),
        ];
    }

    /// <summary>The files that go with the document.</summary>
    public static async Task<List<AskFile>> FilesAsync(SolvendaDb db, OpenSheet open, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(open);
        var (dossier, number) = (open.Dossier.Id, open.Subject);
        return await db
            .Attachments.Where(a => a.DossierId == dossier && (a.Document == number || a.Document == ""))
            .OrderBy(a => a.Id)
            .Select(a => new AskFile(a.Id, a.Name, a.LineKey != null))
            .ToListAsync(cancel);
    }

    /// <summary>All that waits for somebody, the urgent first, then the oldest.</summary>
    public static async Task<List<AskBeside>> WaitingAsync(SolvendaDb db, long? person, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db
            .Asks.AsNoTracking()
            .Where(a =>
                a.Holders.Any(h => h.PersonId == person) && a.Question == null && a.Outcome == AskOutcome.Waiting
            )
            .OrderByDescending(a => a.Urgent)
            .ThenBy(a => a.AskedAt)
            .Select(a => new
            {
                Ask = a,
                Buyer = db.Quotes.Where(q => q.SheetId == a.SheetId).Select(q => q.Dossier.Buyer.Name).FirstOrDefault()
                    ?? db.Orders.Where(o => o.SheetId == a.SheetId).Select(o => o.Dossier.Buyer.Name).FirstOrDefault(),
            })
            .ToListAsync(cancel);
        return rows.ConvertAll(r => new AskBeside(
            r.Ask.Id,
            r.Ask.Subject,
            r.Buyer ?? r.Ask.About,
            r.Ask.AskedByName,
            string.Join("; ", AskFacts.FiredOf(r.Ask).Select(f => f.Words)),
            AskFacts.ShownOf(r.Ask).GivenAway,
            r.Ask.AskedById != person && r.Ask.OwnerId != person && r.Ask.HandId != person
        ));
    }

    /// <summary>Who is asked in turn; one step alone is nothing to show.</summary>
    public static List<AskStep> Steps(OpenAsk ask)
    {
        ArgumentNullException.ThrowIfNull(ask);
        var steps = ask.Steps;
        if (steps.Length < 2)
            return [];
        string Names(IEnumerable<PersonId> people) =>
            string.Join(" or ", people.Select(p => ask.Open.People.GetValueOrDefault(p)?.Name ?? ""));
        return
        [
            .. steps.Select(
                (s, i) => new AskStep(Names(s), i < ask.Row.Step, i == ask.Row.Step && ask.Row.DecidedAt is null)
            ),
        ];
    }
}
