using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>What words or codes were taken for, and what else they could mean. A near tie names no sure item.</summary>
/// <param name="Code">The code by which it was found; null where it was by words.</param>
public sealed record ItemReading(
    Item? Item,
    decimal Sure,
    string How,
    string? Code,
    bool IsTie,
    ImmutableArray<Candidate> Candidates
)
{
    // Two candidates closer than this are a near tie: a person decides.
    private const decimal NearTie = 0.06m;

    // Under this two weak guesses are no tie, only guesses.
    private const decimal Least = 0.45m;

    // What this buyer bought before weighs this much.
    private const decimal BoughtBefore = 0.08m;

    /// <param name="searched">The words to search by, where some of them say nothing about the thing.</param>
    public static ItemReading Find(
        string words,
        Field<BuyerId> buyer,
        IReadOnlyList<Bought> bought,
        ReadingContext context,
        Language? language,
        string? searched = null
    )
    {
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(context);
        foreach (
            var word in words
                .Split([' ', ',', ';', '(', ')', ':', '"'], StringSplitOptions.RemoveEmptyEntries)
                .Where(IsLikeACode)
        )
        {
            if (context.Items.ByCode(word.TrimEnd('.')) is { } byCode)
                return new ItemReading(byCode, 0.99m, "our code", byCode.Code, false, []);
        }
        if (
            context.AliasOf(buyer, ItemFinder.Normal(words)) is { } alias
            && context.Items.ById(alias.Item) is { } learned
        )
            return new ItemReading(learned, 0.97m, "their words, learned", null, false, []);
        var before = bought.Select(b => b.Item).ToHashSet();
        var candidates = context.Items.Search(
            searched ?? words,
            5,
            id => before.Contains(id) ? BoughtBefore : 0m,
            language
        );
        if (candidates.IsEmpty)
            return new ItemReading(null, 0.1m, "we know nothing that is called so", null, false, []);
        var best = candidates[0];
        var tie = candidates.Length > 1 && best.Score >= Least && best.Score - candidates[1].Score < NearTie;
        return new ItemReading(
            best.Item,
            tie ? 0.5m : Math.Min(0.95m, best.Score),
            tie ? $"{candidates[1].Item.Code} fits nearly as well"
                : before.Contains(best.Item.Id) ? "words; they bought it before"
                : "words",
            null,
            tie,
            candidates
        );
    }

    // With digits in it, or in capitals with a hyphen: SVC-EYE.
    private static bool IsLikeACode(string word) =>
        word.Any(char.IsDigit) || (word.Contains('-', StringComparison.Ordinal) && !word.Any(char.IsLower));

    /// <summary>The candidates as what one key would settle; none where it was found by a code.</summary>
    public ImmutableArray<Proposal> Proposals(decimal quantity, Unit unit) =>
        Sure >= ReadLine.SureEnough
            ? []
            :
            [
                .. Candidates
                    .Take(4)
                    .Select(c => new Proposal(
                        c.Item.Id,
                        c.Item.Code,
                        c.Item.Words,
                        quantity,
                        c.Item.Factor(unit) is not null ? unit : c.Item.StockUnit,
                        c.Score,
                        string.Create(CultureInfo.InvariantCulture, $"words, {Math.Min(99m, c.Score * 100m):0} of 100")
                    )),
            ];
}
