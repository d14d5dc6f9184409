using System.Globalization;
using System.IO.Compression;
using System.Text;
using CsCheck;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Whatever the bytes are: a reading or a reason, soon, and in little room.</summary>
public sealed class HostileTests
{
    private static readonly ReadingContext Context = Shelf.Context();

    private static readonly string[] Names = [.. Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "Samples"))];

    // What it costs stands in bench/RESULTS.md; here nothing may fail, whatever the machine is busy with.
    private static void Reads(byte[] raw, string? name)
    {
        foreach (var message in FileReader.Open(raw, name, Shelf.Today).Messages)
        {
            var (reading, problem) = MessageReader.Read(message, Shelf.Today, Context);
            Assert.True(reading is not null || problem is { Length: > 0 });
            if (reading is null)
                continue;
            foreach (var e in reading.Lines.SelectMany(l => l.Evidence))
                Assert.InRange(e.Start + e.Length, 0, message.Parts[e.Part].Text.Length);
        }
    }

    [Fact]
    public void Random_bytes_are_answered() =>
        Gen.Byte.Array[0, 2_000].Sample(bytes => Reads(bytes, "x"), iter: 300, threads: 1);

    [Fact]
    public void Mutated_messages_are_answered() =>
        Gen.Select(Gen.Int[0, 7], Gen.Select(Gen.Int[0, 100_000], Gen.Byte, Gen.Int[0, 3]).Array[1, 12])
            .Sample(
                (which, changes) =>
                {
                    var bytes = File.ReadAllBytes(Names[which]).ToList();
                    foreach (var (at, value, kind) in changes)
                    {
                        var i = at % bytes.Count;
                        switch (kind)
                        {
                            case 0:
                                bytes[i] = value;
                                break;
                            case 1:
                                bytes.RemoveRange(i, Math.Min(value, bytes.Count - i - 1));
                                break;
                            case 2:
                                bytes.InsertRange(i, bytes.GetRange(i, Math.Min(value, bytes.Count - i)));
                                break;
                            default:
                                bytes.Insert(i, value);
                                break;
                        }
                    }
                    Reads([.. bytes], Path.GetFileName(Names[which]));
                },
                iter: 400,
                threads: 1
            );

    [Fact]
    public void Mutated_PDFs_are_answered()
    {
        var whole = MailTests.Pdf();
        Gen.Select(Gen.Int[0, 1_000_000], Gen.Byte)
            .Array[1, 30]
            .Sample(
                changes =>
                {
                    var bytes = (byte[])whole.Clone();
                    foreach (var (at, value) in changes)
                        bytes[at % bytes.Length] = value;
                    Reads(bytes, "x.pdf");
                },
                iter: 60,
                threads: 1
            );
    }

    [Fact]
    public void A_workbook_that_unpacks_without_end_is_not_unpacked()
    {
        using var file = new MemoryStream();
        using (var zip = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var sheet = zip.CreateEntry("xl/worksheets/sheet1.xml", CompressionLevel.SmallestSize).Open();
            var zeros = new byte[1024 * 1024];
            for (var i = 0; i < 300; i++)
                sheet.Write(zeros);
        }
        var message = FileReader.Open(file.ToArray(), "x.xlsx", Shelf.Today).Messages[0];
        Assert.Contains("more than 100 MB", message.Problem, StringComparison.Ordinal);
    }

    [Theory]
    [
        InlineData(
            "<!DOCTYPE lolz [<!ENTITY a \"aaaa\"><!ENTITY b \"&a;&a;&a;&a;\">]><Order>&b;</Order>",
            "document type"
        ),
        InlineData("<!DOCTYPE x SYSTEM \"file:///etc/passwd\"><x/>", "document type"),
        InlineData("<Order><cbc:ID>1</cbc:ID></Order>", "not well formed"),
        InlineData("<invoice/>", "not a UBL order")
    ]
    public void XML_follows_nothing_outside_itself(string xml, string words) =>
        Assert.Contains(
            words,
            FileReader.Open(Encoding.UTF8.GetBytes(xml), "x.xml", Shelf.Today).Messages[0].Problem,
            StringComparison.Ordinal
        );

    [Fact]
    public void A_PDF_that_unpacks_without_end_is_not_unpacked()
    {
        using var packed = new MemoryStream();
        using (var zip = new ZLibStream(packed, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            for (var i = 0; i < 100; i++)
                zip.Write(new byte[1024 * 1024]);
        }
        string Pdf(string length, string stream) =>
            $"%PDF-1.4\n1 0 obj\n<< /Type /Catalog /Pages 2 0 R >>\nendobj\n2 0 obj\n<< /Type /Pages /Kids [3 0 R] /Count 1 >>\nendobj\n3 0 obj\n<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R >>\nendobj\n4 0 obj\n<< /Length {length} >>\nstream\n{stream}\nendstream\nendobj\ntrailer\n<< /Root 1 0 R /Size 5 >>\n%%EOF";
        var plain = string.Concat(Enumerable.Repeat("0 0 m 9 9 l S ", 500_000));
        var headless = (byte[])packed.ToArray().Clone();
        (headless[0], headless[1]) = (0, 0);
        foreach (
            var pdf in new[]
            {
                Pdf($"{packed.Length} /Filter /FlateDecode", Encoding.Latin1.GetString(packed.ToArray())),
                Pdf($"{packed.Length} /Filter /FlateDecode", Encoding.Latin1.GetString(headless)),
                Pdf($"{200_000} /Filter /LZWDecode", new string('a', 200_000)),
                Pdf($"{plain.Length}", plain),
            }
        )
            Assert.Contains(
                "unpacks to more than is read",
                FileReader.Open(Encoding.Latin1.GetBytes(pdf), "x.pdf", Shelf.Today).Messages[0].Problem,
                StringComparison.Ordinal
            );
    }

    [Fact]
    public void An_interchange_with_more_messages_than_anybody_works_through_is_one_request_with_the_reason()
    {
        var text =
            "ISA*00*          *00*          *ZZ*A              *ZZ*B              *260305*0914*U*00401*000000371*0*P*>~GS*PO*A*B*20260305*0914*1*X*004010~"
            + string.Concat(Enumerable.Repeat("ST*850*0001~SE*2*0001~", 2_001))
            + "GE*2001*1~IEA*1*000000371~";
        Assert.Contains(
            "holds 2,001 messages",
            Assert.Single(FileReader.Open(Encoding.ASCII.GetBytes(text), "x.x12", Shelf.Today).Messages).Problem,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void What_is_nested_without_end_is_answered()
    {
        Reads(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("<a>", 50_000))), "x.xml");
        Reads(Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat("{\"orders\":[", 20_000))), "x.json");
        Reads(
            Encoding.UTF8.GetBytes(
                "From: a@b.example\nContent-Type: text/html\n\n"
                    + string.Concat(Enumerable.Repeat("<div>", 20_000))
                    + "4 pcs FND-A3-BL"
            ),
            "x.eml"
        );
        var mime = new StringBuilder("From: a@b.example\n");
        for (var i = 0; i < 2_000; i++)
            mime.Append(CultureInfo.InvariantCulture, $"Content-Type: multipart/mixed; boundary=b{i}\n\n--b{i}\n");
        Reads(Encoding.UTF8.GetBytes(mime.ToString()), "x.eml");
    }

    [Fact]
    public void A_hundred_thousand_rows_are_read_as_far_as_a_sheet_holds()
    {
        var csv = new StringBuilder("Code;Description;Qty;Unit\n");
        for (var i = 0; i < 100_000; i++)
            csv.Append(CultureInfo.InvariantCulture, $"FND-A3-BL;fender {i};{i % 90 + 1};pcs\n");
        var message = FileReader.Open(Encoding.UTF8.GetBytes(csv.ToString()), "x.csv", Shelf.Today).Messages[0];
        var reading = MessageReader.Read(message, Shelf.Today, Context).Reading!;
        Assert.Equal(2_000, reading.Lines.Length);
        Assert.Contains(reading.Warnings, w => w.Contains("more rows stand below", StringComparison.Ordinal));
        Assert.Contains("x.csv has more than 20,000 rows; those beyond are kept in the original.", reading.Warnings);
    }

    [Fact]
    public void Letters_made_to_make_rules_go_back_and_forth_are_answered()
    {
        foreach (
            var piece in new[]
            {
                "1 ",
                "1 000 ",
                "a, ",
                "by ",
                "10 m of ",
                "- \n",
                "1.000,",
                "PO ",
                "€ 1 ",
                "total ",
                "deliver to deliver to ",
                "\u00a0",
                "regards\n",
                "8 to ",
                "hundred and ",
                "same ",
                "a",
            }
        )
            Reads(
                Encoding.UTF8.GetBytes("From: a@b.example\n\n" + string.Concat(Enumerable.Repeat(piece, 20_000))),
                "x.eml"
            );
    }
}
