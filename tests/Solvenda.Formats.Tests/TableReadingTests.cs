using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats.Tables;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>
/// Tables as buyers send them: heads in six languages, anything above and below, signs and dates of all kinds; and what
/// a person said about the columns.
/// </summary>
public sealed class TableReadingTests
{
    private static Reading Csv(string text, ReadingContext? context = null) =>
        Shelf.One(Encoding.UTF8.GetBytes(text), "order.csv", context);

    private static async Task<byte[]> WorkbookAsync(string[] head, params string[][] rows)
    {
        using var file = new MemoryStream();
        await TableWriter.XlsxAsync(
            file,
            head,
            [.. head.Select(_ => false)],
            Each(),
            TestContext.Current.CancellationToken
        );
        return file.ToArray();

        async IAsyncEnumerable<IReadOnlyList<string>> Each()
        {
            await Task.Yield();
            foreach (var row in rows)
                yield return row;
        }
    }

    [Theory]
    [
        InlineData("Code;Description;Qty;Unit;Price\nFND-A3-BL;fender;12;pcs;68,50\n"),
        InlineData("Artikelnummer\tBezeichnung\tMenge\tEinheit\tEinzelpreis\nFND-A3-BL\tFender\t12\tStk\t68,50\n"),
        InlineData("Artikelnr|Omschrijving|Aantal|Eenheid|Prijs\nFND-A3-BL|fender|12|stuks|68,50\n")
    ]
    [
        InlineData("art.nr,benämning,antal,enhet,à-pris\nFND-A3-BL,fender,12,st,68.50\n"),
        InlineData("Varenr;Varetekst;Antall;Enhet;Pris (NOK)\nFND-A3-BL;fender;12;stk;68,50\n"),
        InlineData("Código;Descripción;Cantidad;Unidad;Precio unitario\nFND-A3-BL;defensa;12;uds;68,50\n")
    ]
    [
        InlineData(
            "\uFEFFOrder for the spring\n\nCode;Description;Qty;Unit;Price\n;Deck;;;\nFND-A3-BL;fender;12;pcs;68,50\n;;;;\n;Total;;;822,00\n"
        ),
        InlineData(
            "\"Code\",\"Description\",\"Qty\",\"Unit\",\"Price\"\r\n\"FND-A3-BL\",\"fender, blue\nwith eye\",\"12\",\"pcs\",\"68.50\"\r\n"
        )
    ]
    public void A_table_by_its_heads(string text) => Assert.Equal(["FND-A3-BL 12 C62 @68.5"], Shelf.Lines(Csv(text)));

    [Fact]
    public void A_table_without_heads_by_what_stands_in_it() =>
        Assert.Equal(
            ["FND-A3-BL 12 C62", "PS3-12-WH 400 MTR"],
            Shelf.Lines(Csv("1;FND-A3-BL;fender blue;12;pcs\n2;PS3-12-WH;three strand white;400;m\n"))
        );

    [Fact]
    public void Two_tables_in_one_file_are_both_read() =>
        Assert.Equal(
            ["FND-A3-BL 12 C62", "PS3-12-WH 400 MTR"],
            Shelf.Lines(
                Csv(
                    "Deck;;;\nCode;Item;Qty;Unit\nFND-A3-BL;fender;12;pcs\n;;;\nRope;;;\nQuantity;UoM;Description;Part number\n400;m;three strand;PS3-12-WH\n"
                )
            )
        );

    [Theory]
    [
        InlineData("1.250;2,40", 1250),
        InlineData("1,250;2.40", 1250),
        InlineData("1 250;2,40", 1250),
        InlineData("1'250;2.40", 1250),
        InlineData("1,250;2,40", 1.25),
        InlineData("1.250,0;2", 1250)
    ]
    public void The_table_settles_its_decimal_sign(string cells, double quantity)
    {
        var reading = Csv($"Code;Qty;Price;Unit\nPS3-12-WH;{cells};m\n");
        Assert.Equal((decimal)quantity, reading.Lines[0].Quantity.Value);
        Assert.False(reading.Lines[0].NeedsYou);
    }

    [Fact]
    public void A_sign_that_nothing_in_the_table_settles_is_asked()
    {
        var reading = Csv("Code;Qty;Unit\nPS3-12-WH;1.250;m\nFND-A3-BL;4;pcs\n");
        Assert.True(reading.Lines[0].NeedsYou);
        Assert.Equal([1250m, 1.25m], reading.Lines[0].Proposals.Select(p => p.Quantity));
        Assert.Contains(reading.Warnings, w => w.Contains("1250 or 1.25?", StringComparison.Ordinal));
    }

