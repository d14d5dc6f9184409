using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Ordering;
using Solvenda.Core.Quoting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Approvals;
using Solvenda.Web.Commands;
using Solvenda.Web.Printing;
using Solvenda.Web.Requests;
using Solvenda.Web.Security;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Quotes;

public sealed record QuoteListRow(
    string Number,
    string Revision,
    string Buyer,
    string Matter,
    string Seller,
    QuoteState State,
    DateOnly ValidUntil,
    string Currency,
    decimal Total,
    DateTime CreatedAt
);

/// <summary>The covering letter, as proposed or as sent. The link stands in it as {link}.</summary>
/// <param name="By">mail, or paper: printed and posted.</param>
/// <param name="To">A mail address; the address on the envelope where it goes on paper.</param>
public sealed record LetterView(string To, string Subject, string Text, string By = DocumentsBy.Mail);

/// <summary>A letter to be looked over, with the address that the other way would take.</summary>
public sealed record LetterProposal(LetterView Letter, string OtherTo);

public sealed record NewQuote(long BuyerId, string Matter);

public sealed record AskWhy(string Why);

public sealed record WithdrawWhy(string Reason);

public static class QuoteEndpoints
{
    public static void MapQuotes(this IEndpointRouteBuilder app)
    {
        var quotes = app.MapGroup("/api/quotes").WithTags("Quotes");
        quotes.MapGet("", List).RequireAuthorization(May.Look);
        quotes.MapPost("", Begin).RequireAuthorization(May.Write);
        quotes.MapGet("/{number}", Get).RequireAuthorization(May.Look);
        quotes.MapGet("/{number}/letter", Letter).RequireAuthorization(May.Look);
        quotes.MapGet("/{number}/preview", Preview).RequireAuthorization(May.Look);
        quotes
            .MapGet("/{number}/print", Print)
            .RequireAuthorization(May.Look)
            .Produces(200, contentType: "application/pdf");
        quotes.MapPost("/{number}/ask", Ask).RequireAuthorization(May.Write);
        quotes.MapPost("/{number}/send", Send).RequireAuthorization(May.Write);
        quotes.MapPost("/{number}/revise", Revise).RequireAuthorization(May.Write);
        quotes.MapPost("/{number}/withdraw", Withdraw).RequireAuthorization(May.Write);
        quotes.MapPost("/{number}/order", MakeOrder).RequireAuthorization(May.Write);
    }

