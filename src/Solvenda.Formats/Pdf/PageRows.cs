namespace Solvenda.Formats.Pdf;

/// <summary>
/// The rows of a table whose cells may go on in several lines: which lines belong together, and to which column a piece
/// belongs.
/// </summary>
internal static class PageRows
{
    // Lines of one cell are evenly apart, as far as this.
    private const double Even = 1.06;

    // Lines that stand close together with only one among them that fills the columns are one row. Where all stand
    // equally close, each line is a row of its own.
    public static IEnumerable<List<Line>> Together(List<Line> table, Span[] columns)
    {
        for (var at = 0; at < table.Count; )
        {
            var next = at + 1;
            while (
                next < table.Count
                && table[next].Middle - table[next - 1].Middle
                    <= Math.Min(table[next].Size, table[next - 1].Size) * PageLines.Tight
            )
                next++;
            var close = table[at..next];
            if (IsRow(close, columns))
                yield return close;
            else
            {
                // Between rows there may be hardly more room than between the lines of a cell.
                var closer = Closer(close);
                foreach (
                    var row in closer.Count > 1 && closer.TrueForAll(c => IsRow(c, columns))
                        ? closer
                        : Overlapping(close)
                )
                    yield return row;
            }
            at = next;
        }
    }

    private static bool IsRow(List<Line> close, Span[] columns) =>
        close.Count == 1
        || (
            close.Count(l => l.Boxes.Count >= PageLines.Wide && IsFull(l, close)) <= 1
            && close.TrueForAll(l => Fits(l, columns))
        );

    private static List<List<Line>> Closer(List<Line> lines)
    {
        double Pitch(int i) => lines[i].Middle - lines[i - 1].Middle;
        var apart = Enumerable
            .Range(1, lines.Count - 1)
            .Where(i => Pitch(i) >= Math.Min(lines[i].Size, lines[i - 1].Size) * PageLines.Beside)
            .Select(Pitch)
            .ToList();
        if (apart.Count == 0)
            return [lines];
        var within = apart.Min() * Even;
        var groups = new List<List<Line>> { new() { lines[0] } };
        for (var i = 1; i < lines.Count; i++)
        {
            if (Pitch(i) > within)
                groups.Add([]);
            groups[^1].Add(lines[i]);
        }
        return groups;
    }

    // A wrapped row has lines that hold only some of what its fullest line holds.
    private static bool IsFull(Line line, List<Line> close) => line.Boxes.Count * 2 > close.Max(l => l.Boxes.Count);

    private static IEnumerable<List<Line>> Overlapping(List<Line> lines)
    {
        var row = new List<Line>();
        foreach (var line in lines)
        {
            if (row.Count > 0 && line.Middle - row[^1].Middle >= Math.Min(line.Size, row[^1].Size) * PageLines.Beside)
            {
                yield return row;
                row = [];
            }
            row.Add(line);
        }
        if (row.Count > 0)
            yield return row;
    }

    // A heading between rows runs over the columns; the words of a cell stay within theirs.
    private static bool Fits(Line line, Span[] columns) =>
        line.Boxes.All(b =>
        {
            var at = Column(b.Span, columns);
            return (at + 1 >= columns.Length || b.Span.Right <= columns[at + 1].Left + 1)
                && (at == 0 || b.Span.Left >= columns[at - 1].Right - 1);
        });

    // The column that the box overlaps most, else the one that is nearest to it.
    public static int Column(Span box, Span[] columns)
    {
        var (best, score) = (0, double.MinValue);
        for (var c = 0; c < columns.Length; c++)
        {
            // Less than nothing is shared with what stands apart: the gap between.
            if (columns[c].Shared(box) is var shared && shared > score)
                (best, score) = (c, shared);
        }
        return best;
    }
}
