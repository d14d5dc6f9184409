using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// The numbers of a text: those that may count, the prices, and where numbers of another kind stand (dates, telephone
/// numbers, orders' numbers, totals).
/// </summary>
internal sealed partial record TextMarks(
    IReadOnlyList<Match> Numbers,
    IReadOnlyList<Match> Prices,
    IReadOnlyList<(int Start, int Length)> Others
)
{
    // What a number names stands right before it.
    public const int LongestName = 40;

    public static TextMarks Of(Scene scene)
    {
        var fresh = scene.Text;
        var grammar = scene.Grammar;
        var prices = grammar.Price.Matches(fresh).Where(m => m.Groups["p"].Success).ToList();
        var others = scene
            .Dates.Select(d => (d.Start, d.Length))
            .Concat(prices.Select(p => (p.Index, p.Length)))
            .Concat(NotCounts().Matches(fresh).Concat(scene.Context.Numbers.In(fresh)).Select(m => (m.Index, m.Length)))
            .Concat(scene.Pos.Select(m => (m.Groups["po"].Index, m.Groups["po"].Length)))
            .Concat(grammar.Payment.Matches(fresh).Select(m => (m.Index, m.Length)))
            .Concat(grammar.Total.Matches(fresh).Select(m => (m.Index, m.Length)))
            .ToList();
        var known = new Stretches(others);
        // "Unload before 11", "gate code 4471": it names something, unless a unit says that it counts.
        bool IsName(Match m) =>
            !m.Groups["unit"].Success
            // "Please quote 40 shackles": what stands behind it says that it counts.
            && !Things.StandBehind(fresh, m.Index + m.Length, scene)
            && Things.Names(fresh[Math.Max(0, m.Index - LongestName)..m.Index], scene.Language);
        return new TextMarks(
            [.. grammar.Quantity.Matches(fresh).Where(m => !known.Meet(m.Index, m.Length) && !IsName(m))],
            prices,
            others
        );
    }

    /// <summary>The first price that begins in a stretch of the text; null where none does.</summary>
    public Match? PriceIn(int from, int to) => Prices.FirstOrDefault(p => p.Index >= from && p.Index < to);

    /// <summary>Where words that begin at a place end because a price, a date, or another number begins.</summary>
    public int Until(int from, int to) =>
        Math.Min(to, Others.Where(x => x.Start >= from).Select(x => x.Start).Append(to).Min());

    // Telephone numbers, percentages, times of the day, the marks of a list.
    [GeneratedRegex(
        @"(?m)^[ \t]*\d{1,3}[.)](?=[ \t]+\S)|(?<![\w-])(?:\+\d(?:[ ()/.-]{0,2}\d){6,}|0\d(?:[ ()/-]{0,2}\d){5,})(?![\w-])|\d+(?:[.,]\d+)?\s*%|\b\d{1,2}:\d\d\b",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex NotCounts();
}
