using System.IO.Compression;
using System.Xml;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Tables;

/// <summary>
/// Reads the sheets of an OpenDocument spreadsheet (ISO/IEC 26300): the rows of its content, with repeated cells and
/// rows as far as there is something in them.
/// </summary>
internal static class OpenSheet
{
    private const string Table = "urn:oasis:names:tc:opendocument:xmlns:table:1.0";
    private const string Style = "urn:oasis:names:tc:opendocument:xmlns:style:1.0";
    private const string Office = "urn:oasis:names:tc:opendocument:xmlns:office:1.0";

    // Empty cells and rows are repeated up to the edge of the sheet.
    private const int MostRepeated = 1_000;

    public static bool Is(ReadOnlySpan<byte> raw) =>
        raw.StartsWith("PK"u8)
        && raw[..Math.Min(raw.Length, 200)].IndexOf("application/vnd.oasis.opendocument.spreadsheet"u8) >= 0;

    /// <exception cref="TableException">It is damaged.</exception>
    public static List<OriginalPart> Read(byte[] raw, string name, int mostRows, int mostColumns)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(raw, writable: false), ZipArchiveMode.Read);
            var content =
                zip.GetEntry("content.xml") ?? throw new TableException("The workbook is damaged: it has no content.");
            using var stream = content.Open();
            using var xml = XmlReader.Create(
                stream,
                new XmlReaderSettings { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null }
            );
            var (shown, hidden) = (new List<(string, OriginalPart)>(), new List<string>());
            // Styles stand before the sheets; one of them says that a sheet is not displayed.
            var (style, unseen) = ("", new HashSet<string>());
            while (xml.Read())
            {
                if (xml.NodeType != XmlNodeType.Element)
                    continue;
                if (xml.LocalName == "style")
                    style = xml.GetAttribute("name", Style) ?? "";
                else if (xml.LocalName == "table-properties" && xml.GetAttribute("display", Table) == "false")
                    unseen.Add(style);
                else if (xml.LocalName == "table" && xml.NamespaceURI == Table)
                {
                    var sheet = xml.GetAttribute("name", Table) ?? "";
                    var isHidden = unseen.Contains(xml.GetAttribute("style-name", Table) ?? "");
                    if (Sheet(xml.ReadSubtree(), name, mostRows, mostColumns) is not { } part)
                        continue;
                    if (isHidden)
                        hidden.Add(sheet);
                    else
                        shown.Add((sheet, part));
                }
            }
            return HiddenParts.Said(name, shown, hidden);
        }
        catch (Exception e) when (e is InvalidDataException or XmlException)
        {
            throw new TableException("The workbook is damaged; it is kept as it came.");
        }
    }

    private static OriginalPart? Sheet(XmlReader table, string name, int mostRows, int mostColumns)
    {
        var (rows, hiddenRows) = (new List<IReadOnlyList<string>>(), 0);
        var (column, unseen, merged) = (0, new HashSet<int>(), new MergedCells());
        while (table.Read() && rows.Count <= mostRows)
        {
            if (table.NodeType != XmlNodeType.Element || table.LocalName is not ("table-row" or "table-column"))
                continue;
            var isHidden = table.GetAttribute("visibility", Table) is "collapse" or "filter";
            if (table.LocalName == "table-column")
            {
                var many = Repeated(table, "number-columns-repeated");
                if (isHidden)
                    unseen.UnionWith(Enumerable.Range(column, many).Where(c => c < mostColumns));
                column += many;
                continue;
            }
            var times = Repeated(table, "number-rows-repeated");
            var cells = Cells(table.ReadSubtree(), mostColumns, rows.Count + hiddenRows, merged);
            if (isHidden)
                hiddenRows += cells.Exists(c => c.Length > 0) ? times : 0;
            else
                rows.AddRange(Enumerable.Repeat(cells.Where((_, i) => !unseen.Contains(i)).ToList(), times));
        }
        return HiddenParts.Sheet(name, rows, hiddenRows, unseen.Count);
    }

    private static List<string> Cells(XmlReader row, int mostColumns, int number, MergedCells merged)
    {
        var cells = new List<string>();
        while (row.Read())
        {
            if (row.NodeType != XmlNodeType.Element || row.LocalName is not ("table-cell" or "covered-table-cell"))
                continue;
            var times = Repeated(row, "number-columns-repeated");
            // What is stored, where it is a number or a date; as it is shown may be rounded.
            var stored = row.GetAttribute("value-type", Office) switch
            {
                "float" or "percentage" or "currency" => row.GetAttribute("value", Office),
                "date" => row.GetAttribute("date-value", Office)?.Split('T')[0],
                _ => null,
            };
            var (over, isCovered) = (Repeated(row, "number-rows-spanned"), row.LocalName == "covered-table-cell");
            var text = stored ?? Words(row.ReadSubtree());
            merged.Begin(number, cells.Count, number + over - 1, text);
            if (isCovered && text.Length == 0)
                text = merged.At(number, cells.Count);
            for (var i = 0; i < times && cells.Count < mostColumns; i++)
                cells.Add(text);
        }
        return cells;
    }

    private static string Words(XmlReader cell)
    {
        var words = new List<string>();
        while (cell.Read())
        {
            if (cell.NodeType is XmlNodeType.Text or XmlNodeType.SignificantWhitespace)
                words.Add(cell.Value);
        }
        return string.Join(' ', words).Trim();
    }

    private static int Repeated(XmlReader xml, string attribute) =>
        int.TryParse(xml.GetAttribute(attribute, Table), out var times) ? Math.Clamp(times, 1, MostRepeated) : 1;
}
