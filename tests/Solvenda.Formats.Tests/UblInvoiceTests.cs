using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Xml.Linq;
using CsCheck;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Solvenda.Core.Pricing;
using Solvenda.Core.Units;
using Solvenda.Formats.Ubl;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>
/// The calculation rules of EN 16931, read from the written file over random invoices: BR-CO-10 to BR-CO-18, the rules
/// of each tax category, and rounding.
/// </summary>
public sealed class UblInvoiceTests
{
    private static readonly Tax[] _taxes =
    [
        new("S", 23m),
        new("S", 13.5m),
        new("Z", 0m),
        new("E", 0m),
        new("K", 0m),
        new("G", 0m),
    ];

    private static readonly Gen<IssuedInvoice> _invoices = Gen.Select(
            Gen.Select(Gen.Int[1, 4_000], Gen.Long[0, 900_000], Gen.Int[0, 5], Gen.Bool).Array[1, 6],
            Gen.Bool,
            Gen.Int[0, 30],
            Gen.Long[0, 9_000],
            Gen.Long[0, 400_000],
            Gen.Int[0, 8],
            Gen.Bool
        )
        .Select(
            (lines, yen, percent, charge, deposit, eighths, credit) =>
            {
                var currency = Currency.Of(yen ? "JPY" : "EUR");
                ImmutableArray<BillLine> made =
                [
                    .. lines.Select(l => new BillLine(
                        l.Item1 / 4m,
                        Amount.FromMinor(l.Item2, currency),
                        _taxes[l.Item3],
                        l.Item4
                    )),
                ];
                var off = made.Where(l => l.Discountable).Sum(l => l.Net.Minor) * percent / 100;
                var whole = Billable.Of(
                    currency,
                    made,
                    Amount.FromMinor(off, currency),
                    charge == 0 ? [] : [new BillableCharge("freight", Amount.FromMinor(charge, currency), _taxes[0])]
                );
                decimal[] all = [.. made.Select(l => l.Quantity)];
                decimal[] some = [.. all.Select(q => q * Math.Max(1, eighths) / 8m)];
                var bill = BillRules.Invoice(whole, [], some, Amount.FromMinor(deposit, currency));
                return Issued(credit ? BillRules.Credit(bill, [], some, charges: true) : bill, made);
            }
        );

    private static IssuedInvoice Issued(Bill bill, ImmutableArray<BillLine> ordered) =>
        new(
            bill.Kind,
            "F26-00001",
            new DateOnly(2026, 11, 28),
            new DateOnly(2026, 12, 28),
            bill.Currency.Code,
            new InvoiceParty("Brinemoor", ["The Quay", "Skerrow"], "IE", "IE9999999WA", "orders@brinemoor.example"),
            new InvoiceParty("Buyer & Sons <Ltd>", ["A Street"], "NL", "NL999999999B01", "buyer@buyer.example"),
            "Another Street",
            "NL",
            new DateOnly(2026, 11, 27),
            "S26-00001",
            "PO 7",
            "",
            bill.Kind == BillKind.Credit ? "F26-00000" : "",
            null,
            "",
            "en",
            "30 days net",
            ["S26-00001/1"],
            [
                .. bill
                    .Lines.Zip(ordered)
                    .Where(l => l.First.Quantity != 0m)
                    .Select(
                        (l, i) =>
                            new InvoiceLine(
                                i,
                                $"{i + 1}",
                                "CODE",
                                "",
                                "words",
                                l.First.Quantity,
                                "MTR",
                                UnitPrice.Round4(l.Second.Net.Value / l.Second.Quantity),
                                1m,
                                l.First.Net.Value,
                                l.First.Tax.Category,
                                l.First.Tax.Percent
                            )
                    ),
            ],
            [.. bill.Allowances.Select(a => new InvoiceExtra("less", a.Amount.Value, a.Tax.Category, a.Tax.Percent))],
            [.. bill.Charges.Select(c => new InvoiceExtra(c.Words, c.Amount.Value, c.Tax.Category, c.Tax.Percent))],
            [
                .. bill.Taxes.Select(t => new InvoiceTax(
                    t.Tax.Category,
                    t.Tax.Percent,
                    t.Basis.Value,
                    t.TaxAmount.Value
                )),
            ],
            bill.Prepaid.Value,
            "Harbour Savings Bank, IE00 HARB 9999 0001 0002 03",
            1m
        );

    private static decimal Number(XElement? of) =>
        of is null ? 0m : decimal.Parse(of.Value, CultureInfo.InvariantCulture);

    private static XElement? In(XElement? of, params string[] path) =>
        path.Aggregate(of, (at, name) => at?.Elements().FirstOrDefault(e => e.Name.LocalName == name));

    private static List<XElement> All(XElement of, string name) =>
        [.. of.Elements().Where(e => e.Name.LocalName == name)];

    private static XElement Written(IssuedInvoice invoice)
    {
        var bytes = UblInvoice.Write(invoice);
        return XDocument.Parse(Encoding.UTF8.GetString(bytes)).Root!;
    }

    private static (string, decimal) TaxOf(XElement? category) =>
        (In(category, "ID")!.Value, Number(In(category, "Percent")));

    private static decimal Signed(XElement extra) =>
        (In(extra, "ChargeIndicator")!.Value == "true" ? 1 : -1) * Number(In(extra, "Amount"));

