using System.Collections.Frozen;
using System.Globalization;
using System.Text;

namespace Solvenda.Core.Documents;

/// <summary>
/// The key by which two spellings of a PO number are known to be the same (docs/calculations.md, "Same order twice").
/// </summary>
public static class PoKey
{
    // Longest first, so that "P.O." is not left as ".O.".
    private static readonly string[] Leads = ["ORDER", "P.O.", "P.O", "PO", "NO", "NR", "#"];

    // Letters of Greek and Cyrillic that look like Latin capitals (Unicode Technical Standard 39, confusables, those of
    // these scripts).
    private static readonly FrozenDictionary<char, char> LookAlikes = Pairs(
        "ΑA ΒB ΕE ΖZ ΗH ΙI ΚK ΜM ΝN ΟO ΡP ΤT ΥY ΧX АA ВB ЕE ЅS ІI ЈJ КK МM НH ОO РP СC ТT УY ХX ԚQ ԜW ҮY ӀI"
    );

    /// <summary>
    /// NFKC, look-alike letters and decimal digits of all scripts folded, upper case, without a leading PO / P.O. /
    /// ORDER / NO / NR / # (as a word of its
    /// own, or before a digit), only letters and digits, leading zeros of each run of digits dropped. A number that is
    /// nothing but such a word stays;
    /// one with no letter or digit is none: empty.
    /// </summary>
    public static string Of(string poNumber)
    {
        ArgumentNullException.ThrowIfNull(poNumber);
        var text = Folded(poNumber.Normalize(NormalizationForm.FormKC).ToUpperInvariant().Trim());
        var rest = text;
        while (Strip(rest) is { } shorter)
            rest = shorter;
        var key = Letters(rest);
        return key.Length > 0 ? key : Letters(text);
    }

    /// <summary>Of a call-off: PO number and release number together.</summary>
    /// <param name="release">Null or empty: it has none.</param>
    public static string Of(string? poNumber, string? release)
    {
        var po = Of(poNumber ?? "");
        return po.Length > 0 && Of(release ?? "") is { Length: > 0 } part ? $"{po}/{part}" : po;
    }

    private static string Folded(string text)
    {
        var folded = new StringBuilder(text.Length);
        for (var i = 0; i < text.Length; i++)
        {
            if (LookAlikes.TryGetValue(text[i], out var latin))
                folded.Append(latin);
            else if (CharUnicodeInfo.GetDecimalDigitValue(text, i) is var digit and >= 0)
            {
                folded.Append((char)('0' + digit));
                if (char.IsHighSurrogate(text[i]))
                    i++;
            }
            else
                folded.Append(text[i]);
        }
        return folded.ToString();
    }

    private static string? Strip(string text)
    {
        var start = text.TrimStart(' ', '.', ':', '-', '/', '_');
        foreach (var lead in Leads)
        {
            if (!start.StartsWith(lead, StringComparison.Ordinal))
                continue;
            var rest = start[lead.Length..];
            // "NORTH-7" and "PO-BOX" keep their letters: a lead is a word of its own, or stands before a digit.
            var ends =
                rest.Length > 0
                && (char.IsDigit(rest[0]) || !char.IsLetter(lead[^1]) || rest[0] is ' ' or '.' or ':' or '#');
            if (
                ends
                || (
                    rest.Length > 0
                    && !char.IsLetterOrDigit(rest[0])
                    && rest.Any(char.IsLetterOrDigit)
                    && Separated(rest)
                )
            )
                return rest;
        }
        return null;
    }

    // "PO-4711" and "PO/4711" are a lead and a number; "PO-BOX" is not.
    private static bool Separated(string rest) => char.IsDigit(rest.First(char.IsLetterOrDigit));

    private static string Letters(string text)
    {
        var kept = new string([.. text.Where(char.IsLetterOrDigit)]);
        var key = new StringBuilder(kept.Length);
        var inZeros = false;
        for (var i = 0; i < kept.Length; i++)
        {
            // A zero that leads its run of digits goes, unless it is the last of the run: "A-0" is not "A".
            var leads = kept[i] == '0' && (i == 0 || !char.IsDigit(kept[i - 1]) || inZeros);
            inZeros = leads && i + 1 < kept.Length && char.IsDigit(kept[i + 1]);
            if (!inZeros)
                key.Append(kept[i]);
        }
        return key.ToString();
    }

    private static FrozenDictionary<char, char> Pairs(string pairs) =>
        pairs.Split(' ').ToFrozenDictionary(p => p[0], p => p[1]);
}
