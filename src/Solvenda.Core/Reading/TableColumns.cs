using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// Tells what the columns of a table mean: by the words at their heads, or as a person said before for this sender.
/// </summary>
internal static partial class TableColumns
{
    // A head stands near the top; later tables are looked for from where one ended.
    private const int LookAhead = 40;

    /// <summary>Whether the columns say at least how much and of what.</summary>
    public static bool Serves(ImmutableDictionary<int, string> columns) =>
        columns.ContainsValue("quantity")
        && (
            columns.ContainsValue("code")
            || columns.ContainsValue("words")
            || columns.ContainsValue("gtin")
            || columns.ContainsValue("buyersCode")
        );

    /// <summary>The next head; null where there is none.</summary>
    public static TableHead? FindHead(
        ImmutableArray<ImmutableArray<Cell>> rows,
        int from,
        string sender,
        ReadingContext context
    )
    {
        for (var at = from; at < Math.Min(rows.Length, from + LookAhead); at++)
        {
            if (TableHead.At(rows, at, sender, context) is { } head)
                return head;
        }
        return null;
    }

    /// <summary>What columns mean by the words at their heads, and by those of a second row below.</summary>
    public static ImmutableDictionary<int, string> Meanings(ImmutableArray<string> row, ImmutableArray<string> under)
    {
        var columns = ImmutableDictionary.CreateBuilder<int, string>();
        for (var i = 0; i < Math.Max(row.Length, under.Length); i++)
        {
            var (above, below) = (i < row.Length ? row[i] : "", i < under.Length ? under[i] : "");
            var meaning =
                below.Length == 0 ? Meaning(above) : Meaning($"{above} {below}") ?? Meaning(below) ?? Meaning(above);
            if (meaning is not null && (meaning != "number" || i == 0))
                columns[i] = meaning;
        }
        // "Item" and "Article" name codes in some tables and words in others: with two such columns there, the first is
        // the code.
        var words = columns.Where(c => c.Value == "words").Select(c => c.Key).Order().ToList();
        if (words.Count > 1 && !columns.ContainsValue("code"))
            columns[words[0]] = "code";
        return columns.ToImmutable();
    }

    /// <summary>
    /// What a head means by the words of any language: the whole of it, without unit, currency, or how many a price is
    /// for.
    /// </summary>
    public static string? Meaning(string head)
    {
        var plain = CellText.Plain(TableHead.Base().Replace(BehindHead().Replace(head, ""), ""));
        if (plain.Length is 0 or > 40)
            return null;
        return Heads.Value.GetValueOrDefault(plain);
    }

    // The words of all languages, plain; English first where two languages call two things the same.
    private static readonly Lazy<Dictionary<string, string>> Heads = new(() =>
        Language
            .All.OrderBy(l => l.Code == "en" ? 0 : 1)
            .SelectMany(l => l.Heads)
            .SelectMany(h => h.Value.Select(w => (Word: CellText.Plain(w), Meaning: h.Key)))
            .GroupBy(h => h.Word)
            .ToDictionary(g => g.Key, g => g.First().Meaning)
    );

    // Up to the next head, or where two rows stand empty and nothing that could be a line follows.
    public static int EndOf(ImmutableArray<ImmutableArray<Cell>> rows, int from, string sender, ReadingContext context)
    {
        for (var at = from; at < rows.Length; at++)
        {
            if (
                at > from
                && rows[at].Length > 1
                && rows[at].Count(c => Meaning(c.Text) is not null) > 1
                && TableHead.At(rows, at, sender, context) is not null
            )
                return at;
        }
        return rows.Length;
    }

    // "Price (EUR)", "Qty [pcs]", "Preis in EUR", "Preis €".
    [GeneratedRegex(
        @"\s*[(\[].*[)\]]\s*$|\s+in\s+\w{3}$|\s*[€£$]\s*$|\s+(?:EUR|SEK|NOK|DKK|USD|GBP)$",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex BehindHead();
}
