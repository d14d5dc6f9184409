using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Quotes;

/// <summary>
/// Quotes as the holder of a link sees them. The link is a random token of 256 bits, kept only as its hash, and ends
/// with the quote's validity.
/// </summary>
public sealed class Offers(SheetLoader loader, Seller seller)
{
    // For so long after the validity a link still says what became of the quote.
    private const int LinkDaysAfter = 30;

    /// <param name="of">Number of another quote, of those that the buyer takes one of; null: the link's own.</param>
    public async Task<OpenSheet> ByTokenAsync(
        SolvendaDb db,
        string token,
        DateOnly today,
        CancellationToken cancel,
        string? of = null
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var hash = Tokens.Sha256(token);
        var found = await db
            .Quotes.Where(q => q.TokenHash == hash)
            .Select(q => new
            {
                q.Number,
                q.Revision,
                q.ValidUntil,
                q.OneOf,
            })
            .FirstOrDefaultAsync(cancel);
        if (found is null || found.ValidUntil.AddDays(LinkDaysAfter) < today)
            throw Unknown();
        if (string.IsNullOrEmpty(of) || of == found.Number)
            return await loader.QuoteAsync(db, found.Number, found.Revision, cancel);
        // The newest that left the house, of the same set.
        var beside = await db
            .Quotes.Where(q => q.Number == of && q.OneOf != null && q.OneOf == found.OneOf && q.SentAt != null)
            .MaxAsync(q => (int?)q.Revision, cancel);
        return beside is { } revision ? await loader.QuoteAsync(db, of, revision, cancel) : throw Unknown();
    }

    private static RefusedException Unknown() =>
        new(Refused.NotFound, "link_unknown", "This link leads nowhere, or has run out. Please ask us for a new one.");

    /// <summary>Why the buyer can no longer answer; empty where they can.</summary>
    public static string WhyNot(OpenSheet open, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(open);
        return open.Quote!.State switch
        {
            QuoteState.WithCustomer when open.Quote.ValidUntil < today => open.Wording.With(
                "offer.past",
                open.Wording.Day(open.Quote.ValidUntil)
            ),
            QuoteState.WithCustomer => "",
            QuoteState.Accepted => open.Wording["offer.wasAccepted"],
            QuoteState.Declined => open.Wording["offer.wasDeclined"],
            QuoteState.Lapsed => open.Wording["offer.lapsed"],
            QuoteState.Replaced => open.Wording["offer.replaced"],
            _ => open.Wording["offer.withdrawn"],
        };
    }

    /// <summary>
    /// Takes an answer in: refuses where it is too late, moves the quote, ends its follow-ups, and thanks the buyer.
    /// </summary>
    /// <returns>The state before.</returns>
    internal async Task<QuoteState> AnswerAsync(
        Work work,
        OpenSheet open,
        QuoteDoing doing,
        string? name,
        string? declined,
        CancellationToken cancel
    )
    {
        var quote = open.Quote!;
        var before = quote.State;
        QuoteSteps.Move(quote, doing);
        (quote.AnsweredAt, quote.AnsweredBy, quote.DeclineReason) = (work.Now, work.Actor.Name, declined);
        foreach (
            var followUp in await work
                .Db.FollowUps.Where(f => f.DossierId == open.Dossier.Id && f.DoneAt == null)
                .ToListAsync(cancel)
        )
            followUp.DoneAt = work.Now;
        if (MailWriter.IsAddress(quote.SentTo))
        {
            var key = $"{open.Subject}.{Revision.Letter(quote.Revision)}.answer".ToLowerInvariant();
            Outgoing.Mail(work, seller, key, quote.SentTo!, BuyerLetters.Answer(open, seller, name, declined));
        }
        return before;
    }

    /// <exception cref="RefusedException">The buyer can no longer answer.</exception>
    public static void MustBeOpen(OpenSheet open, DateOnly today)
    {
        if (WhyNot(open, today) is { Length: > 0 } why)
            throw RefusedException.Clash("offer_closed", why);
    }
}
