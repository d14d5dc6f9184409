using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Owing;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Receiving;
using Solvenda.Data;
using Solvenda.Formats.Pdf;
using Solvenda.Web.Security;

namespace Solvenda.Web.Owing;

/// <param name="Takes">Which invoices it pays; none: all of it stays on account.</param>
public sealed record NotedMoneyBody(
    decimal Amount,
    string Currency,
    DateOnly Day,
    string How,
    string Words = "",
    IReadOnlyList<AskedTaking>? Takes = null
);

/// <param name="Document">The credit note, or the reference of the money.</param>
public sealed record PayBackBody(string Document, decimal Amount, string Reason);

public sealed record SetOffBody(string Note, string Invoice);

/// <summary>What is said of something that is open.</summary>
public sealed record OwedBody(string Number, string Reason);

/// <summary>What buyers owe, and what is done about it.</summary>
public static class OwedEndpoints
{
    public static void MapOwed(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var owed = app.MapGroup("/api/owed").WithTags("Owed");
        owed.MapGet("", List).Needs(Rights.SeeLedger);
        owed.MapGet("/{buyer:long}", Of).Needs(Rights.SeeLedger);
        owed.MapGet("/{buyer:long}/paper", Paper).Needs(Rights.SeeLedger).Produces(200, contentType: "application/pdf");
        owed.MapPost("/{buyer:long}/remind", Remind).Needs<RemindBuyer>();
        owed.MapPost("/{buyer:long}/statement", Statement).Needs<SendStatement>();
        owed.MapPost("/{buyer:long}/receipts", Receipt).Needs<EnterReceipt>();
        owed.MapPost("/{buyer:long}/pay-back", Back).Needs<PayBack>();
        owed.MapPost("/{buyer:long}/set-off", Off).Needs<SetOff>();
        owed.MapPost("/dispute", Dispute).Needs<DisputeInvoice>();
        owed.MapPost("/settle", Settle).Needs<SettleDispute>();
        owed.MapPost("/write-off", Write).Needs<WriteOff>();
    }

    private static Task<OwedView> List(
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    ) => OwedViews.OfAsync(db, seller, clock.Today, Rights.Money.Allows(user.ActorOf()), cancel);

    private static Task<AccountView> Of(
        long buyer,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    ) => OwedViews.OfBuyerAsync(db, seller, buyer, user.ActorOf(), clock.Today, cancel);

    /// <summary>What a statement says today, before it goes.</summary>
    /// <param name="currency">Which of several currencies; the first without it.</param>
    private static async Task<IResult> Paper(
        long buyer,
        string? currency,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var row =
            await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == buyer, cancel)
            ?? throw RefusedException.NotFound("such buyer");
        var accounts = await AccountSteps.AccountsAsync(
            db,
            row,
            await AccountSteps.OpenAsync(db, buyer, cancel),
            cancel
        );
        var account =
            accounts.FirstOrDefault(a => currency is null || a.Currency == currency)
            ?? throw RefusedException.NotFound("such statement: nothing is open");
        return Results.File(PdfWriter.Write(AccountPapers.Print(account, seller, clock.Today, 0)), "application/pdf");
    }

    private static Task<AccountView> Remind(
        long buyer,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        ActRunner acts,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        DoneAsync(
            acts.RunAsync(user.ActorOf(), new RemindBuyer(buyer), cancel),
            buyer,
            user,
            db,
            seller,
            clock,
            cancel
        );

    private static Task<AccountView> Statement(
        long buyer,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        ActRunner acts,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        DoneAsync(
            acts.RunAsync(user.ActorOf(), new SendStatement(buyer), cancel),
            buyer,
            user,
            db,
            seller,
            clock,
            cancel
        );

    private static Task<AccountView> Receipt(
        long buyer,
        NotedMoneyBody body,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        ActRunner acts,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var input = new EnterReceipt(
            buyer,
            body.Amount,
            body.Currency,
            body.Day,
            body.How,
            body.Words,
            [.. body.Takes ?? []]
        );
        return DoneAsync(acts.RunAsync(user.ActorOf(), input, cancel), buyer, user, db, seller, clock, cancel);
    }

    private static Task<AccountView> Back(
        long buyer,
        PayBackBody body,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        ActRunner acts,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var input = new PayBack(buyer, body.Document, body.Amount, body.Reason);
        return DoneAsync(acts.RunAsync(user.ActorOf(), input, cancel), buyer, user, db, seller, clock, cancel);
    }

    private static Task<AccountView> Off(
        long buyer,
        SetOffBody body,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        ActRunner acts,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var input = new SetOff(buyer, body.Note, body.Invoice);
        return DoneAsync(acts.RunAsync(user.ActorOf(), input, cancel), buyer, user, db, seller, clock, cancel);
    }

    private static async Task<AccountView> DoneAsync<TOut>(
        Task<TOut> act,
        long buyer,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        await act;
        return await OwedViews.OfBuyerAsync(db, seller, buyer, user.ActorOf(), clock.Today, cancel);
    }

    private static async Task<OwedBody> Dispute(
        OwedBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new DisputeInvoice(body.Number, body.Reason), cancel);
        return body;
    }

    private static async Task<OwedBody> Settle(
        OwedBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new SettleDispute(body.Number, body.Reason), cancel);
        return body;
    }

    private static async Task<OwedBody> Write(
        OwedBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new WriteOff(body.Number, body.Reason), cancel);
        return body;
    }
}
