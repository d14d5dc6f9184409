using SkiaSharp;

namespace Solvenda.Bench.Messages;

/// <summary>A table on pages, as one of several makers of PDF draws it.</summary>
internal static class MadePages
{
    private const string Face = "Solvenda.Formats.Pdf.Fonts.Archivo-Regular.ttf";
    private const float Size = 10f;
    private const float Left = 40f;
    private const float Width = 515f;

    // What stands between two cells at least.
    private const float Gap = 12f;

    /// <summary>What a maker does with the words of a cell.</summary>
    private enum Maker
    {
        /// <summary>Draws a cell at once.</summary>
        Plain,

        /// <summary>Draws it twice, a hair apart, to make it look bold.</summary>
        Bold,

        /// <summary>Places every word.</summary>
        Words,

        /// <summary>Places every letter.</summary>
        Letters,
    }

    public static byte[] Of(string name, List<List<string>> rows, Random random)
    {
        var maker = (Maker)random.Next(4);
        // Figures end below each other; a page ends after so many rows, and the next has no head.
        var (isRight, most) = (random.Next(2) == 0, random.Next(3) == 0 ? random.Next(3, 8) : 30);
        using var stream = new MemoryStream();
        using (var pdf = SKDocument.CreatePdf(stream))
        using (var shipped = typeof(Formats.Pdf.PdfWriter).Assembly.GetManifestResourceStream(Face))
        using (var face = SKTypeface.FromStream(shipped))
        using (var font = new SKFont(face, Size))
        using (var paint = new SKPaint())
        {
            var pen = new Pen(font, paint, maker);
            var columns = Columns(rows, font);
            for (var from = 0; from < rows.Count; from += most)
            {
                pen.Canvas = pdf.BeginPage(595f, 842f);
                if (from == 0)
                    pen.Draw(name, Left, 60f);
                var y = from == 0 ? 120f : 60f;
                foreach (var row in rows.Skip(from).Take(most))
                {
                    for (var i = 0; i < row.Count; i++)
                    {
                        var text = Cut(row[i], columns[i].Width, font);
                        var isFigure = isRight && text.Length > 0 && char.IsDigit(text[0]) && i > 0;
                        var x = isFigure
                            ? columns[i].Left + columns[i].Width - font.MeasureText(text)
                            : columns[i].Left;
                        pen.Draw(text, x, y);
                    }
                    y += 18f;
                }
                pdf.EndPage();
            }
            pdf.Close();
        }
        return stream.ToArray();
    }

    // As wide as their widest cell; the widest of them gives way where the page is too narrow.
    private static List<(float Left, float Width)> Columns(List<List<string>> rows, SKFont font)
    {
        var widths = Enumerable
            .Range(0, rows.Max(r => r.Count))
            .Select(i => rows.Where(r => i < r.Count).Max(r => font.MeasureText(r[i])) + Gap)
            .ToList();
        var over = widths.Sum() - Width;
        if (over > 0)
            widths[widths.IndexOf(widths.Max())] -= over;
        var x = Left;
        return widths.ConvertAll(w =>
        {
            var column = (x, w - Gap);
            x += w;
            return column;
        });
    }

    // What does not fit is not drawn over the next cell.
    private static string Cut(string text, float width, SKFont font)
    {
        while (text.Length > 0 && font.MeasureText(text) > width + 0.1f)
            text = text[..^1];
        return text;
    }

    private sealed class Pen(SKFont font, SKPaint paint, Maker maker)
    {
        public SKCanvas Canvas { get; set; } = null!;

        public void Draw(string text, float x, float y)
        {
            switch (maker)
            {
                case Maker.Words:
                    foreach (var word in text.Split(' '))
                    {
                        Canvas.DrawText(word, x, y, SKTextAlign.Left, font, paint);
                        x += font.MeasureText(word + " ");
                    }
                    break;
                case Maker.Letters:
                    for (var i = 0; i < text.Length; i++)
                        Canvas.DrawText(
                            text[i].ToString(),
                            x + font.MeasureText(text[..i]),
                            y,
                            SKTextAlign.Left,
                            font,
                            paint
                        );
                    break;
                default:
                    Canvas.DrawText(text, x, y, SKTextAlign.Left, font, paint);
                    if (maker == Maker.Bold)
                        Canvas.DrawText(text, x + 0.4f, y, SKTextAlign.Left, font, paint);
                    break;
            }
        }
    }
}
