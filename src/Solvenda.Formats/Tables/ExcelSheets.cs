using System.Globalization;
using System.Text;
using ExcelDataReader;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Tables;

/// <summary>
/// The sheets of a workbook that somebody sees: hidden sheets, rows and columns are not read, and that is said.
/// </summary>
internal static class ExcelSheets
{
    // The binary kind is written in the code pages of its time.
    static ExcelSheets() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <param name="mostRows">One more is returned where there are more.</param>
    public static List<OriginalPart> Read(byte[] raw, string name, int mostRows, int mostColumns, int mostSheets)
    {
        using var stream = new MemoryStream(raw, writable: false);
        using var reader = ExcelReaderFactory.CreateReader(
            stream,
            new ExcelReaderConfiguration { FallbackEncoding = Encoding.GetEncoding(1252), LeaveOpen = true }
        );
        var (parts, hidden) = (new List<(string Sheet, OriginalPart Part)>(), new List<string>());
        do
        {
            if (reader.VisibleState is not (null or "visible"))
                hidden.Add(reader.Name);
            else if (parts.Count < mostSheets && Sheet(reader, name, mostRows, mostColumns) is { } part)
                parts.Add((reader.Name, part));
        } while (reader.NextResult());
        if (parts.Count == 0 && hidden.Count > 0)
            throw new TableException($"All that it holds is hidden: {List(hidden)} not read.");
        var said = hidden.Count > 0 ? $"{name}: {List(hidden)} hidden, and not read." : "";
        return
        [
            .. parts.Select(p =>
                p.Part with
                {
                    Name = parts.Count == 1 ? name : $"{name}, {p.Sheet}",
                    Warning = string.Join(' ', new[] { said, p.Part.Warning }.Where(w => w.Length > 0)),
                }
            ),
        ];
    }

    private static string List(List<string> sheets) =>
        sheets.Count == 1
            ? $"the sheet “{sheets[0]}” is"
            : $"the sheets {string.Join(", ", sheets.Select(s => $"“{s}”"))} are";

    private static OriginalPart? Sheet(IExcelDataReader reader, string name, int mostRows, int mostColumns)
    {
        var columns = Math.Min(reader.FieldCount, mostColumns);
        var seen = Enumerable.Range(0, columns).Where(i => reader.GetColumnWidth(i) > 0).ToList();
        var (rows, hiddenRows) = (new List<IReadOnlyList<string>>(), 0);
        while (rows.Count <= mostRows && reader.Read())
        {
            if (reader.RowHeight <= 0)
                hiddenRows++;
            else
                rows.Add([.. seen.Select(i => i < reader.FieldCount ? TableReader.Text(reader.GetValue(i)) : "")]);
        }
        if (rows.TrueForAll(r => r.All(c => c.Length == 0)))
            return null;
        var hidden = new[]
        {
            hiddenRows > 0 ? string.Create(CultureInfo.InvariantCulture, $"{hiddenRows} hidden rows") : "",
            seen.Count < columns
                ? string.Create(CultureInfo.InvariantCulture, $"{columns - seen.Count} hidden columns")
                : "",
        }.Where(h => h.Length > 0);
        var part = Grid.Part(name, rows);
        return hidden.Any() ? part with { Warning = $"{name}: {string.Join(" and ", hidden)} were not read." } : part;
    }
}
