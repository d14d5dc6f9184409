using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Invoicing;

/// <summary>How the invoices of an order go to its buyer.</summary>
/// <param name="By">One of DocumentsBy.</param>
/// <param name="To">Where; empty where there is no address, so that nobody gets them.</param>
public sealed record InvoiceWay(string By, string To)
{
    /// <param name="syntax">The form that the order came in; empty where it came in none.</param>
    public static InvoiceWay Of(Head head, string syntax, BuyerRow buyer)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        var by = HeadTerms.By.In(head);
        if (by == DocumentsBy.Edi && Writers.Invoice(syntax) is not null)
            return new InvoiceWay(DocumentsBy.Edi, buyer.Name);
        if (by == DocumentsBy.Paper && buyer.Address.Length > 0)
            return new InvoiceWay(DocumentsBy.Paper, buyer.Address);
        return new InvoiceWay(
            DocumentsBy.Mail,
            buyer.ContactMail is { } mail && MailWriter.IsAddress(mail) ? mail : ""
        );
    }
}
