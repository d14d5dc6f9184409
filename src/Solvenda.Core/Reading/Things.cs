using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>Tells a number that counts something from one that only names something.</summary>
internal static partial class Things
{
    // More words than these behind a number are a sentence.
    private const int MostWords = 6;

    /// <summary>
    /// Whether a bare number counts the words behind it, though we sell nothing that is called so: "2 boat hooks".
    /// </summary>
    public static bool IsCounted(Clause clause, Match number, string words, Scene scene)
    {
        var plain = words.Split([' ', ','], StringSplitOptions.RemoveEmptyEntries);
        if (plain.Length is 0 or > MostWords || !char.IsLetter(plain[0][0]) || plain[0].Length < 3)
            return false;
        var first = plain[0].ToLowerInvariant();
        if (scene.Language.IsIdle(first) || Language.English.IsIdle(first) || IsSpan(first, scene.Language))
            return false;
        // Something is called so, and not only spoken of: "2 of them were damaged".
        if (plain.All(w => scene.Language.IsIdle(w.ToLowerInvariant())))
            return false;
        var before = clause.Text[..Math.Max(0, number.Index - clause.Offset)];
        return Begins(before, scene) && !Names(before, scene.Language);
    }

    /// <summary>Whether the words before a number say that it names something: gate code 4471.</summary>
    public static bool Names(string before, Language language)
    {
        var last = LastWord().Match(before).Groups[1];
        // "The gate code is 4471."
        if (language.Is.Concat(Language.English.Is).Contains(last.Value.ToLowerInvariant()))
            last = LastWord().Match(before[..last.Index]).Groups[1];
        return last.Length > 0 && Names(last.Value.ToLowerInvariant(), language, Language.English);
    }

    /// <summary>
    /// Whether the word right behind a number is a code of ours, or what things of ours are called by.
    /// </summary>
    public static bool StandBehind(string text, int at, Scene scene)
    {
        var next = NextWord().Match(text, at, Math.Min(60, text.Length - at));
        if (!next.Success || next.Index != at)
            return false;
        var word = next.Groups[1].Value;
        return scene.Context.Items.ByCode(word.TrimEnd('.')) is not null
            || (
                word.Length > 3
                && word.All(char.IsLetter)
                && scene.Context.Items.Knows(word.ToLowerInvariant(), scene.Language)
            );
    }

    [GeneratedRegex(@"[ \t]+([\w.-]*\w)")]
    private static partial Regex NextWord();

    /// <summary>Whether no thing is called on behind this word: "some of the news from our line".</summary>
    public static bool EndsAThing(string word, Language language) =>
        language.And.Contains(word)
        || language.By.Contains(word)
        || Language.English.By.Contains(word)
        || language.Stop.Contains(word);

    private static bool Names(string word, params ReadOnlySpan<Language> languages)
    {
        foreach (var language in languages)
        {
            if (language.Naming.Contains(word))
                return true;
        }
        return false;
    }

    private static bool IsSpan(string word, Language language) =>
        language.Spans.ContainsKey(word)
        || Language.English.Spans.ContainsKey(word)
        || word is "hours" or "hour" or "minutes" or "months" or "month" or "years" or "year" or "times" or "tonnes"
        || word.StartsWith("stunde", StringComparison.Ordinal)
        || word.StartsWith("monat", StringComparison.Ordinal);

    // At the beginning of a piece, behind a mark of a list, a comma, "and", or what asks for something.
    private static bool Begins(string before, Scene scene)
    {
        var trimmed = before.TrimEnd();
        if (trimmed.Length == 0 || trimmed[^1] is ',' or ':' or '-' or '*' or '•' or '·' or ')' or '(' or '&' or '+')
            return true;
        var last = LastWord().Match(before).Groups[1].Value.ToLowerInvariant();
        var language = scene.Language;
        return language.And.Concat(Language.English.And).Contains(last)
            || language
                .Order.Concat(Language.English.Order)
                .Any(o => o == last || o.EndsWith(" " + last, StringComparison.Ordinal))
            || language.Quote.Concat(Language.English.Quote).Contains(last)
            || last is "for" or "plus" or "us" or "uns" or "für" or "oss" or "ons" or "supply" or "want";
    }

    [GeneratedRegex(@"([\p{L}\d.'’-]*\p{L})[ \t.:#]*$")]
    private static partial Regex LastWord();
}
