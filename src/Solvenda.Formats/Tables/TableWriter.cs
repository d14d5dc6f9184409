using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using MiniExcelLibs;
using MiniExcelLibs.OpenXml;

namespace Solvenda.Formats.Tables;

/// <summary>
/// Writes tables as CSV (RFC 4180, UTF-8 with a mark, so that spreadsheets know it) and XLSX. What is read back is what
/// was written.
/// </summary>
public static class TableWriter
{
    public static async Task CsvAsync(
        Stream to,
        IReadOnlyList<string> head,
        IAsyncEnumerable<IReadOnlyList<string>> rows,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(head);
        ArgumentNullException.ThrowIfNull(rows);
        await using var text = new StreamWriter(to, new UTF8Encoding(true), 64 * 1024, leaveOpen: true);
        await using var csv = new CsvWriter(
            text,
            new CsvConfiguration(CultureInfo.InvariantCulture) { InjectionOptions = InjectionOptions.None }
        );
        foreach (var cell in head)
            csv.WriteField(Shield(cell));
        await csv.NextRecordAsync();
        await foreach (var row in rows.WithCancellation(cancel))
        {
            foreach (var cell in row)
                csv.WriteField(Shield(cell));
            await csv.NextRecordAsync();
        }
    }

    /// <summary>
    /// Puts an apostrophe before a text that a spreadsheet would take for a formula; <see cref="Unshield"/> takes it
    /// off again.
    /// </summary>
    internal static string Shield(string cell) =>
        cell.Length > 0 && (IsFormula(cell) || (cell[0] == '\'' && IsFormula(cell[1..]))) ? "'" + cell : cell;

    internal static string Unshield(string cell) =>
        cell.Length > 1 && cell[0] == '\'' && (IsFormula(cell[1..]) || cell[1] == '\'') && Shield(cell[1..]) == cell
            ? cell[1..]
            : cell;

    // Blanks before it do not keep every program from calculating; nor do the wide forms of the signs.
    private static bool IsFormula(string cell) =>
        cell.TrimStart(' ', '\u00a0', '\u3000', '\n') is { Length: > 0 } from
        && "=+-@\t\r＝＋－＠".Contains(from[0], StringComparison.Ordinal)
        && !decimal.TryParse(cell, NumberStyles.Float, CultureInfo.InvariantCulture, out _);

    /// <param name="numbers">Which columns are numbers; the rest stays text, whatever it looks like.</param>
    public static async Task XlsxAsync(
        Stream to,
        IReadOnlyList<string> head,
        IReadOnlyList<bool> numbers,
        IAsyncEnumerable<IReadOnlyList<string>> rows,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(head);
        ArgumentNullException.ThrowIfNull(rows);
        await to.SaveAsAsync(
            Values(rows.ToBlockingEnumerable(cancel), head, numbers),
            sheetName: "Sheet1",
            excelType: ExcelType.XLSX,
            configuration: new OpenXmlConfiguration
            {
                FastMode = true,
                TableStyles = TableStyles.None,
                AutoFilter = false,
            },
            cancellationToken: cancel
        );
    }

    private static IEnumerable<Dictionary<string, object?>> Values(
        IEnumerable<IReadOnlyList<string>> rows,
        IReadOnlyList<string> head,
        IReadOnlyList<bool> numbers
    )
    {
        var any = false;
        foreach (var row in rows)
        {
            any = true;
            var values = new Dictionary<string, object?>(head.Count);
            for (var i = 0; i < head.Count; i++)
                values[head[i]] =
                    numbers[i] && decimal.TryParse(row[i], NumberStyles.Float, CultureInfo.InvariantCulture, out var n)
                        ? n
                        : row[i];
            yield return values;
        }
        if (!any)
            yield return head.ToDictionary(h => h, _ => (object?)"");
    }
}
