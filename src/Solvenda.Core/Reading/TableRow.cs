using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>A table, as far as its rows need it to be read.</summary>
/// <param name="Columns">What each column means, by its place.</param>
/// <param name="Forms">How each column of figures writes its numbers.</param>
/// <param name="Whole">A column that does not tell is read as the other columns of the table are.</param>
/// <param name="DayFirst">Whether dates begin with the day; null where nothing tells.</param>
internal sealed record Table(
    int Part,
    ImmutableDictionary<int, string> Columns,
    Dictionary<int, NumberForm> Forms,
    NumberForm Whole,
    DateOnly Written,
    Language Language,
    bool? DayFirst
)
{
    /// <summary>How many units the prices of the whole table are for.</summary>
    public decimal PriceBase { get; init; } = 1m;

    public Cell? Of(ImmutableArray<Cell> row, string meaning) =>
        Columns
            .Where(c => c.Value == meaning && c.Key < row.Length)
            .OrderBy(c => c.Key)
            .Select(c => row[c.Key])
            .FirstOrDefault(c => c.Text.Trim().Length > 0);

    public int? At(string meaning) => Columns.Where(c => c.Value == meaning).Select(c => (int?)c.Key).Min();
}

/// <summary>A row that adds up the ones above it; both null where it states no figure that can be told.</summary>
internal sealed record TotalRow(Stated<decimal>? Money, Stated<decimal>? Quantity);

/// <summary>Reads one row of a table: as a line, as a total, or as nothing.</summary>
internal static partial class TableRow
{
    public static TotalRow? TotalOf(ImmutableArray<Cell> row, Table table)
    {
        var filled = row.Where(c => c.Text.Trim().Length > 0).ToList();
        if (
            filled.Count == 0
            || (
                table.Of(row, "code") is { } code
                && !CellText.IsTotal(code.Text)
                && table.Of(row, "quantity") is not null
            )
            || !filled.Any(c => CellText.IsTotal(c.Text))
        )
            return null;
        // The amount of a total stands in the column of amounts, else it is the last number of the row.
        var cell = table.Of(row, "amount") ?? filled.LastOrDefault(c => CellText.IsNumber(c.Text));
        if (cell is null || table.Whole.Read(CellText.Figures(cell.Text)) is not { Or: null } sum)
            return new TotalRow(null, null);
        var stated = new Stated<decimal>(sum.Value, Where(table, cell));
        if (ReferenceEquals(table.Of(row, "quantity"), cell))
            return new TotalRow(null, stated);
        return new TotalRow(table.At("amount") is null && table.At("price") is null ? null : stated, null);
    }

    /// <summary>Whether a number alone, or with a unit, stands where quantities do.</summary>
    public static bool MayCount(ImmutableArray<Cell> row, Table table) =>
        table.Of(row, "quantity") is { } cell
        && NumberForm.Unknown.Read(CellText.Figures(cell.Text)) is { Value: not 0 }
        && CellText.Behind(cell.Text) is var behind
        && (behind.Length == 0 || DocumentReader.UnitOf(behind, table.Language) is not null);

    /// <summary>Two columns that say how much, and say different things; null where they do not.</summary>
    public static LeftOver? SaysTwice(ImmutableArray<Cell> row, Table table)
    {
        var counts = table
            .Columns.Where(c => c.Value == "quantity" && c.Key < row.Length)
            .OrderBy(c => c.Key)
            .Select(c => row[c.Key])
            .Where(c => CellText.IsNumber(c.Text))
            .ToList();
        return counts.Count > 1 && counts.Exists(c => c.Text.Trim() != counts[0].Text.Trim())
            ? new LeftOver(
                counts[1].Text.Trim(),
                Where(table, counts[1]),
                $"One column says {counts[0].Text.Trim()}, another {counts[1].Text.Trim()}; the first was read."
            )
            : null;
    }

