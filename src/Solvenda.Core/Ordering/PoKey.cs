using System.Text;

namespace Solvenda.Core.Ordering;

/// <summary>The key by which two spellings of a PO number are known to be the same.</summary>
public static class PoKey
{
    // Longest first, so that "P.O." is not left as ".O.".
    private static readonly string[] Leads = ["ORDER", "P.O.", "P.O", "PO", "NO", "NR", "#"];

    /// <summary>
    /// NFKC, upper case, without a leading PO / P.O. / ORDER / NO / NR / #, only letters and digits, leading zeros of each run of digits dropped.
    /// Empty for a number without a letter or digit. "NORTH-7" keeps its letters: a lead ends where no letter follows.
    /// </summary>
    public static string Of(string poNumber)
    {
        ArgumentNullException.ThrowIfNull(poNumber);
        var text = poNumber.Normalize(NormalizationForm.FormKC).ToUpperInvariant().Trim();
        var rest = text;
        while (Strip(rest) is { } shorter)
            rest = shorter;
        var key = Letters(rest);
        return key.Length > 0 ? key : Letters(text);
    }

    private static string? Strip(string text)
    {
        var start = text.TrimStart(' ', '.', ':', '-', '/', '_');
        foreach (var lead in Leads)
        {
            if (!start.StartsWith(lead, StringComparison.Ordinal) || start.Length == lead.Length)
                continue;
            var next = start[lead.Length];
            if (char.IsLetter(lead[^1]) && char.IsLetter(next))
                continue;
            return start[lead.Length..];
        }
        return null;
    }

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
}
