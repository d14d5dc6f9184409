using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Dossiers;

/// <summary>One mark on the strip: something that happened, or is due.</summary>
/// <param name="Document">What it opens: a kind and a number; null for nothing.</param>
public sealed record StripMark(DateTime At, string Words, bool Ahead, string? Document, string Who);

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
    // What happens inside a document is in its history; the strip shows the milestones.
    private static readonly Dictionary<string, string> Milestones = new()
    {
        ["request.received"] = "came in",
        ["quote.created"] = "begun",
        ["quote.asked"] = "asked",
        ["quote.granted"] = "granted",
        ["quote.sent_back"] = "sent back",
        ["quote.sent"] = "sent",
        ["quote.opened"] = "opened",
        ["quote.accepted"] = "accepted",
        ["quote.declined"] = "declined",
        ["quote.revised"] = "revised",
        ["quote.rate_moved"] = "rate moved",
        ["quote.lapsed"] = "lapsed",
        ["quote.withdrawn"] = "withdrawn",
        ["order.created"] = "order made",
        ["order.waived"] = "let pass",
        ["order.confirmed"] = "confirmed",
        ["order.asked"] = "asked",
        ["order.granted"] = "granted",
        ["order.sent_back"] = "sent back",
    };

    public async Task<List<StripMark>> MarksAsync(SolvendaDb db, long dossierId, CancellationToken cancel)
    {
        var history = await db
            .History.AsNoTracking()
            .Where(h => h.DossierId == dossierId)
            .OrderBy(h => h.At)
            .ThenBy(h => h.Id)
            .Select(h => new
            {
                h.At,
                h.What,
                h.Words,
                h.Subject,
                h.Who,
            })
            .ToListAsync(cancel);
        var marks = history
            .Where(h => Milestones.ContainsKey(h.What))
            .Select(h => new StripMark(
                h.At,
                h.What == "request.received" ? h.Words
                    : h.Words.Length <= 40 ? h.Words
                    : Milestones[h.What],
                false,
                h.Subject,
                h.Who
            ))
            .ToList();
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
            marks.Add(new StripMark(At(quote.ValidUntil), "lapses", true, quote.Number, ""));
        var wanted = await db
            .Orders.Where(o => o.DossierId == dossierId && o.Goods != GoodsTrack.Shipped)
            .Select(o => new
            {
                o.Sheet.Wanted,
                Promised = o.Sheet.Lines.Max(l => l.Promised),
                o.Number,
            })
            .FirstOrDefaultAsync(cancel);
        if (wanted?.Wanted is { } day)
            marks.Add(new StripMark(At(day), "wanted", true, wanted.Number, ""));
        else if (
            await db
                .Quotes.Where(q => q.DossierId == dossierId && q.Sheet.Wanted != null)
                .Select(q => q.Sheet.Wanted)
                .FirstOrDefaultAsync(cancel) is
            { } asked
        )
            marks.Add(new StripMark(At(asked), "wanted", true, null, ""));
        if (wanted?.Promised is { } promised)
            marks.Add(new StripMark(At(promised), "promised", true, wanted.Number, ""));
        // What was due and is past stays on the left of now.
        return [.. marks.Where(m => !m.Ahead || m.At >= clock.UtcNow.AddDays(-1)).OrderBy(m => m.At)];
    }

    public static async Task<List<HistoryView>> HistoryAsync(SolvendaDb db, long dossierId, CancellationToken cancel) =>
        await db
            .History.AsNoTracking()
            .Where(h => h.DossierId == dossierId)
            .OrderByDescending(h => h.Id)
            .Take(500)
            .Select(h => new HistoryView(h.At, h.Who, h.Subject, h.Words, h.Before, h.After, h.Why))
            .ToListAsync(cancel);

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
                .Select(g => new RelatedView("quote", g.Key, $"{QuoteMoves.Letter(g.Max(q => q.Revision))}")),
            .. orders,
        ];
    }

    private static DateTime At(DateOnly day) => day.ToDateTime(new TimeOnly(12, 0), DateTimeKind.Utc);
}
