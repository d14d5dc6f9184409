using System.Collections.Immutable;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Channels;

namespace Solvenda.Acts.Invoicing;

/// <summary>
/// Credits invoices: works out what goes back of them, gives the note its number, prints and sends it, and books it.
/// </summary>
public sealed class Crediting(SheetLoader loader, Seller seller, Invoicing invoicing, DepositInvoices deposits)
{
    private const int MostLetters = 200;

    /// <returns>Number of the credit note.</returns>
    public async Task<string> CreditAsync(Work work, CreditInvoice input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = input.Reason.Trim();
        if (reason.Length is 0 or > MostLetters)
            throw RefusedException.Bad("reason_missing", "Say why it is credited; the note says it too.", "reason");
        var invoice =
            await work
                .Db.Invoices.Include(i => i.Parts)
                    .ThenInclude(p => p.Order)
                .FirstOrDefaultAsync(i => i.Number == input.Invoice, cancel)
            ?? throw RefusedException.NotFound("such invoice");
        if (invoice.Kind == BillKind.Credit)
            throw RefusedException.Clash("not_an_invoice", $"{invoice.Number} is a credit note already.");
        var part = PartOf(invoice, input.Order);
        var open = await loader.OrderAsync(work.Db, part.Order.Number, cancel);
        if (invoice.Kind == BillKind.Deposit)
            return await deposits.GiveBackAsync(work, open, invoice, reason, cancel);
        var whole =
            BillableSheet.Of(open.Sheet.Priced(open.Buyer, open.Book))
            ?? throw RefusedException.Clash(
                "tax_unknown",
                $"The tax of something on {open.Number} is not known any more; nothing was credited."
            );
        var note = await BillAsync(work, invoice, part, input, whole, cancel);
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var billed = new BilledOrder(open, whole, [], note, Held: null);
        var row = await InvoiceSteps.RowAsync(work, [billed], note, invoice.Rate, cancel);
        (row.CreditsId, row.Reason) = (invoice.Id, reason);
        work.Db.Invoices.Add(row);
        var document = Issued.Of(row, note, [billed], seller) with
        {
            Credits = invoice.Number,
            CreditsDay = invoice.Day,
            Reason = reason,
        };
        row.Document = JsonSerializer.Serialize(document);
        await work.Db.SaveChangesAsync(cancel);
        await BookAsync(work, books, invoice, row, note, cancel);
        await Earning.TakeBackAsync(work, row, invoice, billed, cancel);
        await invoicing.SendAsync(work, open, row, document, cancel);
        if (Confirming.CameByChannel(open))
            TellChannel(work, open, document);
        foreach (var other in invoice.Parts.Where(p => p != part))
        {
            await Follow.MoneyAsync(work, other.Order, cancel);
            work.Touch(other.Order.Number);
        }
        var (was, now) = await Follow.MoneyAsync(work, part.Order, cancel);
        work.Leave(
            new InvoiceCredited(row.Number, invoice.Number, document.TotalWithTax, row.Currency, row.ToldTo, was, now),
            open.Subject,
            open.Dossier.Id
        );
        return row.Number;
    }

    // A note is for one order, whose matter and returns it belongs to.
    private static InvoicePartRow PartOf(InvoiceRow invoice, string order)
    {
        if (order.Length == 0 && invoice.Parts.Count == 1)
            return invoice.Parts[0];
        return invoice.Parts.Find(p => p.Order.Number == order)
            ?? throw RefusedException.Bad(
                "which_order",
                order.Length == 0
                    ? $"{invoice.Number} is for {invoice.Parts.Count} orders: say for which of them it is credited."
                    : $"{order} is not on {invoice.Number}; nothing was credited.",
                "order"
            );
    }

    // It gives the buyer their money back, since it has it.
    private static void TellChannel(Work work, OpenSheet open, IssuedInvoice note)
    {
        var message = ChannelNotice.Refunded(
            open.Sheet.PoNumber ?? "",
            open.Order!.Number,
            note.Number,
            note.TotalWithTax,
            note.Currency,
            note.Reason,
            work.Now
        );
        var key = $"{note.Number}.refunded".ToLowerInvariant();
        work.Send(Confirming.ByChannel, key, open.Sheet.Channel ?? "", message.Name, message.Bytes);
    }