    /// <summary>Null where the row is a heading between lines, a note, or words that happen to stand there.</summary>
    public static StatedLine? Line(ImmutableArray<Cell> row, Table table, ImmutableArray<string>.Builder warnings)
    {
        var filled = row.Where(c => c.Text.Trim().Length > 0).ToList();
        var words = table.Of(row, "words");
        var (code, theirs, gtin) = (table.Of(row, "code"), table.Of(row, "buyersCode"), table.Of(row, "gtin"));
        if (filled.Count < 2 || (code ?? words ?? theirs ?? gtin) is not { } what)
            return null;
        var counted = NumberOf(row, "quantity", table);
        var priced = NumberOf(row, "price", table);
        var unit = table.Of(row, "unit");
        // Words that happen to stand under a head: neither how much, nor for how much, nor in which unit.
        if (
            counted.Value is null
            && priced.Value is null
            && (unit is null || DocumentReader.UnitOf(unit.Text, table.Language) is null)
        )
            return null;
        Warn(counted, priced, what.Text.Trim(), warnings);
        Stated<string>? Text(Cell? cell) =>
            cell is null ? null : new Stated<string>(cell.Text.Trim(), Where(table, cell));
        var line = new StatedLine(
            table.Of(row, "number")?.Text.Trim() ?? "",
            counted.Value,
            unit?.Text.Trim() ?? counted.Behind,
            priced.Or is null ? priced.Value : null,
            NumberOf(row, "priceBase", table).Value is { Value: > 0 } b ? b.Value : BaseIn(priced.Behind, table),
            Text(theirs),
            Text(code),
            Text(gtin),
            words?.Text.Trim() ?? "",
            [Whole(filled, table)]
        )
        {
            Wanted = table.Of(row, "wanted") is { } wanted ? DateOf(wanted, table, warnings) : null,
            Amount = NumberOf(row, "amount", table).Value,
            Note = table.Of(row, "note")?.Text.Trim() ?? "",
            Open = counted.Or,
        };
        return NumberOf(row, "discount", table).Value is { } less ? Less(line, less.Value) : line;
    }

    // A column of discounts takes percents off what the line comes to, unless its amount says that it is money. Where
    // the amount is that of the price alone, the discount is in the price already.
    private static StatedLine Less(StatedLine line, decimal less)
    {
        if (line is not { Quantity: { } quantity, Price: { } price })
            return line;
        var gross = quantity.Value * price.Value / line.PriceBase;
        decimal[] off = [gross * Math.Abs(less) / 100m, 0m, Math.Abs(less)];
        var fits = line.Amount is { } amount
            ? Array.FindIndex(off, o => Sums.Fits(amount.Value, gross - o, quantity.Value, line.PriceBase))
            : 0;
        return line with { Allowances = -off[Math.Max(fits, 0)] };
    }

    private static void Warn(
        CellNumber counted,
        CellNumber priced,
        string what,
        ImmutableArray<string>.Builder warnings
    )
    {
        if (counted is { Cell: { } quantity, Value: null })
            warnings.Add($"“{quantity.Text.Trim()}” is not a quantity ({what}).");
        if (priced is { Cell: { } price, Value: null })
            warnings.Add($"“{price.Text.Trim()}” is not a price ({what}).");
        if (counted is { Cell: { } open, Value: { } value, Or: { } or })
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"“{open.Text.Trim()}” ({what}): {value.Value:0.######} or {or:0.######}? Nothing in the table tells which sign is the decimal one."
                )
            );
    }

    // A number as it stands in a cell: what stands behind it, and the other value that it could be.
    private readonly record struct CellNumber(Cell? Cell, Stated<decimal>? Value, string Behind, decimal? Or);

    private static CellNumber NumberOf(ImmutableArray<Cell> row, string meaning, Table table)
    {
        if (table.Of(row, meaning) is not { } cell)
            return new CellNumber(null, null, "", null);
        var form =
            table.At(meaning) is { } at && table.Forms.GetValueOrDefault(at) is { Sign: not null } own
                ? own
                : table.Whole;
        var read = form.Read(CellText.Figures(cell.Text));
        return new CellNumber(
            cell,
            read is null ? null : new Stated<decimal>(read.Value, Where(table, cell)),
            CellText.Behind(cell.Text),
            read?.Or
        );
    }

    // "4,15 EUR per 100".
    private static decimal BaseIn(string behind, Table table) =>
        PerWords().Match(behind) is { Success: true } m
            ? decimal.Parse(m.Groups["n"].Value, CultureInfo.InvariantCulture)
            : table.PriceBase;

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
    public static bool? DayFirst(ImmutableArray<ImmutableArray<Cell>> body, ImmutableDictionary<int, string> columns)
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

    private static Evidence Where(Table table, Cell cell) => new(table.Part, cell.Start, cell.Length);

    public static Evidence Whole(List<Cell> filled, Table table) =>
        new(table.Part, filled[0].Start, filled[^1].Start + filled[^1].Length - filled[0].Start);

    [GeneratedRegex(@"(?:/|per|pro|por|je)\s*(?<n>10{1,3})\b", RegexOptions.IgnoreCase)]
    private static partial Regex PerWords();

    [GeneratedRegex(@"^(\d{1,2})[/-](\d{1,2})[/-](\d{4}|\d\d)$")]
    private static partial Regex SlashDate();
}
