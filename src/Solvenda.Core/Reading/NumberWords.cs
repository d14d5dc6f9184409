using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// Numbers in words, as one language builds them: "a hundred and twenty", "zweiundzwanzig", "ciento veinte". What is
/// built in no such way is no number, and is asked.
/// </summary>
internal static class NumberWords
{
    // "Nine hundred and ninety-nine thousand nine hundred and ninety-nine" has ten, and no word is as long as this.
    private const int MostParts = 10;
    private const int Longest = 160;

    /// <summary>A regular expression for a number in words, apart or written together; without groups.</summary>
    public static string Pattern(Language language)
    {
        ArgumentNullException.ThrowIfNull(language);
        var single = Language.AnyOf(Simple(language).Select(n => n.Key));
        var joints = Language.AnyOf(language.NumberJoints);
        return $@"(?:{Language.AnyOf(language.Numbers.Keys)})(?:(?:\s+(?:(?:{joints})\s+)?|-|(?:{joints}))?(?:{single})){{0,{MostParts}}}";
    }

    /// <summary>The number that words say; null where they do not make one.</summary>
    public static decimal? Read(string words, Language language)
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(language);
        if (words.Length > Longest)
            return null;
        var plain = Regex.Replace(words.Trim().ToLowerInvariant(), @"\s+", " ");
        if (language.Numbers.TryGetValue(plain, out var whole))
            return whole;
        var parts = Parts(plain, language);
        return parts is null ? null : Value(parts);
    }

    // A dozen is a number too, but builds none.
    private static IEnumerable<KeyValuePair<string, decimal>> Simple(Language language) =>
        language.Numbers.Where(n => !language.Groups.Keys.Any(g => n.Key.Contains(g, StringComparison.Ordinal)));

    // The words one after the other, with a zero where a joint stands; null where something else stands between.
    private static List<decimal>? Parts(string text, Language language)
    {
        var known = Simple(language).OrderByDescending(n => n.Key.Length).ToList();
        var found = new List<decimal>();

        // From the left, the longest first, back where the rest does not come out: "acht" begins "achtzig" too.
        bool From(int at)
        {
            while (at < text.Length && text[at] is ' ' or '-')
                at++;
            if (at == text.Length)
                return true;
            foreach (
                var (word, value) in known
                    .Select(n => (n.Key, n.Value))
                    .Concat(language.NumberJoints.Select(j => (j, 0m)))
            )
            {
                if (!text.AsSpan(at).StartsWith(word, StringComparison.Ordinal))
                    continue;
                found.Add(value);
                if (From(at + word.Length))
                    return true;
                found.RemoveAt(found.Count - 1);
            }
            return false;
        }

        return From(0) ? found : null;
    }

    private static decimal? Value(List<decimal> parts)
    {
        var (total, group, joined) = (0m, 0m, false);
        foreach (var part in parts)
        {
            switch (part)
            {
                case 0m:
                    joined = true;
                    continue;
                case 1000m when total == 0:
                    (total, group) = ((group == 0 ? 1 : group) * 1000m, 0m);
                    break;
                case 100m when group is 0 or (>= 1 and < 10):
                    group = (group == 0 ? 1 : group) * 100m;
                    break;
                case < 100m when group % 100m == 0:
                // Twenty-five; five-and-twenty where units come first.
                case < 10m when group % 10m == 0 && group % 100m >= 20m:
                case >= 20m and < 100m when part % 10m == 0 && group % 100m is > 0 and < 10 && joined:
                case > 100m and < 1000m when group == 0:
                    group += part;
                    break;
                default:
                    return null;
            }
            joined = false;
        }
        return total + group is > 0 and var number ? number : null;
    }
}
