using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>A number that counts, as matched in the whole text; and where it stands in its clause.</summary>
internal sealed record Anchor(Match Match, int At, int Length)
{
    public int End => At + Length;

    /// <summary>
    /// Where the words for the thing begin, where they stand before the number: "the usual netting, 25 mm, 90 m²".
    /// </summary>
    public int? ThingFrom { get; init; }
}

/// <summary>
/// Takes a text apart: into clauses, and the numbers of a clause into those that count and those that belong to a name.
/// </summary>
internal static partial class TextPieces
{
    // Of a word for a unit that nobody here knows: "stk", "Stck.".
    private const int LongestUnit = 6;

    private const int LongestClause = 1_000;

    // Words for a thing before its code.
    private const int FarthestCode = 60;

    public static readonly char[] Blanks = [' ', '\t', '\n', ',', ';', ':', '(', ')'];

    // A clause ends at a sentence's end, a blank line, a dash, or where a list goes on in a new line; commas stay
    // inside.
    public static IEnumerable<(int Start, int Length)> Clauses(string text)
    {
        var ends = ClauseEnd()
            .Matches(text)
            .Where(m => !IsOfUnit(text, m.Index))
            .Select(m => (m.Index, m.Length))
            .Concat(NewLine().Matches(text).Where(m => BeginsAnew(text, m.Index)).Select(m => (m.Index, m.Length)))
            .OrderBy(e => e.Index);
        var start = 0;
        foreach (var (index, length) in ends.Append((text.Length, 0)))
        {
            // Nobody writes so much in one breath; it is read in pieces.
            for (; index - start > LongestClause; start += LongestClause)
                yield return (start, LongestClause);
            if (index > start)
                yield return (start, index - start);
            start = Math.Max(start, index + length);
        }
    }

    // "12 St. CODE", "25 pcs. of them": the stop belongs to the unit.
    private static bool IsOfUnit(string text, int stop) =>
        text[stop] == '.'
        && stop + 2 < text.Length
        && text[stop + 1] == ' '
        && UnitBehindNumber().Match(text[Math.Max(0, stop - 12)..stop]) is { Success: true } m
        && Language.All.Any(l => l.Units.ContainsKey(m.Groups[1].Value.ToLowerInvariant()));

    // A line that was not filled is its own; so is one that begins with a mark or a number.
    private static bool BeginsAnew(string text, int newLine)
    {
        var before = text.LastIndexOf('\n', Math.Max(0, newLine - 1)) + 1;
        var rest = text.AsSpan(newLine + 1).TrimStart();
        return newLine - before < 55
            || (rest.Length > 0 && (rest[0] is '-' or '*' or '•' or '·' || char.IsAsciiDigit(rest[0])));
    }

    /// <summary>
    /// Numbers that belong to the words of a thing are no anchors: "6 pcs boat hook 2.4 m telescopic" counts six.
    /// Between two that both count stands a comma, an "and", or a new line.
    /// </summary>
    public static List<Anchor> Counting(string clause, List<Anchor> all, Grammar grammar, ItemFinder items)
    {
        // "Life-jacket 150 N: 35", "throwing line 25 m - 313 pcs": what stands behind the mark counts, all before it is
        // the name.
        if (all.Count > 1 && IsNamed(clause, all[0], all[^1]))
            return [all[^1]];
        var kept = new List<Anchor>();
        var (seen, parted) = (0, false);
        foreach (var anchor in all)
        {
            var groups = anchor.Match.Groups;
            // "a", "one" and the like count only with a unit or a dozen.
            if (
                groups["word"].Success
                && !groups["unit"].Success
                && !groups["group"].Success
                && NumberWords.Read(groups["word"].Value, grammar.Language) is 1m
                && !CodeFollows(clause, anchor.End, items)
            )
                continue;
            // What stands before one of our codes counts, whatever joins them.
            parted |= grammar.Between.IsMatch(clause[seen..anchor.At]) || StandsBeforeCode(clause[anchor.End..], items);
            seen = anchor.End;
            if (
                kept.Count > 0
                && kept[^1].Match.Groups["usual"].Success
                && groups["unit"].Success
                && groups["n"].Success
                && !clause[anchor.End..].Any(char.IsLetterOrDigit)
            )
                kept[^1] = anchor with { ThingFrom = kept[^1].End };
            else if (kept.Count == 0 || parted)
            {
                kept.Add(anchor);
                parted = false;
            }
            // A number that begins the piece counts: "2 throwing lines 25 m". One inside may belong to a name: "HMPE
            // 12-strand 600 m".
            else if (
                !kept[^1].Match.Groups["unit"].Success
                && !kept[^1].Match.Groups["usual"].Success
                && groups["unit"].Success
                && clause[(kept.Count > 1 ? kept[^2].End : 0)..kept[^1].At].Any(char.IsLetter)
            )
                kept[^1] = anchor;
        }
        return kept;
    }

    // "16 SHK-DEE-06", and "16 st SHK-DEE-06" in a letter whose language has no such unit.
    private static bool StandsBeforeCode(string behind, ItemFinder items)
    {
        bool IsCode(string word) => word.Any(char.IsDigit) && items.ByCode(word.TrimEnd('.', ',')) is not null;
        return behind.Split(Blanks, 3, StringSplitOptions.RemoveEmptyEntries) switch
        {
            [var first, ..] when IsCode(first) => true,
            [{ Length: <= LongestUnit } unit, var second, ..] => unit.All(c => char.IsLetter(c) || c == '.')
                && IsCode(second),
            _ => false,
        };
    }

    // "A ball fender FND-A3-BL": one of it, where a code says what.
    private static bool CodeFollows(string clause, int at, ItemFinder items)
    {
        var behind = clause.AsSpan(at, Math.Min(clause.Length - at, FarthestCode));
        var end = behind.IndexOfAny(',', ';', '\n');
        var words = (end >= 0 ? behind[..end] : behind).ToString();
        return words
            .Split(Blanks, StringSplitOptions.RemoveEmptyEntries)
            .TakeWhile(w => !char.IsAsciiDigit(w[0]) || items.ByCode(w.TrimEnd('.')) is not null)
            .Any(w => items.ByCode(w.TrimEnd('.')) is not null);
    }

    // Between two things that both count stands a comma, or a number begins the piece.
    private static bool IsNamed(string clause, Anchor first, Anchor last)
    {
        var before = clause[..last.At];
        return BehindMark().IsMatch(before)
            && !clause[last.End..].Any(char.IsLetterOrDigit)
            && clause[..first.At].Any(char.IsLetter)
            && before.Trim().IndexOfAny([',', ';', '\n', '+', '&']) < 0;
    }

    [GeneratedRegex(@"\S\s*(?::|=|\s[–—-])\s+$")]
    private static partial Regex BehindMark();

    [GeneratedRegex(
        @"(?<=[\p{L}\d)])[.!?](?=\s|$)|\r?\n\s*\r?\n|\s[–—-]\s(?!\d[\d.,]*[ \u00a0]?[\p{L}²]*[23]?\.?[ \t]*(?:\r?\n|$))|;",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex ClauseEnd();

    [GeneratedRegex(@"\d\s?(\p{L}{1,6})$")]
    private static partial Regex UnitBehindNumber();

    [GeneratedRegex(@"\n")]
    private static partial Regex NewLine();
}
