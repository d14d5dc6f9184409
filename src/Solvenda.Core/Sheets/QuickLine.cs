using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Units;

namespace Solvenda.Core.Sheets;

/// <summary>A line as it is typed in one go: <c>thimble 12 x 20 @2.10 -5%</c>.</summary>
/// <param name="Words">The code or words of the item.</param>
public sealed partial record QuickLine(
    string Words,
    decimal? Quantity,
    Unit? Unit,
    decimal? Price,
    decimal? DiscountPercent
)
{
    /// <summary>
    /// Reads from the end: <c>-5%</c>, <c>@2.10</c>, then <c>x 20</c> or a number with a unit, or a bare number behind
    /// a code. Decimal sign is a point or a comma.
    /// </summary>
    public static QuickLine Parse(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var rest = text.Trim();
        var discount = Take(Discount(), ref rest);
        var price = Take(AtPrice(), ref rest);
        Unit? unit = null;
        decimal? quantity = null;
        if (Count().Match(rest) is { Success: true } m)
        {
            var word = m.Groups["unit"].Value;
            unit = word.Length > 0 ? UnitTable.FromWord(word) : null;
            // "thimble 12" is a size, "SHK-BOW-10 12" a quantity: a bare number counts only behind something that looks
            // like a code.
            var bare = !m.Groups["x"].Success && word.Length == 0;
            if (
                (word.Length == 0 || unit is not null)
                && (!bare || Code().IsMatch(rest[..m.Index].Trim()))
                && m.Index > 0
            )
            {
                quantity = Number(m.Groups["n"].Value);
                rest = rest[..m.Index].Trim();
            }
            else
            {
                unit = null;
            }
        }
        return new QuickLine(rest, quantity, unit, price, discount);
    }

    /// <summary>A number as people type it; null where it is none.</summary>
    public static decimal? Number(string text)
    {
        var plain = text.Replace(" ", "", StringComparison.Ordinal).Replace('\u2212', '-').Replace(',', '.');
        return decimal.TryParse(
            plain,
            NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var n
        )
            ? n
            : null;
    }

    private static decimal? Take(Regex pattern, ref string rest)
    {
        if (pattern.Match(rest) is not { Success: true } m || Number(m.Groups["n"].Value) is not { } n)
            return null;
        rest = rest.Remove(m.Index, m.Length).Trim();
        return n;
    }

    [GeneratedRegex(@"\s[-\u2212](?<n>\d+(?:[.,]\d+)?)\s*%\s*$")]
    private static partial Regex Discount();

    [GeneratedRegex(@"\s@\s*(?<n>\d+(?:[.,]\d+)?)\s*$")]
    private static partial Regex AtPrice();

    [GeneratedRegex(@"\s(?<x>[x×*]\s*)?(?<n>\d+(?:[.,]\d+)?)\s*(?<unit>[a-zA-Z²]+[2]?)?$")]
    private static partial Regex Count();

    [GeneratedRegex(@"^[A-Za-z0-9]+(?:-[A-Za-z0-9]+)+$|^\d{8,14}$")]
    private static partial Regex Code();
}
