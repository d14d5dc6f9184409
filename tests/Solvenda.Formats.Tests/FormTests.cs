using System.Globalization;
using System.IO.Compression;
using System.Text;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Forms of office programs: read where they hold words or tables, named where they are only kept.</summary>
public sealed class FormTests
{
    private static byte[] Zip(params (string Name, string Text)[] entries)
    {
        using var bytes = new MemoryStream();
        using (var zip = new ZipArchive(bytes, ZipArchiveMode.Create, leaveOpen: true))
        {
            foreach (var (name, text) in entries)
            {
                // The kind stands at the front, unpacked, as the standard wants it.
                using var entry = zip.CreateEntry(name, CompressionLevel.NoCompression).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        }
        return bytes.ToArray();
    }

    private static Reading Attached(string name, byte[] file) =>
        Shelf.One(
            Encoding.UTF8.GetBytes(
                $"From: Fionn <fionn@tresselvane.example>\nSubject: our order 4711-2\nDate: Mon, 02 Mar 2026 08:41:07 +0000\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=c\n\n--c\nContent-Type: text/plain; charset=utf-8\n\nPlease send what is in the file.\n--c\nContent-Type: application/octet-stream; name={name}\nContent-Disposition: attachment; filename={name}\nContent-Transfer-Encoding: base64\n\n{Convert.ToBase64String(file)}\n--c--\n"
            ),
            "x.eml"
        );

    private const string Ods = "application/vnd.oasis.opendocument.spreadsheet";

    private static byte[] OpenSheet(string rows, string styles = "") =>
        Zip(
            ("mimetype", Ods),
            (
                "content.xml",
                $"<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\" xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\">{styles}<office:body><office:spreadsheet><table:table table:name=\"Order\">{rows}</table:table></office:spreadsheet></office:body></office:document-content>"
            )
        );

    private static string Row(params string[] cells) =>
        $"<table:table-row>{string.Concat(cells.Select(c => decimal.TryParse(c, CultureInfo.InvariantCulture, out _) ? $"<table:table-cell office:value-type=\"float\" office:value=\"{c}\"><text:p>{c} shown</text:p></table:table-cell>" : $"<table:table-cell><text:p>{c}</text:p></table:table-cell>"))}</table:table-row>";

    [Fact]
    public void An_OpenDocument_spreadsheet_is_read_by_what_is_stored()
    {
        var reading = Attached(
            "o.ods",
            OpenSheet(
                Row("Code", "Qty", "Unit")
                    + "<table:table-row table:number-rows-repeated=\"1048576\"><table:table-cell table:number-columns-repeated=\"16384\"/></table:table-row>"
                    + Row("SHK-BOW-10", "40", "pcs")
                    + "<table:table-row table:visibility=\"collapse\"><table:table-cell><text:p>THM-SS-12</text:p></table:table-cell><table:table-cell><text:p>5</text:p></table:table-cell></table:table-row>"
                    + Row("PS3-12-WH", "120.5", "m")
            )
        );
        Assert.Equal(["SHK-BOW-10 40 C62", "PS3-12-WH 120.5 MTR"], Shelf.Lines(reading));
        Assert.Equal(["o.ods: 1 hidden row was not read."], reading.Warnings);
    }

    [Fact]
    public void What_is_hidden_in_an_OpenDocument_spreadsheet_is_not_read_and_is_named()
    {
        const string styles =
            "<office:automatic-styles xmlns:style=\"urn:oasis:names:tc:opendocument:xmlns:style:1.0\"><style:style style:name=\"ta2\"><style:table-properties table:display=\"false\"/></style:style></office:automatic-styles>";
        var shown =
            "<table:table-column/><table:table-column table:visibility=\"collapse\"/><table:table-column/>"
            + Row("Code", "Old qty", "Qty")
            + Row("SHK-BOW-10", "70", "40");
        var other =
            $"</table:table><table:table table:name=\"Old prices\" table:style-name=\"ta2\">{Row("Code", "Qty")}{Row("FND-A3-WH", "9")}";
        var reading = Attached("o.ods", OpenSheet(shown + other, styles));
        Assert.Equal(["SHK-BOW-10 40 C62"], Shelf.Lines(reading));
        Assert.Equal(
            ["o.ods: the sheet “Old prices” is hidden, and not read. o.ods: 1 hidden column was not read."],
            reading.Warnings
        );
    }

    private static byte[] Workbook(string columns, string rows, string otherState) =>
        Zip(
            (
                "[Content_Types].xml",
                "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\"><Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/><Default Extension=\"xml\" ContentType=\"application/xml\"/><Override PartName=\"/xl/workbook.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml\"/><Override PartName=\"/xl/worksheets/sheet1.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml\"/><Override PartName=\"/xl/worksheets/sheet2.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml\"/></Types>"
            ),
            (
                "_rels/.rels",
                "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"r1\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>"
            ),
            (
                "xl/_rels/workbook.xml.rels",
                "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship Id=\"r1\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet\" Target=\"worksheets/sheet1.xml\"/><Relationship Id=\"r2\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet\" Target=\"worksheets/sheet2.xml\"/></Relationships>"
            ),
            (
                "xl/workbook.xml",
                $"<workbook xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\" xmlns:r=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships\"><sheets><sheet name=\"Order\" sheetId=\"1\" r:id=\"r1\"/><sheet name=\"Old prices\" sheetId=\"2\" r:id=\"r2\"{otherState}/></sheets></workbook>"
            ),
            (
                "xl/worksheets/sheet1.xml",
                $"<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\">{columns}<sheetData>{rows}</sheetData></worksheet>"
            ),
            (
                "xl/worksheets/sheet2.xml",
                $"<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData>{XRow(1, "", "Code", "Qty")}{XRow(2, "", "FND-A3-WH", "9")}</sheetData></worksheet>"
            )
        );

    private static string XRow(int number, string hidden, params string[] cells) =>
        $"<row r=\"{number}\"{hidden}>{string.Concat(cells.Select((c, i) => $"<c r=\"{(char)('A' + i)}{number}\" t=\"inlineStr\"><is><t>{c}</t></is></c>"))}</row>";

    [Fact]
    public void What_is_hidden_in_a_workbook_is_not_read_and_is_named()
    {
        var reading = Attached(
            "o.xlsx",
            Workbook(
                "<cols><col min=\"3\" max=\"3\" width=\"9\" hidden=\"1\"/></cols>",
                XRow(1, "", "Code", "Qty", "Quantity")
                    + XRow(2, "", "SHK-BOW-10", "40", "70")
                    + XRow(3, " hidden=\"1\"", "THM-SS-12", "5", "5"),
                " state=\"hidden\""
            )
        );
        Assert.Equal(["SHK-BOW-10 40 C62"], Shelf.Lines(reading));
        Assert.Equal(
            [
                "o.xlsx: the sheet “Old prices” is hidden, and not read. o.xlsx: 1 hidden row and 1 hidden column were not read.",
            ],
            reading.Warnings
        );
    }

    [Fact]
    public void A_second_sheet_that_is_shown_is_read()
    {
        var rows = XRow(1, "", "Code", "Qty") + XRow(2, "", "SHK-BOW-10", "40");
        Assert.Equal(["SHK-BOW-10 40 C62", "FND-A3-WH 9 C62"], Shelf.Lines(Attached("o.xlsx", Workbook("", rows, ""))));
    }

    [Fact]
    public void Rich_text_is_read_as_its_words()
    {
        const string rtf =
            @"{\rtf1\ansi\ansicpg1252\uc1{\fonttbl{\f0 Arial 999;}}{\*\generator some 12 program;}\f0\fs22 Bitte liefern:\par - 40 St\'fcck SHK-BOW-10\par - 12 Sch\u228?kel THM-SS-12\par}";
        var reading = Attached("o.rtf", Encoding.ASCII.GetBytes(rtf));
        Assert.Equal(["SHK-BOW-10 40 C62", "THM-SS-12 12 C62"], Shelf.Lines(reading));
        Assert.Empty(reading.LeftOvers);
    }

    [Theory]
    [InlineData("x.docx", "a text document of an office program")]
    [InlineData("x.zip", "an archive (ZIP)")]
    [InlineData("x.p7s", "a signature")]
    [InlineData("x.bin", "of no kind that we know")]
    public void What_is_only_kept_says_what_it_is(string name, string what)
    {
        var bytes =
            name.EndsWith(".bin", StringComparison.Ordinal) ? [0, 1, 2, 0, 3]
            : name.EndsWith(".p7s", StringComparison.Ordinal) ? [0x30, 0x82, 0, 1]
            : Zip(("word/document.xml", "<w/>"));
        Assert.Contains(what, FileReader.Open(bytes, name, Shelf.Today).Messages[0].Problem, StringComparison.Ordinal);
    }

    [Fact]
    public void A_message_of_an_office_program_is_named()
    {
        byte[] raw =
        [
            0xD0,
            0xCF,
            0x11,
            0xE0,
            0xA1,
            0xB1,
            0x1A,
            0xE1,
            .. new byte[600],
            .. Encoding.Unicode.GetBytes("__properties_version1.0"),
        ];
        Assert.Contains(
            "a message as an office mail program saved it",
            FileReader.Open(raw, "x.msg", Shelf.Today).Messages[0].Problem,
            StringComparison.Ordinal
        );
        // A compound file that only says that it is a workbook is damaged, and kept.
        byte[] workbook = [.. raw[..608], .. Encoding.Unicode.GetBytes("Workbook"), .. new byte[600]];
        Assert.Contains(
            "it is kept as it came",
            FileReader.Open(workbook, "x.xls", Shelf.Today).Messages[0].Problem,
            StringComparison.Ordinal
        );
    }
}
