using System.Globalization;
using System.Text;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;
using Solvenda.Formats.Pdf;

namespace Solvenda.Bench;

/// <summary>A mail with an order printed on pages, the same at every run; and what it is read against.</summary>
internal static class MadeMail
{
    public static byte[] WithPages(int pages)
    {
        // As many lines as fill the pages of the house's own printed sheet.
        var lines = Enumerable
            .Range(1, pages * 36)
            .Select(i => new PrintedLine(
                false,
                i.ToString(CultureInfo.InvariantCulture),
                $"IT-{i:000000}",
                $"Three-strand polyester rope {4 + (i % 40)} mm, white",
                "",
                $"{i * 10} m",
                "1.8400",
                "",
                (i * 18.4m).ToString("0.00", CultureInfo.InvariantCulture),
                false,
                ""
            ));
        var pdf = PdfWriter.Write(
            new PrintedDocument(
                "A buyer",
                ["1 Quay"],
                "Order",
                "4500-1",
                ["Brinemoor"],
                [("date", "2 March 2026")],
                "rope",
                "EUR",
                [.. lines],
                [("goods", "1.00", false)],
                [],
                [],
                "A buyer",
                new PrintedLabels("what", "quantity", "price", "less", "tax", "on", "page {0}"),
                null
            )
        );
        var body = Convert.ToBase64String(pdf, Base64FormattingOptions.InsertLineBreaks);
        return Encoding.ASCII.GetBytes(
            $"From: A buyer <a@buyer.example>\nSubject: Order 4500-1\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nPlease find our order attached.\n--b\nContent-Type: application/pdf; name=o.pdf\nContent-Disposition: attachment; filename=o.pdf\nContent-Transfer-Encoding: base64\n\n{body}\n--b--\n"
        );
    }

    public static ReadingContext Context() =>
        new(
            new ItemFinder(
                Enumerable
                    .Range(1, 5_000)
                    .Select(i => new Item(
                        new ItemId(i),
                        $"IT-{i:000000}",
                        $"Three-strand polyester rope {4 + (i % 40)} mm, white",
                        "rope",
                        Unit.Metre,
                        [],
                        TaxClass.Standard,
                        null,
                        10,
                        true,
                        null,
                        null,
                        null
                    ))
            ),
            new Dictionary<BuyerId, string> { [new BuyerId(1)] = "A buyer of ours" },
            [new BuyerSign(new BuyerId(1), "mail", "a@buyer.example")],
            [],
            _ => []
        );
}
