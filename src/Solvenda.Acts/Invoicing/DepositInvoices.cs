using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>
/// Taxes money that came before the goods, where the house does: issues the deposit invoice, and gives it back.
/// </summary>
public sealed class DepositInvoices(Seller seller, Invoicing invoicing)
{
    /// <summary>Issues the invoice for a deposit that is noted and booked; nothing where nothing of it is taxed
    /// now.</summary>
    public async Task IssueAsync(Work work, OpenSheet open, DepositRow deposit, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(deposit);
        // Where the tax of something is not known yet it is taxed with the goods.
        if (!seller.TaxesAdvances || BillableSheet.Of(open.Sheet.Priced(open.Buyer, open.Book)) is not { } whole)
            return;
        var received = Amount.FromMinor(deposit.Minor, whole.Billable.Currency);
        if (DepositRules.Invoice(whole.Billable, received) is not { } bill)
            return;
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var row = await IssueAsync(work, open, bill, null, books.RateOf(bill.Currency), cancel);
        deposit.InvoiceId = row.Id;
        deposit.TaxedMinor = bill.TotalWithTax.Minor;
        var postings = LedgerBook.Of(() => Postings.OfDeposit(bill, row.Rate, seller.Home, books.Chart));
        var onAccount = books.Chart.For(AccountUse.OnAccount);
        deposit.HomeMinor -= postings.Where(p => p.Account == onAccount).Sum(p => p.Debit.Minor);
        LedgerBook.Post(work, books, row.Number, row.Day, $"deposit invoice {row.Number}", postings);
        work.Leave(
            new DepositInvoiced(row.Number, bill.TotalWithTax.Value, row.Currency, row.ToldTo),
            open.Subject,
            open.Dossier.Id
        );
    }

    /// <summary>Credits all that no invoice took off of one: the money is owed back to the buyer.</summary>
    /// <returns>Number of the credit note.</returns>
    public async Task<string> GiveBackAsync(
        Work work,
        OpenSheet open,
        InvoiceRow invoice,
        string reason,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(open);
        ArgumentNullException.ThrowIfNull(invoice);
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var held = await HeldMoney.OfOrderAsync(work, open, books, seller, cancel);
        var left = held.Taxed.Where(t => t.Number == invoice.Number).ToList();
        if (left.Count == 0)
            throw RefusedException.Clash(
                "nothing_to_credit",
                $"Invoices took all of {invoice.Number} off, or it was given back; credit those."
            );
        var note = DepositRules.Back(left);
        var row = await IssueAsync(work, open, note, (invoice, reason), invoice.Rate, cancel);
        var (home, chart) = (seller.Home, books.Chart);
        var worth = Amount.Sum(held.TakeTaxed(left), home);
        LedgerBook.Post(
            work,
            books,
            row.Number,
            row.Day,
            $"credit note {row.Number} for {invoice.Number}",
            LedgerBook.Of(() => Postings.OfDepositBack(note, row.Rate, worth, home, chart))
        );
        work.Db.OpenItems.Add(
            new OpenItemRow
            {
                BuyerId = row.BuyerId,
                Number = row.Number,
                InvoiceId = row.Id,
                Currency = row.Currency,
                Due = row.Day,
                OpenMinor = -note.TotalWithTax.Minor,
                HomeMinor = -Amount.Round(note.TotalWithTax.Value * row.Rate, home).Minor,
            }
        );
        var (was, now) = await Follow.MoneyAsync(work, open.Order!, cancel);
        work.Leave(
            new InvoiceCredited(
                row.Number,
                invoice.Number,
                note.TotalWithTax.Value,
                row.Currency,
                row.ToldTo,
                was,
                now
            ),
            open.Subject,
            open.Dossier.Id
        );
        return row.Number;
    }

    // As it goes to the buyer, and is kept.
    private async Task<InvoiceRow> IssueAsync(
        Work work,
        OpenSheet open,
        Bill bill,
        (InvoiceRow Invoice, string Reason)? credits,
        decimal rate,
        CancellationToken cancel
    )
    {
        var billed = new BilledOrder(open, null, [], bill, null);
        var row = await InvoiceSteps.RowAsync(work, [billed], bill, rate, cancel);
        (row.CreditsId, row.Reason) = (credits?.Invoice.Id, credits?.Reason ?? "");
        work.Db.Invoices.Add(row);
        var document = Issued.Of(row, bill, [billed], seller) with
        {
            Credits = credits?.Invoice.Number ?? "",
            CreditsDay = credits?.Invoice.Day,
            Reason = credits?.Reason ?? "",
        };
        row.Document = JsonSerializer.Serialize(document);
        await work.Db.SaveChangesAsync(cancel);
        await invoicing.SendAsync(work, open, row, document, cancel);
        return row;
    }
}
