using System.Text.RegularExpressions;

namespace Solvenda.Core.Buyers;

/// <summary>
/// The forms of postal codes by country, as the posts of the countries publish them (UPU S42, national annexes).
/// Countries that are not here are not judged.
/// </summary>
public static partial class PostalCodes
{
    private static readonly Dictionary<string, (Regex Form, string Like)> Forms = new()
    {
        ["IE"] = (Eircode(), "A65 F4E2"),
        ["GB"] = (British(), "PA34 4AB"),
        ["DE"] = (Five(), "24103"),
        ["FR"] = (Five(), "29200"),
        ["ES"] = (Five(), "07012"),
        ["NO"] = (Four(), "5003"),
        ["DK"] = (Four(), "6700"),
        ["BE"] = (Four(), "2000"),
        ["SE"] = (Swedish(), "411 04"),
        ["NL"] = (Dutch(), "3011 AB"),
        ["US"] = (Zip(), "04002"),
    };

    /// <summary>
    /// What a postal code there looks like, where an address has none of that form; null where it has one, or the
    /// country's form is not known here.
    /// </summary>
    /// <param name="country">ISO 3166-1 alpha-2.</param>
    public static string? Missing(string address, string country)
    {
        ArgumentNullException.ThrowIfNull(address);
        ArgumentNullException.ThrowIfNull(country);
        return Forms.TryGetValue(country, out var code) && !code.Form.IsMatch(address) ? code.Like : null;
    }

    // Routing key and unique identifier (An Post); the letters left out are never used.
    [GeneratedRegex(@"\b(?:[AC-FHKNPRTV-Y]\d{2}|D6W) ?[0-9AC-FHKNPRTV-Y]{4}\b", RegexOptions.IgnoreCase)]
    private static partial Regex Eircode();

    // Outward and inward code (BS 7666).
    [GeneratedRegex(@"\b[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}\b", RegexOptions.IgnoreCase)]
    private static partial Regex British();

    [GeneratedRegex(@"\b\d{5}\b")]
    private static partial Regex Five();

    [GeneratedRegex(@"\b\d{4}\b")]
    private static partial Regex Four();

    [GeneratedRegex(@"\b\d{3} ?\d{2}\b")]
    private static partial Regex Swedish();

    [GeneratedRegex(@"\b\d{4} ?[A-Z]{2}\b", RegexOptions.IgnoreCase)]
    private static partial Regex Dutch();

    [GeneratedRegex(@"\b\d{5}(?:-\d{4})?\b")]
    private static partial Regex Zip();
}
