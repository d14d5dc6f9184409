using SkiaSharp;
using Solvenda.Core.Reading;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Words on pictures, where tesseract is installed; `./solvenda test` installs it.</summary>
public sealed class RecognitionTests
{
    private static readonly string[] Order =
    [
        "Kestrel Yard Boatbuilders",
        "Purchase order 4500-7781",
        "Deliver by 20 March 2026",
        "",
        "40 pcs SHK-BOW-10",
        "200 m PS3-12-WH",
    ];

    [Fact]
    public void A_scan_is_read_and_never_sure()
    {
        Assert.SkipUnless(Recognition.IsInstalled, "tesseract-ocr is not installed");
        var message = Assert.Single(FileReader.Open(Picture(1_240, 900, Order), "scan.png", Shelf.Today).Messages);
        var reading = MessageReader.Read(message, Shelf.Today, Shelf.Context()).Reading!;
        Assert.Equal(("4500-7781", new DateOnly(2026, 3, 20)), (reading.PoNumber.Value, reading.Wanted.Value));
        Assert.Equal(["SHK-BOW-10 40 C62", "PS3-12-WH 200 MTR"], Shelf.Lines(reading).Select(l => l.TrimEnd('?', ' ')));
        Assert.All(reading.Lines, l => Assert.True(l.NeedsYou));
        Assert.Contains(reading.Warnings, w => w.Contains("recognised from a picture", StringComparison.Ordinal));
        // Where it stands on the picture is known.
        var evidence = reading.Lines[0].Evidence[0];
        Assert.Contains(
            message.Parts[evidence.Part].Words,
            w => w.Start >= evidence.Start && w is { Top: > 0.3 and < 0.8, Left: < 0.5 }
        );
    }

    [Fact]
    public void A_picture_of_nothing_says_so()
    {
        var message = Assert.Single(FileReader.Open(Picture(400, 300, []), "photo.png", Shelf.Today).Messages);
        Assert.Contains(
            Recognition.IsInstalled ? "No words could be recognised" : "tesseract-ocr",
            message.Problem,
            StringComparison.Ordinal
        );
        Assert.Equal(PartKind.Picture, Assert.Single(message.Parts).Kind);
    }

    [Fact]
    public void A_picture_that_says_it_is_larger_than_any_page_is_not_unpacked()
    {
        var bytes = Picture(400, 300, []);
        // Width and height stand in the head of a PNG (ISO/IEC 15948, 11.2.2), which carries its own sum.
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(16), 60_000);
        System.Buffers.Binary.BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(20), 60_000);
        System.Buffers.Binary.BinaryPrimitives.WriteUInt32BigEndian(bytes.AsSpan(29), Sum(bytes.AsSpan(12, 17)));
        Assert.Null(Recognition.Read(bytes));
    }

    // CRC-32 of ISO/IEC 15948, annex D.
    private static uint Sum(ReadOnlySpan<byte> bytes)
    {
        var sum = uint.MaxValue;
        foreach (var b in bytes)
        {
            sum ^= b;
            for (var i = 0; i < 8; i++)
                sum = (sum & 1) == 1 ? 0xEDB88320 ^ (sum >> 1) : sum >> 1;
        }
        return ~sum;
    }

    private static byte[] Picture(int width, int height, string[] lines)
    {
        using var bitmap = new SKBitmap(width, height);
        using var canvas = new SKCanvas(bitmap);
        canvas.Clear(SKColors.White);
        using var stream = typeof(PdfWriter).Assembly.GetManifestResourceStream(
            "Solvenda.Formats.Pdf.Fonts.Archivo-Regular.ttf"
        );
        using var face = SKTypeface.FromStream(stream);
        using var font = new SKFont(face, 34);
        using var ink = new SKPaint { Color = SKColors.Black, IsAntialias = true };
        for (var i = 0; i < lines.Length; i++)
            canvas.DrawText(lines[i], 80, 120 + (i * 80), SKTextAlign.Left, font, ink);
        using var image = SKImage.FromBitmap(bitmap);
        using var data = image.Encode(SKEncodedImageFormat.Png, 90);
        return data.ToArray();
    }
}