    private static async Task<Bill> BillAsync(
        Work work,
        InvoiceRow invoice,
        InvoicePartRow part,
        CreditInvoice input,
        BillableSheet whole,
        CancellationToken cancel
    )
    {
        var currency = Currency.Of(invoice.Currency);
        var billed = whole.Aligned(KeptBill.Read(BillKind.Invoice, part.Bill, currency));
        var notes = await work
            .Db.InvoiceParts.Where(p => p.Invoice.CreditsId == invoice.Id && p.OrderId == part.OrderId)
            .OrderBy(p => p.Id)
            .Select(p => p.Bill)
            .ToListAsync(cancel);
        var before = notes.ConvertAll(b => whole.Aligned(KeptBill.Read(BillKind.Credit, b, currency)));
        var left = billed.Lines.Select((l, i) => l.Quantity - before.Sum(b => b.Lines[i].Quantity)).ToArray();
        decimal[] now = input.Lines.IsDefaultOrEmpty
            ? left
            : [.. whole.Parts.Select(p => input.Lines.Where(l => l.Key == p.Line.Line.Key).Sum(l => l.Quantity))];
        if (
            !input.Lines.IsDefaultOrEmpty
            && input.Lines.FirstOrDefault(l => whole.Parts.All(p => p.Line.Line.Key != l.Key)) is { } stranger
        )
            throw RefusedException.Bad("line_unknown", $"There is no line {stranger.Key} on it.", "lines");
        for (var i = 0; i < now.Length; i++)
        {
            if (now[i] < 0m || now[i] > left[i])
                throw RefusedException.Bad(
                    "too_much",
                    FormattableString.Invariant(
                        $"Of {whole.Parts[i].Line.Line.Words} {left[i]:0.######} are left on {invoice.Number}, not {now[i]:0.######}; nothing was credited."
                    ),
                    "lines"
                );
        }
        var charges = input.Charges && before.All(b => b.Charges.IsEmpty) && !billed.Charges.IsEmpty;
        if (now.All(q => q == 0m) && !charges)
            throw RefusedException.Clash("nothing_to_credit", $"Nothing of {invoice.Number} is left to credit.");
        return BillRules.Credit(billed, before, now, charges);
    }

    // It is taken of what is open of the invoice; what is over is owed to the buyer.
    private async Task BookAsync(
        Work work,
        Books books,
        InvoiceRow invoice,
        InvoiceRow note,
        Bill bill,
        CancellationToken cancel
    )
    {
        var (home, chart) = (seller.Home, books.Chart);
        LedgerBook.Post(
            work,
            books,
            note.Number,
            note.Day,
            $"credit note {note.Number} for {invoice.Number}",
            LedgerBook.Of(() => Postings.Of(bill, note.Rate, home, chart, null)),
            await MovedEntries.OfAsync(work.Db, invoice.Number, cancel)
        );
        var (left, worth) = (bill.TotalWithTax.Minor, Amount.Round(bill.TotalWithTax.Value * note.Rate, home).Minor);
        var items = await work
            .Db.OpenItems.Where(o => o.InvoiceId == invoice.Id && o.OpenMinor > 0)
            .OrderBy(o => o.Due)
            .ToListAsync(cancel);
        foreach (var item in items.Where(_ => left > 0))
        {
            var part = Math.Min(left, item.OpenMinor);
            var taken = Paying.Take(work, item, part, Shares.Of(worth, part, left), creditId: note.Id);
            (left, worth) = (left - part, worth - taken);
        }
        if (left > 0)
            work.Db.OpenItems.Add(
                new OpenItemRow
                {
                    BuyerId = note.BuyerId,
                    Number = note.Number,
                    InvoiceId = note.Id,
                    Currency = note.Currency,
                    Due = note.Day,
                    OpenMinor = -left,
                    HomeMinor = -worth,
                }
            );
        else if (worth != 0)
            LedgerBook.Post(
                work,
                books,
                note.Number,
                note.Day,
                "rounding",
                LedgerBook.Of(() => Postings.Rounded(worth, home, chart))
            );
    }
}
