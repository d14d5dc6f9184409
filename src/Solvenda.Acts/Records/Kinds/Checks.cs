using System.Globalization;
using Solvenda.Acts.Lists;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;

namespace Solvenda.Acts.Records.Kinds;

/// <summary>What fields of several kinds are looked at for; each answers with what is wrong, or null.</summary>
internal static class Checks
{
    public static string? Currency(string text) =>
        Core.Money.Currency.TryOf(text, out var c) && c.Code == text ? null : $"“{text}” is not a currency of ISO 4217";

    public static string? Country(string text) =>
        text.Length == 2 && text.All(char.IsAsciiLetterUpper)
            ? null
            : $"“{text}” is not a country of ISO 3166-1, two capital letters";

    /// <summary>The same, or nothing.</summary>
    public static string? CountryOrNothing(string text) => text.Length == 0 ? null : Country(text);

    /// <summary>The code of a unit, where its word was typed: MTR for "m".</summary>
    public static string UnitOf(string text) =>
        UnitTable.FromCode(text) is { } code ? code.Code : UnitTable.FromWord(text)?.Code ?? text;

    public static string? UnitCode(string text) =>
        UnitTable.FromCode(text) is { } unit && unit.Code == text
            ? null
            : $"“{text}” is not a unit that we know (UN/ECE Rec 20)";

    public static string? Incoterm(string text) =>
        Incoterms.Is(text) ? null : $"“{text}” is not one of the Incoterms 2020";

    public static string? Mail(string text) =>
        Formats.Mail.MailWriter.IsAddress(text) ? null : $"“{text}” is not a mail address";

    /// <summary>"sv: tamp; de: Tau": languages of ISO 639-1, each once.</summary>
    public static string? ByLanguage(string text)
    {
        var seen = new HashSet<string>();
        foreach (var part in text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            var at = part.IndexOf(':', StringComparison.Ordinal);
            if (at != 2 || !char.IsAsciiLetterLower(part[0]) || !char.IsAsciiLetterLower(part[1]))
                return $"“{part}” does not begin with a language, as sv: …";
            if (!seen.Add(part[..2]))
                return $"{part[..2]} stands twice";
        }
        return null;
    }

    /// <summary>GTIN-8, -12, -13 or -14 with its check digit (GS1 General Specifications, 7.9).</summary>
    public static string? Gtin(string text)
    {
        if (text.Length is not (8 or 12 or 13 or 14) || !text.All(char.IsAsciiDigit))
            return $"“{text}” is not a GTIN: it has 8, 12, 13 or 14 digits";
        var sum = text[..^1].Reverse().Select((c, i) => (c - '0') * (i % 2 == 0 ? 3 : 1)).Sum();
        var digit = (10 - (sum % 10)) % 10;
        return text[^1] - '0' == digit
            ? null
            : string.Create(CultureInfo.InvariantCulture, $"the check digit of {text} should be {digit}");
    }

    public static IEnumerable<(string Field, string Words)> Order(DateOnly from, DateOnly? to) =>
        When(to < from, "to", "it ends before it begins");

    /// <summary>One fault, where it is one.</summary>
    public static IEnumerable<(string Field, string Words)> When(bool wrong, string field, string words) =>
        wrong ? [(field, words)] : [];

    /// <summary>Days of the week: "Mon Tue".</summary>
    public static string? Days(string text) =>
        text.Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .FirstOrDefault(d => d is not ("Mon" or "Tue" or "Wed" or "Thu" or "Fri" or "Sat" or "Sun"))
            is { } wrong
            ? $"“{wrong}” is not a day, as Mon"
            : null;
}
