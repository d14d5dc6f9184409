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
    // Tables end where more is left free, in letter sizes.
    private const double Apart = 4;

    // Headings and the rest of wrapped cells stand between rows; more lines than these are text.
    private const int Between = 6;

    /// <param name="sure">How well the words themselves are known.</param>
    public static OriginalPart Part(string name, PartKind kind, IReadOnlyList<PageText> pages, decimal sure = 1m)
    {
        ArgumentNullException.ThrowIfNull(pages);
        var text = new StringBuilder();
        var placed = ImmutableArray.CreateBuilder<PlacedWord>();
        var rows = ImmutableArray.CreateBuilder<ImmutableArray<Cell>>();
        Span[] before = [];
        for (var p = 0; p < pages.Count; p++)
        {
            (var laid, before) = Rows(PageLines.Of(pages[p].Words), before);
            foreach (var row in laid)
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

    // A table may go on from the page before, where its head stands; its cells are under that head's then.
    private static (List<Row> Rows, Span[] Columns) Rows(List<Line> lines, Span[] before)
    {
        var (rows, isFirst) = (new List<Row>(), true);
        for (var at = 0; at < lines.Count; )
        {
            var end = EndOfTable(lines, at);
            if (end == at && lines[at].Boxes.Count < PageLines.Wide)
            {
                rows.Add(new Row([.. lines[at].Boxes.Select(b => new List<Box> { b })]));
                at++;
                continue;
            }
            var table = end == at ? [lines[at]] : lines[at..end];
            var columns = isFirst ? GoingOn(table, before) : null;
            if (columns is not null)
                table = table.ConvertAll(l => l with { Boxes = [.. l.Boxes.SelectMany(b => Cut(b, columns))] });
            else
            {
                table = end == at ? table : Parted(table);
                columns = Columns(table);
            }
            rows.AddRange(PageRows.Together(table, columns).Select(together => RowOf(together, columns)));
            (before, isFirst, at) = (columns, false, Math.Max(end, at + 1));
        }
        return (rows, before);
    }

    // The columns of the page before, where a table begins without a head and each of its words stands under one of
    // them; null where it does not.
    private static Span[]? GoingOn(List<Line> table, Span[] before)
    {
        var first = table.Find(l => l.Boxes.Count >= PageLines.Wide);
        if (
            before.Length < PageLines.Wide
            || first is null
            || !first.Boxes.Exists(b => char.IsDigit(b.Words[0].Text[0]))
        )
            return null;
        var all = before.ToArray();
        foreach (var box in table.SelectMany(l => l.Boxes))
        {
            foreach (var (word, under) in box.Words.Zip(Under(box, before)))
            {
                var span = new Span(word.Left, word.Left + word.Width);
                if (before.Count(c => c.Shared(span) > 0) > 1)
                    return null;
                // Farther to the right than any cell was before.
                if (under + 1 == all.Length || span.Right < all[under + 1].Left)
                    all[under] = all[under].With(span);
            }
        }
        return all;
    }

    // The column of each word of a box: the one above it; where none is, that of the word before.
    private static List<int> Under(Box box, Span[] columns)
    {
        var under = new List<int>();
        foreach (var word in box.Words)
        {
            var span = new Span(word.Left, word.Left + word.Width);
            var at = PageRows.Column(span, columns);
            under.Add(columns[at].Shared(span) > 0 || under.Count == 0 ? at : under[^1]);
        }
        return under;
    }

    private static IEnumerable<Box> Cut(Box box, Span[] columns) =>
        box.Words.Zip(Under(box, columns)).GroupBy(w => w.Second, w => w.First).Select(g => new Box([.. g]));

    // Cells may stand so close that only the rows together tell them apart: where a blank of the head goes on through
    // every row, a column ends.
    private static List<Line> Parted(List<Line> table)
    {
        var first = table.FindIndex(l => l.Boxes.Count >= PageLines.Wide);
        // A head may stand in two lines itself, beside the others.
        var (top, bottom) = (first, first);
        while (top > 0 && table[top].Middle - table[top - 1].Middle < table[top].Size * PageLines.Beside)
            top--;
        while (
            bottom + 1 < table.Count
            && table[bottom + 1].Middle - table[bottom].Middle < table[bottom].Size * PageLines.Beside
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
                right - left > table[first].Size * PageLines.NextCell
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
                columns[PageRows.Column(span, columns)] = columns[PageRows.Column(span, columns)].With(span);
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
                    lines[i].Boxes.Count >= PageLines.Wide
                    && (i == from || lines[i].Middle - lines[from].Middle < lines[i].Size * PageLines.Beside),
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
            if (lines[i].Boxes.Count < PageLines.Wide)
                continue;
            last = i;
            wide++;
        }
        while (
            last + 1 < lines.Count && lines[last + 1].Middle - lines[last].Middle <= lines[last].Size * PageLines.Tight
        )
            last++;
        return wide > 1 ? last + 1 : from;
    }

    private static Row RowOf(List<Line> lines, Span[] columns)
    {
        var cells = new List<Box>[columns.Length];
        foreach (var box in lines.SelectMany(l => l.Boxes))
            (cells[PageRows.Column(box.Span, columns)] ??= []).Add(box);
        return new Row(cells);
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
                    var (left, top, width, height) =
                        word.Shown
                        ?? (
                            word.Left / page.Width,
                            word.Top / page.Height,
                            word.Width / page.Width,
                            word.Height / page.Height
                        );
                    placed.Add(new PlacedWord(text.Length, word.Text.Length, number, left, top, width, height));
                    text.Append(word.Text);
                }
            }
            cells.Add(new Cell(text.ToString(start, text.Length - start), start, text.Length - start));
        }
        return cells.ToImmutable();
    }
}
