using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Quotes;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Quoting;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Formats.Pdf;
using Solvenda.Web.Documents;
using Solvenda.Web.Security;

namespace Solvenda.Web.Quotes;

/// <summary>The covering letter, as proposed or as sent. The link stands in it as {link}.</summary>
/// <param name="By">mail, or paper: printed and posted.</param>
/// <param name="To">A mail address; the address on the envelope where it goes on paper.</param>
public sealed record LetterView(string To, string Subject, string Text, string By = DocumentsBy.Mail);

/// <summary>A letter to be looked over, with the address that the other way would take.</summary>
public sealed record LetterProposal(LetterView Letter, string OtherTo);

public sealed record NewQuote(long BuyerId, string Matter);

public sealed record WithdrawWhy(string Reason);

/// <param name="Revision">Null: the newest.</param>
/// <param name="ToChoose">Whether the buyer takes one of the two.</param>
public sealed record CopyBody(bool ToChoose, int? Revision = null);

/// <summary>How a quote becomes an order.</summary>
/// <param name="With">Other accepted quotes of the buyer that go into the same order.</param>
/// <param name="OnCall">Whether it becomes a frame, of which parts are called off.</param>
public sealed record QuoteTurn(IReadOnlyList<string>? With = null, bool OnCall = false);

public static class QuoteEndpoints
{
    public static void MapQuotes(this IEndpointRouteBuilder app)
    {
        var quotes = app.MapGroup("/api/quotes").WithTags("Quotes");
        quotes.MapPost("", Begin).Needs<BeginQuote>();
        quotes.MapGet("/{number}", Get).Needs(Rights.Look);
        quotes.MapGet("/{number}/letter", Letter).Needs(Rights.Look);
        quotes.MapGet("/{number}/preview", Preview).Needs(Rights.Look);
        quotes.MapGet("/{number}/print", Print).Needs(Rights.Look).Produces(200, contentType: "application/pdf");
        quotes.MapPost("/{number}/ask", Ask).Needs<AskApproval>();
        quotes.MapPost("/{number}/send", Send).Needs<SendQuote>();
        quotes.MapPost("/{number}/revise", Revise).Needs<ReviseQuote>();
        quotes.MapPost("/{number}/withdraw", Withdraw).Needs<WithdrawQuote>();
        quotes.MapPost("/{number}/order", Turn).Needs<TurnQuote>();
        quotes.MapPost("/{number}/copy", Copy).Needs<CopyQuote>();
    }

    private static Task<DocumentRef> Begin(
        NewQuote body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new BeginQuote(body.BuyerId, body.Matter), cancel, key);

    private static async Task<DocumentView> Get(
        string number,
        int? revision,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        DocumentViews views,
        CancellationToken cancel
    ) => await views.OfAsync(db, await loader.QuoteAsync(db, number, revision, cancel), user.ActorOf(), cancel);

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
        var onPaper = HeadTerms.By.In(open.Sheet.Head) == DocumentsBy.Paper;
        var (mail, post) = (open.Buyer.ContactMail ?? "", open.Buyer.Address);
        return onPaper
            ? new LetterProposal(new LetterView(post, subject, text, DocumentsBy.Paper), mail)
            : new LetterProposal(new LetterView(mail, subject, text), post);
    }

    /// <summary>The newest revision as the buyer will see it.</summary>
    private static async Task<OfferView> Preview(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        OfferViews offers,
        CancellationToken cancel
    ) => await offers.OfAsync(db, await loader.QuoteAsync(db, number, null, cancel), user.ActorOf().Hand, cancel);

    private static async Task<IResult> Print(
        string number,
        int? revision,
        ClaimsPrincipal user,
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
        var bytes =
            sent?.Bytes
            ?? PdfWriter.Write(
                SheetPrint.Quote(await judge.JudgeAsync(db, open, user.ActorOf().Hand, cancel), seller, clock.Today)
            );
        return Results.File(bytes, "application/pdf");
    }

    private static async Task<DocumentView> Ask(
        string number,
        AskWhy body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    )
    {
        var (actor, quote) = (user.ActorOf(), new DocumentRef("quote", number));
        await acts.RunAsync(actor, new AskApproval(quote, body.Why, Seen.Of(ifMatch), body.Urgent), cancel);
        return await views.OfAsync(db, quote, actor, cancel);
    }

    private static async Task<DocumentView> Send(
        string number,
        LetterView letter,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        HttpContext http,
        ActRunner acts,
        SolvendaDb db,
        DocumentViews views,
        SolvendaOptions options,
        CancellationToken cancel
    )
    {
        var actor = http.User.ActorOf();
        // Never by the name that the caller's browser gave: it can be anybody's.
        var links =
            options.PublicAddress
            ?? throw RefusedException.Clash(
                "public_address",
                "How buyers reach this house is not set (--public-address https://…); nothing was sent."
            );
        var send = new SendQuote(number, letter.By, letter.To, letter.Subject, letter.Text, links, Seen.Of(ifMatch));
        return await views.OfAsync(db, await acts.RunAsync(actor, send, cancel, key), actor, cancel);
    }

    private static async Task<DocumentView> Revise(
        string number,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        return await views.OfAsync(db, await acts.RunAsync(actor, new ReviseQuote(number), cancel), actor, cancel);
    }

    private static async Task<DocumentView> Withdraw(
        string number,
        WithdrawWhy body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var withdrawn = await acts.RunAsync(actor, new WithdrawQuote(number, body.Reason), cancel);
        return await views.OfAsync(db, withdrawn, actor, cancel);
    }

    /// <summary>A quote of its own with the same lines, at the prices of today.</summary>
    private static Task<DocumentRef> Copy(
        string number,
        CopyBody body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new CopyQuote(number, body.Revision, body.ToChoose), cancel, key);

    private static Task<DocumentRef> Turn(
        string number,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel,
        QuoteTurn? body = null
    ) =>
        acts.RunAsync(user.ActorOf(), new TurnQuote(number, [.. body?.With ?? []], body?.OnCall ?? false), cancel, key);
}
