using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Pdf;

/// <summary>
/// Lays the words of pages out as text, a tab where a cell ends, with the place of every word; and finds the rows of
/// tables.
/// A row may stand in several lines: the words of a cell that goes on above or below the others come together again.
/// </summary>
public static class PageLayout
{
    // All in letter sizes. A blank is a quarter of one; the margins of two cells that meet are at least half of one.
    private const double SameLine = 0.3;
    private const double NextCell = 0.45;

    // Lines nearer than this stand beside each other; lines of one paragraph stand at most so far apart; tables end
    // where more is left free.
    private const double Beside = 0.85;
    private const double Tight = 1.45;

    // Lines of one cell are evenly apart, as far as this.
    private const double Even = 1.06;
    private const double Apart = 4;

    // Headings and the rest of wrapped cells stand between rows; more lines than these are text.
    private const int Between = 6;

    // Fewer cells than this in a line are a label and its value.
    private const int Wide = 3;

    /// <param name="sure">How well the words themselves are known.</param>
    public static OriginalPart Part(string name, PartKind kind, IReadOnlyList<PageText> pages, decimal sure = 1m)
    {
        ArgumentNullException.ThrowIfNull(pages);
        var text = new StringBuilder();
        var placed = ImmutableArray.CreateBuilder<PlacedWord>();
        var rows = ImmutableArray.CreateBuilder<ImmutableArray<Cell>>();
        for (var p = 0; p < pages.Count; p++)
        {
            foreach (var row in Rows(Lines(pages[p].Words)))
            {
                rows.Add(Written(row, pages[p], p, text, placed));
                text.Append('\n');
            }
            text.Append('\n');
        }
        return new OriginalPart(name, kind, text.ToString())
        {
            Words = placed.ToImmutable(),
            Rows = rows.Count(r => r.Count(c => c.Text.Length > 0) > 2) >= 2 ? rows.ToImmutable() : [],
            Pages = pages.Count,
            Sure = sure,
        };
    }

    /// <summary>Words without a wide gap between them.</summary>
    private sealed record Box(List<PageWord> Words)
    {
        public Span Span => new(Words[0].Left, Words[^1].Left + Words[^1].Width);
    }

    /// <summary>How far a box or a column reaches from left to right.</summary>
    private readonly record struct Span(double Left, double Right)
    {
        public double Shared(Span other) => Math.Min(Right, other.Right) - Math.Max(Left, other.Left);

        public Span With(Span other) => new(Math.Min(Left, other.Left), Math.Max(Right, other.Right));
    }

    private sealed record Line(double Middle, double Size, List<Box> Boxes);

    /// <summary>The boxes of a row by column; one below the other where a cell has several.</summary>
    private sealed record Row(List<Box>[] Columns);

    // Words whose middles are on one height are a line, from left to right.
    private static List<Line> Lines(IReadOnlyList<PageWord> words)
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

    private static IEnumerable<Row> Rows(List<Line> lines)
    {
        for (var at = 0; at < lines.Count; )
        {
            var end = EndOfTable(lines, at);
            if (end == at)
            {
                yield return new Row([.. lines[at].Boxes.Select(b => new List<Box> { b })]);
                at++;
                continue;
            }
            var table = Parted(lines[at..end]);
            var columns = Columns(table);
            foreach (var together in Together(table, columns))
                yield return RowOf(together, columns);
            at = end;
        }
    }

