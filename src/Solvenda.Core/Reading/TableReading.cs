using System.Collections.Immutable;
using System.Globalization;

namespace Solvenda.Core.Reading;

/// <summary>
/// Finds the tables in rows of cells and reads their lines.
/// Rows above the head, headings between lines, and totals below are told apart.
/// </summary>
public static class TableReading
{
    /// <summary>What a column can mean.</summary>
    public static readonly ImmutableArray<string> Meanings =
    [
        "code",
        "buyersCode",
        "gtin",
        "words",
        "quantity",
        "unit",
        "price",
        "priceBase",
        "amount",
        "wanted",
        "note",
        "number",
    ];

    /// <summary>Lines with what they stand in; and what the rows said beside.</summary>
    public sealed record Found(
        ImmutableArray<StatedLine> Lines,
        Stated<decimal>? Goods,
        ImmutableArray<string> Warnings,
        ImmutableArray<(int Row, string Heads, ImmutableDictionary<int, string> Columns)> Tables
    )
    {
        /// <summary>Nothing was found.</summary>
        public static readonly Found Nothing = new([], null, [], []);
    }

    /// <param name="part">Which part of the message the rows are.</param>
    /// <param name="sender">Whose tables they are, for what was said about them before.</param>
    /// <param name="kind">Of running text, rows without a head are no table; on pages, a cell may go on in the lines
    /// above and below its row.</param>
    public static Found Read(
        ImmutableArray<ImmutableArray<Cell>> rows,
        int part,
        string sender,
        DateOnly written,
        Language language,
        ReadingContext context,
        PartKind kind
    )
    {
        ArgumentNullException.ThrowIfNull(context);
        ArgumentNullException.ThrowIfNull(language);
        var read = new Body();
        var tables = ImmutableArray.CreateBuilder<(int, string, ImmutableDictionary<int, string>)>();
        for (var at = 0; at < rows.Length; )
        {
            var head = TableColumns.FindHead(rows, at, sender, context);
            // No head at all: what stands in the columns tells, once, from the top.
            if (head < 0 && (tables.Count > 0 || kind == PartKind.Letter))
                break;
            var columns =
                head < 0 ? ColumnContents.Of(rows, context) : TableColumns.OfHead(rows[head], sender, context);
            if (!TableColumns.Serves(columns))
                break;
            tables.Add((head, head >= 0 ? HeadsOf(rows[head]) : "", columns));
            var first = head < 0 ? 0 : head + 1;
            var end = TableColumns.EndOf(rows, first, sender, context);
            var body = kind is PartKind.Pages or PartKind.Picture
                ? WrappedRows.Joined(rows[first..end], columns)
                : rows[first..end];
            read.Add(body, TableOf(body, part, columns, written, language));
            at = Math.Max(end, first);
            if (head < 0)
                break;
        }
        return read.Found(tables.ToImmutable());
    }

    private static Table TableOf(
        ImmutableArray<ImmutableArray<Cell>> body,
        int part,
        ImmutableDictionary<int, string> columns,
        DateOnly written,
        Language language
    )
    {
        var forms = columns
            .Where(c => c.Value is "quantity" or "price" or "amount" or "priceBase")
            .ToDictionary(
                c => c.Key,
                c => NumberForm.Of(body.Where(r => c.Key < r.Length).Select(r => CellText.Figures(r[c.Key].Text)))
            );
        var whole = NumberForm.Of(forms.Values.Where(f => f.Sign is not null).Select(f => $"0{f.Sign}5"));
        return new Table(part, columns, forms, whole, written, language, TableRow.DayFirst(body, columns));
    }

    // What the rows of all tables gave so far.
    private sealed class Body
    {
        private readonly ImmutableArray<StatedLine>.Builder _lines = ImmutableArray.CreateBuilder<StatedLine>();
        private readonly ImmutableArray<string>.Builder _warnings = ImmutableArray.CreateBuilder<string>();
        private Stated<decimal>? _goods;
        private int _beyond;

        public void Add(ImmutableArray<ImmutableArray<Cell>> rows, Table table)
        {
            foreach (var row in rows)
            {
                if (_lines.Count >= DocumentReader.MostLines)
                    _beyond++;
                else if (TableRow.TotalOf(row, table) is { } total)
                    _goods = total.Value is null ? _goods : total.Sum;
                else if (TableRow.Line(row, table, _warnings) is { } line)
                    _lines.Add(line);
            }
        }

        public Found Found(ImmutableArray<(int, string, ImmutableDictionary<int, string>)> tables)
        {
            if (_beyond > 0)
                _warnings.Add(
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{_beyond:#,0} more rows stand below; {DocumentReader.MostLines:#,0} lines were read, the others are kept in the original."
                    )
                );
            return new Found(_lines.ToImmutable(), _goods, _warnings.ToImmutable(), tables);
        }
    }

    /// <summary>
    /// A text with its tables blanked out, so that heads and figures are not taken for what somebody says.
    /// </summary>
    public static string Prose(OriginalPart part, Found found)
    {
        ArgumentNullException.ThrowIfNull(part);
        ArgumentNullException.ThrowIfNull(found);
        if (found.Tables.IsEmpty)
            return part.Text;
        var text = part.Text.ToCharArray();
        foreach (
            var cell in part
                .Rows.Skip(found.Tables.Min(t => t.Row))
                .Where(r => r.Count(c => c.Text.Length > 0) > 2)
                .SelectMany(r => r)
        )
            Array.Fill(text, ' ', cell.Start, Math.Min(cell.Length, Math.Max(0, text.Length - cell.Start)));
        return new string(text);
    }

    /// <summary>The words of a head, plain, by which a person's saying about it is remembered.</summary>
    public static string HeadsOf(ImmutableArray<Cell> row) => string.Join('|', row.Select(c => CellText.Plain(c.Text)));
}
