using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;

namespace Solvenda.Formats.Ubl;

/// <summary>
/// Writes invoices and credit notes as UBL 2.1 (OASIS), by EN 16931 and Peppol BIS Billing 3. Currencies of three
/// decimals cannot be written so.
/// </summary>
public static partial class UblInvoice
{
    private const string Customization = "urn:cen.eu:en16931:2017#compliant#urn:fdc:peppol.eu:2017:poacc:billing:3.0";
    private const string Profile = "urn:fdc:peppol.eu:2017:poacc:billing:01:1.0";
    private const int MostDecimals = 2;

    private static readonly XNamespace Cbc = UblOrders.Basic;
    private static readonly XNamespace Cac = UblOrders.Aggregate;

    // International Bank Account Number, ISO 13616, as it is written for people.
    [GeneratedRegex("[A-Z]{2}[0-9]{2}(?: ?[A-Z0-9]{1,4}){3,8}")]
    private static partial Regex Iban { get; }

    /// <summary>Whether it can be written: EN 16931 knows amounts of at most two decimals.</summary>
    public static bool CanWrite(IssuedInvoice invoice)
    {
        ArgumentNullException.ThrowIfNull(invoice);
        return Currency.Of(invoice.Currency).Decimals <= MostDecimals;
    }

    /// <summary>The file.</summary>
    public static byte[] Write(IssuedInvoice invoice)
    {
        ArgumentNullException.ThrowIfNull(invoice);
        using var bytes = new MemoryStream();
        var settings = new XmlWriterSettings { Indent = true, Encoding = new UTF8Encoding(false) };
        using (var writer = XmlWriter.Create(bytes, settings))
            new XDocument(RootOf(invoice)).Save(writer);
        return bytes.ToArray();
    }

    private static XElement RootOf(IssuedInvoice of)
    {
        var credit = of.Kind == BillKind.Credit;
        var name = credit ? "CreditNote" : "Invoice";
        XNamespace own = UblOrders.Schema + name + "-2";
        return new XElement(
            own + name,
            new XAttribute(XNamespace.Xmlns + "cbc", Cbc.NamespaceName),
            new XAttribute(XNamespace.Xmlns + "cac", Cac.NamespaceName),
            Text("CustomizationID", Customization),
            Text("ProfileID", Profile),
            Text("ID", of.Number),
            Text("IssueDate", Day(of.Day)),
            credit ? null : Text("DueDate", Day(of.Due)),
            // UNTDID 1001.
            Text(
                credit ? "CreditNoteTypeCode" : "InvoiceTypeCode",
                credit ? "381"
                    : of.Kind == BillKind.Deposit ? "386"
                    : "380"
            ),
            of.Reason.Length > 0 ? Text("Note", of.Reason) : null,
            Text("DocumentCurrencyCode", of.Currency),
            // Peppol BIS Billing 3, R003: a buyer's reference or an order.
            Text("BuyerReference", of.PoNumber.Length > 0 ? of.PoNumber : of.Order),
            of.IsCollected
                ? null
                : new XElement(
                    Cac + "OrderReference",
                    Text("ID", of.PoNumber.Length > 0 ? of.PoNumber : of.Order),
                    Text("SalesOrderID", of.Order)
                ),
            of.Credits.Length == 0
                ? null
                : new XElement(
                    Cac + "BillingReference",
                    new XElement(
                        Cac + "InvoiceDocumentReference",
                        Text("ID", of.Credits),
                        of.CreditsDay is { } day ? Text("IssueDate", Day(day)) : null
                    )
                ),
            of.Shipments.IsEmpty
                ? null
                : new XElement(Cac + "DespatchDocumentReference", Text("ID", string.Join(' ', of.Shipments))),
            Party("AccountingSupplierParty", of.Seller, register: true),
            Party("AccountingCustomerParty", of.Buyer, register: false),
            Delivery(of),
            PaymentMeans(of),
            of.SaidTerms.Length == 0 || credit ? null : new XElement(Cac + "PaymentTerms", Text("Note", of.SaidTerms)),
            of.Allowances.Select(a => Extra(of, a, isCharge: false)),
            of.Charges.Select(c => Extra(of, c, isCharge: true)),
            TaxTotal(of),
            Totals(of),
            of.Lines.Select((l, i) => Line(of, l, i, credit))
        );
    }

