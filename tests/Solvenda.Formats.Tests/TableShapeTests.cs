using System.Globalization;
using System.IO.Compression;
using System.Text;
using SkiaSharp;
using Solvenda.Core.Reading;
using Solvenda.Formats.Pdf;
using Solvenda.Formats.Tables;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>
/// Tables of other shapes than one head and its rows: heads in two rows, prices per 100, discounts, merged cells,
/// tables beside each other, and a head on the page before.
/// </summary>
public sealed class TableShapeTests
{
    private static Reading Csv(string text) => Shelf.One(Encoding.UTF8.GetBytes(text), "order.csv");

    [Theory]
    [InlineData("Item;Item;Order;Unit\nno;description;qty;price\nFND-A3-BL;fender;12;68,50\n")]
    [InlineData("Artikel;;Bestellte;Preis\nNr.;Bezeichnung;Menge;EUR\nFND-A3-BL;Fender;12;68,50\n")]
    [InlineData("Code;Description;Qty;Price\n;;ordered;\nFND-A3-BL;fender;12;68,50\n")]
    public void A_head_may_stand_in_two_rows(string text) =>
        Assert.Equal(["FND-A3-BL 12 C62 @68.5"], Shelf.Lines(Csv(text)));

    [Theory]
    [InlineData("Code;Qty;Price per 100\nSHK-BOW-10;300;235,00\n")]
    [InlineData("Code;Qty;Price\n;;per 100\nSHK-BOW-10;300;235,00\n")]
    [InlineData("Artikelnummer;Menge;Preis/100\nSHK-BOW-10;300;235,00\n")]
    [InlineData("Code;Qty;Unit price (per 100 pcs)\nSHK-BOW-10;300;235,00\n")]
    public void A_head_says_how_many_its_prices_are_for(string text)
    {
        var line = Assert.Single(Csv(text).Lines);
        Assert.Equal((235m, 100m), (line.Price!.Value, line.PriceBase));
    }

    [Theory]
    // Percents, with an amount and without.
    [InlineData("Code;Qty;Price;Disc %\nFND-A3-BL;10;70,00;5\n", 66.5)]
    [InlineData("Code;Qty;Price;Discount;Amount\nFND-A3-BL;10;70,00;5 %;665,00\n", 66.5)]
    // Money, as the amount says.
    [InlineData("Code;Qty;Price;Rabatt;Amount\nFND-A3-BL;10;70,00;50,00;650,00\n", 65)]
    // In the price already.
    [InlineData("Code;Qty;Price;Discount;Amount\nFND-A3-BL;10;70,00;5 %;700,00\n", 70)]
    public void A_column_of_discounts_is_taken_off(string text, decimal price)
    {
        var line = Assert.Single(Csv(text).Lines);
        Assert.Equal((price, 10m), (line.Price!.Value, line.Quantity.Value));
        Assert.True(line.Quantity.Sure > 0.8m);
    }

    [Fact]
    public void A_discount_that_no_amount_agrees_with_is_asked() =>
        Assert.True(
            Csv("Code;Qty;Price;Discount;Amount\nFND-A3-BL;10;70,00;5 %;612,00\n").Lines[0].Quantity.Sure < 0.5m
        );

    [Theory]
    // Dozens are counted in pieces, and what a dozen costs is for twelve.
    [InlineData("FND-A3-BL;2;DZN;824,40", "24 C62 824.4/12", true)]
    [InlineData("FND-A3-BL;2;dozen;824,40", "24 C62 824.4/12", true)]
    [InlineData("SHK-BOW-10;2;XBX;58,00", "2 BX 58/1", true)]
    // What nothing of ours is sold by is called by its name.
    [InlineData("FND-A3-BL;2;XCR;68,70", "2 CR 68.7/1", false)]
    public void Codes_of_units_and_packings_are_known(string row, string line, bool isSold)
    {
        var read = Assert.Single(Csv($"Code;Qty;Unit;Price\n{row}\n").Lines);
        Assert.Equal(
            line,
            string.Create(
                CultureInfo.InvariantCulture,
                $"{read.Quantity.Value:0.##} {read.Unit.Value.Code} {read.Price:0.##}/{read.PriceBase:0.##}"
            )
        );
        Assert.Equal(isSold, read.Unit.Sure >= ReadLine.SureEnough);
        Assert.Equal(!isSold, read.Unit.How.Contains("crate (CR)", StringComparison.Ordinal));
    }

