using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Invoicing;
using Solvenda.Acts.Receiving;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Web.Bank;
using Solvenda.Web.Invoices;
using Solvenda.Web.Security;
using Solvenda.Web.Shipping;

namespace Solvenda.Web.Machines;

/// <param name="WithGoods">Ships first what may go.</param>
public sealed record InvoicesBody(bool WithGoods = false);

/// <summary>An invoice that was issued.</summary>
/// <param name="Due">What is to be paid.</param>
/// <param name="DueOn">The day by which.</param>
public sealed record IssuedState(
    string Number,
    string Currency,
    decimal TotalWithoutTax,
    decimal TotalWithTax,
    decimal Due,
    DateOnly DueOn
);

/// <summary>An invoice or a credit note as machines see it.</summary>
/// <param name="Kind">"invoice" or "creditNote".</param>
/// <param name="Due">What was to be paid when it was issued.</param>
/// <param name="Open">What is still to be paid.</param>
public sealed record InvoiceState(
    string Number,
    string Kind,
    DateOnly Day,
    DateOnly DueOn,
    string Order,
    string PoNumber,
    string Credits,
    string Currency,
    IReadOnlyList<InvoiceLine> Lines,
    IReadOnlyList<InvoiceExtra> Allowances,
    IReadOnlyList<InvoiceExtra> Charges,
    IReadOnlyList<InvoiceTax> Taxes,
    decimal TotalWithoutTax,
    decimal TotalTax,
    decimal TotalWithTax,
    decimal Prepaid,
    decimal Due,
    decimal Open
);

/// <summary>One side of an entry; one of debit and credit is 0.</summary>
public sealed record LedgerSide(
    DateOnly Date,
    string Document,
    string Account,
    decimal Debit,
    decimal Credit,
    string Currency
);

/// <summary>A part of the ledger.</summary>
public sealed record LedgerState(IReadOnlyList<LedgerSide> Entries);

/// <summary>Invoices, money and the ledger for machines, kept stable.</summary>
public static class MoneyDoor
{
    public static void MapMoneyDoor(this RouteGroupBuilder v1)
    {
        ArgumentNullException.ThrowIfNull(v1);
        v1.MapPost("/orders/{number}/invoices", Issue).Needs<IssueInvoice>().Produces<IssuedState>(201);
        v1.MapGet("/invoices/{number}", Get).Needs(Rights.Bill).Produces<InvoiceState>();
        v1.MapPost("/bank", Bank)
            .Needs<TakeBankFile>()
            .WithMetadata(new RequestSizeLimitAttribute(BankEndpoints.LargestFile));
        v1.MapGet("/ledger", Ledger).Needs(Rights.SeeLedger);
    }

    private static async Task<IResult> Issue(
        string number,
        InvoicesBody? body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var made = await acts.RunAsync(
            user.ActorOf(),
            new IssueInvoice(number, body?.WithGoods ?? false, []),
            cancel,
            key
        );
        var issued = InvoiceViews.Read(await InvoiceViews.FindAsync(db, made, cancel));
        return Results.Created(
            $"/api/v1/invoices/{made}",
            new IssuedState(
                made,
                issued.Currency,
                issued.TotalWithoutTax,
                issued.TotalWithTax,
                issued.ToPay,
                issued.Due
            )
        );
    }

    private static async Task<BankAnswer> Bank(
        HttpRequest http,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        await acts.RunAsync(
            user.ActorOf(),
            new TakeBankFile("a statement by the door", await RawBody.ReadAsync(http, cancel)),
            cancel,
            key
        );

    // As it is asked for: JSON, or as the buyer got it.
    private static async Task<IResult> Get(
        string number,
        [FromHeader(Name = "Accept")] string? accept,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var row = await InvoiceViews.FindAsync(db, number, cancel);
        if (Wants(accept, InvoiceEndpoints.Xml))
            return InvoiceEndpoints.UblOf(row);
        if (Wants(accept, InvoiceEndpoints.Pdf))
            return await InvoiceEndpoints.PaperOfAsync(db, row, cancel);
        var issued = InvoiceViews.Read(row);
        var open = await db.OpenItems.Where(o => o.InvoiceId == row.Id).SumAsync(o => o.OpenMinor, cancel);
        return Results.Ok(
            new InvoiceState(
                issued.Number,
                issued.Kind switch
                {
                    BillKind.Credit => "creditNote",
                    BillKind.Deposit => "depositInvoice",
                    _ => "invoice",
                },
                issued.Day,
                issued.Due,
                issued.Order,
                issued.PoNumber,
                issued.Credits,
                issued.Currency,
                issued.Lines,
                issued.Allowances,
                issued.Charges,
                issued.Taxes,
                issued.TotalWithoutTax,
                issued.TotalTax,
                issued.TotalWithTax,
                issued.Prepaid,
                issued.ToPay,
                Amount.Major(open, row.Currency)
            )
        );
    }

    private static bool Wants(string? accept, string type) =>
        accept?.Contains(type, StringComparison.OrdinalIgnoreCase) == true;

    private static async Task<LedgerState> Ledger(DateOnly? from, DateOnly? to, SolvendaDb db, CancellationToken cancel)
    {
        var entries = await db
            .Entries.AsNoTracking()
            .Where(e => (from == null || e.Day >= from) && (to == null || e.Day <= to))
            .OrderBy(e => e.Day)
            .ThenBy(e => e.Id)
            .ToListAsync(cancel);
        return new LedgerState(
            entries.ConvertAll(e => new LedgerSide(
                e.Day,
                e.Document,
                e.Account,
                Amount.Major(e.DebitMinor, e.Currency),
                Amount.Major(e.CreditMinor, e.Currency),
                e.Currency
            ))
        );
    }
}
