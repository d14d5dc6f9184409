using System.Text;
using UglyToad.PdfPig.Content;
using UglyToad.PdfPig.Util;

namespace Solvenda.Formats.Pdf;

/// <summary>
/// The words of a page as they are read: letters that are drawn twice to look bold count once, and a page that is
/// turned is turned back.
/// </summary>
internal static class PdfWords
{
    // In widths of the letter: what is drawn again so near is the same.
    private const double Again = 0.35;

    // In sizes of the letter: letters farther apart are of two words. A blank that is not drawn is a fifth of narrow
    // faces; letters of one word are hardly apart.
    private const double NextWord = 0.15;

    // In sizes of the letter: base lines nearer than this are one line.
    private const double OnLine = 0.3;

    // A line has no more of one letter than this; beyond, it is no text.
    private const int MostAlike = 400;

    /// <param name="most">Words beyond are not read.</param>
    public static PageText Of(Page page, int most)
    {
        var letters = Once(page.Letters);
        var turn = letters
            .Where(l => l.Value.Trim().Length > 0)
            .GroupBy(l => l.TextOrientation)
            .OrderByDescending(g => g.Count())
            .Select(g => g.Key)
            .FirstOrDefault(TextOrientation.Horizontal);
        if (turn is TextOrientation.Rotate90 or TextOrientation.Rotate180 or TextOrientation.Rotate270)
            return Turned(page, [.. letters.Where(l => l.TextOrientation == turn)], turn, most);
        var (plain, odd) = (letters.FindAll(IsPlain), letters.FindAll(l => !IsPlain(l)));
        var words = Pieces(
                plain.ConvertAll(l => new Read(l, l.StartBaseLine.X, page.Height - l.StartBaseLine.Y, l.PointSize))
            )
            .Select(of => WordOf(of) with { Shown = null })
            .Concat(DefaultWordExtractor.Instance.GetWords(odd).Select(w => Placed(w, page.Height)))
            .Take(most);
        return new PageText(page.Width, page.Height, [.. words]);
    }

    // Upright, and of a size that says how large it is.
    private static bool IsPlain(Letter letter) =>
        letter.TextOrientation == TextOrientation.Horizontal
        && letter.PointSize > 1
        && letter.PointSize < Math.Max(1, letter.BoundingBox.Height) * 12;

    // Letters by what they say and the line they stand on, so that each is compared with a few.
    private static List<Letter> Once(IReadOnlyList<Letter> letters)
    {
        var seen = new Dictionary<(string, long), List<double>>();
        var once = new List<Letter>(letters.Count);
        foreach (var letter in letters)
        {
            var stands = letter.TextOrientation is TextOrientation.Rotate90 or TextOrientation.Rotate270;
            var (x, y) = (letter.StartBaseLine.X, letter.StartBaseLine.Y);
            var (along, across) = stands ? (y, x) : (x, y);
            var near = Math.Max(0.6, Width(letter) * Again);
            var line = (long)Math.Round(across / (Math.Max(1, letter.PointSize) * 0.2));
            var isAgain = false;
            for (var l = line - 1; l <= line + 1 && !isAgain; l++)
                isAgain =
                    seen.TryGetValue((letter.Value, l), out var others)
                    && others.Exists(o => Math.Abs(o - along) < near);
            if (isAgain && letter.Value.Trim().Length > 0)
                continue;
            if (!seen.TryGetValue((letter.Value, line), out var at))
                seen[(letter.Value, line)] = at = [];
            if (at.Count < MostAlike)
                at.Add(along);
            once.Add(letter);
        }
        return once;
    }

    private static double Width(Letter letter)
    {
        var (from, to) = (letter.StartBaseLine, letter.EndBaseLine);
        return Math.Abs(to.X - from.X) + Math.Abs(to.Y - from.Y);
    }

