using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Web.Dossiers;

/// <summary>One mark on the strip: something that happened, or is due.</summary>
/// <param name="Document">What it opens: null for nothing.</param>
public sealed record StripMark(DateTime At, string Words, bool Ahead, DocumentRef? Document, string Who);

/// <summary>One line of the history.</summary>
public sealed record HistoryView(
    DateTime At,
    string Who,
    string Subject,
    string Words,
    string? Before,
    string? After,
    string? Why
);

/// <summary>Another document of the same dossier.</summary>
public sealed record RelatedView(string Kind, string Number, string Words);

/// <summary>The time line of a dossier: what happened, and what is due ahead.</summary>
public sealed class Strip(HouseClock clock)
{
    public async Task<List<StripMark>> MarksAsync(SolvendaDb db, long dossierId, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var marks = await HappenedAsync(db, dossierId, cancel);
        marks.AddRange(await DueAsync(db, dossierId, cancel));
        // What was due and is past stays on the left of now.
        return [.. marks.Where(m => !m.Ahead || m.At >= clock.UtcNow.AddDays(-1)).OrderBy(m => m.At)];
    }

    // What happens inside a document is in its history; the strip shows the milestones.
    private static async Task<List<StripMark>> HappenedAsync(SolvendaDb db, long dossierId, CancellationToken cancel)
    {
        var documents = await NumbersAsync(db, dossierId, cancel);
        var rows = await Events(db, dossierId).OrderBy(e => e.Id).ToListAsync(cancel);
        return
        [
            .. from row in rows
            let words = EventWords.OnStrip(row)
            where words is not null
            select new StripMark(row.At, words, false, documents.GetValueOrDefault(row.Subject), row.Who),
        ];
    }

    // Of the dossier, and of its requests from before it was made.
    private static IQueryable<EventRow> Events(SolvendaDb db, long dossierId) =>
        db
            .Events.AsNoTracking()
            .Where(e =>
                e.DossierId == dossierId
                || (
                    e.DossierId == null
                    && db.Requests.Where(r => r.DossierId == dossierId).Select(r => r.Number).Contains(e.Subject)
                )
            );

    private static async Task<Dictionary<string, DocumentRef>> NumbersAsync(
        SolvendaDb db,
        long dossierId,
        CancellationToken cancel
    ) =>
        (await RelatedAsync(db, dossierId, cancel)).ToDictionary(r => r.Number, r => new DocumentRef(r.Kind, r.Number));

    private static async Task<List<StripMark>> DueAsync(SolvendaDb db, long dossierId, CancellationToken cancel)
    {
        var marks = new List<StripMark>();
        var followUps = await db
            .FollowUps.AsNoTracking()
            .Where(f => f.DossierId == dossierId && f.DoneAt == null)
            .Select(f => new { f.Due, f.Words })
            .ToListAsync(cancel);
        marks.AddRange(followUps.Select(f => new StripMark(f.Due, f.Words, true, null, "")));
        var quote = await db
            .Quotes.Where(q =>
                q.DossierId == dossierId
                && (
                    q.State == QuoteState.Drafting
                    || q.State == QuoteState.InApproval
                    || q.State == QuoteState.Cleared
                    || q.State == QuoteState.WithCustomer
                )
            )
            .OrderByDescending(q => q.Revision)
            .Select(q => new { q.ValidUntil, q.Number })
            .FirstOrDefaultAsync(cancel);
        if (quote is not null)
            marks.Add(new StripMark(At(quote.ValidUntil), "lapses", true, new DocumentRef("quote", quote.Number), ""));
        var wanted = await db
            .Orders.Where(o => o.DossierId == dossierId && o.Goods != GoodsTrack.Shipped)
            .Select(o => new
            {
                o.Sheet.Wanted,
                Promised = o.Sheet.StoredLines.Max(l => l.Promised),
                o.Number,
            })
            .FirstOrDefaultAsync(cancel);
        if (wanted?.Wanted is { } day)
            marks.Add(new StripMark(At(day), "wanted", true, new DocumentRef("order", wanted.Number), ""));
        else if (
            await db
                .Quotes.Where(q => q.DossierId == dossierId && q.Sheet.Wanted != null)
                .Select(q => q.Sheet.Wanted)
                .FirstOrDefaultAsync(cancel) is
            { } asked
        )
            marks.Add(new StripMark(At(asked), "wanted", true, null, ""));
        if (wanted?.Promised is { } promised)
            marks.Add(new StripMark(At(promised), "promised", true, new DocumentRef("order", wanted.Number), ""));
        return marks;
    }

    /// <summary>Who, when, what, before, after, why: newest first.</summary>
    public static async Task<List<HistoryView>> HistoryAsync(SolvendaDb db, long dossierId, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await Events(db, dossierId).OrderByDescending(e => e.Id).Take(500).ToListAsync(cancel);
        return
        [
            .. rows.SelectMany(r =>
                EventWords.Of(r).Select(w => new HistoryView(r.At, r.Who, r.Subject, w.Words, w.Before, w.After, r.Why))
            ),
        ];
    }

    public static async Task<List<RelatedView>> RelatedAsync(SolvendaDb db, long dossierId, CancellationToken cancel)
    {
        var requests = await db
            .Requests.Where(r => r.DossierId == dossierId)
            .Select(r => new RelatedView("request", r.Number, r.Channel))
            .ToListAsync(cancel);
        var quotes = await db
            .Quotes.Where(q => q.DossierId == dossierId)
            .OrderBy(q => q.Id)
            .Select(q => new
            {
                q.Number,
                q.Revision,
                q.State,
            })
            .ToListAsync(cancel);
        var orders = await db
            .Orders.Where(o => o.DossierId == dossierId)
            .Select(o => new RelatedView("order", o.Number, o.Terms.ToString()))
            .ToListAsync(cancel);
        return
        [
            .. requests,
            .. quotes
                .GroupBy(q => q.Number)
                .Select(g => new RelatedView("quote", g.Key, $"{Revision.Letter(g.Max(q => q.Revision))}")),
            .. orders,
        ];
    }

    private static DateTime At(DateOnly day) => day.ToDateTime(new TimeOnly(12, 0), DateTimeKind.Utc);
}
