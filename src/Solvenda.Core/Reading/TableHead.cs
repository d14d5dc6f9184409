using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>The head of a table: where it stands, and what its columns mean by it.</summary>
/// <param name="Row">Its first row.</param>
/// <param name="Rows">One, or two where words go on below: "price" over "per 100".</param>
/// <param name="Words">The words of the row by which what a person said of it is remembered.</param>
/// <param name="Columns">What each column means, by its place.</param>
/// <param name="PriceBase">How many units prices are for, as the head says; 1 where it does not.</param>
internal sealed partial record TableHead(
    int Row,
    int Rows,
    string Words,
    ImmutableArray<Cell> Cells,
    ImmutableDictionary<int, string> Columns,
    decimal PriceBase
)
{
    /// <summary>The head that begins in a row; null where none does that serves.</summary>
    public static TableHead? At(
        ImmutableArray<ImmutableArray<Cell>> rows,
        int at,
        string sender,
        ReadingContext context
    )
    {
        var row = rows[at];
        if (row.Length < 2)
            return null;
        var words = TableReading.HeadsOf(row);
        var said = context.Columns(sender, words)?.ToImmutableDictionary();
        var under = at + 1 < rows.Length && GoesOn(row, rows[at + 1], context) ? rows[at + 1] : [];
        var alone = said ?? TableColumns.Meanings([.. row.Select(c => c.Text)], []);
        var columns =
            under.Length > 0 && said is null
                ? TableColumns.Meanings([.. row.Select(c => c.Text)], [.. under.Select(c => c.Text)])
                : alone;
        // What one row says alone holds; the second adds to it.
        if (TableColumns.Serves(alone))
            columns = columns.SetItems(alone);
        if (!TableColumns.Serves(columns))
            return null;
        return new TableHead(at, under.Length > 0 ? 2 : 1, words, row, columns, BaseOf(row, under, columns));
    }

    /// <summary>
    /// Tables that stand side by side in the same rows, with the same words at their heads: where each begins and ends.
    /// One where there is only one.
    /// </summary>
    public ImmutableArray<(int From, int To)> SideBySide()
    {
        var filled = Enumerable.Range(0, Cells.Length).Where(i => Cells[i].Text.Trim().Length > 0).ToList();
        var plain = filled.ConvertAll(i => CellText.Plain(Cells[i].Text));
        var period = plain.Count > 1 ? plain.IndexOf(plain[0], 1) : -1;
        var isRepeated =
            period > 1 && plain.Count % period == 0 && plain.Select((p, i) => p == plain[i % period]).All(same => same);
        return isRepeated
            ?
            [
                .. Enumerable
                    .Range(0, plain.Count / period)
                    .Select(b =>
                        (filled[b * period], (b + 1) * period < plain.Count ? filled[(b + 1) * period] : Cells.Length)
                    ),
            ]
            : [(0, Cells.Length)];
    }

    // Whether the second row only goes on with the words of the first: no figures, and words that mean something there.
    private static bool GoesOn(ImmutableArray<Cell> row, ImmutableArray<Cell> next, ReadingContext context)
    {
        var below = next.Select((c, i) => (Text: c.Text.Trim(), At: i)).Where(c => c.Text.Length > 0).ToList();
        bool IsFigure(string text) => CellText.IsNumber(text) && !Base().IsMatch(text);
        if (below.Count == 0 || below.Exists(c => IsFigure(c.Text) || context.Items.ByCode(c.Text) is not null))
            return false;
        string Above(int at) => at < row.Length ? row[at].Text.Trim() : "";
        bool IsTogether((string Text, int At) c) =>
            Above(c.At).Length > 0 && TableColumns.Meaning($"{Above(c.At)} {c.Text}") is not null;
        bool Means((string Text, int At) c) =>
            Base().IsMatch(c.Text) || TableColumns.Meaning(c.Text) is not null || IsTogether(c);
        // A row that serves alone is a head of its own, unless words of both together mean something.
        if (TableColumns.Serves(TableColumns.Meanings([.. next.Select(c => c.Text)], [])))
            return below.Exists(IsTogether);
        return below.Count(Means) * 2 > below.Count;
    }

    private static decimal BaseOf(
        ImmutableArray<Cell> row,
        ImmutableArray<Cell> under,
        ImmutableDictionary<int, string> columns
    )
    {
        foreach (var (at, _) in columns.Where(c => c.Value == "price"))
        {
            var words = $"{(at < row.Length ? row[at].Text : "")} {(at < under.Length ? under[at].Text : "")}";
            if (Base().Match(words) is { Success: true } m)
                return decimal.Parse(m.Groups["n"].Value, CultureInfo.InvariantCulture);
        }
        return 1m;
    }

    /// <summary>Behind the word for a price: "per 100", "/1000 st".</summary>
    [GeneratedRegex(
        @"(?:/|\b(?:per|pro|por|par|je|pr)\b\.?)\s*(?<n>10{1,3})\b.*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex Base();
}
