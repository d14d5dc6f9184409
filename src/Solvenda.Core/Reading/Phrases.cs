using System.Buffers;
using System.Globalization;

namespace Solvenda.Core.Reading;

/// <summary>
/// Words and groups of words to be looked for in a text: as whole ones, whatever their case and however wide the blanks
/// in them. Of several that begin at one place the longest counts. "send … back" may have other words of the sentence
/// between.
/// </summary>
/// <remarks>
/// A text is gone through once, word by word, however many there are to look for: asking a letter whether it says one
/// of two hundred things costs what reading it costs.
/// </remarks>
internal sealed class Phrases
{
    // Between the parts of "send … back".
    private const int MostBetween = 60;

    private static readonly SearchValues<char> SentenceEnds = SearchValues.Create(".?!\n,;");

    private static readonly Lazy<HashSet<string>> Joints = new(() => [.. Language.All.SelectMany(l => l.And)]);

    // By their first word, the longest first.
    private readonly Dictionary<string, string[]> _byFirst;
    private readonly Dictionary<string, string[]>.AlternateLookup<ReadOnlySpan<char>> _firsts;

    public Phrases(IEnumerable<string> phrases)
    {
        _byFirst = phrases
            .Where(p => p.Length > 0)
            .Distinct(StringComparer.OrdinalIgnoreCase)
            .GroupBy(p => p[..First(p, 0)], StringComparer.OrdinalIgnoreCase)
            .ToDictionary(
                g => g.Key,
                g => g.OrderByDescending(p => p.Length).ToArray(),
                StringComparer.OrdinalIgnoreCase
            );
        _firsts = _byFirst.GetAlternateLookup<ReadOnlySpan<char>>();
    }

    /// <summary>Whether one of them stands in the text.</summary>
    public bool In(string text)
    {
        foreach (var _ in Of(text))
            return true;
        return false;
    }

    /// <summary>Where they stand, from the first to the last; none begins inside another.</summary>
    public IEnumerable<(int Start, int Length)> Of(string text)
    {
        for (var at = 0; at < text.Length; )
        {
            var first = First(text, at);
            var length = LengthAt(text, at, first);
            if (length > 0)
                yield return (at, length);
            at = length > 0 ? at + length : first;
        }
    }

    private int LengthAt(string text, int at, int first)
    {
        if (!_firsts.TryGetValue(text.AsSpan(at, first - at), out var phrases))
            return 0;
        foreach (var phrase in phrases)
        {
            if (WholeEnd(phrase, text, at) is { } end)
                return end - at;
        }
        return 0;
    }

    private static int? WholeEnd(string phrase, string text, int at)
    {
        if (phrase.IndexOf(" … ", StringComparison.Ordinal) is > 0 and var gap)
            return WholeEnd(phrase[..gap], text, at) is { } begun ? Later(phrase[(gap + 3)..], text, begun) : null;
        return EndOf(phrase, text, at) is { } end && (end == text.Length || !IsOfWord(text[end])) ? end : null;
    }

    // Where the rest of a phrase ends, before the sentence does or goes on with something else: "send 3 and come back".
    private static int? Later(string rest, string text, int from)
    {
        var to = Math.Min(text.Length, from + MostBetween);
        var stop = text.AsSpan(from, to - from).IndexOfAny(SentenceEnds);
        to = stop < 0 ? to : from + stop;
        for (var at = from; at < to; at = First(text, at))
        {
            if (WholeEnd(rest, text, at) is { } end)
                return end;
            if (Joints.Value.Contains(text[at..First(text, at)]))
                return null;
        }
        return null;
    }

    // Where a phrase ends that begins at a place of a text; null where something else stands there.
    private static int? EndOf(string phrase, string text, int at)
    {
        for (var i = 0; i < phrase.Length; i++)
        {
            if (phrase[i] == ' ')
            {
                if (at >= text.Length || !char.IsWhiteSpace(text[at]))
                    return null;
                while (at < text.Length && char.IsWhiteSpace(text[at]))
                    at++;
            }
            else if (at >= text.Length || !IsSame(phrase[i], text[at]))
                return null;
            else
                at++;
        }
        return at;
    }

    private static bool IsSame(char one, char other) =>
        one == other || char.ToUpperInvariant(one) == char.ToUpperInvariant(other);

    // The end of the word that begins here; a sign is a word of its own.
    private static int First(string text, int at)
    {
        var end = at + 1;
        if (IsOfWord(text[at]))
        {
            while (end < text.Length && IsOfWord(text[end]))
                end++;
        }
        return end;
    }

    private static bool IsOfWord(char c) =>
        char.IsLetterOrDigit(c)
        || char.GetUnicodeCategory(c)
            is UnicodeCategory.NonSpacingMark
                or UnicodeCategory.SpacingCombiningMark
                or UnicodeCategory.ConnectorPunctuation;
}
