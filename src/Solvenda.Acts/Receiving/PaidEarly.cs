using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Core.Billing;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Receiving;

/// <summary>Closes what was paid early, where no more is left than may be taken off for it; the tax follows.</summary>
internal static class PaidEarly
{
    public static async Task CloseAsync(
        Work work,
        Books books,
        Seller seller,
        ReceiptRow receipt,
        OpenItemRow item,
        CancellationToken cancel
    )
    {
        if (item.EarlyUntil is not { } until || receipt.Day > until)
            return;
        if (item.OpenMinor <= 0 || item.OpenMinor > item.EarlyMinor)
            return;
        var document = await work
            .Db.Invoices.Where(i => i.Id == item.InvoiceId)
            .Select(i => i.Document)
            .FirstAsync(cancel);
        var taxes = JsonSerializer.Deserialize<IssuedInvoice>(document)!.Taxes;
        var worth = Paying.Take(work, item, item.OpenMinor, reason: "taken off for paying early");
        LedgerBook.Post(
            work,
            books,
            item.Number.Split('/')[0],
            receipt.Day,
            $"paid early with {receipt.Reference}",
            LedgerBook.Of(() => Postings.OfPaidEarly(Amount.FromMinor(worth, seller.Home), taxes, books.Chart))
        );
    }
}
