using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Invoicing;
using Solvenda.Acts.Ledger;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Ubl;
using Solvenda.Web.Bank;
using Solvenda.Web.Security;
using Solvenda.Web.Shipping;

namespace Solvenda.Web.Invoices;

/// <param name="WithGoods">Ships first what may go.</param>
/// <param name="Moves">What of it is posted on other accounts than the rules say.</param>
public sealed record InvoiceBody(string Order, bool WithGoods = false, IReadOnlyList<MovedEntry>? Moves = null);

/// <param name="Until">The last day of what goes on it.</param>
public sealed record CollectBody(long Buyer, string Currency, DateOnly Until);

/// <param name="Lines">What goes back, in the order's units; none: all that is left.</param>
/// <param name="Order">Of an invoice for several, the one that it is for.</param>
public sealed record CreditBody(
    string Reason,
    IReadOnlyList<GoodsBody>? Lines = null,
    bool Charges = false,
    string Order = ""
);

/// <summary>An invoice that was issued, by its number.</summary>
public sealed record InvoiceRef(string Number);

/// <summary>A pro-forma invoice that was sent.</summary>
/// <param name="To">Where it went.</param>
public sealed record ProFormaRef(string To);

/// <summary>Invoices and credit notes: what is to be invoiced, what was.</summary>
public static class InvoiceEndpoints
{
    public const string Xml = "application/xml";
    public const string Pdf = "application/pdf";

    /// <summary>With the money that comes for them.</summary>
    public static void MapInvoices(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var invoices = app.MapGroup("/api/invoices").WithTags("Invoices");
        invoices.MapGet("/due", Due).Needs(Rights.Look);
        invoices.MapPost("", Issue).Needs<IssueInvoice>();
        invoices.MapPost("/collected", Collect).Needs<CollectInvoices>();
        invoices.MapGet("/{number}", Get).Needs(Rights.Look);
        invoices.MapGet("/{number}/pdf", Paper).Needs(Rights.Look).Produces(200, contentType: Pdf);
        invoices.MapGet("/{number}/ubl", Ubl).Needs(Rights.Look).Produces(200, contentType: Xml);
        invoices.MapGet("/{number}/creditable", Creditable).Needs(Rights.Look);
        invoices.MapPost("/{number}/credit", Credit).Needs<CreditInvoice>();
        app.MapBank();
        app.MapNextInvoice();
        app.MapCommissions();
        app.MapPost("/api/orders/{number}/pro-forma", ProForma).WithTags("Invoices").Needs<SendProForma>();
        app.MapGet("/api/orders/{number}/money", OfOrder).WithTags("Invoices").Needs(Rights.Look);
    }

    private static Task<ToInvoiceView> Due(
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    ) => ToInvoice.OfAsync(db, clock.Today, Rights.Bill.Allows(user.ActorOf()), cancel);

    private static async Task<InvoiceRef> Issue(
        InvoiceBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        new(
            await acts.RunAsync(
                user.ActorOf(),
                new IssueInvoice(body.Order, body.WithGoods, [.. body.Moves ?? []]),
                cancel
            )
        );

    private static async Task<IReadOnlyList<InvoiceRef>> Collect(
        CollectBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        [
            .. (
                await acts.RunAsync(user.ActorOf(), new CollectInvoices(body.Buyer, body.Currency, body.Until), cancel)
            ).Select(n => new InvoiceRef(n)),
        ];

    private static async Task<ProFormaRef> ProForma(
        string number,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => new(await acts.RunAsync(user.ActorOf(), new SendProForma(number), cancel));

    private static Task<InvoiceView> Get(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    ) => InvoiceViews.OfAsync(db, number, user.ActorOf(), cancel);

    private static Task<IReadOnlyList<CreditableLine>> Creditable(
        string number,
        SolvendaDb db,
        CancellationToken cancel
    ) => InvoiceViews.CreditableAsync(db, number, cancel);

    private static async Task<InvoiceRef> Credit(
        string number,
        CreditBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        new(
            await acts.RunAsync(
                user.ActorOf(),
                new CreditInvoice(number, GoodsEndpoints.Asked(body.Lines), body.Charges, body.Reason, body.Order),
                cancel
            )
        );

    private static Task<OrderMoneyView> OfOrder(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        Seller seller,
        CancellationToken cancel
    ) => InvoiceViews.OfOrderAsync(db, seller, number, user.ActorOf(), cancel);

    private static async Task<IResult> Paper(string number, SolvendaDb db, CancellationToken cancel) =>
        await PaperOfAsync(db, await InvoiceViews.FindAsync(db, number, cancel), cancel);

    private static async Task<IResult> Ubl(string number, SolvendaDb db, CancellationToken cancel) =>
        UblOf(await InvoiceViews.FindAsync(db, number, cancel));

    /// <summary>As it was printed when it was issued.</summary>
    public static async Task<IResult> PaperOfAsync(SolvendaDb db, InvoiceRow row, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(row);
        var print = await db.Prints.AsNoTracking().FirstAsync(p => p.Id == row.PrintId, cancel);
        return Results.File(print.Bytes, print.ContentType);
    }

    /// <summary>As a file of UBL; refused in a currency that it does not know.</summary>
    public static IResult UblOf(InvoiceRow row)
    {
        var issued = InvoiceViews.Read(row);
        return UblInvoice.CanWrite(issued)
            ? Results.File(UblInvoice.Write(issued), Xml, $"{issued.Number}.xml")
            : throw RefusedException.Clash(
                "no_such_form",
                $"{issued.Number} is in {issued.Currency}, whose amounts have more decimals than an electronic invoice of EN 16931 knows; it goes as PDF."
            );
    }
}
