using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>Words for things, taken apart to be compared: plain, with their sizes whole and in one measure.</summary>
internal static partial class ItemWords
{
    /// <summary>Whether it is a number with a unit of size: "10mm".</summary>
    public static bool IsSize(string word) => SizeToken().IsMatch(word);

    /// <summary>A plural as its singular.</summary>
    public static string Stem(string token) =>
        token.Length > 3 && token[^1] == 's' && token[^2] != 's' ? token[..^1] : token;

    /// <summary>How many letters differ, as far as that is told; more than the most where it is more.</summary>
    public static int Distance(string a, string b, int most)
    {
        Span<int> row = stackalloc int[Math.Min(b.Length, 64) + 1];
        if (b.Length > 64)
            return most + 1;
        for (var j = 0; j < row.Length; j++)
            row[j] = j;
        for (var i = 1; i <= a.Length; i++)
        {
            var diagonal = row[0];
            row[0] = i;
            for (var j = 1; j < row.Length; j++)
            {
                var above = row[j];
                row[j] = Math.Min(Math.Min(row[j] + 1, row[j - 1] + 1), diagonal + (a[i - 1] == b[j - 1] ? 0 : 1));
                diagonal = above;
            }
        }
        return row[^1];
    }

    /// <summary>Its words: lower case, sizes joined, punctuation gone.</summary>
    public static IEnumerable<string> Split(string words)
    {
        var plain = new StringBuilder(words.Length);
        foreach (
            var c in Inches
                .Replace(Fractions.Replace(words, Whole), "$1in ")
                .Normalize(NormalizationForm.FormKC)
                .ToLower(CultureInfo.InvariantCulture)
        )
            plain.Append(char.IsLetterOrDigit(c) || c is '.' or ',' or '²' ? c : ' ');
        var joined = SizeGap().Replace(plain.ToString(), "$1$2 ");
        return joined
            .Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Select(t => t.Trim('.', ','))
            .Where(t => t.Length > 0)
            .Select(t => IsSize(t) ? Metric(t) : t);
    }

    // Centimetres as the millimetres that the trade counts in; a decimal comma as a point.
    private static string Metric(string size)
    {
        var plain = size.Replace(',', '.');
        return
            plain.EndsWith("cm", StringComparison.Ordinal)
            && decimal.TryParse(plain[..^2], NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var cm)
            ? string.Create(CultureInfo.InvariantCulture, $"{cm * 10m:0.###}mm")
            : plain;
    }

    // "1 1/2 in" is 1.5 inches, and never two.
    private static string Whole(Match m)
    {
        decimal Part(string group) => decimal.Parse(m.Groups[group].Value, CultureInfo.InvariantCulture);
        var whole = m.Groups["whole"].Success ? Part("whole") : 0m;
        var below = Part("below");
        return below == 0m
            ? m.Value
            : string.Create(CultureInfo.InvariantCulture, $"{whole + (Part("above") / below):0.####}in ");
    }

    // Behind a fraction "in" is no other word.
    private static readonly Regex Fractions = new(
        @"(?<![\d/.,])(?:(?<whole>\d{1,3})[ -])?(?<above>\d{1,2})\s?/\s?(?<below>\d{1,2})"
            + $@"\s*(?:{Language.InchPattern}|in\b)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    );

    private static readonly Regex Inches = new(
        $@"(\d)\s*{Language.InchPattern}",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    );

    [GeneratedRegex(@"(\d+(?:[.,]\d+)?)\s*(mm|cm|m|in|l|kg|n)\b", RegexOptions.CultureInvariant)]
    private static partial Regex SizeGap();

    [GeneratedRegex(@"^\d+(?:[.,]\d+)?(mm|cm|m|in|l|kg|n)$", RegexOptions.CultureInvariant)]
    private static partial Regex SizeToken();
}