    [Fact]
    public void What_is_written_holds_the_calculation_rules() =>
        _invoices.Sample(invoice =>
        {
            var root = Written(invoice);
            var credit = root.Name.LocalName == "CreditNote";
            var lines = All(root, credit ? "CreditNoteLine" : "InvoiceLine");
            var (totals, extras) = (In(root, "LegalMonetaryTotal"), All(root, "AllowanceCharge"));
            var tax = In(root, "TaxTotal")!;
            decimal Total(string name) => Number(In(totals, name));
            // BR-CO-10 to BR-CO-16.
            Assert.Equal(lines.Sum(l => Number(In(l, "LineExtensionAmount"))), Total("LineExtensionAmount"));
            Assert.Equal(-extras.Select(Signed).Where(a => a < 0m).Sum(), Total("AllowanceTotalAmount"));
            Assert.Equal(extras.Select(Signed).Where(a => a > 0m).Sum(), Total("ChargeTotalAmount"));
            Assert.Equal(
                Total("LineExtensionAmount") - Total("AllowanceTotalAmount") + Total("ChargeTotalAmount"),
                Total("TaxExclusiveAmount")
            );
            Assert.Equal(All(tax, "TaxSubtotal").Sum(s => Number(In(s, "TaxAmount"))), Number(In(tax, "TaxAmount")));
            Assert.Equal(Total("TaxExclusiveAmount") + Number(In(tax, "TaxAmount")), Total("TaxInclusiveAmount"));
            Assert.Equal(Total("TaxInclusiveAmount") - Total("PrepaidAmount"), Total("PayableAmount"));
            // BR-CO-18, and BR-S-08, BR-Z-08, BR-E-08, BR-IC-08, BR-G-08: each category once, with its basis.
            var subtotals = All(tax, "TaxSubtotal").ToDictionary(s => TaxOf(In(s, "TaxCategory")));
            var nets = lines
                .Select(l =>
                    (Tax: TaxOf(In(l, "Item", "ClassifiedTaxCategory")), Amount: Number(In(l, "LineExtensionAmount")))
                )
                .Concat(extras.Select(e => (Tax: TaxOf(In(e, "TaxCategory")), Amount: Signed(e))))
                .GroupBy(p => p.Tax)
                .ToDictionary(g => g.Key, g => g.Sum(p => p.Amount));
            Assert.Equal(nets.Keys.Order(), subtotals.Keys.Order());
            foreach (var (of, subtotal) in subtotals)
            {
                Assert.Equal(nets[of], Number(In(subtotal, "TaxableAmount")));
                // BR-CO-17; a credit note takes the rest of its invoice's tax.
                var due = Amount.Round(nets[of] * of.Item2 / 100m, Currency.Of(invoice.Currency)).Value;
                Assert.Equal(due, Number(In(subtotal, "TaxAmount")));
                // BR-E-10, BR-IC-10, BR-G-10: why there is none; BR-S-10, BR-Z-10: not where there is.
                var reason = In(subtotal, "TaxCategory", "TaxExemptionReason");
                Assert.Equal(of.Item1 is "E" or "K" or "G", reason is not null);
            }
            // BT-131: quantity times price, less allowances and with charges of the line.
            Assert.All(
                lines,
                l =>
                    Assert.Equal(
                        Number(In(l, "LineExtensionAmount")),
                        Amount
                            .Round(
                                Number(In(l, credit ? "CreditedQuantity" : "InvoicedQuantity"))
                                    * Number(In(l, "Price", "PriceAmount")),
                                Currency.Of(invoice.Currency)
                            )
                            .Value + All(l, "AllowanceCharge").Sum(Signed)
                    )
            );
        });

    // EN 16931 knows packages by their codes of Recommendation 21, behind an X; found by a library that reads it.
    [Theory]
    [InlineData("MTR", "MTR")]
    [InlineData("CL", "XCL")]
    [InlineData("BX", "XBX")]
    [InlineData("PF", "XPX")]
    public void Packages_go_by_the_codes_that_the_standard_knows_and_come_back_as_they_were(string ours, string written)
    {
        var invoice = _invoices.Single();
        var root = Written(invoice with { Lines = [.. invoice.Lines.Select(l => l with { Unit = ours })] });
        Assert.All(
            root.Descendants().Attributes("unitCode"),
            a => Assert.Equal((written, ours), (a.Value, UnitTable.FromCode(a.Value)?.Code))
        );
    }

    [Fact]
    public void It_names_who_sells_and_who_buys_and_where_it_is_paid_to()
    {
        var eur = Currency.Of("EUR");
        ImmutableArray<BillLine> lines = [new(2m, Amount.FromMinor(1_000, eur), new Tax("K", 0m), true)];
        var bill = BillRules.Invoice(Billable.Of(eur, lines, Amount.Zero(eur), []), [], [2m], Amount.Zero(eur));
        var root = Written(Issued(bill, lines));
        string? Said(params string[] path) => In(root, path)?.Value;
        Assert.Equal("380", Said("InvoiceTypeCode"));
        Assert.Equal("IE9999999WA", Said("AccountingSupplierParty", "Party", "PartyTaxScheme", "CompanyID"));
        // BR-IC-02, BR-IC-11, BR-IC-12: the buyer's number, when it was delivered and to which country.
        Assert.Equal("NL999999999B01", Said("AccountingCustomerParty", "Party", "PartyTaxScheme", "CompanyID"));
        Assert.Equal("2026-11-27", Said("Delivery", "ActualDeliveryDate"));
        Assert.Equal("NL", Said("Delivery", "DeliveryLocation", "Address", "Country", "IdentificationCode"));
        Assert.Equal("IE00HARB99990001000203", Said("PaymentMeans", "PayeeFinancialAccount", "ID"));
        Assert.Equal("VATEX-EU-IC", Said("TaxTotal", "TaxSubtotal", "TaxCategory", "TaxExemptionReasonCode"));
        Assert.Equal("PO 7", Said("OrderReference", "ID"));
        Assert.True(UblInvoice.CanWrite(Issued(bill, lines)));
        Assert.False(UblInvoice.CanWrite(Issued(bill, lines) with { Currency = "KWD" }));
    }
}
