using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// Finds the tables in rows of cells and reads their lines: by the words at the head of the columns in the languages of
/// <see cref="Language"/>, as a person said before for this sender, else by what stands in them.
/// Rows above the head, headings between lines, and totals below are told apart.
/// </summary>
public static partial class TableReading
{
    // A head stands near the top; later tables are looked for from where one ended.
    private const int LookAhead = 40;

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
        var lines = ImmutableArray.CreateBuilder<StatedLine>();
        var warnings = ImmutableArray.CreateBuilder<string>();
        var tables = ImmutableArray.CreateBuilder<(int, string, ImmutableDictionary<int, string>)>();
        Stated<decimal>? goods = null;
        var beyond = 0;
        for (var at = 0; at < rows.Length; )
        {
            var head = FindHead(rows, at, sender, context);
            ImmutableDictionary<int, string> columns;
            if (head < 0)
            {
                // No head at all: what stands in the columns tells, once, from the top.
                columns =
                    tables.Count == 0 && kind != PartKind.Letter
                        ? ByContents(rows, context)
                        : ImmutableDictionary<int, string>.Empty;
                if (!Serves(columns))
                    break;
                head = -1;
            }
            else
                columns = HeadColumns(rows[head], sender, context);
            tables.Add((head, head >= 0 ? HeadsOf(rows[head]) : "", columns));
            var first = head < 0 ? 0 : head + 1;
            var end = EndOf(rows, first, columns, sender, context);
            var body = kind is PartKind.Pages or PartKind.Picture
                ? Unwrapped(rows[first..end], columns)
                : rows[first..end];
            var forms = columns
                .Where(c => c.Value is "quantity" or "price" or "amount" or "priceBase")
                .ToDictionary(
                    c => c.Key,
                    c => NumberForm.Of(body.Where(r => c.Key < r.Length).Select(r => Figures(r[c.Key].Text)))
                );
            // A column that does not tell is read as the other columns of the table are.
            var whole = NumberForm.Of(forms.Values.Where(f => f.Sign is not null).Select(f => $"0{f.Sign}5"));
            var table = new Table(part, columns, forms, whole, written, language, DayFirst(body, columns));
            foreach (var row in body)
            {
                if (lines.Count >= DocumentReader.MostLines)
                {
                    beyond++;
                    continue;
                }
                if (TotalOf(row, table) is { } total)
                    goods = total.Value is null ? goods : total.Sum;
                else if (Line(row, table, warnings) is { } line)
                    lines.Add(line);
            }
            at = Math.Max(end, first);
            if (head < 0)
                break;
        }
        if (beyond > 0)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{beyond:#,0} more rows stand below; {DocumentReader.MostLines:#,0} lines were read, the others are kept in the original."
                )
            );
        return new Found(lines.ToImmutable(), goods, warnings.ToImmutable(), tables.ToImmutable());
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
    public static string HeadsOf(ImmutableArray<Cell> row) => string.Join('|', row.Select(c => Plain(c.Text)));

    private sealed record Table(
        int Part,
        ImmutableDictionary<int, string> Columns,
        Dictionary<int, NumberForm> Forms,
        NumberForm Whole,
        DateOnly Written,
        Language Language,
        bool? DayFirst
    )
    {
        public Cell? Of(ImmutableArray<Cell> row, string meaning) =>
            Columns
                .Where(c => c.Value == meaning && c.Key < row.Length)
                .OrderBy(c => c.Key)
                .Select(c => row[c.Key])
                .FirstOrDefault(c => c.Text.Trim().Length > 0);

        public int? At(string meaning) => Columns.Where(c => c.Value == meaning).Select(c => (int?)c.Key).Min();
    }

    private static bool Serves(ImmutableDictionary<int, string> columns) =>
        columns.ContainsValue("quantity")
        && (
            columns.ContainsValue("code")
            || columns.ContainsValue("words")
            || columns.ContainsValue("gtin")
            || columns.ContainsValue("buyersCode")
        );

    private static int FindHead(
        ImmutableArray<ImmutableArray<Cell>> rows,
        int from,
        string sender,
        ReadingContext context
    )
    {
        for (var at = from; at < Math.Min(rows.Length, from + LookAhead); at++)
        {
            // A head says at least how much and of what, and holds no quantity itself.
            if (rows[at].Length > 1 && Serves(HeadColumns(rows[at], sender, context)))
                return at;
        }
        return -1;
    }

    private static ImmutableDictionary<int, string> HeadColumns(
        ImmutableArray<Cell> row,
        string sender,
        ReadingContext context
    )
    {
        if (context.Columns(sender, HeadsOf(row)) is { } said)
            return said.ToImmutableDictionary();
        var columns = ImmutableDictionary.CreateBuilder<int, string>();
        for (var i = 0; i < row.Length; i++)
        {
            if (Meaning(row[i].Text) is { } meaning && (meaning != "number" || i == 0))
                columns[i] = meaning;
        }
        // "Item" and "Article" name codes in some tables and words in others: with two such columns there, the first is
        // the code.
        var words = columns.Where(c => c.Value == "words").Select(c => c.Key).Order().ToList();
        if (words.Count > 1 && !columns.ContainsValue("code"))
            columns[words[0]] = "code";
        return columns.ToImmutable();
    }

    // A head by the words of any language: the whole of it, without unit or currency behind.
    private static string? Meaning(string head)
    {
        var plain = Plain(BehindHead().Replace(head, ""));
        if (plain.Length is 0 or > 40)
            return null;
        return Heads.Value.GetValueOrDefault(plain);
    }

    // The words of all languages, plain; English first where two languages call two things the same.
    private static readonly Lazy<Dictionary<string, string>> Heads = new(() =>
        Language
            .All.OrderBy(l => l.Code == "en" ? 0 : 1)
            .SelectMany(l => l.Heads)
            .SelectMany(h => h.Value.Select(w => (Word: Plain(w), Meaning: h.Key)))
            .GroupBy(h => h.Word)
            .ToDictionary(g => g.Key, g => g.First().Meaning)
    );

    private static readonly Lazy<HashSet<string>> Totals = new(() =>
        [.. Language.All.SelectMany(l => l.Total).Select(Plain)]
    );

    // "Total", "Total:", "Total EUR".
    private static bool IsTotal(string text) =>
        text.Length is > 0 and < 30
        && Plain(text) is var plain
        && (
            Totals.Value.Contains(plain)
            || (
                plain.IndexOf(' ', StringComparison.Ordinal) is > 0 and var blank
                && Totals.Value.Contains(plain[..blank])
            )
        );

    // The first rows that are filled tell: which column holds codes of ours, which whole numbers, which units, which
    // words.
    private static ImmutableDictionary<int, string> ByContents(
        ImmutableArray<ImmutableArray<Cell>> rows,
        ReadingContext context
    )
    {
        var sample = rows.Where(r => r.Count(c => c.Text.Trim().Length > 0) > 1).Take(50).ToList();
        if (sample.Count == 0)
            return ImmutableDictionary<int, string>.Empty;
        var columns = ImmutableDictionary.CreateBuilder<int, string>();
        var width = sample.Max(r => r.Length);
        decimal Share(int c, Func<string, bool> fits)
        {
            var filled = sample
                .Where(r => c < r.Length && r[c].Text.Trim().Length > 0)
                .Select(r => r[c].Text.Trim())
                .ToList();
            return filled.Count == 0 ? 0m : filled.Count(fits) / (decimal)filled.Count;
        }
        var free = Enumerable.Range(0, width).ToList();
        void Take(string meaning, Func<string, bool> fits, decimal least)
        {
            if (free.Count == 0)
                return;
            var best = free.Select(c => (Column: c, Share: Share(c, fits)))
                .OrderByDescending(c => c.Share)
                .ThenBy(c => c.Column)
                .First();
            if (best.Share < least)
                return;
            columns[best.Column] = meaning;
            free.Remove(best.Column);
        }
        Take("code", t => context.Items.ByCode(t) is not null, 0.5m);
        Take("unit", t => !t.Any(char.IsDigit) && DocumentReader.UnitOf(t, null) is not null, 0.6m);
        Take(
            "wanted",
            t =>
                DateWords.All(t, DateOnly.MinValue.AddYears(2000)).Count > 0
                && t.Any(char.IsDigit)
                && t.Length >= 6
                && NumberForm.Unknown.Read(t) is null,
            0.6m
        );
        // A first column that counts 1, 2, 3 numbers the lines.
        if (
            free.Contains(0)
            && sample
                .Select(r => r[0].Text.Trim())
                .Where(t => t.Length > 0)
                .Select((t, i) => t == (i + 1).ToString(CultureInfo.InvariantCulture))
                .All(x => x)
            && sample.Count > 1
        )
        {
            columns[0] = "number";
            free.Remove(0);
        }
        Take(
            "quantity",
            t => NumberForm.Unknown.Read(Figures(t)) is { Value: > 0 } && !t.Contains("..", StringComparison.Ordinal),
            0.8m
        );
        Take("words", t => t.Count(char.IsLetter) >= 4, 0.5m);
        return columns.ToImmutable();
    }

    // Up to the next head, or where two rows stand empty and nothing that could be a line follows.
    private static int EndOf(
        ImmutableArray<ImmutableArray<Cell>> rows,
        int from,
        ImmutableDictionary<int, string> columns,
        string sender,
        ReadingContext context
    )
    {
        for (var at = from; at < rows.Length; at++)
        {
            if (
                at > from
                && rows[at].Length > 1
                && rows[at].Count(c => Meaning(c.Text) is not null) > 1
                && Serves(HeadColumns(rows[at], sender, context))
            )
                return at;
        }
        return rows.Length;
    }

    // A row whose words stand above and below its numbers, or go on below them, is one row.
    private static ImmutableArray<ImmutableArray<Cell>> Unwrapped(
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
            && !IsTotal(row[at].Text);
        bool Counts(ImmutableArray<Cell> row) =>
            columns.Any(c =>
                c.Value == "quantity"
                && c.Key < row.Length
                && NumberForm.Unknown.Read(Figures(row[c.Key].Text)) is not null
            );
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

    private static (Stated<decimal>? Sum, decimal? Value)? TotalOf(ImmutableArray<Cell> row, Table table)
    {
        var filled = row.Where(c => c.Text.Trim().Length > 0).ToList();
        if (
            filled.Count == 0
            || (table.Of(row, "code") is { } code && !IsTotal(code.Text) && table.Of(row, "quantity") is not null)
            || !filled.Any(c => IsTotal(c.Text))
        )
            return null;
        // The amount of a total stands in the column of amounts, else it is the last number of the row.
        var cell =
            table.Of(row, "amount") ?? filled.LastOrDefault(c => NumberForm.Unknown.Read(Figures(c.Text)) is not null);
        var isTotalOfQuantity = cell is not null && table.At("amount") is null && table.At("price") is null;
        return cell is null || isTotalOfQuantity || table.Whole.Read(Figures(cell.Text)) is not { Or: null } sum
            ? (null, null)
            : (new Stated<decimal>(sum.Value, Where(table, cell)), sum.Value);
    }

    private static StatedLine? Line(ImmutableArray<Cell> row, Table table, ImmutableArray<string>.Builder warnings)
    {
        var filled = row.Where(c => c.Text.Trim().Length > 0).ToList();
        var words = table.Of(row, "words");
        var (code, theirs, gtin) = (table.Of(row, "code"), table.Of(row, "buyersCode"), table.Of(row, "gtin"));
        // One cell alone, or nothing that names a thing: a heading between lines, a note.
        if (filled.Count < 2 || (words is null && code is null && theirs is null && gtin is null))
            return null;
        var quantityCell = table.Of(row, "quantity");
        var (quantity, unitInQuantity, or) = quantityCell is null
            ? (null, "", null)
            : Number(quantityCell, "quantity", table);
        var unitCell = table.Of(row, "unit");
        var priceCell = table.Of(row, "price");
        var (price, per, priceOr) = priceCell is null ? (null, "", null) : Number(priceCell, "price", table);
        // Words that happen to stand under a head: neither how much, nor for how much, nor in which unit.
        if (
            quantity is null
            && price is null
            && (unitCell is null || DocumentReader.UnitOf(unitCell.Text, table.Language) is null)
        )
            return null;
        var baseCell = table.Of(row, "priceBase");
        var priceBase =
            baseCell is not null && Number(baseCell, "priceBase", table).Value is { Value: > 0 } b ? b.Value
            : PerWords().Match(per) is { Success: true } m
                ? decimal.Parse(m.Groups["n"].Value, CultureInfo.InvariantCulture)
            : 1m;
        var amount = table.Of(row, "amount") is { } amountCell ? Number(amountCell, "amount", table).Value : null;
        var wanted = table.Of(row, "wanted");
        var number = table.Of(row, "number")?.Text.Trim() ?? "";
        var what = code?.Text ?? words?.Text ?? theirs?.Text ?? gtin!.Text;
        if (quantityCell is not null && quantity is null)
            warnings.Add($"“{quantityCell.Text.Trim()}” is not a quantity ({what.Trim()}).");
        if (priceCell is not null && price is null)
            warnings.Add($"“{priceCell.Text.Trim()}” is not a price ({what.Trim()}).");
        if (or is not null)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"“{quantityCell!.Text.Trim()}” ({what.Trim()}): {quantity!.Value:0.######} or {or:0.######}? Nothing in the table tells which sign is the decimal one."
                )
            );
        Stated<string>? Text(Cell? cell) =>
            cell is null ? null : new Stated<string>(cell.Text.Trim(), Where(table, cell));
        return new StatedLine(
            number,
            quantity,
            unitCell?.Text.Trim() ?? unitInQuantity,
            priceOr is null ? price : null,
            priceBase,
            Text(theirs),
            Text(code),
            Text(gtin),
            words?.Text.Trim() ?? "",
            [Whole(filled, table)]
        )
        {
            Wanted = wanted is null ? null : DateOf(wanted, table, warnings),
            Amount = amount,
            Note = table.Of(row, "note")?.Text.Trim() ?? "",
            Open = or,
        };
    }

    private static (Stated<decimal>? Value, string Behind, decimal? Or) Number(Cell cell, string meaning, Table table)
    {
        var figures = Figures(cell.Text);
        var form =
            table.At(meaning) is { } at && table.Forms.GetValueOrDefault(at) is { Sign: not null } own
                ? own
                : table.Whole;
        var number = NumberAtFront().Match(cell.Text);
        var behind = number.Success ? cell.Text[(number.Index + number.Length)..].Trim() : "";
        return form.Read(figures) is { } read
            ? (new Stated<decimal>(read.Value, Where(table, cell)), behind, read.Or)
            : (null, behind, null);
    }

    // Dates as written, or as a spreadsheet counts them from 1900.
    private static Stated<DateOnly>? DateOf(Cell cell, Table table, ImmutableArray<string>.Builder warnings)
    {
        var text = cell.Text.Trim();
        if (
            decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var serial)
            && serial is > 30_000m and < 80_000m
        )
            return new Stated<DateOnly>(new DateOnly(1899, 12, 30).AddDays((int)serial), Where(table, cell));
        // A weekday alone counts only behind a word such as "by".
        var date = DateWords
            .All(text, table.Written, table.Language)
            .Concat(DateWords.All($"by {text}", table.Written, table.Language))
            .FirstOrDefault();
        if (
            date is not null
            && date.Sure < 0.55m
            && table.DayFirst is { } dayFirst
            && SlashDate().Match(text) is { Success: true } m
        )
        {
            var (a, b, year) = (
                int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture),
                int.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture),
                int.Parse(m.Groups[3].Value, CultureInfo.InvariantCulture)
            );
            var (d, mo) = dayFirst ? (a, b) : (b, a);
            return new Stated<DateOnly>(new DateOnly(year < 100 ? 2000 + year : year, mo, d), Where(table, cell));
        }
        if (date is null || date.Sure < 0.55m)
        {
            warnings.Add(
                date is null
                    ? $"“{text}” is not a date that we can read."
                    : $"“{text}”: is the day or the month first? It was left out."
            );
            return null;
        }
        return new Stated<DateOnly>(date.Day, Where(table, cell));
    }

    // A date with a number above 12 tells the order for the whole column.
    private static bool? DayFirst(ImmutableArray<ImmutableArray<Cell>> body, ImmutableDictionary<int, string> columns)
    {
        var dates = columns
            .Where(c => c.Value == "wanted")
            .SelectMany(c => body.Where(r => c.Key < r.Length).Select(r => SlashDate().Match(r[c.Key].Text.Trim())))
            .Where(m => m.Success)
            .ToList();
        var tells = dates
            .Select(m =>
                int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture) > 12 ? true
                : int.Parse(m.Groups[2].Value, CultureInfo.InvariantCulture) > 12 ? false
                : (bool?)null
            )
            .Where(t => t is not null)
            .Distinct()
            .ToList();
        return tells.Count == 1 ? tells[0] : null;
    }

    // The number at the front of a cell: "12 pcs", "€ 1.250,50", "4,15 EUR".
    private static string Figures(string text) =>
        NumberAtFront().Match(text) is { Success: true } m ? m.Value.Trim() : text.Trim();

    private static Evidence Where(Table table, Cell cell) => new(table.Part, cell.Start, cell.Length);

    private static Evidence Whole(List<Cell> filled, Table table) =>
        new(table.Part, filled[0].Start, filled[^1].Start + filled[^1].Length - filled[0].Start);

    private static string Plain(string text) =>
        Blank().Replace(text.ToLowerInvariant().Replace('_', ' ').Trim(' ', '.', ':', '*', '#', '\uFEFF'), " ");

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();

    // "Price (EUR)", "Qty [pcs]", "Preis in EUR", "Preis €".
    [GeneratedRegex(
        @"\s*[(\[].*[)\]]\s*$|\s+in\s+\w{3}$|\s*[€£$]\s*$|\s+(?:EUR|SEK|NOK|DKK|USD|GBP)$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex BehindHead();

    [GeneratedRegex(@"(?<=^\s*(?:\D{0,4}?)\s*)[-\u2212]?\d[\d.,'’ \u00a0\u202f]*", RegexOptions.CultureInvariant)]
    private static partial Regex NumberAtFront();

    [GeneratedRegex(@"(?:/|per|pro|por|je)\s*(?<n>10{1,3})\b", RegexOptions.IgnoreCase)]
    private static partial Regex PerWords();

    [GeneratedRegex(@"^(\d{1,2})[/-](\d{1,2})[/-](\d{4}|\d\d)$")]
    private static partial Regex SlashDate();
}
