using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Mail;
using Solvenda.Web.Commands;
using Solvenda.Web.Printing;
using Solvenda.Web.Quotes;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Portal;

public sealed record AcceptOffer(string Name, string? PoNumber = null);

public sealed record DeclineOffer(string Reason, string? Name = null);

/// <summary>The buyers' door: whoever has the link, and nobody else. The link is a random token of 256 bits, kept only as its hash, and ends with the quote's validity.</summary>
public static class OfferEndpoints
{
    // For so long after the validity a link still says what became of the quote.
    private const int LinkDaysAfter = 30;

    public static void MapOffers(this IEndpointRouteBuilder app)
    {
        var offers = app.MapGroup("/api/offers/{token}")
            .WithTags("Offers")
            .AllowAnonymous()
            .RequireRateLimiting(May.DoorLimit);
        offers.MapGet("", Get);
        offers.MapGet("/print", Print).Produces(200, contentType: "application/pdf");
        offers.MapPost("/accept", Accept);
        offers.MapPost("/decline", Decline);
    }

    private static async Task<OfferView> Get(
        string token,
        HttpContext http,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            Actor.House,
            async work =>
            {
                var open = await FindAsync(work.Db, token, loader, work.Today, cancel);
                // Somebody of the house looking at the page is not the buyer opening it.
                if (http.User.Identity?.IsAuthenticated != true && open.Quote!.State == QuoteState.WithCustomer)
                {
                    open.Quote.Opened++;
                    work.History(
                        open.Subject,
                        open.Dossier.Id,
                        "quote.opened",
                        open.Quote.Opened == 1 ? "opened" : $"opened, {open.Quote.Opened} times"
                    );
                }
                return await OfferViews.OfAsync(work.Db, open, judge, seller, work.Today, cancel);
            },
            cancel
        );

    private static async Task<IResult> Print(
        string token,
        SolvendaDb db,
        SheetLoader loader,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var open = await FindAsync(db, token, loader, clock.Today, cancel);
        var print = await db.Prints.AsNoTracking().FirstAsync(p => p.Id == open.Quote!.PrintId, cancel);
        return Results.File(print.Bytes, print.ContentType, print.Name);
    }

    private static async Task<OfferView> Accept(
        string token,
        AcceptOffer body,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        CancellationToken cancel
    )
    {
        if (string.IsNullOrWhiteSpace(body.Name))
            throw RefusalException.Bad("name_missing", "Please give your name.", "name");
        return await commands.RunAsync(
            new Actor(null, SheetEditor.Short(body.Name.Trim()), Roles.None),
            async work =>
            {
                var open = await FindAsync(work.Db, token, loader, work.Today, cancel);
                Answerable(open, work.Today);
                if (open.Buyer.PoNumberRequired && string.IsNullOrWhiteSpace(body.PoNumber))
                    throw RefusalException.Bad(
                        "po_missing",
                        "Please give your PO number; your house wants it on everything.",
                        "poNumber"
                    );
                var quote = open.Quote!;
                QuoteEndpoints.Move(quote, QuoteAct.Accept);
                (quote.AnsweredAt, quote.AnsweredBy) = (work.Now, work.Actor.Name);
                open.Sheet.PoNumber = string.IsNullOrWhiteSpace(body.PoNumber)
                    ? open.Sheet.PoNumber
                    : SheetEditor.Short(body.PoNumber.Trim());
                work.History(
                    quote.Number,
                    open.Dossier.Id,
                    "quote.accepted",
                    $"{QuoteMoves.Letter(quote.Revision)} accepted",
                    nameof(QuoteState.WithCustomer),
                    nameof(QuoteState.Accepted),
                    open.Sheet.PoNumber is { } po ? $"PO {po}" : null
                );
                await CloseFollowUpsAsync(work, open, cancel);
                Tell(work, open, seller, work.Actor.Name, null);
                return await OfferViews.OfAsync(work.Db, open, judge, seller, work.Today, cancel);
            },
            cancel
        );
    }

    private static async Task<OfferView> Decline(
        string token,
        DeclineOffer body,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        CancellationToken cancel
    )
    {
        if (string.IsNullOrWhiteSpace(body.Reason))
            throw RefusalException.Bad("reason_missing", "Please say in a word why; it helps us do better.", "reason");
        var name = string.IsNullOrWhiteSpace(body.Name) ? "the buyer" : SheetEditor.Short(body.Name.Trim());
        return await commands.RunAsync(
            new Actor(null, name, Roles.None),
            async work =>
            {
                var open = await FindAsync(work.Db, token, loader, work.Today, cancel);
                Answerable(open, work.Today);
                var quote = open.Quote!;
                QuoteEndpoints.Move(quote, QuoteAct.Decline);
                (quote.AnsweredAt, quote.AnsweredBy, quote.DeclineReason) = (
                    work.Now,
                    name,
                    SheetEditor.Short(body.Reason.Trim())
                );
                work.History(
                    quote.Number,
                    open.Dossier.Id,
                    "quote.declined",
                    $"{QuoteMoves.Letter(quote.Revision)} declined",
                    nameof(QuoteState.WithCustomer),
                    nameof(QuoteState.Declined),
                    quote.DeclineReason
                );
                await CloseFollowUpsAsync(work, open, cancel);
                Tell(work, open, seller, string.IsNullOrWhiteSpace(body.Name) ? null : name, quote.DeclineReason);
                return await OfferViews.OfAsync(work.Db, open, judge, seller, work.Today, cancel);
            },
            cancel
        );
    }

    private static async Task CloseFollowUpsAsync(Work work, OpenSheet open, CancellationToken cancel)
    {
        foreach (
            var followUp in await work
                .Db.FollowUps.Where(f => f.DossierId == open.Dossier.Id && f.DoneAt == null)
                .ToListAsync(cancel)
        )
            followUp.DoneAt = work.Now;
    }

    // The buyer gets a line that says that the answer arrived.
    private static void Tell(Work work, OpenSheet open, Seller seller, string? name, string? declined)
    {
        if (!MailWriter.IsAddress(open.Quote!.SentTo))
            return;
        var key = $"{open.Subject}.{QuoteMoves.Letter(open.Quote.Revision)}.answer".ToLowerInvariant();
        Outgoing.Mail(work, seller, key, open.Quote.SentTo!, BuyerLetters.Answer(open, seller, name, declined));
    }

    private static async Task<OpenSheet> FindAsync(
        SolvendaDb db,
        string token,
        SheetLoader loader,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var hash = Access.Sha256(token);
        var found = await db
            .Quotes.Where(q => q.TokenHash == hash)
            .Select(q => new
            {
                q.Number,
                q.Revision,
                q.ValidUntil,
            })
            .FirstOrDefaultAsync(cancel);
        return found is null || found.ValidUntil.AddDays(LinkDaysAfter) < today
            ? throw new RefusalException(
                404,
                "link_unknown",
                "This link leads nowhere, or has run out. Please ask us for a new one."
            )
            : await loader.QuoteAsync(db, found.Number, found.Revision, cancel);
    }

    private static void Answerable(OpenSheet open, DateOnly today)
    {
        if (OfferViews.WhyNot(open, today) is { Length: > 0 } why)
            throw RefusalException.Clash("offer_closed", why);
    }
}
