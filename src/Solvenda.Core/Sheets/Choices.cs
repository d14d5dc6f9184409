using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Core.Sheets;

/// <summary>
/// What the buyer may choose: options, which they take or leave, and alternatives, of which they take one. Until they
/// choose, options count for nothing, and of alternatives the first. What was closed short counts for nothing.
/// </summary>
public static class Choices
{
    /// <summary>The letters that a choice can have.</summary>
    public const string Letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";

    /// <summary>Keys of the lines that count, as things stand.</summary>
    public static IReadOnlySet<long> Counted(ImmutableArray<SheetLine> lines)
    {
        var counted = new HashSet<long>();
        var seen = new HashSet<string>();
        foreach (var line in lines)
        {
            if (line.HasFigures && line.ClosedWhy.Length == 0 && (line.Taken ?? Stands(line, seen)))
                counted.Add(line.Key);
        }
        return counted;
    }

    /// <summary>Whether the buyer took something else than what counted before they chose.</summary>
    public static bool Differs(ImmutableArray<SheetLine> lines)
    {
        if (lines.All(l => l.Taken is null))
            return false;
        var before = Counted([.. lines.Select(l => l with { Taken = null })]);
        return !before.SetEquals(Counted(lines));
    }

    /// <summary>
    /// The lines with what the buyer chose noted on them; refused where that is no choice that they have.
    /// </summary>
    /// <param name="taken">Keys of the options and alternatives that they take; of a choice that none is named of, the
    /// first is taken.</param>
    public static (ImmutableArray<SheetLine> Lines, Refusal? Refused) Take(
        ImmutableArray<SheetLine> lines,
        IReadOnlyCollection<long> taken
    )
    {
        ArgumentNullException.ThrowIfNull(taken);
        var open = lines.Where(IsOpen).ToList();
        if (taken.Except(open.Select(l => l.Key)).Any())
            return (lines, new Refusal("choice", "What was chosen is nothing that can be chosen here", "chosen"));
        var first = new Dictionary<string, long>();
        foreach (var group in open.Where(l => l.OneOf.Length > 0).GroupBy(l => l.OneOf))
        {
            var named = group.Where(l => taken.Contains(l.Key)).ToList();
            if (named.Count > 1)
                return (lines, new Refusal("choice", "Of these, one can be taken", "chosen"));
            first[group.Key] = (named.FirstOrDefault() ?? group.First()).Key;
        }
        bool? Of(SheetLine line) =>
            !IsOpen(line) ? null
            : line.OneOf.Length > 0 ? first[line.OneOf] == line.Key
            : taken.Contains(line.Key);
        return ([.. lines.Select(l => l with { Taken = Of(l) })], null);
    }

    /// <summary>What is left once the buyer chose: what they took, for good; what they left is gone.</summary>
    public static ImmutableArray<SheetLine> Settled(ImmutableArray<SheetLine> lines) =>
        [
            .. lines
                .Where(l => l.Taken != false)
                .Select(l => l.Taken is null ? l : l with { Taken = null, Optional = false, OneOf = "" }),
        ];

    /// <summary>Whether the buyer chooses about it.</summary>
    public static bool IsOpen(SheetLine line)
    {
        ArgumentNullException.ThrowIfNull(line);
        return line.HasFigures && (line.Optional || line.OneOf.Length > 0);
    }

    /// <summary>The next letter that no line has; null where all are taken.</summary>
    public static string? NextLetter(ImmutableArray<SheetLine> lines) =>
        Letters.Select(c => c.ToString()).FirstOrDefault(c => lines.All(l => l.OneOf != c));

    private static bool Stands(SheetLine line, HashSet<string> seen) =>
        !line.Optional && (line.OneOf.Length == 0 || seen.Add(line.OneOf));
}
