using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Invoicing;
using Solvenda.Core.Billing;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;

namespace Solvenda.Web.Invoices;

/// <summary>One side of an entry that an invoice will post.</summary>
/// <param name="MayMove">Whether whoever looks may move it to another account.</param>
public sealed record NextEntry(string Account, string Called, decimal Debit, decimal Credit, bool MayMove);

/// <summary>An account that an entry can be moved to.</summary>
public sealed record AccountChoice(string Code, string Words);

/// <summary>What somebody earns of an invoice.</summary>
/// <param name="Percent">Of the basis; null for who may not see what things cost, where it is on the margin.</param>
/// <param name="Share">Of the commission, in percent.</param>
/// <param name="Basis">What the plan is on; null as the percentage is.</param>
/// <param name="Amount">Once all of it is paid, where it is on what is paid.</param>
public sealed record CommissionView(
    string Name,
    string Plan,
    CommissionOn On,
    decimal? Percent,
    decimal Share,
    decimal? Basis,
    decimal Amount
);

/// <summary>An invoice as it would be issued now: nothing of it is kept.</summary>
/// <param name="Issued">Its number is the next; it is taken by whoever issues first.</param>
/// <param name="GoesTo">Where it would go; empty: nobody gets it.</param>
/// <param name="Commissions">Those that whoever looks may see.</param>
/// <param name="MoveTo">Where entries can be moved to; empty for who may not.</param>
public sealed record NextInvoiceView(
    IssuedInvoice Issued,
    decimal TotalWithoutTax,
    decimal TotalTax,
    decimal TotalWithTax,
    decimal ToPay,
    string GoesTo,
    string HomeCurrency,
    IReadOnlyList<NextEntry> Entries,
    IReadOnlyList<CommissionView> Commissions,
    IReadOnlyList<AccountChoice> MoveTo
);

/// <summary>Shows an invoice before it is issued, by issuing it and taking that back.</summary>
public static class NextInvoice
{
    public static void MapNextInvoice(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        app.MapGet("/api/orders/{number}/next-invoice", Of).WithTags("Invoices").Needs<IssueInvoice>();
    }

    private static Task<NextInvoiceView> Of(
        string number,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var who = user.ActorOf();
        return acts.TryAsync(
            who,
            new IssueInvoice(number, WithGoods: false, []),
            (db, invoice) => ViewAsync(db, invoice, who, cancel),
            cancel
        );
    }

    private static async Task<NextInvoiceView> ViewAsync(
        SolvendaDb db,
        string number,
        Actor who,
        CancellationToken cancel
    )
    {
        var row = await InvoiceViews.FindAsync(db, number, cancel);
        var issued = InvoiceViews.Read(row);
        var mayMove = Rights.MoveEntries.Allows(who);
        var accounts = await db.Accounts.AsNoTracking().OrderBy(a => a.Code).ToListAsync(cancel);
        var entries = Rights.SeeLedger.Allows(who)
            ? await db.Entries.Where(e => e.Document == number).OrderBy(e => e.Id).ToListAsync(cancel)
            : [];
        NextEntry Entry(EntryRow entry)
        {
            var account = accounts.Find(a => a.Code == entry.Account);
            return new NextEntry(
                entry.Account,
                account?.Words ?? "",
                Amount.Major(entry.DebitMinor, entry.Currency),
                Amount.Major(entry.CreditMinor, entry.Currency),
                mayMove && account is not null && MovedEntries.MayMove(account.Use)
            );
        }
        return new NextInvoiceView(
            issued,
            issued.TotalWithoutTax,
            issued.TotalTax,
            issued.TotalWithTax,
            issued.ToPay,
            row.ToldTo,
            entries.Count > 0 ? entries[0].Currency : "",
            entries.ConvertAll(Entry),
            await CommissionsAsync(db, row, who, cancel),
            [
                .. accounts
                    .Where(a => mayMove && a.Active && (a.Use == AccountUse.None || MovedEntries.MayMove(a.Use)))
                    .Select(a => new AccountChoice(a.Code, a.Words)),
            ]
        );
    }

    /// <summary>What is earned of an invoice, as far as somebody may see it.</summary>
    public static async Task<IReadOnlyList<CommissionView>> CommissionsAsync(
        SolvendaDb db,
        InvoiceRow row,
        Actor who,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(who);
        var earned = await Commissions
            .SeenBy(db, who)
            .Where(c => c.InvoiceId == row.Id)
            .OrderBy(c => c.Id)
            .ToListAsync(cancel);
        return
        [
            .. earned.Select(c => new CommissionView(
                c.Name,
                c.Plan,
                c.On,
                Commissions.SeesBasis(who, c.On) ? c.Percent : null,
                c.Share,
                Commissions.SeesBasis(who, c.On) ? Amount.Major(c.BasisMinor, c.Currency) : null,
                Amount.Major(c.Minor, c.Currency)
            )),
        ];
    }
}
