using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Quoting;
using Solvenda.Data;

namespace Solvenda.Web.Desk;

/// <summary>Quotes that need somebody: accepted, granted, sent back, about to lapse, begun and not sent.</summary>
internal static class DeskQuotes
{
    private sealed record Found(
        string Number,
        int Revision,
        QuoteState State,
        DateOnly ValidUntil,
        string Buyer,
        bool Prospect,
        string Matter,
        string Currency,
        long TotalMinor,
        DateTime CreatedAt,
        DateTime? AnsweredAt,
        DateTime? SentAt,
        AskOutcome? Asked,
        string? Note,
        DateTime? DecidedAt
    );

    public static async Task<IEnumerable<DeskItem>> OfAsync(
        SolvendaDb db,
        Actor me,
        DateOnly today,
        CancellationToken cancel
    ) => (await FindAsync(db, me, today.AddDays(1), cancel)).Select(q => Item(q, today));

    private static Task<List<Found>> FindAsync(SolvendaDb db, Actor me, DateOnly soon, CancellationToken cancel)
    {
        var (id, isDesk) = (me.PersonId, me.Roles.HasFlag(Roles.Desk));
        return (
            from q in db.Quotes
            where
                (q.SellerId == id || (q.State == QuoteState.Accepted && isDesk))
                && (
                    q.State == QuoteState.Accepted
                    || q.State == QuoteState.Cleared
                    || q.State == QuoteState.Drafting
                    || (q.State == QuoteState.WithCustomer && q.ValidUntil <= soon)
                )
                && q.OrderId == null
            let asked = db.Asks.Where(a => a.SheetId == q.SheetId).OrderByDescending(a => a.Id).FirstOrDefault()
            select new Found(
                q.Number,
                q.Revision,
                q.State,
                q.ValidUntil,
                q.Dossier.Buyer.Name,
                q.Dossier.Buyer.IsProspect,
                q.Dossier.Matter,
                q.Sheet.Currency,
                q.Sheet.TotalWithTaxMinor,
                q.CreatedAt,
                q.AnsweredAt,
                q.SentAt,
                asked == null ? null : asked.Outcome,
                asked == null ? null : asked.Note,
                asked == null ? null : asked.DecidedAt
            )
        ).ToListAsync(cancel);
    }

    private static DeskItem Item(Found q, DateOnly today)
    {
        DeskItem Of(Urgency urgency, string reason, string rest, string act, DateTime? since, int rank) =>
            new(
                urgency,
                "quote",
                q.Number,
                $"/quotes/{q.Number}",
                q.Buyer,
                reason,
                rest,
                $"quote, {Revision.Letter(q.Revision)}",
                since ?? q.CreatedAt,
                q.Currency,
                Amount.Major(q.TotalMinor, q.Currency),
                act,
                rank
            );
        var isLast = q.ValidUntil <= today;
        return q.State switch
        {
            QuoteState.Accepted => Of(
                Urgency.AtOnce,
                q.Prospect ? "accepted; still a prospect" : "accepted",
                "make the order",
                "order",
                q.AnsweredAt,
                1
            ),
            QuoteState.Cleared => Of(Urgency.AtOnce, "granted", "it may be sent", "send", q.DecidedAt, 2),
            QuoteState.WithCustomer => Of(
                isLast ? Urgency.AtOnce : Urgency.Today,
                isLast ? "lapses today" : "lapses tomorrow",
                q.Matter,
                "call",
                q.SentAt,
                4
            ),
            _ when q.Asked == AskOutcome.SentBack => Of(
                Urgency.AtOnce,
                "sent back",
                $"“{q.Note}”",
                "change",
                q.DecidedAt,
                2
            ),
            _ => Of(Urgency.WhenThereIsTime, "begun and not sent", q.Matter, "finish", null, 5),
        };
    }
}
