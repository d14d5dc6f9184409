using System.Reflection;
using SkiaSharp;

namespace Solvenda.Formats.Pdf;

/// <summary>The faces and inks of printed papers, and how words are set in them; points (1/72 inch).</summary>
internal static class Type
{
    public static readonly SKColor Ink = new(0x1C, 0x20, 0x24);
    public static readonly SKColor Second = new(0x5E, 0x62, 0x5F);
    public static readonly SKColor Hairline = new(0xC9, 0xC2, 0xB1);

    public static readonly Lazy<SKTypeface> Sans = new(() => Face("Archivo-Regular"));
    public static readonly Lazy<SKTypeface> Bold = new(() => Face("Archivo-SemiBold"));
    public static readonly Lazy<SKTypeface> Serif = new(() => Face("Newsreader-Regular"));
    public static readonly Lazy<SKTypeface> Italic = new(() => Face("Newsreader-Italic"));
    public static readonly Lazy<SKTypeface> Mono = new(() => Face("JetBrainsMono-Regular"));

    public static void Text(SKCanvas canvas, string text, float x, float y, SKTypeface face, float size, SKColor color)
    {
        using var font = FontOf(face, size);
        using var paint = new SKPaint { Color = color, IsAntialias = true };
        canvas.DrawText(text, x, y, SKTextAlign.Left, font, paint);
    }

    public static void Rule(SKCanvas canvas, float from, float to, float y, float width, SKColor color)
    {
        using var paint = new SKPaint
        {
            Color = color,
            StrokeWidth = width,
            IsStroke = true,
        };
        canvas.DrawLine(from, y, to, y, paint);
    }

    public static float Width(string text, SKTypeface face, float size)
    {
        using var font = FontOf(face, size);
        return font.MeasureText(text);
    }

    /// <summary>Lines that are no wider, broken between words.</summary>
    public static IEnumerable<string> Wrap(string text, SKTypeface face, float size, float width)
    {
        var line = "";
        foreach (var word in text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && Width(longer, face, size) > width)
            {
                yield return line;
                longer = word;
            }
            line = longer;
        }
        if (line.Length > 0)
            yield return line;
    }

    private static SKFont FontOf(SKTypeface face, float size) =>
        new(face, size)
        {
            Subpixel = true,
            LinearMetrics = true,
            Hinting = SKFontHinting.None,
        };

    private static SKTypeface Face(string name)
    {
        using var font =
            Assembly.GetExecutingAssembly().GetManifestResourceStream($"Solvenda.Formats.Pdf.Fonts.{name}.ttf")
            ?? throw new InvalidOperationException($"The font {name} is not in the assembly.");
        return SKTypeface.FromStream(font) ?? throw new InvalidOperationException($"The font {name} cannot be read.");
    }
}