    [Theory]
    [
        InlineData("16.03.2026", "2026-03-16"),
        InlineData("2026-03-16", "2026-03-16"),
        InlineData("16/03/2026", "2026-03-16"),
        InlineData("03/16/2026", "2026-03-16"),
        InlineData("46097", "2026-03-16"),
        InlineData("week 12", "2026-03-16"),
        InlineData("03/04/2026", null)
    ]
    public void Dates_of_a_column(string text, string? day)
    {
        var reading = Csv($"Code;Qty;Wanted\nFND-A3-BL;4;{text}\n");
        Assert.Equal(
            day,
            reading.Lines[0].Wanted.Value?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
        );
        Assert.Equal(day is null, reading.Warnings.Any(w => w.Contains("day or the month", StringComparison.Ordinal)));
    }

    [Fact]
    public void One_date_of_a_column_tells_the_order_of_the_others()
    {
        var reading = Csv("Code;Qty;Wanted\nFND-A3-BL;4;03/04/2026\nFND-A3-WH;4;25/04/2026\n");
        Assert.Equal(
            [new DateOnly(2026, 4, 3), new DateOnly(2026, 4, 25)],
            reading.Lines.Select(l => l.Wanted.Value!.Value)
        );
    }

    [Fact]
    public async Task A_workbook_is_read_sheet_by_sheet()
    {
        var raw = await WorkbookAsync(
            ["Code", "Description", "Qty", "Unit"],
            ["FND-A3-BL", "Ball fender", "12", "pcs"],
            ["", "bow shackle 10 mm", "3", "box"]
        );
        Assert.Equal(["FND-A3-BL 12 C62", "SHK-BOW-10 3 BX"], Shelf.Lines(Shelf.One(raw, "order.xlsx")));
    }

    [Fact]
    public void What_a_person_said_about_the_columns_holds_for_the_sender_and_these_heads()
    {
        const string text = "Ding;Zahl;Sache\nFND-A3-BL;12;blau\n";
        Assert.Empty(Csv("Ding;Zahl;Sache\nunknown thing;;blau\n").Lines);
        var context = Shelf.Context() with
        {
            Columns = (_, heads) =>
                heads == "ding|zahl|sache"
                    ? new Dictionary<int, string>
                    {
                        [0] = "code",
                        [1] = "quantity",
                        [2] = "note",
                    }
                    : null,
        };
        var line = Assert.Single(Csv(text, context).Lines);
        Assert.Equal(
            ("FND-A3-BL 12 C62 ", "blau"),
            (Shelf.Say(line).TrimEnd('?'), line.Note) is var (s, n) ? (s.TrimEnd() + " ", n) : default
        );
    }

    [Fact]
    public void Sums_of_a_table_are_evidence()
    {
        var reading = Csv(
            "Code;Qty;Price;Amount\nFND-A3-BL;12;68,50;822,00\nFND-A3-WH;2;10,00;25,00\nTotal;;;847,00\n"
        );
        Assert.Equal([false, true], reading.Lines.Select(l => l.NeedsYou));
        Assert.Equal(["Line 2: 2 at 10.00 makes 20.00; 25.00 is stated."], reading.Warnings);
        Assert.Equal(847m, reading.Goods.Value);
    }

    [Fact]
    public void A_price_for_a_hundred_is_one_however_it_is_said()
    {
        Assert.Equal(
            "PS3-12-WH 400 MTR @265/100",
            Shelf.Say(Csv("Artikelnr;Menge;Einheit;Preis;Preiseinheit\nPS3-12-WH;400;m;265,00;100\n").Lines[0])
        );
        Assert.Equal(
            "PS3-12-WH 400 MTR @265/100",
            Shelf.Say(Csv("Code;Qty;Unit;Price\nPS3-12-WH;400;m;265.00 per 100\n").Lines[0])
        );
    }

    [Fact]
    public void A_table_in_a_letter_is_a_table()
    {
        var reading = Shelf.Letter(
            "Please send:\n\nCode        Qty   Unit\nFND-A3-BL   12    pcs\nPS3-12-WH   400   m\n\nThanks\nMaud"
        );
        Assert.Equal(["FND-A3-BL 12 C62", "PS3-12-WH 400 MTR"], Shelf.Lines(reading));
    }

    [Fact]
    public void A_dozen_in_the_column_of_units_is_twelve_and_an_a_pris_is_a_price() =>
        Assert.Equal(
            ["SHK-BOW-10 30 C62 @49.8/12", "PS3-12-WH 1200 MTR @20.5"],
            Shelf.Lines(Csv("Artikelnr;Antal;Enhet;Á-pris\nSHK-BOW-10;2,5;dussin;49,80\nPS3-12-WH;1 200;m;20,50\n"))
        );

