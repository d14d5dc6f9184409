using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Buyers;

namespace Solvenda.Core.Reading;

/// <summary>
/// Knows a buyer again by what a message carries. Clues that point at different buyers are shown as such, never settled
/// silently.
/// </summary>
public static class BuyerFinder
{
    // Mail domains that many people share say nothing about a company.
    private static readonly HashSet<string> SharedDomains = ["mail.example"];

    private static readonly HashSet<string> Forms =
    [
        "gmbh",
        "ltd",
        "limited",
        "bv",
        "nv",
        "ab",
        "as",
        "asa",
        "oy",
        "aps",
        "sl",
        "sa",
        "inc",
        "llc",
        "co",
        "plc",
        "ag",
        "kg",
        "the",
        "and",
        "company",
        "sarl",
        "se",
    ];

    // A clue as strong as this names one buyer by itself.
    private const decimal Strong = 0.9m;

    private static readonly Dictionary<string, (decimal Sure, string How)> Kinds = new()
    {
        ["preset"] = (1m, "said by you"),
        ["partner"] = (0.98m, "partner id of the interchange"),
        ["gln"] = (0.98m, "GLN"),
        ["mail"] = (0.98m, "sender's address"),
        ["tax"] = (0.97m, "tax number"),
        ["channel"] = (0.97m, "account of the channel"),
        ["domain"] = (0.8m, "sender's domain"),
        ["name"] = (0.75m, "name"),
        ["text"] = (0.6m, "named in the text"),
    };

    /// <param name="clues">In any order; each with its evidence.</param>
    public static (Field<BuyerId> Buyer, ImmutableArray<BuyerCandidate> Candidates) Find(
        ReadingContext context,
        IEnumerable<Clue> clues
    )
    {
        ArgumentNullException.ThrowIfNull(context);
        var hits = clues.Where(c => c.Value.Length > 0).SelectMany(c => Hits(c, context)).ToList();
        if (hits.Count == 0)
            return (Field<BuyerId>.Missing, []);
        var buyers = hits.GroupBy(h => h.Buyer)
            .Select(g => (Best: g.MaxBy(h => h.Sure)!, Others: g.Count() - 1))
            .OrderByDescending(b => b.Best.Sure)
            .ThenByDescending(b => b.Others)
            .ThenBy(b => b.Best.Buyer.Value)
            .ToList();
        var (best, others) = buyers[0];
        if (buyers.Count == 1 || !IsRival(buyers[1].Best, best))
            return (
                new Field<BuyerId>(
                    best.Buyer,
                    Math.Min(0.99m, best.Sure + (others > 0 ? 0.05m : 0m)),
                    best.How,
                    best.Where
                ),
                []
            );
        var rival = buyers[1].Best;
        var called = context.BuyerNames.GetValueOrDefault(rival.Buyer, "another");
        return (
            new Field<BuyerId>(best.Buyer, 0.4m, $"{best.How} says so, but {rival.How} says {called}", best.Where),
            [
                .. buyers
                    .Take(5)
                    .Select(b => new BuyerCandidate(
                        b.Best.Buyer,
                        context.BuyerNames.GetValueOrDefault(b.Best.Buyer, ""),
                        b.Best.How,
                        b.Best.Sure
                    )),
            ]
        );
    }

    private sealed record Hit(BuyerId Buyer, decimal Sure, string How, ImmutableArray<Evidence> Where);

    // Who one clue names. One sign that several carry is weak for each of them.
    private static IEnumerable<Hit> Hits(Clue clue, ReadingContext context)
    {
        if (
            clue.Kind == "domain"
            && (SharedDomains.Contains(clue.Value.ToLowerInvariant()) || context.IsOurs(clue.Value))
        )
            return [];
        var (sure, how) = Kinds.GetValueOrDefault(clue.Kind, (0.5m, clue.Kind));
        var found = (
            clue.Kind is "name" or "text" ? context.Named(clue.Value)
            : clue.Kind == "preset"
            && long.TryParse(clue.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var id)
                ? [new BuyerId(id)]
            : context.Carrying(clue.Kind, clue.Value)
        ).ToList();
        return found.Count > 1
            ? found.Select(b => new Hit(b, 0.4m, $"{how}; {found.Count} buyers share it", clue.Where))
            : found.Select(b => new Hit(b, sure, how, clue.Where));
    }

    private static bool IsRival(Hit second, Hit best) =>
        (second.Sure >= Strong || second.Sure >= best.Sure - 0.05m) && best.How != Kinds["preset"].How;

    /// <summary>A company's name without its form, case, accents and signs.</summary>
    public static string Plain(string name)
    {
        ArgumentNullException.ThrowIfNull(name);
        var letters = name.Normalize(System.Text.NormalizationForm.FormD)
            .Where(c => CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
            .Select(c =>
                char.IsLetterOrDigit(c) ? char.ToLowerInvariant(c)
                : c is '.' or '\'' or '’' ? '\0'
                : ' '
            )
            .Where(c => c != '\0');
        return string.Join(
            ' ',
            new string([.. letters]).Split(' ', StringSplitOptions.RemoveEmptyEntries).Where(w => !Forms.Contains(w))
        );
    }
}
