using System.Collections.Immutable;
using System.Text;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Tables;

/// <summary>
/// Rows of cells as a part of a message: its text is the rows, a tab between cells, and every cell knows where it
/// stands in it.
/// </summary>
public static class Grid
{
    public static OriginalPart Part(string name, IEnumerable<IReadOnlyList<string>> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        var text = new StringBuilder();
        var cells = ImmutableArray.CreateBuilder<ImmutableArray<Cell>>();
        foreach (var row in rows)
        {
            var line = ImmutableArray.CreateBuilder<Cell>(row.Count);
            for (var i = 0; i < row.Count; i++)
            {
                if (i > 0)
                    text.Append('\t');
                var plain = row[i].Replace('\t', ' ').ReplaceLineEndings(" ").Trim();
                line.Add(new Cell(plain, text.Length, plain.Length));
                text.Append(plain);
            }
            cells.Add(line.ToImmutable());
            text.Append('\n');
        }
        return new OriginalPart(name, PartKind.Table, text.ToString()) { Rows = cells.ToImmutable() };
    }

    /// <summary>
    /// The rows of a text whose lines are cut by tabs, upright strokes, or several blanks; empty where hardly any line
    /// is.
    /// </summary>
    public static ImmutableArray<ImmutableArray<Cell>> OfText(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var rows = ImmutableArray.CreateBuilder<ImmutableArray<Cell>>();
        var at = 0;
        foreach (var line in text.Split('\n'))
        {
            rows.Add(Cells(line, at));
            at += line.Length + 1;
        }
        return rows.Count(r => r.Length > 1) >= 2 ? rows.ToImmutable() : [];
    }

    private static ImmutableArray<Cell> Cells(string line, int offset)
    {
        var cells = ImmutableArray.CreateBuilder<Cell>();
        void Add(int from, int to)
        {
            while (from < to && (char.IsWhiteSpace(line[from]) || line[from] == '|'))
                from++;
            while (to > from && (char.IsWhiteSpace(line[to - 1]) || line[to - 1] == '|'))
                to--;
            cells.Add(new Cell(line[from..to], offset + from, to - from));
        }
        var strokes = line.Contains('|', StringComparison.Ordinal);
        var tabs = line.Contains('\t', StringComparison.Ordinal);
        var start = strokes && line.TrimStart().StartsWith('|') ? line.IndexOf('|', StringComparison.Ordinal) + 1 : 0;
        for (var i = start; i < line.Length; i++)
        {
            var cut =
                strokes ? line[i] == '|'
                : tabs ? line[i] == '\t'
                : i + 2 < line.Length && line[i] == ' ' && line[i + 1] == ' ' && i > start;
            if (!cut)
                continue;
            Add(start, i);
            while (!strokes && !tabs && i + 1 < line.Length && line[i + 1] == ' ')
                i++;
            start = i + 1;
        }
        if (start < line.Length)
            Add(start, line.Length);
        return cells.ToImmutable();
    }
}
