using SkiaSharp;
using Solvenda.Core.Reading;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Pages as programs draw them: twice to look bold, turned, upside down.</summary>
public sealed class PageWordTests
{
    private static readonly string[][] Table =
    [
        ["Item", "Description", "Qty", "Unit"],
        ["SHK-BOW-10", "Bow shackle 10 mm", "60", "pcs"],
        ["THM-SS-12", "Thimble 12 mm", "1100", "pcs"],
        ["PS3-12-WH", "Rope 12 mm white", "2.50", "m"],
    ];

    private static byte[] Drawn(float degrees, params float[] offsets)
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
            var canvas = pdf.BeginPage(600f, 600f);
            canvas.RotateDegrees(degrees, 300f, 300f);
            for (var row = 0; row < Table.Length; row++)
            {
                for (var cell = 0; cell < Table[row].Length; cell++)
                {
                    foreach (var offset in offsets)
                        canvas.DrawText(
                            Table[row][cell],
                            60f + (cell * 130f) + offset,
                            100f + (row * 20f),
                            SKTextAlign.Left,
                            font,
                            paint
                        );
                }
            }
            pdf.EndPage();
            pdf.Close();
        }
        return stream.ToArray();
    }

    private static string[] Lines(byte[] pdf) => Shelf.Lines(Shelf.One(pdf, "order.pdf"));

    private static readonly string[] Expected = ["SHK-BOW-10 60 C62", "THM-SS-12 1100 C62", "PS3-12-WH 2.5 MTR"];

    [Theory]
    [InlineData(0f)]
    [InlineData(0f, 0.4f)]
    [InlineData(0f, 0.3f, 0.6f)]
    [InlineData(0f, 0f)]
    public void What_is_drawn_twice_to_look_bold_counts_once(params float[] offsets) =>
        Assert.Equal(Expected, Lines(Drawn(0f, offsets)));

    [Theory]
    [InlineData(90f)]
    [InlineData(-90f)]
    [InlineData(180f)]
    public void A_turned_page_is_turned_back(float degrees) => Assert.Equal(Expected, Lines(Drawn(degrees, 0f)));

    [Fact]
    public void Digits_that_stand_twice_are_two() =>
        Assert.Contains("1100", Lines(Drawn(0f, 0f, 0.4f))[1], StringComparison.Ordinal);

    [Fact]
    public void Evidence_stands_where_it_is_read()
    {
        var message = Assert.Single(FileReader.Open(Drawn(90f, 0f), "order.pdf", Shelf.Today).Messages);
        var reading = MessageReader.Read(message, Shelf.Today, Shelf.Context()).Reading!;
        var evidence = reading.Lines[0].Quantity.Evidence[0];
        Assert.Equal("60", message.Parts[evidence.Part].Text.Substring(evidence.Start, evidence.Length));
    }
}
