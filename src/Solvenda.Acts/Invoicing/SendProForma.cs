using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Formats.Mail;
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
        var total = judged.Priced.Tally.TotalWithTax;
        // Each is as things stood then, and the ones before stay as they were sent.
        var key = string.Create(CultureInfo.InvariantCulture, $"{open.Number}.pro-forma.{work.Now:yyMMddHHmmssfff}")
            .ToLowerInvariant();
        var to = open.Buyer.ContactMail ?? "";
        if (HeadTerms.By.In(open.Sheet.Head) != DocumentsBy.Paper && MailWriter.IsAddress(to))
        {
            var paper = PdfWriter.Write(SheetPrint.ProForma(judged, seller, work.Today));
            Outgoing.Mail(
                work,
                seller,
                key,
                to,
                BuyerLetters.ProForma(open, seller, total),
                ($"{open.Number}.pdf", paper)
            );
        }
        else
        {
            to = open.Buyer.Address;
            Outgoing.Addressed(DocumentsBy.Paper, to);
            Outgoing.Post(work, key, to, PdfWriter.Write(SheetPrint.ProForma(judged, seller, work.Today)));
        }
        work.Leave(new ProFormaSent(total.Value, total.Currency.Code, to), open.Subject, open.Dossier.Id);
        return to;
    }
}
