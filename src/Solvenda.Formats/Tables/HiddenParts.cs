using System.Globalization;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Tables;

/// <summary>What of a workbook nobody sees: it is not read, and that is said.</summary>
internal static class HiddenParts
{
    /// <summary>The sheets that are shown, each saying what is hidden beside it.</summary>
    /// <exception cref="TableException">All of them are hidden.</exception>
    public static List<OriginalPart> Said(
        string name,
        List<(string Sheet, OriginalPart Part)> shown,
        List<string> hidden
    )
    {
        if (shown.Count == 0 && hidden.Count > 0)
            throw new TableException($"All that it holds is hidden: {Sheets(hidden)} not read.");
        var said = hidden.Count > 0 ? $"{name}: {Sheets(hidden)} hidden, and not read." : "";
        return
        [
            .. shown.Select(p =>
                p.Part with
                {
                    Name = shown.Count == 1 ? name : $"{name}, {p.Sheet}",
                    Warning = string.Join(' ', new[] { said, p.Part.Warning }.Where(w => w.Length > 0)),
                }
            ),
        ];
    }

    /// <summary>The rows that are shown, as a part; null where nothing stands in them.</summary>
    public static OriginalPart? Sheet(string name, List<IReadOnlyList<string>> rows, int hiddenRows, int hiddenColumns)
    {
        if (rows.TrueForAll(r => r.All(c => c.Length == 0)))
            return null;
        var hidden = new[] { Counted(hiddenRows, "row"), Counted(hiddenColumns, "column") }.Where(h => h.Length > 0);
        var part = Grid.Part(name, rows);
        return hidden.Any()
            ? part with
            {
                Warning =
                    $"{name}: {string.Join(" and ", hidden)} {(hiddenRows + hiddenColumns == 1 ? "was" : "were")} not read.",
            }
            : part;
    }

    private static string Counted(int count, string what) =>
        count == 0
            ? ""
            : string.Create(CultureInfo.InvariantCulture, $"{count} hidden {what}{(count == 1 ? "" : "s")}");

    private static string Sheets(List<string> sheets) =>
        sheets.Count == 1
            ? $"the sheet “{sheets[0]}” is"
            : $"the sheets {string.Join(", ", sheets.Select(s => $"“{s}”"))} are";
}
