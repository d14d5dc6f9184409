using Solvenda.Acts.Wordings;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Formats.Pdf;

namespace Solvenda.Acts.Papers;

/// <summary>An invoice that nobody gets, to look at a letterhead by.</summary>
public static class SamplePaper
{
    private static readonly DateOnly _day = new(2026, 1, 15);

    /// <summary>Of another kind, in a language; of one that nobody writes in English.</summary>
    public static PrintedDocument Of(Seller seller, PaperKind paper, string language)
    {
        ArgumentNullException.ThrowIfNull(seller);
        var wording = Wording.Of(Wording.All.ContainsKey(language) ? language : "en");
        return InvoicePrint.Of(Sample(seller) with { Language = wording.Code }, seller) with
        {
            Title = wording.TitleOf(paper),
        };
    }

    public static PrintedDocument Of(Seller seller)
    {
        ArgumentNullException.ThrowIfNull(seller);
        return InvoicePrint.Of(Sample(seller), seller);
    }

    private static IssuedInvoice Sample(Seller seller) =>
        new(
            BillKind.Invoice,
            "F26-00000",
            _day,
            _day.AddDays(30),
            seller.Home.Code,
            new InvoiceParty(seller.Name, seller.Address, seller.Country, seller.TaxNumber, seller.Mail),
            new InvoiceParty("A buyer", ["Their street 1", "Their town"], seller.Country, "", ""),
            "Their street 1, Their town",
            seller.Country,
            _day,
            "S26-00000",
            "their PO",
            "a matter",
            "",
            null,
            "",
            "en",
            "30 days net",
            [],
            [
                new InvoiceLine(1, "1", "CODE-1", "", "Something sold", 12m, "C62", 10m, 1m, 120m, "S", 23m),
                new InvoiceLine(2, "2", "CODE-2", "THEIRS-2", "Something else", 40m, "MTR", 2.5m, 1m, 100m, "S", 23m),
            ],
            [],
            [],
            [new InvoiceTax("S", 23m, 220m, 50.6m)],
            0m,
            seller.Bank,
            1m
        );
}
