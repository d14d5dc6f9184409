using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Sheets.Entry;

/// <summary>Numbers as people type them into a field.</summary>
public static partial class Numbers
{
    /// <summary>
    /// A number with a point or a comma as its decimal sign; null where it is none. Groups of three behind a comma are
    /// thousands, as the screens write them (<c>1,250</c>); of two different signs the last is the decimal one
    /// (<c>1.250,5</c>).
    /// </summary>
    public static decimal? Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = text.Replace(" ", "", StringComparison.Ordinal).Replace('\u2212', '-');
        var (comma, point) = (plain.LastIndexOf(','), plain.LastIndexOf('.'));
        if (comma >= 0 && point >= 0)
            plain =
                comma > point
                    ? plain.Replace(".", "", StringComparison.Ordinal).Replace(',', '.')
                    : plain.Replace(",", "", StringComparison.Ordinal);
        else if (Grouped().IsMatch(plain))
            plain = plain.Replace(",", "", StringComparison.Ordinal);
        else if (GroupedByPoints().IsMatch(plain))
            plain = plain.Replace(".", "", StringComparison.Ordinal);
        else
            plain = plain.Replace(',', '.');
        return decimal.TryParse(
            plain,
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var n
        )
            ? n
            : null;
    }

    [GeneratedRegex(@"^-?[1-9]\d{0,2}(?:,\d{3})+$")]
    private static partial Regex Grouped();

    // One point alone is a decimal sign.
    [GeneratedRegex(@"^-?[1-9]\d{0,2}(?:\.\d{3}){2,}$")]
    private static partial Regex GroupedByPoints();
}
