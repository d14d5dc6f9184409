using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Receipts;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ledger;
using Solvenda.Core.Money;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Invoicing;

/// <summary>
/// Issues invoices: works out what went and is on none yet, gives the number, prints and sends it, and books it.
/// </summary>
public sealed class Invoicing(Seller seller)
{
    /// <summary>Invoices all of an order that went and is on no invoice yet.</summary>
    public Task<InvoiceRow> IssueAsync(Work work, OpenSheet open, CancellationToken cancel) =>
        IssueAsync(work, [open], work.Today, [], cancel);

    /// <summary>Invoices all of some orders of a buyer that went up to a day and is on no invoice yet.</summary>
    /// <param name="opens">In one currency, on the same terms, going to the same place; one at least.</param>
    /// <param name="moves">What of it is posted on other accounts than the rules say.</param>
    internal async Task<InvoiceRow> IssueAsync(
        Work work,
        IReadOnlyList<OpenSheet> opens,
        DateOnly until,
        ImmutableArray<MovedEntry> moves,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(opens);
        var books = await LedgerBook.OpenAsync(work, seller, cancel);
        var orders = new List<BilledOrder>();
        foreach (var open in opens)
            orders.Add(await BilledAsync(work, books, open, until, cancel));
        var (bill, parts) = Collecting.Together(orders.ConvertAll(o => o.Bill));
        orders = [.. orders.Zip(parts, (order, part) => order with { Bill = part })];
        var first = opens[0];
        var plan = HeadTerms.PlanIn(first.Sheet.Head) ?? PaymentPlan.Net(0);
        var row = await InvoiceSteps.RowAsync(work, orders, bill, books.RateOf(bill.Currency), cancel);
        row.Due = plan.Of(bill.Due, work.Today)[^1].Due;
        work.Db.Invoices.Add(row);
        foreach (var order in orders)
        {
            foreach (var shipment in order.Went)
                shipment.Invoice = row.Number;
            order.Open.Order!.InvoicedMinor += (order.Bill.TotalWithTax + order.Bill.Deducted).Minor;
            Earning.Note(work, row, order);
        }
        var document = Issued.Of(row, bill, orders, seller);
        row.Document = JsonSerializer.Serialize(document);
        await work.Db.SaveChangesAsync(cancel);
        Book(work, row, bill, plan, orders, moves, books);
        await SendAsync(work, first, row, document, cancel);
        foreach (var order in orders)
        {
            var (was, now) = await Follow.MoneyAsync(work, order.Open.Order!, cancel);
            var total = order.Bill.TotalWithTax.Value;
            work.Leave(
                new InvoiceIssued(row.Number, total, row.Currency, row.Due, row.ToldTo, was, now),
                order.Open.Subject,
                order.Open.Dossier.Id
            );
        }
        return row;
    }

    // What of an order is billed now, as if it were alone on its invoice.
    private async Task<BilledOrder> BilledAsync(
        Work work,
        Books books,
        OpenSheet open,
        DateOnly until,
        CancellationToken cancel
    )
    {
        var order = open.Order!;
        var went = await WentAsync(work, order, until, cancel);
        var whole =
            BillableSheet.Of(open.Sheet.Priced(open.Buyer, open.Book))
            ?? throw RefusedException.Clash(
                "tax_unknown",
                $"The tax of something on {order.Number} is not known; nothing was invoiced."
            );
        var before = await BeforeAsync(work.Db, order.Id, whole, cancel);
        var held = await HeldMoney.OfOrderAsync(work, open, books, seller, cancel);
        var bill = BillRules.Invoice(whole.Billable, before, Quantities(whole, went), held.Left, held.Taxed);
        return new BilledOrder(open, whole, went, bill, held);
    }

    // What went of it and is on no invoice; refused where there is nothing, or nothing of it may be invoiced.
    private static async Task<List<ShipmentRow>> WentAsync(
        Work work,
        OrderRow order,
        DateOnly until,
        CancellationToken cancel
    )
    {
        if (order.Terms != TermsTrack.Confirmed)
            throw RefusedException.Clash(
                "order_state",
                order.Terms == TermsTrack.Cancelled
                    ? $"{order.Number} is cancelled; there is nothing to invoice."
                    : $"{order.Number} is not confirmed; it is invoiced when what was confirmed went."
            );
        await work.Db.SaveChangesAsync(cancel);
        var went = await Unbilled
            .Shipments(work.Db)
            .Include(s => s.Lines)
            .Where(s => s.OrderId == order.Id && s.Day <= until)
            .OrderBy(s => s.No)
            .ToListAsync(cancel);
        if (went.Count == 0)
            throw RefusedException.Clash(
                "nothing_to_invoice",
                $"Nothing of {order.Number} went that is not invoiced already."
            );
        return went;
    }

    // Of each part what went with these shipments.
    private static decimal[] Quantities(BillableSheet whole, IReadOnlyList<ShipmentRow> went)
    {
        var by = went.SelectMany(s => s.Lines)
            .GroupBy(l => l.LineKey)
            .ToDictionary(g => g.Key, g => g.Sum(l => l.Quantity));
        return [.. whole.Parts.Select(p => by.GetValueOrDefault(p.Line.Line.Key))];
    }

    private static async Task<List<Bill>> BeforeAsync(
        SolvendaDb db,
        long order,
        BillableSheet whole,
        CancellationToken cancel
    )
    {
        var kept = await db
            .InvoiceParts.AsNoTracking()
            .Where(p => p.OrderId == order && p.Invoice.Kind == BillKind.Invoice)
            .OrderBy(p => p.Id)
            .Select(p => p.Bill)
            .ToListAsync(cancel);
        return kept.ConvertAll(b => whole.Aligned(KeptBill.Read(BillKind.Invoice, b, whole.Billable.Currency)));
    }

