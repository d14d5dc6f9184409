using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using Solvenda.Formats.Tables;

namespace Solvenda.Formats.Mail;

/// <summary>
/// Cells of a table that reach over several columns or rows become as many cells, so that each column stays below its
/// head.
/// </summary>
internal static class HtmlSpans
{
    private const int MostColumns = 60;

    // What is made of one document; a table that spans more is none of goods.
    private const int MostMade = 20_000;

    public static void Unfold(IDocument document)
    {
        var left = MostMade;
        foreach (var table in document.QuerySelectorAll<IHtmlTableElement>("table"))
        {
            if (
                left > 0
                && table.QuerySelector("table") is null
                && table.QuerySelector("[colspan],[rowspan]") is not null
            )
                left -= Unfold(document, table, left);
        }
    }

    private static int Unfold(IDocument document, IHtmlTableElement table, int most)
    {
        var (merged, taken, made, number) = (new MergedCells(), new Dictionary<int, int>(), 0, 0);
        foreach (var row in table.Rows)
        {
            var column = 0;
            foreach (var cell in row.Cells.ToList())
            {
                for (; IsTaken(column) && made < most; column++, made++)
                    row.InsertBefore(Made(merged.At(number, column)), cell);
                var (over, down) = (Math.Clamp(cell.ColumnSpan, 1, MostColumns), Math.Max(cell.RowSpan, 1));
                merged.Begin(number, column, number + down - 1, cell.TextContent.Trim());
                for (var i = 0; i < over && made < most; i++, column++)
                {
                    if (down > 1)
                        taken[column] = number + down - 1;
                    if (i == 0)
                        continue;
                    row.InsertBefore(Made(""), cell.NextSibling);
                    made++;
                }
            }
            for (; IsTaken(column) && made < most; column++, made++)
                row.AppendChild(Made(merged.At(number, column)));
            number++;
        }
        return made;

        bool IsTaken(int column) => taken.TryGetValue(column, out var last) && last >= number;

        INode Made(string text)
        {
            var cell = document.CreateElement("td");
            cell.TextContent = text;
            return cell;
        }
    }
}
