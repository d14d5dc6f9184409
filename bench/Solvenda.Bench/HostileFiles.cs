using System.Diagnostics;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats;
using Solvenda.Formats.Tables;

namespace Solvenda.Bench;

/// <summary>
/// Files made to cost their reader dearly, each read once: how long it took, how much room, and what was answered.
/// </summary>
internal static class HostileFiles
{
    private static readonly DateOnly Day = new(2026, 3, 2);

    public static async Task MeasureAsync()
    {
        var context = MadeMail.Context();
        // The first mail and the first PDF after a start wait for the code to be made ready; they are measured as what
        // they are.
        Measure(
            "the first letter after a start",
            "x.eml",
            Bytes("From: a@b.example\n\nplease send 3 pcs IT-000001"),
            context
        );
        Measure("the first PDF after a start", "x.eml", MadeMail.WithPages(1), context);
        foreach (
            var (name, file, raw) in Letters()
                .Concat(Trees())
                .Concat(await TablesAsync())
                .Concat(Pdfs())
                .Concat(Interchanges())
        )
            Measure(name, file, raw, context);
    }

    private static void Measure(string name, string file, byte[] raw, ReadingContext context)
    {
        GC.Collect();
        using var self = Process.GetCurrentProcess();
        var before = self.WorkingSet64;
        var most = before;
        using var done = new ManualResetEventSlim();
        var watcher = new Thread(() =>
        {
            while (!done.Wait(5))
            {
                self.Refresh();
                most = Math.Max(most, self.WorkingSet64);
            }
        });
        watcher.Start();
        var clock = Stopwatch.StartNew();
        var answers = new List<string>();
        foreach (var message in FileReader.Open(raw, file, Day).Messages)
        {
            var (reading, problem) = MessageReader.Read(message, Day, context);
            answers.Add(problem ?? string.Create(CultureInfo.InvariantCulture, $"{reading!.Lines.Length:#,0} lines"));
        }
        var took = clock.ElapsedMilliseconds;
        done.Set();
        watcher.Join();
        Console.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"| {name} | {raw.Length / 1024:#,0} KB | {took:#,0} ms | {Math.Max(0, most - before) / 1024 / 1024} MB | {(answers.Count > 1 ? $"{answers.Count:#,0} messages; " : "")}{answers[0]} |"
            )
        );
    }

    private static byte[] Bytes(string text) => Encoding.UTF8.GetBytes(text);

    private static string Times(string piece, int times) => string.Concat(Enumerable.Repeat(piece, times));

    private static IEnumerable<(string, string, byte[])> Letters()
    {
        foreach (
            var piece in new[]
            {
                "1 ",
                "1 000 ",
                "1.000,",
                "a, ",
                "10 m of ",
                "8 to ",
                "hundred and ",
                "same ",
                "of them ",
                "week 12 ",
                "regards\n",
                "deliver to ",
                "€ 1 ",
                "> \n",
                "- \n",
            }
        )
            yield return (
                $"letter: `{piece.Trim()}` 20,000 times",
                "x.eml",
                Bytes("From: a@b.example\n\n" + Times(piece, 20_000))
            );
        yield return ("letter: one word of 2 MB", "x.eml", Bytes("From: a@b.example\n\n" + new string('a', 2_000_000)));
        var random = new Random(7);
        var bytes = new byte[1_000_000];
        random.NextBytes(bytes);
        yield return ("a million random bytes", "x", bytes);
    }

    private static IEnumerable<(string, string, byte[])> Trees()
    {
        yield return (
            "XML: entities of entities",
            "x.xml",
            Bytes(
                "<!DOCTYPE o [<!ENTITY a \"aaaaaaaaaa\">"
                    + string.Concat(
                        Enumerable
                            .Range(0, 9)
                            .Select(i => $"<!ENTITY {(char)('b' + i)} \"{Times($"&{(char)('a' + i)};", 10)}\">")
                    )
                    + "]><Order>&j;</Order>"
            )
        );
        yield return ("XML: 500,000 deep", "x.xml", Bytes(Times("<a>", 500_000)));
        yield return ("JSON: 500,000 deep", "x.json", Bytes(Times("{\"orders\":[", 500_000)));
        yield return (
            "HTML: 200,000 deep",
            "x.eml",
            Bytes("From: a@b.example\nContent-Type: text/html\n\n" + Times("<div>", 200_000))
        );
        var mime = new StringBuilder("From: a@b.example\n");
        for (var i = 0; i < 20_000; i++)
            mime.Append(CultureInfo.InvariantCulture, $"Content-Type: multipart/mixed; boundary=b{i}\n\n--b{i}\n");
        yield return ("MIME: 20,000 deep", "x.eml", Bytes(mime.ToString()));
        yield return (
            "MIME: a mail in a mail, 5,000 deep",
            "x.eml",
            Bytes(Times("From: a@b.example\nContent-Type: message/rfc822\n\n", 5_000))
        );
        yield return (
            "MIME: 20,000 attachments",
            "x.eml",
            Bytes(
                "From: a@b.example\nContent-Type: multipart/mixed; boundary=b\n\n"
                    + Times(
                        "--b\nContent-Type: text/plain\nContent-Disposition: attachment; filename=a.txt\n\n4 pcs IT-000001\n",
                        20_000
                    )
                    + "--b--\n"
            )
        );
    }

    private static async Task<List<(string, string, byte[])>> TablesAsync()
    {
        var files = new List<(string, string, byte[])>();
        var csv = new StringBuilder("Code;Description;Qty;Unit\n");
        for (var i = 0; i < 100_000; i++)
            csv.Append(CultureInfo.InvariantCulture, $"IT-{i % 5_000:000000};rope {i};{i % 90 + 1};m\n");
        files.Add(("CSV: 100,000 rows", "x.csv", Bytes(csv.ToString())));
        files.Add(("CSV: 50,000 columns", "x.csv", Bytes(Times("a;", 50_000) + "\n" + Times("1;", 50_000))));
        files.Add(("CSV: a quote that never ends", "x.csv", Bytes("Code;Qty\n\"" + Times("a;1\n", 500_000))));
        using var workbook = new MemoryStream();
        await TableWriter.XlsxAsync(
            workbook,
            ["Code", "Description", "Qty", "Unit"],
            [false, false, true, false],
            Rows(),
            CancellationToken.None
        );
        files.Add(("XLSX: 100,000 rows", "x.xlsx", workbook.ToArray()));
        using var bomb = new MemoryStream();
        using (var zip = new ZipArchive(bomb, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var sheet = zip.CreateEntry("xl/worksheets/sheet1.xml", CompressionLevel.SmallestSize).Open();
            var zeros = new byte[1024 * 1024];
            for (var i = 0; i < 1_000; i++)
                sheet.Write(zeros);
        }
        files.Add(("XLSX: 1 GB of zeros, packed", "x.xlsx", bomb.ToArray()));
        return files;

        static async IAsyncEnumerable<IReadOnlyList<string>> Rows()
        {
            await Task.CompletedTask;
            for (var i = 0; i < 100_000; i++)
                yield return
                [
                    $"IT-{i % 5_000:000000}",
                    $"rope {i}",
                    (i % 90 + 1).ToString(CultureInfo.InvariantCulture),
                    "m",
                ];
        }
    }

    private static IEnumerable<(string, string, byte[])> Pdfs()
    {
        const string catalog = "<< /Type /Catalog /Pages 2 0 R >>";
        yield return (
            "PDF: a page tree in a circle",
            "x.pdf",
            Pdf([catalog, "<< /Type /Pages /Kids [2 0 R 2 0 R] /Count 2 >>"])
        );
        yield return (
            "PDF: a table of contents in a circle",
            "x.pdf",
            Bytes(
                "%PDF-1.4\n1 0 obj\n"
                    + catalog
                    + "\nendobj\nxref\n0 1\n0000000000 65535 f \ntrailer\n<< /Root 1 0 R /Size 2 /Prev 66 >>\nstartxref\n66\n%%EOF"
            )
        );
        yield return (
            "PDF: a form that draws itself",
            "x.pdf",
            Pdf([
                catalog,
                "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Resources << /XObject << /X 5 0 R >> >> /Contents 4 0 R >>",
                "<< /Length 5 >>\nstream\n/X Do\nendstream",
                "<< /Type /XObject /Subtype /Form /BBox [0 0 1 1] /Resources << /XObject << /X 5 0 R >> >> /Length 11 >>\nstream\n/X Do /X Do\nendstream",
            ])
        );
        yield return ("PDF: an object that is itself", "x.pdf", Pdf([catalog, "2 0 R"]));
        yield return (
            "PDF: 20,000 empty pages",
            "x.pdf",
            Pdf([
                catalog,
                $"<< /Type /Pages /Kids [{Times("3 0 R ", 20_000)}] /Count 20000 >>",
                "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] >>",
            ])
        );
        var words = Times("1 0 0 1 9 9 Tm (a b) Tj ", 300_000);
        yield return ("PDF: 300,000 words on one page", "x.pdf", Page($"BT /F1 9 Tf {words} ET"));
        yield return ("PDF: 1,000,000 lines drawn", "x.pdf", Page(Times("0 0 m 9 9 l S ", 1_000_000)));
        yield return ("PDF: 500,000 states saved", "x.pdf", Page(Times("q ", 500_000)));
        yield return ("PDF: 500,000 brackets", "x.pdf", Page(Times("[", 500_000)));
        using var packed = new MemoryStream();
        using (var zip = new ZLibStream(packed, CompressionLevel.SmallestSize, leaveOpen: true))
        {
            var blanks = new byte[1024 * 1024];
            Array.Fill(blanks, (byte)' ');
            for (var i = 0; i < 1_000; i++)
                zip.Write(blanks);
        }
        yield return ("PDF: 1 GB of blanks, packed", "x.pdf", Page(packed.ToArray(), " /Filter /FlateDecode"));
    }

    private static byte[] Page(string content) => Page(Encoding.ASCII.GetBytes(content), "");

    private static byte[] Page(byte[] content, string filter) =>
        Pdf([
            "<< /Type /Catalog /Pages 2 0 R >>",
            "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
            "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Resources << /Font << /F1 << /Type /Font /Subtype /Type1 /BaseFont /Helvetica >> >> >> /Contents 4 0 R >>",
            string.Create(
                CultureInfo.InvariantCulture,
                $"<< /Length {content.Length}{filter} >>\nstream\n{Encoding.Latin1.GetString(content)}\nendstream"
            ),
        ]);

    private static byte[] Pdf(string[] objects)
    {
        var text = new StringBuilder("%PDF-1.4\n");
        var places = new List<int>();
        for (var i = 0; i < objects.Length; i++)
        {
            places.Add(text.Length);
            text.Append(CultureInfo.InvariantCulture, $"{i + 1} 0 obj\n{objects[i]}\nendobj\n");
        }
        var at = text.Length;
        text.Append(CultureInfo.InvariantCulture, $"xref\n0 {objects.Length + 1}\n0000000000 65535 f \n");
        foreach (var place in places)
            text.Append(CultureInfo.InvariantCulture, $"{place:0000000000} 00000 n \n");
        text.Append(
            CultureInfo.InvariantCulture,
            $"trailer\n<< /Root 1 0 R /Size {objects.Length + 1} >>\nstartxref\n{at}\n%%EOF"
        );
        return Encoding.Latin1.GetBytes(text.ToString());
    }

    private static IEnumerable<(string, string, byte[])> Interchanges()
    {
        const string head =
            "ISA*00*          *00*          *ZZ*A              *ZZ*B              *260305*0914*U*00401*000000371*0*P*>~GS*PO*A*B*20260305*0914*1*X*004010~";
        yield return ("X12: 1,000,000 empty segments", "x.x12", Bytes(head + Times("~", 1_000_000)));
        yield return ("X12: 100,000 messages, none ended", "x.x12", Bytes(head + Times("ST*850*0001~", 100_000)));
        yield return (
            "X12: a segment of 500,000 elements",
            "x.x12",
            Bytes(head + "ST*850*0001~BEG" + Times("*", 500_000) + "~")
        );
        yield return (
            "EDIFACT: 500,000 releases",
            "x.edi",
            Bytes("UNB+UNOA:2+A+B+260305:0914+1'UNH+1+ORDERS:D:96A:UN'FTX+AAA+++" + Times("?", 500_000))
        );
        yield return (
            "EDIFACT: 200,000 lines without an end",
            "x.edi",
            Bytes("UNB+UNOA:2+A+B+260305:0914+1'UNH+1+ORDERS:D:96A:UN'" + Times("LIN+1'QTY+21:5'", 200_000))
        );
    }
}
