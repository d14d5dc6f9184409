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
        return HiddenParts.Said(name, parts, hidden);
    }

    private static OriginalPart? Sheet(IExcelDataReader reader, string name, int mostRows, int mostColumns)
    {
        var columns = Math.Min(reader.FieldCount, mostColumns);
        var seen = Enumerable.Range(0, columns).Where(i => reader.GetColumnWidth(i) > 0).ToList();
        var (rows, hiddenRows) = (new List<IReadOnlyList<string>>(), 0);
        var (merged, begins) = (new MergedCells(), Down(reader));
        string Value(int i)
        {
            var text = i < reader.FieldCount ? TableReader.Text(reader.GetValue(i)) : "";
            if (text.Length > 0 && begins.TryGetValue((reader.Depth, i), out var last))
                merged.Begin(reader.Depth, i, last, text);
            return text.Length > 0 ? text : merged.At(reader.Depth, i);
        }
        while (rows.Count <= mostRows && reader.Read())
        {
            if (reader.RowHeight <= 0)
                hiddenRows++;
            else
                rows.Add([.. seen.Select(Value)]);
        }
        return HiddenParts.Sheet(name, rows, hiddenRows, columns - seen.Count);
    }

    // Where cells that reach over several rows begin, and the last row of each.
    private static Dictionary<(int Row, int Column), int> Down(IExcelDataReader reader) =>
        (reader.MergeCells ?? [])
            .Where(m => m.ToRow > m.FromRow)
            .GroupBy(m => (m.FromRow, m.FromColumn))
            .ToDictionary(g => g.Key, g => g.Max(m => m.ToRow));
}
