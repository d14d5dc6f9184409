using System.Collections.Immutable;
using System.Globalization;
using System.Text;

namespace Solvenda.Core.Buyers;

/// <summary>A party or a destination that the house may not deliver to.</summary>
/// <param name="Name">Of the party; empty for a whole country.</param>
/// <param name="Country">ISO 3166-1 alpha-2; empty for a party wherever it is.</param>
/// <param name="Why">By which list, in words.</param>
public sealed record Restriction(string Name, string Country, string Why)
{
    /// <summary>Whether it is about a whole country.</summary>
    public bool IsDestination => Name.Length == 0;
}

/// <summary>A name or a country that was found among the restrictions.</summary>
/// <param name="IsSame">False where the names are only much alike: somebody has to look.</param>
public sealed record Restricted(Restriction By, bool IsSame);

/// <summary>Compares names and countries with the restrictions.</summary>
public static class Restrictions
{
    // What says how a house is run and not which it is.
    private static readonly HashSet<string> Forms =
    [
        "AB",
        "AG",
        "AS",
        "ASA",
        "APS",
        "BV",
        "CO",
        "CO",
        "CORP",
        "GMBH",
        "INC",
        "KG",
        "LDA",
        "LLC",
        "LTD",
        "NV",
        "OY",
        "OYJ",
        "PLC",
        "SA",
        "SAS",
        "SARL",
        "SL",
        "SPA",
        "SRL",
        "THE",
        "UND",
        "AND",
        "ET",
        "Y",
    ];

    // Fewer words than this are in too many names to say anything.
    private const int FewestAlike = 2;

    /// <summary>The country, where nothing may go there; null where it may.</summary>
    public static Restricted? Destination(string? country, ImmutableArray<Restriction> all) =>
        all.FirstOrDefault(r => r.IsDestination && r.Country == country) is { } found
            ? new Restricted(found, true)
            : null;

    /// <summary>
    /// The party that is called so, or much like it; null where none is. Accents, letter case, word order and legal
    /// forms
    /// are no difference; another country, or words more or fewer, make it only alike.
    /// </summary>
    public static Restricted? Party(string name, string? country, ImmutableArray<Restriction> all)
    {
        var words = WordsOf(name);
        if (words.Count == 0)
            return null;
        var alike = all.Where(r => !r.IsDestination)
            .Select(r => (By: r, Words: WordsOf(r.Name)))
            .Where(r => r.Words.Count > 0)
            .ToList();
        var same = alike.Where(r => r.Words.SetEquals(words)).ToList();
        if (same.Count > 0)
        {
            var here = same.Find(r => r.By.Country.Length == 0 || r.By.Country == country);
            return new Restricted((here.By ?? same[0].By), here.By is not null);
        }
        var near = alike.Find(r =>
            Math.Min(r.Words.Count, words.Count) >= FewestAlike
            && (r.Words.IsSubsetOf(words) || words.IsSubsetOf(r.Words))
        );
        return near.By is { } by ? new Restricted(by, false) : null;
    }

    private static HashSet<string> WordsOf(string name)
    {
        var plain = new StringBuilder();
        foreach (var c in name.Normalize(NormalizationForm.FormKD))
        {
            if (char.IsLetterOrDigit(c))
                plain.Append(char.ToUpperInvariant(c));
            else if (CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark && c != '.')
                plain.Append(' ');
        }
        var words = plain.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries).ToHashSet();
        words.ExceptWith(Forms);
        return words;
    }
}