    /// <summary>The newest revision of every quote, newest first.</summary>
    private static async Task<List<QuoteListRow>> List(SolvendaDb db, bool? open, CancellationToken cancel)
    {
        var rows = await (
            from q in db.Quotes
            join p in db.People on q.SellerId equals p.Id
            where
                q.State != QuoteState.Replaced
                && (
                    open != true
                    || q.State == QuoteState.Drafting
                    || q.State == QuoteState.InApproval
                    || q.State == QuoteState.Cleared
                    || q.State == QuoteState.WithCustomer
                    || q.State == QuoteState.Accepted
                )
            orderby q.CreatedAt descending, q.Id descending
            select new
            {
                q.Number,
                q.Revision,
                Buyer = q.Dossier.Buyer.Name,
                q.Dossier.Matter,
                p.Name,
                q.State,
                q.ValidUntil,
                q.Sheet.Currency,
                q.Sheet.TotalWithTaxMinor,
                q.CreatedAt,
            }
        )
            .Take(1000)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(q => new QuoteListRow(
                q.Number,
                QuoteMoves.Letter(q.Revision),
                q.Buyer,
                q.Matter,
                q.Name,
                q.State,
                q.ValidUntil,
                q.Currency,
                Major(q.TotalWithTaxMinor, q.Currency),
                q.CreatedAt
            )),
        ];
    }

    internal static decimal Major(long minor, string currency) =>
        Core.Money.Amount.FromMinor(minor, Core.Money.Currency.Of(currency)).Value;

    private static async Task<Turned> Begin(
        NewQuote body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var buyer =
                    await work.Db.Buyers.FirstOrDefaultAsync(b => b.Id == body.BuyerId, cancel)
                    ?? throw RefusalException.Bad("buyer_unknown", "We have no such buyer.", "buyer");
                var dossier = new DossierRow
                {
                    Number = await work.NumberAsync(Series.Dossier, cancel),
                    BuyerId = buyer.Id,
                    Buyer = buyer,
                    Matter = SheetEditor.Short(body.Matter.Trim()),
                    CreatedAt = work.Now,
                };
                work.Db.Dossiers.Add(dossier);
                await work.Db.SaveChangesAsync(cancel);
                var quote = await DocumentMaker.QuoteAsync(
                    work,
                    dossier,
                    DocumentMaker.SheetFor(buyer, work.Today, null),
                    buyer,
                    cancel
                );
                return new Turned("quote", quote.Number);
            },
            cancel
        );

    private static async Task<DocumentView> Get(
        string number,
        int? revision,
        SolvendaDb db,
        SheetLoader loader,
        DocumentViews views,
        CancellationToken cancel
    ) => await views.OfAsync(db, await loader.QuoteAsync(db, number, revision, cancel), cancel);

    private static async Task<LetterProposal> Letter(
        string number,
        SolvendaDb db,
        SheetLoader loader,
        Seller seller,
        CancellationToken cancel
    )
    {
        var open = await loader.QuoteAsync(db, number, null, cancel);
        var (subject, text) = BuyerLetters.Quote(open, seller);
        // A quote has no form in EDI here: it goes by mail to those whose orders go by EDI.
        var onPaper = open.Sheet.DocumentsBy == DocumentsBy.Paper;
        var (mail, post) = (open.Buyer.ContactMail ?? "", open.Buyer.Address);
        return onPaper
            ? new LetterProposal(new LetterView(post, subject, text, DocumentsBy.Paper), mail)
            : new LetterProposal(new LetterView(mail, subject, text), post);
    }

    /// <summary>The newest revision as the buyer will see it.</summary>
    private static async Task<OfferView> Preview(
        string number,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        await OfferViews.OfAsync(
            db,
            await loader.QuoteAsync(db, number, null, cancel),
            judge,
            seller,
            clock.Today,
            cancel
        );

    private static async Task<IResult> Print(
        string number,
        int? revision,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var open = await loader.QuoteAsync(db, number, revision, cancel);
        var sent = open.Quote!.PrintId is { } id
            ? await db.Prints.AsNoTracking().FirstAsync(p => p.Id == id, cancel)
            : null;
        var bytes = sent?.Bytes ?? SheetPrint.Quote(await judge.JudgeAsync(db, open, cancel), seller, clock.Today);
        return Results.File(bytes, "application/pdf");
    }

    private static async Task<DocumentView> Ask(
        string number,
        AskWhy body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        DocumentViews views,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var open = await loader.QuoteAsync(work.Db, number, null, cancel);
                await Versions.MatchAsync(work.Db, open, ifMatch, cancel);
                Asking.Ask(work, open, await judge.JudgeAsync(work.Db, open, cancel), body.Why);
                Move(open.Quote!, QuoteAct.Ask);
                await work.Db.SaveChangesAsync(cancel);
                return await views.OfAsync(work.Db, await loader.QuoteAsync(work.Db, number, null, cancel), cancel);
            },
            cancel
        );

    private static async Task<DocumentView> Send(
        string number,
        LetterView letter,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        HttpContext http,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        DocumentViews views,
        Seller seller,
        SolvendaOptions options,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                Outgoing.Addressed(letter.By, letter.To);
                if (!letter.Text.Contains(BuyerLetters.LinkMark, StringComparison.Ordinal))
                    throw RefusalException.Bad(
                        "link_missing",
                        $"The letter has lost its {BuyerLetters.LinkMark}; without it the buyer cannot answer. Nothing was sent.",
                        "text"
                    );
                var open = await loader.QuoteAsync(work.Db, number, null, cancel);
                await Versions.MatchAsync(work.Db, open, ifMatch, cancel);
                var quote = open.Quote!;
                var judged = await judge.JudgeAsync(work.Db, open, cancel);
                if (!QuoteMoves.IsOpen(quote.State))
                    throw RefusalException.Clash("quote_state", "This revision left the house already.");
                if (judged.Findings.FirstOrDefault(f => f.Outcome == Outcome.Stop) is { } stop)
                    throw RefusalException.Clash("stopped", stop.Words);
                if (quote.ValidUntil < work.Today)
                    throw RefusalException.Bad(
                        "validity_past",
                        "Its validity is over; set a later date first.",
                        "validUntil"
                    );
                Move(quote, QuoteAct.Send);

                // The rate of the day is frozen until the validity ends.
                if (open.Sheet.Currency != open.Book.Home.Code)
                    open.Sheet.FrozenRate = judged.Priced.Rates.Of(judged.Priced.Sheet.Currency);
                // What is offered stays what it is, whatever price lists do until it is answered.
                open.Sheet.Kept = KeptLines.Write(judged.Priced);
                var token = Access.NewToken();
                (quote.TokenHash, quote.SentAt, quote.SentTo) = (Access.Sha256(token), work.Now, letter.To);
                var name = $"{open.Wording["quote"]} {open.Number}.pdf";
                var pdf = SheetPrint.Quote(judged, seller, work.Today);
                var print = new PrintRow
                {
                    Name = name,
                    ContentType = "application/pdf",
                    Bytes = pdf,
                    CreatedAt = work.Now,
                };
                work.Db.Prints.Add(print);
                await work.Db.SaveChangesAsync(cancel);
                quote.PrintId = print.Id;

                var link = $"{options.PublicAddress ?? $"{http.Request.Scheme}://{http.Request.Host}"}/offer/{token}";
                var text = letter.Text.Replace(BuyerLetters.LinkMark, link, StringComparison.Ordinal);
                var key =
                    $"{quote.Number}.{QuoteMoves.Letter(quote.Revision)}.{work.Now:yyyyMMddHHmmss}".ToLowerInvariant();
                if (letter.By == DocumentsBy.Paper)
                    Outgoing.Post(
                        work,
                        key,
                        letter.To,
                        SheetPrint.Quote(judged, seller, work.Today, SheetPrint.Letter(open, letter.To, text))
                    );
                else
                    Outgoing.Mail(work, seller, key, letter.To, new BuyerLetter(letter.Subject, text), (name, pdf));
                work.Db.FollowUps.Add(
                    new FollowUpRow
                    {
                        DossierId = open.Dossier.Id,
                        PersonId = quote.SellerId,
                        Due = DateTime.SpecifyKind(
                            work.Today.AddDays(3).ToDateTime(new TimeOnly(9, 30)),
                            DateTimeKind.Utc
                        ),
                        Words = $"call {open.Buyer.ContactName ?? open.Buyer.Name}",
                    }
                );
                work.History(
                    quote.Number,
                    open.Dossier.Id,
                    "quote.sent",
                    $"{QuoteMoves.Letter(quote.Revision)} {(letter.By == DocumentsBy.Paper ? "posted" : "sent")} to {letter.To}",
                    nameof(QuoteState.Drafting),
                    nameof(QuoteState.WithCustomer)
                );
                await work.Db.SaveChangesAsync(cancel);
                return await views.OfAsync(work.Db, open, cancel);
            },
            cancel
        );

    private static async Task<DocumentView> Revise(
        string number,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        DocumentViews views,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var open = await loader.QuoteAsync(work.Db, number, null, cancel);
                var old = open.Quote!;
                Move(old, QuoteAct.Revise);
                var sheet = DocumentMaker.CopyOf(open.Sheet);
                (sheet.PricingDate, sheet.FrozenRate, sheet.Kept) = (work.Today, null, "");
                work.Db.Quotes.Add(
                    new QuoteRow
                    {
                        Number = old.Number,
                        Revision = old.Revision + 1,
                        DossierId = old.DossierId,
                        Dossier = old.Dossier,
                        Sheet = sheet,
                        SellerId = old.SellerId,
                        RequestId = old.RequestId,
                        State = QuoteState.Drafting,
                        ValidUntil = work.Today.AddDays(DocumentMaker.ValidDays),
                        CreatedAt = work.Now,
                    }
                );
                work.History(
                    old.Number,
                    old.DossierId,
                    "quote.revised",
                    $"{QuoteMoves.Letter(old.Revision + 1)} begun",
                    QuoteMoves.Letter(old.Revision),
                    QuoteMoves.Letter(old.Revision + 1)
                );
                await work.Db.SaveChangesAsync(cancel);
                var fresh = await loader.QuoteAsync(work.Db, number, null, cancel);
                SayWhereTheRateMoved(work, open, fresh, await judge.JudgeAsync(work.Db, fresh, cancel));
                await work.Db.SaveChangesAsync(cancel);
                return await views.OfAsync(work.Db, fresh, cancel);
            },
            cancel
        );

    // A new revision takes the rate of its day; where that moves the total by more than a hundredth, the strip says so.
    private static void SayWhereTheRateMoved(Work work, OpenSheet old, OpenSheet fresh, Judged judged)
    {
        if (
            old.Sheet.FrozenRate is not { } before
            || judged.Priced.Rates.Of(judged.Priced.Sheet.Currency) is not { } now
            || before == now
            || old.Sheet.TotalWithTaxMinor == 0
        )
            return;
        var moved = ((decimal)judged.Priced.Tally.TotalWithTax.Minor / old.Sheet.TotalWithTaxMinor - 1m) * 100m;
        if (Math.Abs(moved) > 1m)
            work.History(
                fresh.Subject,
                fresh.Dossier.Id,
                "quote.rate_moved",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"rate moved: total {(moved > 0 ? "+" : "\u2212")}{Math.Abs(moved):0.0} %"
                ),
                before.ToString(CultureInfo.InvariantCulture),
                now.ToString(CultureInfo.InvariantCulture)
            );
    }

    private static async Task<DocumentView> Withdraw(
        string number,
        WithdrawWhy body,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        DocumentViews views,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var open = await loader.QuoteAsync(work.Db, number, null, cancel);
                if (string.IsNullOrWhiteSpace(body.Reason))
                    throw RefusalException.Bad(
                        "reason_missing",
                        "Say why it is withdrawn; the reason is kept.",
                        "reason"
                    );
                var before = open.Quote!.State;
                Move(open.Quote, QuoteAct.Withdraw);
                foreach (var ask in open.Asks.Where(a => a.Outcome == AskOutcome.Waiting))
                    (ask.Outcome, ask.DecidedAt) = (AskOutcome.Withdrawn, work.Now);
                work.History(
                    number,
                    open.Dossier.Id,
                    "quote.withdrawn",
                    "withdrawn",
                    before.ToString(),
                    nameof(QuoteState.Withdrawn),
                    body.Reason.Trim()
                );
                await work.Db.SaveChangesAsync(cancel);
                return await views.OfAsync(work.Db, open, cancel);
            },
            cancel
        );

    /// <summary>The accepted revision, and no other, becomes an order; everything is carried over.</summary>
    private static async Task<Turned> MakeOrder(
        string number,
        ClaimsPrincipal user,
        CommandHandler commands,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    ) =>
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var open = await loader.QuoteAsync(work.Db, number, null, cancel);
                var quote = open.Quote!;
                if (quote.State != QuoteState.Accepted)
                    throw RefusalException.Clash("quote_state", "Only an accepted quote becomes an order.");
                if (
                    await work
                        .Db.Orders.Where(o => o.QuoteId == quote.Id)
                        .Select(o => o.Number)
                        .FirstOrDefaultAsync(cancel) is
                    { } made
                )
                    throw RefusalException.Clash("order_made", $"It became {made} already.");
                var order = await DocumentMaker.OrderAsync(
                    work,
                    open.Dossier,
                    DocumentMaker.CopyOf(open.Sheet),
                    open.Buyer,
                    "mail",
                    cancel
                );
                (order.QuoteId, order.SellerId) = (quote.Id, quote.SellerId);
                await work.Db.SaveChangesAsync(cancel);
                await judge.JudgeAsync(work.Db, await loader.BySheetAsync(work.Db, order.SheetId, cancel), cancel);
                return new Turned("order", order.Number);
            },
            cancel
        );

    internal static void Move(QuoteRow quote, QuoteAct act) =>
        quote.State =
            QuoteMoves.After(quote.State, act)
            ?? throw RefusalException.Clash("quote_state", $"That cannot be done: the quote is {quote.State}.");
}
