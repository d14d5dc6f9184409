namespace Solvenda.Formats.Pdf;

/// <summary>Words without a wide gap between them.</summary>
internal sealed record Box(List<PageWord> Words)
{
    public Span Span => new(Words[0].Left, Words[^1].Left + Words[^1].Width);
}

/// <summary>How far a box or a column reaches from left to right.</summary>
internal readonly record struct Span(double Left, double Right)
{
    public double Shared(Span other) => Math.Min(Right, other.Right) - Math.Max(Left, other.Left);

    public Span With(Span other) => new(Math.Min(Left, other.Left), Math.Max(Right, other.Right));
}

internal sealed record Line(double Middle, double Size, List<Box> Boxes);

/// <summary>The boxes of a row by column; one below the other where a cell has several.</summary>
internal sealed record Row(List<Box>[] Columns);

/// <summary>The lines of a page: words whose middles are on one height, from left to right.</summary>
internal static class PageLines
{
    // In letter sizes. A blank is a quarter of one; the margins of two cells that meet are at least half of one.
    private const double SameLine = 0.3;
    public const double NextCell = 0.45;

    // Lines nearer than this stand beside each other.
    public const double Beside = 0.85;

    // Lines of one paragraph stand at most so far apart.
    public const double Tight = 1.45;

    // Fewer cells than this in a line are a label and its value.
    public const int Wide = 3;

    public static List<Line> Of(IReadOnlyList<PageWord> words)
    {
        var lines = new List<(double Sum, double Size, List<PageWord> Words)>();
        foreach (
            var word in words
                .Where(w =>
                    w.Text.Trim().Length > 0 && double.IsFinite(w.Top) && double.IsFinite(w.Left) && w.Height > 0
                )
                .OrderBy(Middle)
        )
        {
            if (
                lines.Count > 0
                && lines[^1] is var (sum, size, line)
                && Math.Abs((sum / line.Count) - Middle(word)) <= Math.Min(size, word.Height) * SameLine
            )
            {
                line.Add(word);
                lines[^1] = (sum + Middle(word), Math.Max(size, word.Height), line);
            }
            else
                lines.Add((Middle(word), word.Height, [word]));
        }
        return
        [
            .. lines.Select(l => new Line(l.Sum / l.Words.Count, l.Size, Boxes([.. l.Words.OrderBy(w => w.Left)]))),
        ];
    }

    private static double Middle(PageWord word) => word.Top + (word.Height / 2);

    private static List<Box> Boxes(List<PageWord> line)
    {
        var boxes = new List<Box>();
        foreach (var word in line)
        {
            var size = Math.Max(word.Height, boxes.Count > 0 ? boxes[^1].Words[^1].Height : word.Height);
            if (boxes.Count > 0 && word.Left - boxes[^1].Span.Right <= Math.Max(size * NextCell, 2.5))
                boxes[^1].Words.Add(word);
            else
                boxes.Add(new Box([word]));
        }
        return boxes;
    }
}
