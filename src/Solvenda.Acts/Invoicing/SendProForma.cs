using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Invoicing;

/// <summary>Sends a buyer what an order will be invoiced for, so that it can be paid ahead; nothing is
/// booked.</summary>
public sealed record SendProForma(string Order) : IAct<string>;

[Leaves(typeof(ProFormaSent))]
public sealed class SendProFormaAct(SheetLoader loader, Judge judge, Seller seller) : Act<SendProForma, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>Where it went.</returns>
    public override async Task<string> RunAsync(Work work, SendProForma input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var open = await loader.OrderAsync(work.Db, input.Order, cancel);
        if (open.Order!.Terms == TermsTrack.Cancelled || open.Order.InvoicedMinor != 0)
            throw RefusedException.Clash(
                "order_state",
                $"{open.Number} is cancelled or invoiced; there is nothing to pay ahead."
            );
        var judged = await judge.JudgeAsync(work.Db, open, open.Owner.Hand, cancel);
        if (BillableSheet.Of(judged.Priced) is null)
            throw RefusedException.Clash(
                "tax_unknown",
                $"The tax of something on {open.Number} is not known; nothing was sent."
            );
        var total = judged.Priced.Tally.TotalWithTax;
        // It answers no order in its own form.
        var (by, to) = InvoiceWay.Of(open.Sheet.Head, "", open.Buyer);
        Outgoing.Addressed(by, to);
        var pdf = PdfWriter.Write(SheetPrint.ProForma(judged, seller, work.Today));
        // Each is as things stood then, and the ones before stay as they were sent.
        var key = string.Create(CultureInfo.InvariantCulture, $"{open.Number}.pro-forma.{work.Now:yyMMddHHmmssfff}");
        key = key.ToLowerInvariant();
        if (by == DocumentsBy.Paper)
            Outgoing.Post(work, key, to, pdf);
        else
            Outgoing.Mail(
                work,
                seller,
                key,
                to,
                BuyerLetters.ProForma(open, seller, total),
                ($"{open.Number}.pdf", pdf)
            );
        work.Leave(new ProFormaSent(total.Value, total.Currency.Code, to), open.Subject, open.Dossier.Id);
        return to;
    }
}
