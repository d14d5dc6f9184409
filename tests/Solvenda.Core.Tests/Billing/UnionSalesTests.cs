using System.Collections.Immutable;
using Solvenda.Core.Billing;
using Solvenda.Core.Money;
using Xunit;

namespace Solvenda.Core.Tests.Billing;

/// <summary>Sales within the Union, by buyer and period.</summary>
public sealed class UnionSalesTests
{
    private static IssuedInvoice Issued(BillKind kind, string number, decimal rate, params InvoiceTax[] taxes) =>
        new(
            kind,
            "F1",
            new DateOnly(2026, 11, 1),
            new DateOnly(2026, 12, 1),
            "SEK",
            new InvoiceParty("Brinemoor", [], "IE", "IE9999999WA", ""),
            new InvoiceParty("Nordvass", [], number[..2], number, ""),
            "",
            number[..2],
            null,
            "S1",
            "",
            "",
            "",
            null,
            "",
            "en",
            "",
            [],
            [],
            [],
            [],
            [.. taxes],
            0m,
            "",
            rate
        );

    [Fact]
    public void They_are_added_by_tax_number_in_home_currency_less_what_was_credited()
    {
        var home = Currency.Of("EUR");
        var sales = UnionSales.Of(
            [
                Issued(BillKind.Invoice, "SE1", 0.09m, new InvoiceTax("K", 0m, 1_000m, 0m)),
                Issued(
                    BillKind.Invoice,
                    "SE1",
                    0.1m,
                    new InvoiceTax("K", 0m, 500m, 0m),
                    new InvoiceTax("AE", 0m, 77m, 0m)
                ),
                Issued(BillKind.Credit, "SE1", 0.1m, new InvoiceTax("K", 0m, 600m, 0m)),
                Issued(BillKind.Credit, "DE7", 1m, new InvoiceTax("K", 0m, 12.34m, 0m)),
                Issued(BillKind.Invoice, "IE2", 1m, new InvoiceTax("S", 23m, 99m, 22.77m)),
            ],
            home
        );
        Assert.Equal(
            [("DE7", -12.34m, 0m), ("SE1", 80m, 7.7m)],
            sales.Select(s => (s.TaxNumber, s.Goods.Value, s.Services.Value))
        );
    }
}