    private void Book(
        Work work,
        InvoiceRow row,
        Bill bill,
        PaymentPlan plan,
        IReadOnlyList<BilledOrder> orders,
        ImmutableArray<MovedEntry> moves,
        Books books
    )
    {
        var home = seller.Home;
        var taken = bill.Prepaid.IsZero ? null : TakenOf(bill, orders);
        List<Amount> deducted =
        [
            .. orders.Where(o => !o.Bill.Deductions.IsEmpty).SelectMany(o => o.Held!.TakeTaxed(o.Bill.Deductions)),
        ];
        var postings = LedgerBook.Of(() => Postings.Of(bill, row.Rate, home, books.Chart, taken, deducted));
        LedgerBook.Post(work, books, row.Number, row.Day, $"invoice {row.Number}", postings, moves);
        if (bill.Due.IsZero)
            return;
        var worth = (
            Amount.Round(bill.TotalWithTax.Value * row.Rate, home) - Amount.Round(bill.Prepaid.Value * row.Rate, home)
        ).Minor;
        var (left, parts) = (bill.Due.Minor, plan.Of(bill.Due, row.Day));
        foreach (var (part, no) in parts.Select((p, i) => (p, i + 1)))
        {
            var share = Shares.Of(worth, part.Amount.Minor, left);
            (worth, left) = (worth - share, left - part.Amount.Minor);
            work.Db.OpenItems.Add(
                new OpenItemRow
                {
                    BuyerId = row.BuyerId,
                    Number = parts.Length == 1 ? row.Number : $"{row.Number}/{no}",
                    InvoiceId = row.Id,
                    Currency = row.Currency,
                    Due = part.Due,
                    OpenMinor = part.Amount.Minor,
                    HomeMinor = share,
                    EarlyUntil = plan.EarlyUntil(row.Day),
                    EarlyMinor = Amount
                        .Round(part.Amount.Value * (plan.Early?.Percent ?? 0m) / 100m, bill.Currency)
                        .Minor,
                }
            );
        }
    }

    private TakenMoney TakenOf(Bill bill, IEnumerable<BilledOrder> orders) =>
        new(
            bill.Prepaid,
            Amount.Sum(
                orders.Where(o => !o.Bill.Prepaid.IsZero).Select(o => o.Held!.Take(o.Bill.Prepaid).Home),
                seller.Home
            )
        );

    // As it goes to the buyer, and is kept.
    internal async Task SendAsync(
        Work work,
        OpenSheet open,
        InvoiceRow row,
        IssuedInvoice document,
        CancellationToken cancel
    )
    {
        var print = new PrintRow
        {
            Name = $"{row.Number}.pdf",
            ContentType = "application/pdf",
            Bytes = Formats.Pdf.PdfWriter.Write(
                InvoicePrint
                    .Of(document, seller)
                    .Saying(
                        open.House.Texts,
                        row.Kind == BillKind.Credit ? PaperKind.CreditNote : PaperKind.Invoice,
                        Wordings.Wording.Of(document.Language),
                        open.Buyer
                    )
            ),
            CreatedAt = work.Now,
        };
        work.Db.Prints.Add(print);
        await work.Db.SaveChangesAsync(cancel);
        row.PrintId = print.Id;
        // What is for several orders, or for money alone, answers none of them in its own form.
        var syntax = document.IsCollected || document.Kind == BillKind.Deposit ? "" : open.RequestSyntax;
        var way = InvoiceWay.Of(open.Sheet.Head, syntax, open.Buyer);
        row.ToldTo = way.By switch
        {
            DocumentsBy.Edi => await InTheirFormAsync(work, open, row, document, cancel)
                ?? ByMail(work, open, row, document, print),
            DocumentsBy.Paper => OnPaper(work, row, way.To, print),
            _ => ByMail(work, open, row, document, print),
        };
    }

    // Null where it cannot be said in the form of the order.
    private static async Task<string?> InTheirFormAsync(
        Work work,
        OpenSheet open,
        InvoiceRow row,
        IssuedInvoice document,
        CancellationToken cancel
    )
    {
        var original = await work
            .Db.Requests.Where(r => r.Id == open.Order!.RequestId)
            .Select(r => r.Raw.Bytes)
            .FirstAsync(cancel);
        var control = await Series.NextCountInTransactionAsync(work.Db, Series.Interchange, 0, cancel);
        var writer = Formats.Writers.Invoice(open.RequestSyntax)!;
        if (writer.Write(document, Encoding.Latin1.GetString(original), control, work.Now) is not { } written)
            return null;
        var sent = work.Send(DocumentsBy.Edi, KeyOf(row), written.To, written.Name, written.Bytes);
        await ReceiptSteps.AwaitAsync(work, sent, written.Control, open.Buyer.Id, cancel);
        return written.To;
    }

    private static string OnPaper(Work work, InvoiceRow row, string address, PrintRow print)
    {
        Outgoing.Post(work, KeyOf(row), address, print.Bytes);
        return address;
    }

    private string ByMail(Work work, OpenSheet open, InvoiceRow row, IssuedInvoice document, PrintRow print)
    {
        var to = open.Buyer.ContactMail ?? "";
        if (!Formats.Mail.MailWriter.IsAddress(to))
            return "";
        var letter = BuyerLetters.Invoice(open, seller, document);
        Outgoing.Mail(work, seller, KeyOf(row), to, letter, (print.Name, print.Bytes));
        return to;
    }

    private static string KeyOf(InvoiceRow row) => row.Number.ToLower(CultureInfo.InvariantCulture);
}