    [Fact]
    public void Tables_beside_each_other_are_both_read() =>
        Assert.Equal(
            ["FND-A3-BL 12 C62", "THM-SS-12 75 C62", "PS3-12-WH 400 MTR"],
            Shelf.Lines(Csv("Code;Qty;Unit;;Code;Qty;Unit\nFND-A3-BL;12;pcs;;PS3-12-WH;400;m\nTHM-SS-12;75;pcs;;;;\n"))
        );

    private static string Html(string rows) =>
        $"From: Ann <ann@teerling.example>\nSubject: Order 4711\nContent-Type: text/html; charset=utf-8\n\n<p>We order:</p><table>{rows}</table>";

    private static string[] OfHtml(string rows) =>
        Shelf.Lines(Shelf.One(Encoding.UTF8.GetBytes(Html(rows)), "order.eml"));

    [Fact]
    public void Cells_over_several_columns_keep_the_others_in_their_places() =>
        Assert.Equal(
            ["FND-A3-BL 12 C62 @68.5"],
            OfHtml(
                "<tr><th>Code</th><th colspan=2>Description</th><th>Qty</th><th>Price</th></tr>"
                    + "<tr><td>FND-A3-BL</td><td>fender</td><td>7 blue</td><td>12</td><td>68.50</td></tr>"
            )
        );

    [Fact]
    public void What_a_cell_says_over_several_rows_holds_for_each()
    {
        Assert.Equal(
            ["FND-A3-BL 12 C62", "FND-A3-BL 8 C62"],
            OfHtml(
                "<tr><th>Code</th><th>Wanted</th><th>Qty</th></tr>"
                    + "<tr><td rowspan=2>FND-A3-BL</td><td>20 March</td><td>12</td></tr><tr><td>3 April</td><td>8</td></tr>"
            )
        );
        // A quantity over two things counts once; which is asked.
        var read = Shelf.One(
            Encoding.UTF8.GetBytes(
                Html(
                    "<tr><th>Code</th><th>Qty</th><th>Unit</th></tr>"
                        + "<tr><td>FND-A3-BL</td><td rowspan=2>12</td><td>pcs</td></tr><tr><td>FND-A3-WH</td><td>pcs</td></tr>"
                )
            ),
            "order.eml"
        );
        Assert.Equal(12m, read.Lines.Where(l => l.Quantity.Sure > 0.5m).Sum(l => l.Quantity.Value ?? 0m));
        Assert.True(read.Lines.Length == 2 || !read.LeftOvers.IsEmpty);
    }

    [Fact]
    public void A_total_of_quantities_is_no_money()
    {
        var read = Shelf.One(
            Encoding.UTF8.GetBytes(
                Html(
                    "<tr><th>Code</th><th>Description</th><th>Qty</th><th>Price</th></tr>"
                        + "<tr><td>FND-A3-BL</td><td>fender</td><td>12</td><td>68.50</td></tr><tr><td></td><td>Total</td><td>12</td><td></td></tr>"
                )
            ),
            "order.eml"
        );
        Assert.Equal((null, 0), (read.Goods.Value, read.LeftOvers.Length));
    }

    [Fact]
    public void A_table_that_spans_without_end_is_bounded()
    {
        var rows = string.Concat(
            Enumerable.Repeat("<tr><td colspan=1000 rowspan=60000>x</td><td colspan=1000>y</td></tr>", 3_000)
        );
        Assert.True(OfHtml(rows).Length == 0);
    }