    private static string Orders(InvoiceLine line) =>
        line.PoNumber.Length == 0 ? line.Order : $"{line.PoNumber} / {line.Order}";

    private static XElement Text(string name, string text) => new(Cbc + name, text);

    private static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Number(decimal value) => value.ToString("0.########", CultureInfo.InvariantCulture);

    private static XElement Money(IssuedInvoice of, string name, decimal value) =>
        new(
            Cbc + name,
            new XAttribute("currencyID", of.Currency),
            value.ToString(
                "F" + Currency.Of(of.Currency).Decimals.ToString(CultureInfo.InvariantCulture),
                CultureInfo.InvariantCulture
            )
        );

    private static XElement Party(string name, InvoiceParty party, bool register) =>
        new(
            Cac + name,
            new XElement(
                Cac + "Party",
                // Electronic Address Scheme: EM, by mail.
                party.Mail.Length > 0
                    ? new XElement(Cbc + "EndpointID", new XAttribute("schemeID", "EM"), party.Mail)
                    : null,
                new XElement(Cac + "PartyName", Text("Name", party.Name)),
                new XElement(
                    Cac + "PostalAddress",
                    party.Address.Take(1).Select(a => Text("StreetName", a)),
                    party.Address.Skip(1).Take(1).Select(a => Text("AdditionalStreetName", a)),
                    new XElement(Cac + "Country", Text("IdentificationCode", party.Country))
                ),
                party.TaxNumber.Length == 0
                    ? null
                    : new XElement(
                        Cac + "PartyTaxScheme",
                        Text("CompanyID", TaxNumberOf(party)),
                        new XElement(Cac + "TaxScheme", Text("ID", "VAT"))
                    ),
                new XElement(
                    Cac + "PartyLegalEntity",
                    Text("RegistrationName", party.Name),
                    // EN 16931, BR-CO-26: a seller is known by a number.
                    register && party.TaxNumber.Length > 0
                        ? Text("CompanyID", TaxNumberOf(party))
                        : null
                )
            )
        );

    // With its country in front (EN 16931, BR-CO-09).
    private static string TaxNumberOf(InvoiceParty party)
    {
        var number = party.TaxNumber.Replace(" ", "", StringComparison.Ordinal);
        return number.Length > 2 && char.IsAsciiLetterUpper(number[0]) && char.IsAsciiLetterUpper(number[1])
            ? number
            : party.Country + number;
    }

    private static XElement Delivery(IssuedInvoice of) =>
        new(
            Cac + "Delivery",
            Text("ActualDeliveryDate", Day(of.Delivered ?? of.Day)),
            new XElement(
                Cac + "DeliveryLocation",
                new XElement(
                    Cac + "Address",
                    of.DeliverTo.Length > 0 ? Text("StreetName", of.DeliverTo) : null,
                    new XElement(Cac + "Country", Text("IdentificationCode", of.DeliverToCountry))
                )
            )
        );

    // UNTDID 4461: 58 SEPA credit transfer, 30 credit transfer.
    private static XElement? PaymentMeans(IssuedInvoice of)
    {
        var iban = Iban.Match(of.Bank);
        if (of.Kind == BillKind.Credit || !iban.Success)
            return null;
        return new XElement(
            Cac + "PaymentMeans",
            Text("PaymentMeansCode", of.Currency == "EUR" ? "58" : "30"),
            Text("PaymentID", of.Number),
            new XElement(
                Cac + "PayeeFinancialAccount",
                Text("ID", iban.Value.Replace(" ", "", StringComparison.Ordinal))
            )
        );
    }

    private static XElement Category(string name, string category, decimal percent, bool withReason)
    {
        var (code, words) = withReason ? Exemption(category) : ("", "");
        return new XElement(
            Cac + name,
            Text("ID", category),
            category == "O" ? null : Text("Percent", Number(percent)),
            code.Length > 0 ? Text("TaxExemptionReasonCode", code) : null,
            words.Length > 0 ? Text("TaxExemptionReason", words) : null,
            new XElement(Cac + "TaxScheme", Text("ID", "VAT"))
        );
    }

