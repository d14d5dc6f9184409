using Solvenda.Core.Billing;

namespace Solvenda.Formats.Ubl;

/// <summary>Sends invoices as UBL to who ordered by UBL, at the address that their order names.</summary>
internal sealed class UblInvoiceWriter : IInvoiceWriter
{
    public Syntax Answers => Syntax.Xml;

    public WrittenMessage? Write(IssuedInvoice invoice, string original, int control, DateTime at) =>
        UblInvoice.CanWrite(invoice) && UblOrderResponse.BuyerIn(original) is { } to
            ? new WrittenMessage($"Invoice-{invoice.Number}.xml", to, UblInvoice.Write(invoice))
            : null;
}
