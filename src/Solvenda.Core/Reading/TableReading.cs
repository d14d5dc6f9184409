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
        "discount",
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
        /// <summary>Rows that could be a line, and are none that was read; totals of quantities that are not
        /// made.</summary>
        public ImmutableArray<LeftOver> LeftOvers { get; init; } = [];

        /// <summary>Rows and columns that were not used, and why.</summary>
        public ImmutableArray<Unused> Unused { get; init; } = [];

        /// <summary>Rows that are heads.</summary>
        public ImmutableArray<int> Heads { get; init; } = [];
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
        var read = new Body(context);
        var tables = ImmutableArray.CreateBuilder<(int, string, ImmutableDictionary<int, string>)>();
        for (var at = 0; at < rows.Length; )
        {
            var head = TableColumns.FindHead(rows, at, sender, context);
            // No head at all: what stands in the columns tells, once, from the top.
            if (head is null && (tables.Count > 0 || kind == PartKind.Letter))
                break;
            var columns = head?.Columns ?? ColumnContents.Of(rows, context);
            if (!TableColumns.Serves(columns))
                break;
            tables.Add((head?.Row ?? -1, head?.Words ?? "", columns));
            if (head is not null)
                read.Heads(head, part);
            var first = head is null ? 0 : head.Row + head.Rows;
            var end = TableColumns.EndOf(rows, first, sender, context);
            foreach (var (from, to) in head?.SideBySide() ?? [(0, int.MaxValue)])
            {
                var own = columns.Where(c => c.Key >= from && c.Key < to).ToImmutableDictionary();
                var body = Own(rows[first..end], from, to);
                if (kind is PartKind.Pages or PartKind.Picture)
                    body = WrappedRows.Joined(body, own);
                read.Add(body, TableOf(body, part, own, written, language) with { PriceBase = head?.PriceBase ?? 1m });
            }
            at = Math.Max(end, first);
            if (head is null)
                break;
        }
        return read.Found(tables.ToImmutable());
    }

    // Of tables side by side, the cells of one.
    private static ImmutableArray<ImmutableArray<Cell>> Own(
        ImmutableArray<ImmutableArray<Cell>> rows,
        int from,
        int to
    ) =>
        from == 0 && rows.All(r => r.Length <= to)
            ? rows
            :
            [
                .. rows.Select(r =>
                    r.Select((c, i) => i >= from && i < to ? c : new Cell("", c.Start, 0)).ToImmutableArray()
                ),
            ];

    private static Table TableOf(
        ImmutableArray<ImmutableArray<Cell>> body,
        int part,
        ImmutableDictionary<int, string> columns,
        DateOnly written,
        Language language
    )
    {
        var forms = columns
            .Where(c => c.Value is "quantity" or "price" or "amount" or "priceBase" or "discount")
            .ToDictionary(
                c => c.Key,
                c => NumberForm.Of(body.Where(r => c.Key < r.Length).Select(r => CellText.Figures(r[c.Key].Text)))
            );
        var whole = NumberForm.Of(forms.Values.Where(f => f.Sign is not null).Select(f => $"0{f.Sign}5"));
        return new Table(part, columns, forms, whole, written, language, TableRow.DayFirst(body, columns));
    }

    // What the rows of all tables gave so far.
    private sealed class Body(ReadingContext context)
    {
        private readonly ImmutableArray<StatedLine>.Builder _lines = ImmutableArray.CreateBuilder<StatedLine>();
        private readonly ImmutableArray<string>.Builder _warnings = ImmutableArray.CreateBuilder<string>();
        private readonly ImmutableArray<LeftOver>.Builder _overs = ImmutableArray.CreateBuilder<LeftOver>();
        private readonly ImmutableArray<Unused>.Builder _unused = ImmutableArray.CreateBuilder<Unused>();
        private readonly ImmutableArray<int>.Builder _heads = ImmutableArray.CreateBuilder<int>();
        private Stated<decimal>? _goods;
        private int _beyond;

        /// <summary>Columns whose head says nothing to us.</summary>
        public void Heads(TableHead head, int part)
        {
            _heads.AddRange(Enumerable.Range(head.Row, head.Rows));
            for (var i = 0; i < head.Cells.Length; i++)
            {
                var cell = head.Cells[i];
                if (!head.Columns.ContainsKey(i) && cell.Text.Trim().Length > 0)
                    _unused.Add(
                        new Unused(
                            cell.Text.Trim(),
                            "no meaning is known for this column",
                            new Evidence(part, cell.Start, cell.Length)
                        )
                    );
            }
        }

        public void Add(ImmutableArray<ImmutableArray<Cell>> rows, Table table)
        {
            var first = _lines.Count;
            foreach (var row in rows)
            {
                if (_lines.Count >= DocumentReader.MostLines)
                    _beyond++;
                else if (TableRow.TotalOf(row, table) is { } total)
                    Total(total, first);
                else if (TableRow.Line(row, table, _warnings) is { } line)
                {
                    _lines.Add(line);
                    if (TableRow.SaysTwice(row, table) is { } twice)
                        _overs.Add(twice);
                }
                else
                    Over(row, table);
            }
        }

        private void Total(TotalRow total, int first)
        {
            _goods = total.Money ?? _goods;
            var sum = _lines.Skip(first).Sum(l => l.Quantity?.Value ?? 0m);
            if (total.Quantity is { } stated && stated.Value != sum && _lines.Skip(first).All(l => l.Open is null))
                _overs.Add(
                    new LeftOver(
                        string.Create(CultureInfo.InvariantCulture, $"{stated.Value:0.######}"),
                        stated.Where,
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"They count {stated.Value:0.######} in all; these lines make {sum:0.######}."
                        )
                    )
                );
        }

        // A row that is no line: with a code of ours, or a number where quantities stand, somebody looks at it.
        private void Over(ImmutableArray<Cell> row, Table table)
        {
            var filled = row.Where(c => c.Text.Trim().Length > 0).ToList();
            if (filled.Count == 0)
                return;
            var words = string.Join(' ', filled.Select(c => c.Text.Trim()));
            var where = TableRow.Whole(filled, table);
            if (TableRow.MayCount(row, table) || filled.Exists(c => context.Items.ByCode(c.Text.Trim()) is not null))
                _overs.Add(new LeftOver(words, where));
            else
                _unused.Add(new Unused(words, "a row without a quantity", where));
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
            return new Found(_lines.ToImmutable(), _goods, _warnings.ToImmutable(), tables)
            {
                LeftOvers = _overs.ToImmutable(),
                Unused = _unused.ToImmutable(),
                Heads = _heads.ToImmutable(),
            };
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
        var first = found.Tables.Min(t => t.Row);
        return Blanked(part, part.Rows.Where((r, i) => found.Heads.Contains(i) || (i >= first && IsOfTable(r))));
    }

    /// <summary>
    /// A text without the heads and lines of its tables: what stands above, beside and below them on pages.
    /// </summary>
    internal static string Beside(OriginalPart part, Found found)
    {
        var lines = new Stretches(found.Lines.SelectMany(l => l.Evidence).Select(e => (e.Start, e.Length)));
        return Blanked(
            part,
            part.Rows.Where((r, i) => found.Heads.Contains(i) || r.Any(c => lines.Meet(c.Start, Math.Max(1, c.Length))))
        );
    }

    private static string Blanked(OriginalPart part, IEnumerable<ImmutableArray<Cell>> rows)
    {
        var text = part.Text.ToCharArray();
        foreach (var cell in rows.SelectMany(r => r))
            Array.Fill(text, ' ', cell.Start, Math.Min(cell.Length, Math.Max(0, text.Length - cell.Start)));
        return new string(text);
    }

    // A total may fill two cells of many; what somebody says fills one.
    private static bool IsOfTable(ImmutableArray<Cell> row) => row.Length > 2 && row.Count(c => c.Text.Length > 0) > 1;

    /// <summary>The words of a head, plain, by which a person's saying about it is remembered.</summary>
    public static string HeadsOf(ImmutableArray<Cell> row) => string.Join('|', row.Select(c => CellText.Plain(c.Text)));
}
