using System.Collections.Frozen;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Buyers;

/// <summary>
/// Value added tax numbers: their form by country, and the check digit where the rule is public and simple (European
/// Commission, VIES, "VAT identification numbers", structure by member state). No register is asked.
/// </summary>
public static partial class TaxNumbers
{
    // By the first two letters; Greece writes EL, Northern Ireland XI.
    private static readonly FrozenDictionary<string, string> Forms = new Dictionary<string, string>
    {
        ["AT"] = @"U\d{8}",
        ["BE"] = @"[01]\d{9}",
        ["CH"] = @"E\d{9}(MWST|TVA|IVA)?",
        ["DE"] = @"\d{9}",
        ["DK"] = @"\d{8}",
        ["EL"] = @"\d{9}",
        ["ES"] = @"[A-Z0-9]\d{7}[A-Z0-9]",
        ["FI"] = @"\d{8}",
        ["FR"] = @"[A-HJ-NP-Z0-9]{2}\d{9}",
        ["GB"] = @"(\d{9}|\d{12}|GD\d{3}|HA\d{3})",
        ["IE"] = @"(\d{7}[A-W][A-I]?|\d[A-Z+*]\d{5}[A-W])",
        ["IT"] = @"\d{11}",
        ["LU"] = @"\d{8}",
        ["NL"] = @"\d{9}B\d{2}",
        ["NO"] = @"\d{9}(MVA)?",
        ["PL"] = @"\d{10}",
        ["PT"] = @"\d{9}",
        ["SE"] = @"\d{10}01",
        ["XI"] = @"(\d{9}|\d{12})",
    }.ToFrozenDictionary();

    /// <summary>
    /// What is wrong with a number, in words that follow it; null where nothing is, or nothing can be said.
    /// </summary>
    /// <param name="number">As typed: blanks, points and dashes count for nothing.</param>
    public static string? Fault(string number)
    {
        ArgumentNullException.ThrowIfNull(number);
        var plain = Filling().Replace(number.ToUpperInvariant(), "");
        if (plain.Length < 3 || !char.IsAsciiLetterUpper(plain[0]) || !char.IsAsciiLetterUpper(plain[1]))
            return "does not begin with the two letters of its country";
        var (country, rest) = (plain[..2], plain[2..]);
        if (!Forms.TryGetValue(country, out var form))
            return null;
        if (!Regex.IsMatch(rest, $"^{form}$", RegexOptions.CultureInvariant))
            return $"has not the form of numbers of {country}";
        return HasCheckDigit(country, rest) ? null : "has a check digit that does not fit";
    }

    // Where there is no rule here, it is taken as it stands.
    private static bool HasCheckDigit(string country, string digits) =>
        country switch
        {
            "BE" => 97 - long.Parse(digits[..8], Plain) % 97 == long.Parse(digits[8..], Plain),
            "DK" => Weighted(digits, [2, 7, 6, 5, 4, 3, 2, 1]) % 11 == 0,
            "FI" => Eleven(Weighted(digits, [7, 9, 10, 5, 8, 4, 2]), digits[7]),
            "LU" => long.Parse(digits[..6], Plain) % 89 == long.Parse(digits[6..], Plain),
            "NO" => Eleven(Weighted(digits, [3, 2, 7, 6, 5, 4, 3, 2]), digits[8]),
            "PL" => Weighted(digits, [6, 5, 7, 2, 3, 4, 5, 6, 7]) % 11 == digits[9] - '0',
            "DE" => German(digits),
            _ => true,
        };

    private static readonly IFormatProvider Plain = System.Globalization.CultureInfo.InvariantCulture;

    private static int Weighted(string digits, ReadOnlySpan<int> weights)
    {
        var sum = 0;
        for (var i = 0; i < weights.Length; i++)
            sum += (digits[i] - '0') * weights[i];
        return sum;
    }

    // What is missing to the next eleven; ten is never given.
    private static bool Eleven(int sum, char check) =>
        (11 - sum % 11) % 11 is var wanted and not 10 && wanted == check - '0';

    // ISO 7064, MOD 11,10.
    private static bool German(string digits)
    {
        var product = 10;
        foreach (var digit in digits[..8])
        {
            var sum = (digit - '0' + product) % 10;
            product = 2 * (sum == 0 ? 10 : sum) % 11;
        }
        return (11 - product) % 10 == digits[8] - '0';
    }

    [GeneratedRegex(@"[\s.\-/]")]
    private static partial Regex Filling();
}