    // EN 16931, BR-E-10, BR-AE-10, BR-IC-10, BR-G-10, BR-O-10; codes of the VATEX list.
    private static (string Code, string Words) Exemption(string category) =>
        category switch
        {
            "E" => ("", "Exempt from tax"),
            "AE" => ("VATEX-EU-AE", "Reverse charge"),
            "K" => ("VATEX-EU-IC", "Intra-Community supply"),
            "G" => ("VATEX-EU-G", "Export outside the EU"),
            "O" => ("VATEX-EU-O", "Not subject to VAT"),
            _ => ("", ""),
        };

    private static XElement Extra(IssuedInvoice of, InvoiceExtra extra, bool isCharge) =>
        new(
            Cac + "AllowanceCharge",
            Text("ChargeIndicator", isCharge ? "true" : "false"),
            Text("AllowanceChargeReason", extra.Words),
            Money(of, "Amount", extra.Amount),
            Category("TaxCategory", extra.TaxCategory, extra.TaxPercent, withReason: false)
        );

    private static XElement TaxTotal(IssuedInvoice of) =>
        new(
            Cac + "TaxTotal",
            Money(of, "TaxAmount", of.TotalTax),
            of.Taxes.Select(t => new XElement(
                Cac + "TaxSubtotal",
                Money(of, "TaxableAmount", t.Basis),
                Money(of, "TaxAmount", t.Tax),
                Category("TaxCategory", t.Category, t.Percent, withReason: true)
            ))
        );

    private static XElement Totals(IssuedInvoice of) =>
        new(
            Cac + "LegalMonetaryTotal",
            Money(of, "LineExtensionAmount", of.Nets),
            Money(of, "TaxExclusiveAmount", of.TotalWithoutTax),
            Money(of, "TaxInclusiveAmount", of.TotalWithTax),
            of.Allowances.IsEmpty ? null : Money(of, "AllowanceTotalAmount", of.Allowances.Sum(a => a.Amount)),
            of.Charges.IsEmpty ? null : Money(of, "ChargeTotalAmount", of.Charges.Sum(c => c.Amount)),
            of.Prepaid == 0m ? null : Money(of, "PrepaidAmount", of.Prepaid),
            Money(of, "PayableAmount", of.ToPay)
        );

    private static XElement Line(IssuedInvoice of, InvoiceLine line, int place, bool credit)
    {
        var difference = of.DifferenceOf(line);
        return new XElement(
            Cac + (credit ? "CreditNoteLine" : "InvoiceLine"),
            Text("ID", (place + 1).ToString(CultureInfo.InvariantCulture)),
            // BT-127: of several orders it has no other place.
            line.Order.Length == 0
                ? null
                : Text("Note", Orders(line)),
            new XElement(
                Cbc + (credit ? "CreditedQuantity" : "InvoicedQuantity"),
                new XAttribute("unitCode", UblUnits.Of(line.Unit)),
                Number(line.Quantity)
            ),
            Money(of, "LineExtensionAmount", line.Net),
            line.Number.Length > 0 ? new XElement(Cac + "OrderLineReference", Text("LineID", line.Number)) : null,
            difference == 0m
                ? null
                : new XElement(
                    Cac + "AllowanceCharge",
                    Text("ChargeIndicator", difference > 0m ? "true" : "false"),
                    Text("AllowanceChargeReason", difference > 0m ? "Line charge" : "Line allowance"),
                    Money(of, "Amount", Math.Abs(difference))
                ),
            new XElement(
                Cac + "Item",
                Text("Name", line.Words),
                Code("BuyersItemIdentification", line.TheirCode),
                Code("SellersItemIdentification", line.Code),
                Category("ClassifiedTaxCategory", line.TaxCategory, line.TaxPercent, withReason: false)
            ),
            new XElement(
                Cac + "Price",
                new XElement(Cbc + "PriceAmount", new XAttribute("currencyID", of.Currency), Number(line.Price)),
                line.PriceBase == 1m
                    ? null
                    : new XElement(
                        Cbc + "BaseQuantity",
                        new XAttribute("unitCode", UblUnits.Of(line.Unit)),
                        Number(line.PriceBase)
                    )
            )
        );
    }

    private static XElement? Code(string name, string code) =>
        code.Length > 0 ? new XElement(Cac + name, Text("ID", code)) : null;
}
