using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>What the words and figures of a cell are, plain.</summary>
internal static partial class CellText
{
    private static readonly Lazy<HashSet<string>> Totals = new(() =>
        [.. Language.All.SelectMany(l => l.Total).Select(Plain)]
    );

    // "Total", "Total:", "Total EUR".
    public static bool IsTotal(string text) =>
        text.Length is > 0 and < 30
        && Plain(text) is var plain
        && (
            Totals.Value.Contains(plain)
            || (
                plain.IndexOf(' ', StringComparison.Ordinal) is > 0 and var blank
                && Totals.Value.Contains(plain[..blank])
            )
        );

    /// <summary>The number at the front of a cell: "12 pcs", "€ 1.250,50", "4,15 EUR".</summary>
    public static string Figures(string text) =>
        NumberAtFront().Match(text) is { Success: true } m ? m.Value.Trim() : text.Trim();

    /// <summary>What stands behind the number; nothing where there is none.</summary>
    public static string Behind(string text) =>
        NumberAtFront().Match(text) is { Success: true } m ? text[(m.Index + m.Length)..].Trim() : "";

    public static bool IsNumber(string text) => NumberForm.Unknown.Read(Figures(text)) is not null;

    public static string Plain(string text) =>
        Blank().Replace(text.ToLowerInvariant().Replace('_', ' ').Trim(' ', '.', ':', '*', '#', '\uFEFF'), " ");

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();

    [GeneratedRegex(@"(?<=^\s*(?:\D{0,4}?)\s*)[-\u2212]?\d[\d.,'’ \u00a0\u202f]*", RegexOptions.CultureInvariant)]
    private static partial Regex NumberAtFront();
}