    // Cells may stand so close that only the rows together tell them apart: where a blank of the head goes on through
    // every row, a column ends.
    private static List<Line> Parted(List<Line> table)
    {
        var first = table.FindIndex(l => l.Boxes.Count >= Wide);
        // A head may stand in two lines itself, beside the others.
        var (top, bottom) = (first, first);
        while (top > 0 && table[top].Middle - table[top - 1].Middle < table[top].Size * Beside)
            top--;
        while (
            bottom + 1 < table.Count && table[bottom + 1].Middle - table[bottom].Middle < table[bottom].Size * Beside
        )
            bottom++;
        var head = Merged(
            table[top..(bottom + 1)]
                .SelectMany(l => l.Boxes)
                .SelectMany(b => b.Words)
                .Select(w => new Span(w.Left, w.Left + w.Width))
        );
        var rows = table.Where((l, i) => (i < top || i > bottom) && l.Boxes.Count > 1).Select(l => l.Boxes).ToList();
        var words = rows.SelectMany(r => r)
            .SelectMany(b => b.Words)
            .Select(w => new Span(w.Left, w.Left + w.Width))
            .ToList();
        var ends = new List<double>();
        for (var i = 0; i + 1 < head.Count; i++)
        {
            var (left, right) = (head[i].Right, head[i + 1].Left);
            if (FreeIn(left, right, words) is not { } free)
                continue;
            // Between the words of one head nothing ends, unless rows have something on both sides.
            var at = (free.Left + free.Right) / 2;
            if (
                right - left > table[first].Size * NextCell
                || rows.Any(r => r.Any(b => b.Words[0].Left < at && b.Span.Right > at))
                || rows.Any(r =>
                    AreBoth(r, at, table[first].Boxes.Select(b => b.Span).FirstOrDefault(s => s.Right > at))
                )
            )
                ends.Add(at);
        }
        return
        [
            .. table.Select(l => l.Boxes.Count > 1 ? l with { Boxes = [.. l.Boxes.SelectMany(b => Cut(b, ends))] } : l),
        ];
    }

    // What stands over each other is one.
    private static List<Span> Merged(IEnumerable<Span> spans)
    {
        var merged = new List<Span>();
        foreach (var span in spans.OrderBy(s => s.Left))
        {
            if (merged.Count > 0 && merged[^1].Shared(span) > 0)
                merged[^1] = merged[^1].With(span);
            else
                merged.Add(span);
        }
        return merged;
    }

    // Two cells of a row under what looks like one head.
    private static bool AreBoth(List<Box> row, double at, Span head) =>
        row.FindLastIndex(b => b.Span.Right <= at) is >= 0 and var left
        && left + 1 < row.Count
        && row[left].Span.Shared(head) > 0
        && row[left + 1].Span.Shared(head) > 0;

    // The widest piece between two places that no word stands in.
    private static Span? FreeIn(double left, double right, List<Span> words)
    {
        Span? best = null;
        var from = left;
        foreach (
            var word in words
                .Where(w => w.Right > left && w.Left < right)
                .OrderBy(w => w.Left)
                .Append(new Span(right, right))
        )
        {
            if (word.Left > from && (best is not { } b || word.Left - from > b.Right - b.Left))
                best = new Span(from, word.Left);
            from = Math.Max(from, word.Right);
        }
        return best;
    }

    private static IEnumerable<Box> Cut(Box box, List<double> ends) =>
        box.Words.GroupBy(w => ends.Count(e => e < w.Left + (w.Width / 2))).Select(g => new Box([.. g]));

    // The line with the most cells tells where the columns are, those below and above it how far they reach: a head may
    // stand in the middle over its words.
    private static Span[] Columns(List<Line> table)
    {
        Span[] columns = [.. table.MaxBy(l => l.Boxes.Count)!.Boxes.Select(b => b.Span)];
        foreach (
            var span in table
                .Where(l => l.Boxes.Count > 1)
                .SelectMany(l => l.Boxes)
                .Select(b => b.Span)
                .OrderByDescending(s => s.Right - s.Left)
        )
        {
            // What runs over two is a heading, or says nothing.
            if (columns.Count(c => c.Shared(span) > 0) <= 1)
                columns[Column(span, columns)] = columns[Column(span, columns)].With(span);
        }
        return columns;
    }