    [Fact]
    public async Task Merged_cells_of_a_workbook_hold_for_each_row()
    {
        using var file = new MemoryStream();
        await TableWriter.XlsxAsync(
            file,
            ["Code", "Wanted", "Qty"],
            [false, false, false],
            Rows(),
            TestContext.Current.CancellationToken
        );
        using (var zip = new ZipArchive(file, ZipArchiveMode.Update, leaveOpen: true))
        {
            var entry = zip.Entries.Single(e => e.FullName.EndsWith("sheet1.xml", StringComparison.Ordinal));
            string xml;
            using (var reader = new StreamReader(await entry.OpenAsync(TestContext.Current.CancellationToken)))
                xml = await reader.ReadToEndAsync(TestContext.Current.CancellationToken);
            var tag = xml.Contains("</x:sheetData>", StringComparison.Ordinal) ? "x:" : "";
            using var writer = new StreamWriter(await entry.OpenAsync(TestContext.Current.CancellationToken));
            await writer.WriteAsync(
                xml.Replace(
                    $"</{tag}sheetData>",
                    $"</{tag}sheetData><{tag}mergeCells count=\"1\"><{tag}mergeCell ref=\"A2:A3\"/></{tag}mergeCells>",
                    StringComparison.Ordinal
                )
            );
        }
        Assert.Equal(
            ["FND-A3-BL 12 C62", "FND-A3-BL 8 C62", "THM-SS-12 75 C62"],
            Shelf.Lines(Shelf.One(file.ToArray(), "order.xlsx"))
        );

        static async IAsyncEnumerable<IReadOnlyList<string>> Rows()
        {
            await Task.Yield();
            yield return ["FND-A3-BL", "2026-03-20", "12"];
            yield return ["", "2026-04-03", "8"];
            yield return ["THM-SS-12", "2026-04-03", "75"];
        }
    }

    [Fact]
    public void A_table_goes_on_under_the_head_of_the_page_before()
    {
        // The head and a row on the first page; below it on the second, and nobody fills the column in the middle.
        var pdf = Drawn(
            [
                ["Item", "Remark", "Qty", "Unit"],
                ["SHK-BOW-10", "blue tag", "60", "pcs"],
                ["THM-SS-12", "-", "70", "pcs"],
            ],
            [
                ["FND-A3-BL", "", "12", "pcs"],
                ["PS3-12-WH", "", "400", "m"],
            ]
        );
        Assert.Equal(
            ["SHK-BOW-10 60 C62", "THM-SS-12 70 C62", "FND-A3-BL 12 C62", "PS3-12-WH 400 MTR"],
            Shelf.Lines(Shelf.One(pdf, "order.pdf"))
        );
        // Only the head there.
        Assert.Equal(
            ["FND-A3-BL 12 C62", "PS3-12-WH 400 MTR"],
            Shelf.Lines(
                Shelf.One(
                    Drawn(
                        [
                            ["Item", "Remark", "Qty", "Unit"],
                        ],
                        [
                            ["FND-A3-BL", "", "12", "pcs"],
                            ["PS3-12-WH", "", "400", "m"],
                        ]
                    ),
                    "order.pdf"
                )
            )
        );
    }

    [Fact]
    public void Tables_beside_each_other_on_a_page() =>
        Assert.Equal(
            ["SHK-BOW-10 60 C62", "THM-SS-12 70 C62", "FND-A3-BL 12 C62", "PS3-12-WH 400 MTR"],
            Shelf.Lines(
                Shelf.One(
                    Drawn([
                        ["Item", "Qty", "Unit", "Item", "Qty", "Unit"],
                        ["SHK-BOW-10", "60", "pcs", "FND-A3-BL", "12", "pcs"],
                        ["THM-SS-12", "70", "pcs", "PS3-12-WH", "400", "m"],
                    ]),
                    "order.pdf"
                )
            )
        );

    // Each page a table from the top.
    private static byte[] Drawn(params string[][][] pages)
    {
        using var stream = new MemoryStream();
        using (var pdf = SKDocument.CreatePdf(stream))
        using (
            var shipped = typeof(PdfWriter).Assembly.GetManifestResourceStream(
                "Solvenda.Formats.Pdf.Fonts.Archivo-Regular.ttf"
            )
        )
        using (var face = SKTypeface.FromStream(shipped))
        using (var font = new SKFont(face, 10f))
        using (var paint = new SKPaint())
        {
            foreach (var page in pages)
            {
                var canvas = pdf.BeginPage(600f, 800f);
                for (var row = 0; row < page.Length; row++)
                {
                    for (var cell = 0; cell < page[row].Length; cell++)
                        canvas.DrawText(
                            page[row][cell],
                            40f + (cell * 520f / page[row].Length),
                            100f + (row * 20f),
                            SKTextAlign.Left,
                            font,
                            paint
                        );
                }
                pdf.EndPage();
            }
            pdf.Close();
        }
        return stream.ToArray();
    }
}
