using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>A number as written. Where its sign could be either, both values are there, and a person decides.</summary>
/// <param name="Or">The other value that it could be; null where it is clear.</param>
public sealed record WrittenNumber(decimal Value, decimal? Or);

/// <summary>
/// Which sign is the decimal one, as a document itself shows: <c>2,40</c> somewhere says that <c>1.250</c> is a
/// thousand and more. Where nothing shows it, three digits behind one sign stay open.
/// </summary>
/// <param name="Sign">The decimal sign; null where the document does not tell, or tells both.</param>
public sealed partial record NumberForm(char? Sign)
{
    /// <summary>Nothing told which sign is which.</summary>
    public static readonly NumberForm Unknown = new((char?)null);

    /// <summary>What the numbers of one document tell about their signs.</summary>
    public static NumberForm Of(IEnumerable<string> numbers)
    {
        var seen = numbers.Select(SignOf).Where(s => s is not null).Distinct().ToList();
        return seen.Count == 1 ? new NumberForm(seen[0]) : Unknown;
    }

    /// <summary>What the numbers with a sign in a running text tell.</summary>
    public static NumberForm OfText(string text) => Of(Signed().Matches(text).Select(m => m.Value));

    /// <summary>Null where it is no number.</summary>
    public WrittenNumber? Read(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var trimmed = text.Trim();
        var negative =
            trimmed.StartsWith('-') || trimmed.StartsWith('\u2212') || (trimmed.EndsWith('-') && trimmed.Length > 1);
        var plain = Bare(trimmed.Trim('-', '\u2212', '+'), out var grouped);
        if (
            plain.Length is 0 or > 28
            || !char.IsAsciiDigit(plain[^1])
            || plain.Any(c => !char.IsAsciiDigit(c) && c is not (',' or '.'))
        )
            return null;
        var (commas, points) = (plain.Count(c => c == ','), plain.Count(c => c == '.'));
        WrittenNumber? WithSign(decimal? value, decimal? or = null) =>
            value is { } v ? new WrittenNumber(negative ? -v : v, negative ? -or : or) : null;
        if (commas == 0 && points == 0)
            return WithSign(Value(plain, null));
        var last = plain[plain.LastIndexOfAny([',', '.'])];
        if (commas > 0 && points > 0)
            return (last == ',' ? commas : points) == 1 ? WithSign(Value(plain, last)) : null;
        // One sign, more than once: it can only part thousands.
        if (commas + points > 1)
            return plain.Split(last).Skip(1).All(p => p.Length == 3) ? WithSign(Value(plain, null)) : null;
        var (lead, rest) = (plain.IndexOf(last), plain.Length - plain.IndexOf(last) - 1);
        if (grouped || rest != 3 || lead is 0 or > 3 || plain[0] == '0' || Sign == last)
            return WithSign(Value(plain, last));
        if (Sign is not null)
            return WithSign(Value(plain, null));
        return WithSign(Value(plain, null), Value(plain, last));
    }

    /// <summary>The decimal sign that one number gives away; null where it could be either, or is no number.</summary>
    public static char? SignOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = Bare(text.Trim().Trim('-', '\u2212', '+'), out var grouped);
        var (commas, points) = (plain.Count(c => c == ','), plain.Count(c => c == '.'));
        if (commas + points == 0 || !plain.All(c => char.IsAsciiDigit(c) || c is ',' or '.'))
            return null;
        var last = plain[plain.LastIndexOfAny([',', '.'])];
        if (commas > 0 && points > 0)
            return last;
        if (commas + points > 1)
            return last == ',' ? '.' : ',';
        var (lead, rest) = (plain.IndexOf(last), plain.Length - plain.IndexOf(last) - 1);
        return grouped || rest != 3 || lead is 0 or > 3 || plain[0] == '0' ? last : null;
    }

    // Blanks and apostrophes part thousands, whatever the sign.
    private static string Bare(string text, out bool grouped)
    {
        var plain = new string([
            .. text.Where(c => !(char.IsWhiteSpace(c) || c is '\u00a0' or '\u202f' or '\'' or '\u2019')),
        ]);
        grouped = plain.Length < text.Length;
        return plain;
    }

    private static decimal? Value(string plain, char? sign)
    {
        var digits = new string([.. plain.Where(c => char.IsAsciiDigit(c) || c == sign)]);
        return decimal.TryParse(
            sign is ',' ? digits.Replace(',', '.') : digits,
            NumberStyles.AllowDecimalPoint,
            CultureInfo.InvariantCulture,
            out var value
        )
            ? value
            : null;
    }

    [GeneratedRegex(
        @"(?<![\w.,-])(?:\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)+)(?![\w./-])",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Signed();
}