    // From a line over wide ones to the last wide one, or what belongs to it; the same where no table begins.
    private static int EndOfTable(List<Line> lines, int from)
    {
        var first = Enumerable
            .Range(from, Math.Min(2, lines.Count - from))
            .FirstOrDefault(
                i =>
                    lines[i].Boxes.Count >= Wide
                    && (i == from || lines[i].Middle - lines[from].Middle < lines[i].Size * Beside),
                -1
            );
        if (first < 0)
            return from;
        var (last, wide) = (first, 1);
        for (
            var i = first + 1;
            i < lines.Count && i - last <= Between && lines[i].Middle - lines[i - 1].Middle < lines[i].Size * Apart;
            i++
        )
        {
            if (lines[i].Boxes.Count < Wide)
                continue;
            last = i;
            wide++;
        }
        while (last + 1 < lines.Count && lines[last + 1].Middle - lines[last].Middle <= lines[last].Size * Tight)
            last++;
        return wide > 1 ? last + 1 : from;
    }

    // Lines that stand close together with only one among them that fills the columns are one row. Where all stand
    // equally close, each line is a row of its own.
    private static IEnumerable<List<Line>> Together(List<Line> table, Span[] columns)
    {
        for (var at = 0; at < table.Count; )
        {
            var next = at + 1;
            while (
                next < table.Count
                && table[next].Middle - table[next - 1].Middle
                    <= Math.Min(table[next].Size, table[next - 1].Size) * Tight
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
            close.Count(l => l.Boxes.Count >= Wide && IsFull(l, close)) <= 1 && close.TrueForAll(l => Fits(l, columns))
        );

    private static List<List<Line>> Closer(List<Line> lines)
    {
        double Pitch(int i) => lines[i].Middle - lines[i - 1].Middle;
        var apart = Enumerable
            .Range(1, lines.Count - 1)
            .Where(i => Pitch(i) >= Math.Min(lines[i].Size, lines[i - 1].Size) * Beside)
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
            if (row.Count > 0 && line.Middle - row[^1].Middle >= Math.Min(line.Size, row[^1].Size) * Beside)
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

    private static Row RowOf(List<Line> lines, Span[] columns)
    {
        var cells = new List<Box>[columns.Length];
        foreach (var box in lines.SelectMany(l => l.Boxes))
            (cells[Column(box.Span, columns)] ??= []).Add(box);
        return new Row(cells);
    }

    // The column that the box overlaps most, else the one that is nearest to it.
    private static int Column(Span box, Span[] columns)
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

    private static ImmutableArray<Cell> Written(
        Row row,
        PageText page,
        int number,
        StringBuilder text,
        ImmutableArray<PlacedWord>.Builder placed
    )
    {
        var cells = ImmutableArray.CreateBuilder<Cell>(row.Columns.Length);
        var begun = false;
        foreach (var column in row.Columns)
        {
            if (column is null)
            {
                cells.Add(new Cell("", text.Length, 0));
                continue;
            }
            if (begun)
                text.Append('\t');
            begun = true;
            var start = text.Length;
            foreach (var box in column)
            {
                foreach (var word in box.Words)
                {
                    // A code that was broken behind its hyphen is whole again.
                    var broken =
                        word == box.Words[0]
                        && text.Length > start + 1
                        && text[^1] == '-'
                        && char.IsLetterOrDigit(text[^2])
                        && char.IsLetterOrDigit(word.Text[0]);
                    if (text.Length > start && !broken)
                        text.Append(' ');
                    placed.Add(
                        new PlacedWord(
                            text.Length,
                            word.Text.Length,
                            number,
                            word.Left / page.Width,
                            word.Top / page.Height,
                            word.Width / page.Width,
                            word.Height / page.Height
                        )
                    );
                    text.Append(word.Text);
                }
            }
            cells.Add(new Cell(text.ToString(start, text.Length - start), start, text.Length - start));
        }
        return cells.ToImmutable();
    }
}
