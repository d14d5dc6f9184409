using System.Globalization;

namespace Solvenda.Data;

/// <summary>The parts of a bundle as text: "CHN-SL-10 x 5; SWV-GV-10 x 1".</summary>
public static class PartsText
{
    /// <summary>Code and stock units of each part; a part that cannot be read has a quantity of zero.</summary>
    public static IEnumerable<(string Code, decimal Quantity)> Parse(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        foreach (var part in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var at = part.LastIndexOf(" x ", StringComparison.OrdinalIgnoreCase);
            var quantity =
                at > 0
                && decimal.TryParse(
                    part[(at + 3)..],
                    NumberStyles.AllowDecimalPoint,
                    CultureInfo.InvariantCulture,
                    out var n
                )
                    ? n
                : at > 0 ? 0m
                : 1m;
            yield return (at > 0 ? part[..at].Trim() : part, quantity);
        }
    }
}
