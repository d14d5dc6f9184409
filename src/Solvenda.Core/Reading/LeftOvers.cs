using System.Buffers;
using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// What of a text nothing explains: numbers that could be a quantity, codes of ours, and things that are wanted without
/// a number ("some shackles"), that are neither evidence of a value nor known to be something else. Nothing that
/// somebody wrote vanishes without a word.
/// </summary>
internal static partial class LeftOvers
{
    // As much beside it as makes it plain what is meant.
    private const int Beside = 24;

    private static readonly SearchValues<char> Ends = SearchValues.Create(",.;:?!\n(");

    // More are said to be there.
    private const int Most = 60;

    /// <param name="taken">Where values that were read stand.</param>
    public static ImmutableArray<LeftOver> Of(Scene scene, TextMarks marks, IEnumerable<Evidence> taken)
    {
        var (fresh, part) = (scene.Text, scene.Letter.Part);
        var explained = new Stretches(
            taken
                .Where(e => e.Part == part)
                .Select(e => (e.Start, e.Length))
                .Concat(marks.Others)
                .Concat(Addresses().Matches(fresh).Select(m => (m.Index, m.Length)))
                .Concat(
                    Sizes()
                        .Matches(fresh)
                        .Where(m => !CountsGoods(fresh, m.Index + m.Length, scene))
                        .Select(m => (m.Index, m.Length))
                )
        );
        var left = new List<LeftOver>();
        foreach (
            var (at, length) in Numbers()
                .Matches(fresh)
                .Where(m => !explained.Meet(m.Index, m.Length) && !MeansNothing(fresh, m, scene))
                .Select(m => (m.Index, m.Length))
                .Concat(Uncounted(fresh, scene).Where(x => !explained.Meet(x.Start, x.Length)))
                .OrderBy(x => x.Item1)
        )
        {
            var (start, end) = Around(fresh, at, at + length);
            if (left.Count > 0 && start < left[^1].Where.Start + left[^1].Where.Length)
                continue;
            left.Add(new LeftOver(Blank().Replace(fresh[start..end], " "), new Evidence(part, start, end - start)));
        }
        if (left.Count <= Most)
            return [.. left];
        return
        [
            .. left.Take(Most),
            left[Most] with
            {
                Words = string.Create(
                    CultureInfo.InvariantCulture,
                    $"{left[Most].Words}, and {left.Count - Most - 1} more below"
                ),
                // Saying that it means nothing is said of all of them.
                Where = left[Most].Where with
                {
                    Length = left[^1].Where.Start + left[^1].Where.Length - left[Most].Where.Start,
                },
            },
        ];
    }

    // "Some shackles", "a few more of the thimbles": a thing that we sell, and nobody says how many.
    private static IEnumerable<(int Start, int Length)> Uncounted(string fresh, Scene scene)
    {
        foreach (Match m in scene.Grammar.Some.Matches(fresh))
        {
            var behind = fresh.AsSpan(m.Index + m.Length, Math.Min(Beside * 2, fresh.Length - m.Index - m.Length));
            var end = behind.IndexOfAny(Ends);
            var words = ItemFinder.Normal((end >= 0 ? behind[..end] : behind).ToString());
            var named = words
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .TakeWhile(w => !Things.EndsAThing(w, scene.Language))
                .Take(4);
            if (named.Any(w => w.Length > 3 && scene.Context.Items.Knows(w, scene.Language)))
                yield return (m.Index, m.Length);
        }
    }

    // "40 kg of washing powder", "5 l antifouling" where the number stands alone: what is measured so is goods.
    private static bool CountsGoods(string fresh, int end, Scene scene)
    {
        var next = NextWord().Match(fresh, end);
        if (!next.Success || next.Index != end)
            return false;
        var word = next.Groups[1].Value.ToLowerInvariant();
        return word is "of" or "von" or "van" or "de" or "av" or "af"
            || scene.Context.Items.Knows(word, scene.Language);
    }

    // A code of ours always means something; a number that names something, or is part of a name, does not count.
    private static bool MeansNothing(string fresh, Match m, Scene scene)
    {
        if (m.Value.Any(char.IsLetter))
            return scene.Context.Items.ByCode(m.Value) is null;
        if (m.Value.Length > 7)
            return true;
        // What a number names stands right before it; a line may be without end.
        var from = Math.Max(0, m.Index - TextMarks.LongestName);
        var line = m.Index == from ? -1 : fresh.LastIndexOf('\n', m.Index - 1, m.Index - from);
        var before = fresh[(line >= 0 ? line + 1 : from)..m.Index];
        if (Things.Names(before, scene.Language))
            return true;
        // The mark of a list: "1) rope", "2. rope".
        var behind = fresh.AsSpan(m.Index + m.Length);
        return before.Trim().Length == 0 && behind.Length > 0 && behind[0] is ')' or '.' or ':' && m.Value.Length < 4;
    }

    // To the next comma or stop, and no farther than a few words.
    private static (int Start, int End) Around(string fresh, int start, int end)
    {
        var to = Math.Min(fresh.Length, end + Beside);
        var stop = fresh.IndexOfAny(['\n', ',', ';', '.', '?', '!', '('], end, to - end);
        to = stop >= 0 ? stop : to;
        while (to < fresh.Length && to > end && char.IsLetterOrDigit(fresh[to - 1]) && char.IsLetterOrDigit(fresh[to]))
            to--;
        while (to > end && char.IsWhiteSpace(fresh[to - 1]))
            to--;
        return (start, to);
    }

    // Whole numbers and codes, not digits inside a word.
    [GeneratedRegex(
        @"(?<![\w.,/:+-])(?:[A-Z0-9]{2,}(?:-[A-Z0-9]+)+|\d+(?:[.,]\d+)*)(?![\w/:-]|[.,]\d)",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Numbers();

    // Mail addresses, hours of the day, and sizes with a unit that no goods are sold by.
    [GeneratedRegex(
        @"[\w.+-]+@[\w.-]+|\b\d+(?:[.,]\d+)?\s?(?:mm|cm|V|W|kW|bar|°C?|hp|ps|knots?|kn|nm)\b|\b\d{1,2}\s?(?:am|pm|h|uhr|uur)\b",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase
    )]
    private static partial Regex Addresses();

    // What is a size mostly, and goods where a thing stands behind it.
    [GeneratedRegex(
        @"\b\d+(?:[.,]\d+)?\s?(?:kg|l|ml|g|tonnes?|t)\b",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase
    )]
    private static partial Regex Sizes();

    [GeneratedRegex(@"[ \t]+(\p{L}+)")]
    private static partial Regex NextWord();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();
}