    // A table as a browser prints it: cells wrapped in the middle of their row, a code broken behind its hyphen, a head
    // over the middle of its words.
    [Fact]
    public void On_pages_cells_that_stand_in_several_lines_come_together()
    {
        Pdf.PageWord At(string text, double left, double top) => new(text, left, top, text.Length * 5, 10);
        var page = new Pdf.PageText(
            600,
            800,
            [
                At("Pos", 50, 100),
                At("Code", 100, 100),
                At("Description", 220, 100),
                At("Qty", 400, 100),
                At("Unit", 450, 100),
                At("SHK-BOW-", 80, 124),
                At("Bow", 160, 124),
                At("shackle,", 178, 124),
                At("1", 50, 130),
                At("40", 405, 130),
                At("pcs", 450, 130),
                At("10", 80, 136),
                At("mm", 160, 136),
                At("Deck", 50, 160),
                At("gear,", 73, 160),
                At("all", 101, 160),
                At("blue", 119, 160),
                At("Ball", 160, 184),
                At("2", 50, 196),
                At("FND-A3-BL", 80, 196),
                At("fender", 160, 196),
                At("6", 405, 196),
                At("pcs", 450, 196),
                At("A3", 160, 208),
            ]
        );
        var reading = MessageReader
            .Read(
                new Incoming("", "", [Pdf.PageLayout.Part("o.pdf", PartKind.Pages, [page])]),
                Shelf.Today,
                Shelf.Context()
            )
            .Reading!;
        Assert.Equal(["SHK-BOW-10 40 C62", "FND-A3-BL 6 C62"], Shelf.Lines(reading));
        Assert.Equal(["Bow shackle, mm", "Ball fender A3"], reading.Lines.Select(l => l.Words));
    }

    // Cells with hardly a blank between them: only the rows together tell where a column ends, and only what rows have
    // on both sides parts a head.
    [Fact]
    public void On_pages_cells_that_stand_close_are_told_apart_by_the_rows()
    {
        Pdf.PageWord At(string text, double left, double top) => new(text, left, top, text.Length * 5, 10);
        var page = new Pdf.PageText(
            600,
            800,
            [
                At("Qty", 50, 100),
                At("UoM", 75, 100),
                At("Part", 100, 100),
                At("number", 123, 100),
                At("Description", 160, 100),
                At("Unit", 266, 100),
                At("cost", 289, 100),
                At("6", 60, 114),
                At("EA", 80, 114),
                At("FND-A3-BL", 110, 114),
                At("Ball", 158, 114),
                At("fender", 181, 114),
                At("68.50", 268, 114),
                At("1,000", 50, 128),
                At("M", 77, 128),
                At("PS3-12-WH", 110, 128),
                At("Rope", 158, 128),
                At("12mm", 181, 128),
                At("1.84", 271, 128),
                At("12", 57, 142),
                At("EA", 80, 142),
                At("Life", 158, 142),
                At("jacket", 181, 142),
                At("adult", 214, 142),
                At("150N", 242, 142),
                At("96.00", 268, 142),
            ]
        );
        var reading = MessageReader
            .Read(
                new Incoming("", "", [Pdf.PageLayout.Part("o.pdf", PartKind.Pages, [page])]),
                Shelf.Today,
                Shelf.Context()
            )
            .Reading!;
        Assert.Equal(
            ["FND-A3-BL 6 C62 @68.5", "PS3-12-WH 1000 MTR @1.84", "LJ-150-AD 12 C62 @96"],
            Shelf.Lines(reading)
        );
        Assert.Equal("Life jacket adult 150N", reading.Lines[2].Words);
    }

    [Fact]
    public void On_pages_a_row_whose_words_are_wrapped_around_its_numbers_is_one_row()
    {
        Pdf.PageWord At(string text, double left, double top) => new(text, left, top, text.Length * 5, 8);
        var page = new Pdf.PageText(
            600,
            800,
            [
                At("Code", 50, 100),
                At("Description", 150, 100),
                At("Qty", 300, 100),
                At("Unit", 350, 100),
                At("FND-A3-BL", 50, 120),
                At("fender", 150, 120),
                At("12", 300, 120),
                At("pcs", 350, 120),
                At("bow", 150, 134),
                At("shackle", 170, 134),
                At("100", 300, 140),
                At("pcs", 350, 140),
                At("10", 150, 146),
                At("mm", 165, 146),
                At("PS3-12-WH", 50, 160),
                At("rope", 150, 160),
                At("400", 300, 160),
                At("m", 350, 160),
            ]
        );
        var message = new Incoming("", "", [Pdf.PageLayout.Part("o.pdf", PartKind.Pages, [page])]);
        Assert.Equal(
            ["FND-A3-BL 12 C62", "SHK-BOW-10 100 C62", "PS3-12-WH 400 MTR"],
            Shelf
                .Lines(MessageReader.Read(message, Shelf.Today, Shelf.Context()).Reading!)
                .Select(l => l.TrimEnd('?', ' '))
        );
    }
}