    // As high as its letters' size and not as what is drawn of them, so that "mm" and "Qty" stand on one height.
    private static PageWord Placed(Word word, double pageHeight)
    {
        var box = word.BoundingBox;
        var letter = word.Letters[0];
        var (size, drawn) = (letter.PointSize, box.Height);
        // Letters that are turned, or whose size says nothing, are taken as they are drawn.
        var plain = word.TextOrientation == TextOrientation.Horizontal && size > 1 && size < drawn * 4;
        var (top, height) = plain
            ? (pageHeight - letter.StartBaseLine.Y - (size * 0.8), size)
            : (pageHeight - box.Top, drawn);
        return new PageWord(word.Text.Normalize(NormalizationForm.FormKC), box.Left, top, box.Width, height);
    }

    // One letter on the page as it is read: how far along its line, and where its line is from the top.
    private readonly record struct Read(Letter Letter, double Along, double Line, double Size)
    {
        public double End => Along + Width(Letter);
    }

    private static PageText Turned(Page page, List<Letter> letters, TextOrientation turn, int most)
    {
        var words = Pieces(letters.ConvertAll(l => OnTurned(l, page, turn)))
            .Select(of => WordOf(of) with { Shown = Shown(of, page) })
            .Take(most)
            .ToList();
        return turn == TextOrientation.Rotate180
            ? new PageText(page.Width, page.Height, words)
            : new PageText(page.Height, page.Width, words);
    }

    // Letters as words, line by line; letters whose base lines hardly differ stand on one.
    private static IEnumerable<List<Read>> Pieces(List<Read> letters)
    {
        var lines = new List<List<Read>>();
        foreach (var letter in letters.OrderBy(l => l.Line))
        {
            if (lines.Count > 0 && letter.Line - lines[^1][0].Line < Math.Min(letter.Size, lines[^1][0].Size) * OnLine)
                lines[^1].Add(letter);
            else
                lines.Add([letter]);
        }
        foreach (var line in lines)
        {
            line.Sort((a, b) => a.Along.CompareTo(b.Along));
            for (var at = 0; at < line.Count; )
            {
                var next = at + 1;
                while (next < line.Count && Joins(line[next - 1], line[next]))
                    next++;
                var of = line[at..next];
                at = next;
                if (of.Exists(r => r.Letter.Value.Trim().Length > 0))
                    yield return of;
            }
        }
    }

    private static bool Joins(Read one, Read next) =>
        next.Along - one.End < Math.Max(one.Size, next.Size) * NextWord
        && next.Letter.Value.Trim().Length > 0
        && one.Letter.Value.Trim().Length > 0;

    private static PageWord WordOf(List<Read> of)
    {
        var size = of.Max(r => r.Size);
        return new PageWord(
            string.Concat(of.Select(r => r.Letter.Value)).Trim().Normalize(NormalizationForm.FormKC),
            of[0].Along,
            of[0].Line - (size * 0.8),
            of[^1].End - of[0].Along,
            size
        );
    }

    private static (double, double, double, double) Shown(List<Read> of, Page page)
    {
        var boxes = of.ConvertAll(r => r.Letter.BoundingBox);
        var xs = boxes.SelectMany(b => new[] { b.TopLeft.X, b.BottomRight.X }).ToList();
        var ys = boxes.SelectMany(b => new[] { b.TopLeft.Y, b.BottomRight.Y }).ToList();
        return (
            xs.Min() / page.Width,
            (page.Height - ys.Max()) / page.Height,
            (xs.Max() - xs.Min()) / page.Width,
            (ys.Max() - ys.Min()) / page.Height
        );
    }

    // Text that runs down the page has its next line to the left; up the page, to the right.
    private static Read OnTurned(Letter letter, Page page, TextOrientation turn)
    {
        var at = letter.StartBaseLine;
        var (along, line) = turn switch
        {
            TextOrientation.Rotate90 => (page.Height - at.Y, page.Width - at.X),
            TextOrientation.Rotate270 => (at.Y, at.X),
            _ => (page.Width - at.X, at.Y),
        };
        return new Read(letter, along, line, Math.Max(1, letter.PointSize));
    }
}
