using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// What of a text nothing explains: numbers that could be a quantity, and codes of ours, that are neither evidence of a
/// value nor known to be something else. Nothing that somebody wrote vanishes without a word.
/// </summary>
internal static partial class LeftOvers
{
    // As much beside it as makes it plain what is meant.
    private const int Beside = 24;

    private const int Most = 30;

    /// <param name="taken">Where values that were read stand.</param>
    public static ImmutableArray<LeftOver> Of(
        Letter letter,
        string fresh,
        Language language,
        ReadingContext context,
        IEnumerable<Evidence> taken
    )
    {
        var scene = Scene.Of(letter, fresh, language, Field<Buyers.BuyerId>.Missing, context);
        var marks = TextMarks.Of(fresh, scene);
        List<(int Start, int End)> explained =
        [
            .. taken.Where(e => e.Part == letter.Part).Select(e => (e.Start, e.Start + e.Length)),
            .. marks.Others.Select(o => (o.Start, o.Start + o.Length)),
            .. Addresses().Matches(fresh).Select(m => (m.Index, m.Index + m.Length)),
        ];
        bool IsExplained(int start, int length) => explained.Exists(x => start < x.End && start + length > x.Start);
        var left = ImmutableArray.CreateBuilder<LeftOver>();
        foreach (Match m in Numbers().Matches(fresh))
        {
            if (left.Count >= Most)
                break;
            if (IsExplained(m.Index, m.Length) || MeansNothing(fresh, m, scene))
                continue;
            var (start, end) = Around(fresh, m.Index, m.Index + m.Length);
            if (left.Count > 0 && start < left[^1].Where.Start + left[^1].Where.Length)
                continue;
            left.Add(
                new LeftOver(Blank().Replace(fresh[start..end], " "), new Evidence(letter.Part, start, end - start))
            );
        }
        return left.ToImmutable();
    }

    // A code of ours always means something; a number that names something, or is part of a name, does not count.
    private static bool MeansNothing(string fresh, Match m, Scene scene)
    {
        if (m.Value.Any(char.IsLetter))
            return scene.Context.Items.ByCode(m.Value) is null;
        if (m.Value.Length > 7)
            return true;
        var line = fresh.LastIndexOf('\n', Math.Max(0, m.Index - 1)) + 1;
        var before = fresh[line..m.Index];
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

    // Mail addresses, hours of the day, and sizes with their unit.
    [GeneratedRegex(
        @"[\w.+-]+@[\w.-]+|\b\d+(?:[.,]\d+)?\s?(?:mm|cm|kg|V|W|kW|bar|°C?|l|ml|g|hp|ps|knots?|kn|nm|tonnes?)\b|\b\d{1,2}\s?(?:am|pm|h|uhr)\b",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase
    )]
    private static partial Regex Addresses();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();
}
