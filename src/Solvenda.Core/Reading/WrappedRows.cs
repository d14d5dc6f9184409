using System.Collections.Immutable;

namespace Solvenda.Core.Reading;

/// <summary>
/// On pages, the words of a row may stand above and below its numbers, or go on below them; it is one row all the same.
/// </summary>
internal static class WrappedRows
{
    /// <summary>The rows of a table, each whole.</summary>
    public static ImmutableArray<ImmutableArray<Cell>> Joined(
        ImmutableArray<ImmutableArray<Cell>> body,
        ImmutableDictionary<int, string> columns
    )
    {
        var words = columns.Where(c => c.Value == "words").Select(c => (int?)c.Key).Min();
        if (words is not { } at)
            return body;
        bool Alone(ImmutableArray<Cell> row) =>
            at < row.Length
            && row[at].Text.Length > 0
            && row.Count(c => c.Text.Length > 0) == 1
            && !CellText.IsTotal(row[at].Text);
        bool Counts(ImmutableArray<Cell> row) =>
            columns.Any(c => c.Value == "quantity" && c.Key < row.Length && CellText.IsNumber(row[c.Key].Text));
        var rows = ImmutableArray.CreateBuilder<ImmutableArray<Cell>>();
        for (var i = 0; i < body.Length; i++)
        {
            var row = body[i];
            var wordless = at < row.Length && row[at].Text.Length == 0;
            if (Counts(row) && wordless && rows.Count > 0 && Alone(rows[^1]))
            {
                row = row.SetItem(at, rows[^1][at]);
                rows.RemoveAt(rows.Count - 1);
            }
            while (
                Counts(row)
                && i + 1 < body.Length
                && Alone(body[i + 1])
                && !(
                    i + 2 < body.Length
                    && Counts(body[i + 2])
                    && at < body[i + 2].Length
                    && body[i + 2][at].Text.Length == 0
                )
            )
            {
                i++;
                row = row.SetItem(at, row[at] with { Text = $"{row[at].Text} {body[i][at].Text}".Trim() });
            }
            rows.Add(row);
        }
        return rows.ToImmutable();
    }
}
