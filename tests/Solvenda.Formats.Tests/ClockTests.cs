using Solvenda.Core.Reading;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>The clock says nothing about a file: what it stopped is tried again, and reads then.</summary>
public sealed class ClockTests
{
    private static byte[] Pdf(string words)
    {
        var content = $"BT /F1 12 Tf 72 720 Td ({words}) Tj ET";
        string[] objects =
        [
            "<< /Type /Catalog /Pages 2 0 R >>",
            "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
            "<< /Type /Page /Parent 2 0 R /MediaBox [0 0 612 792] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>",
            $"<< /Length {content.Length} >>\nstream\n{content}\nendstream",
            "<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>",
        ];
        var text = "%PDF-1.4\n";
        var starts = new List<int>();
        foreach (var (body, i) in objects.Select((o, i) => (o, i)))
        {
            starts.Add(text.Length);
            text += $"{i + 1} 0 obj\n{body}\nendobj\n";
        }
        var at = text.Length;
        text += $"xref\n0 {objects.Length + 1}\n0000000000 65535 f \n";
        foreach (var start in starts)
            text += $"{start:0000000000} 00000 n \n";
        text += $"trailer\n<< /Size {objects.Length + 1} /Root 1 0 R >>\nstartxref\n{at}\n%%EOF";
        return System.Text.Encoding.ASCII.GetBytes(text);
    }

    // Where the machine is quick enough, even no patience at all may be enough.
    private static void Stopped(byte[] raw, Runaways runaways)
    {
        try
        {
            PdfText.Read(raw, TimeSpan.Zero, runaways);
        }
        catch (TookTooLongException)
        {
            // As it should.
        }
    }

    [Fact]
    public void A_file_that_was_stopped_reads_when_it_is_tried_again()
    {
        var raw = Pdf("40 pcs SHK-BOW-10");
        // Counted apart, so that what is left running here keeps no other test waiting.
        var runaways = new Runaways();
        // More often than parsers may be left running: each is counted only until it ends.
        for (var i = 0; i < 12; i++)
            Stopped(raw, runaways);
        PdfPages? read = null;
        for (var tries = 0; read is null; tries++)
            try
            {
                read = PdfText.Read(raw, Timeout.InfiniteTimeSpan, runaways);
            }
            catch (TookTooLongException) when (tries < 1_000)
            {
                // The others are coming to their end.
                Thread.Sleep(10);
            }
        Assert.Equal("40 pcs SHK-BOW-10", string.Join(' ', read.Pages.Single().Words.Select(w => w.Text)));
    }
}
