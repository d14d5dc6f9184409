using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>How many of what a counting number says, and what stays open about it.</summary>
internal static partial class Counted
{
    // The number, and where two could be meant the other one and why it is open.
    public static (decimal? Number, decimal? Or, string Why) Number(Match anchor, Scene scene)
    {
        var many = anchor.Groups["group"].Success
            ? scene.Language.Groups.GetValueOrDefault(
                Plain(anchor.Groups["group"].Value),
                Language.English.Groups.GetValueOrDefault(Plain(anchor.Groups["group"].Value), 1m)
            )
            : 1m;
        if (anchor.Groups["n"].Success)
        {
            var times = anchor.Groups["times"].Success
                ? decimal.Parse(anchor.Groups["times"].Value, CultureInfo.InvariantCulture)
                : 1m;
            var read = scene.Form.Read(anchor.Groups["n"].Value);
            if (
                anchor.Groups["upto"].Success
                && decimal.TryParse(
                    anchor.Groups["upto"].Value,
                    NumberStyles.None,
                    CultureInfo.InvariantCulture,
                    out var upTo
                )
                && upTo > read?.Value
            )
                return (
                    read?.Value * times * many,
                    upTo * times * many,
                    $"“{anchor.Groups["n"].Value}” or “{anchor.Groups["upto"].Value}”: how many?"
                );
            return (
                read?.Value * times * many,
                read?.Or * times * many,
                read?.Or is null ? "" : "is it a decimal or a thousands sign?"
            );
        }
        // "Ein paar", "a couple": a pair, or only some.
        if (IsVague(anchor, scene.Language))
            return (2m, 3m, "two, or a few?");
        return anchor.Groups["word"].Success
            ? (NumberWords.Read(anchor.Groups["word"].Value, scene.Language) * many, null, "")
            : (null, null, "");
    }

    public static (Field<decimal?> Quantity, Field<Unit> Unit, decimal? Or) Of(Match anchor, Item item, Scene scene)
    {
        var (number, or, why) = Number(anchor, scene);
        var quantity = new Field<decimal?>(
            number,
            number is null ? 0.2m
                : or is not null ? 0.4m
                : 0.95m,
            or is not null ? why : "written so",
            []
        );
        var unit = UnitOf(anchor, scene.Language);
        return unit is { } u && item.Factor(u) is not null ? (quantity, new Field<Unit>(u, 0.95m, "written so", []), or)
            : unit is { } other
                ? (quantity, new Field<Unit>(other, 0.4m, $"{item.Code} is not sold by {other.Code}", []), or)
            : (
                quantity,
                new Field<Unit>(
                    item.StockUnit,
                    item.StockUnit == Unit.Piece || item.SalesUnits.IsEmpty ? 0.9m : 0.55m,
                    "the item's own unit",
                    []
                ),
                or
            );
    }

    public static Unit? UnitOf(Match anchor, Language language)
    {
        var word = Plain(anchor.Groups["unit"].Value).TrimEnd('.');
        if (word.Length == 0 || language.Lengths.Concat(Language.English.Lengths).Contains(word))
            return null;
        return
            language.Units.TryGetValue(word, out var code)
            || Language.English.Units.TryGetValue(word, out code)
            || Language.UnitsOfAny.TryGetValue(word, out code)
            ? Unit.Of(code)
            : UnitTable.FromWord(word);
    }

    private static bool IsVague(Match anchor, Language language)
    {
        var said = Plain(anchor.Value);
        return language
            .Some.Concat(Language.English.Some)
            .Any(s => said == s || said.StartsWith(s + " ", StringComparison.Ordinal));
    }

    private static string Plain(string word) => Blank().Replace(word.Trim().ToLowerInvariant(), " ");

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();
}
