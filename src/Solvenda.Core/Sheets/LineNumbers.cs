using System.Collections.Immutable;
using System.Globalization;

namespace Solvenda.Core.Sheets;

/// <summary>
/// The numbers that lines go by, on the sheet and on paper: headings and comments have none, alternatives share theirs
/// and have a letter behind it.
/// </summary>
public static class LineNumbers
{
    /// <summary>By the key of the line: "1", "2", "3a", "3b", "4".</summary>
    public static IReadOnlyDictionary<long, string> Of(ImmutableArray<SheetLine> lines)
    {
        var numbers = new Dictionary<long, string>();
        var groups = new Dictionary<string, (int Number, int Count)>();
        var last = 0;
        foreach (var line in lines.Where(l => l.HasFigures))
        {
            if (line.OneOf.Length == 0)
            {
                numbers[line.Key] = (++last).ToString(CultureInfo.InvariantCulture);
                continue;
            }
            var (number, count) = groups.TryGetValue(line.OneOf, out var begun) ? begun : (++last, 0);
            groups[line.OneOf] = (number, count + 1);
            numbers[line.Key] = number.ToString(CultureInfo.InvariantCulture) + Letters(count);
        }
        return numbers;
    }

    // Behind z comes aa.
    private static string Letters(int count) =>
        (count >= 26 ? Letters((count / 26) - 1) : "") + (char)('a' + (count % 26));
}
