using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>Makes one line of a counting number and the words that stand for its thing.</summary>
internal static partial class TextLine
{
    // Under this, words behind a number are not an item at all ("call me in 2 minutes").
    private const decimal LeastScore = 0.45m;

    // A thing that is told by the line before is well known, but not as well as one that is named.
    private const decimal LikeBefore = 0.8m;

    // What a line says, whatever its item is: its words, the price beside it, and where each stands.
    private sealed record Said(
        Match Anchor,
        string Words,
        decimal? Price,
        decimal PriceBase,
        ImmutableArray<Evidence> Line,
        ImmutableArray<Evidence> Quantity,
        ImmutableArray<Evidence> Item
    )
    {
        public bool IsUsual => Anchor.Groups["usual"].Success;
    }

    /// <summary>Null where the words are not an item at all.</summary>
    /// <param name="from">Where the words for the thing begin in the clause, and where they end.</param>
    public static ReadLine? Of(
        Clause clause,
        Match anchor,
        int from,
        int to,
        Match? price,
        ReadLine? before,
        Scene scene
    )
    {
        var said = Saying(clause, anchor, from, to, price, scene);
        if (
            scene.Context.AliasOf(scene.Buyer, ItemFinder.Normal((said.IsUsual ? "usual " : "") + said.Words))
                is { } alias
            && scene.Context.Items.ById(alias.Item) is { } known
        )
            return Learned(said, alias, known, scene);
        var found = Find(clause, said.Words, before, scene);
        return found.Item is not { } item || (found.Sure < LeastScore && !found.IsTie)
            ? Unknown(clause, said, found, scene)
            : Known(said, item, found, scene);
    }

    private static Said Saying(Clause clause, Match anchor, int from, int to, Match? price, Scene scene)
    {
        var at = anchor.Index - clause.Offset;
        var first = Math.Min(at, from);
        var end = Math.Max(Math.Min(at + anchor.Length, clause.Text.Length), to);
        var part = scene.Letter.Part;
        return new Said(
            anchor,
            Blank().Replace(clause.Text[from..to], " "),
            price is null ? null : scene.Form.Read(price.Groups["p"].Value)?.Value,
            price is not null
            && price.Groups["pb"].Success
            && decimal.TryParse(price.Groups["pb"].Value, NumberStyles.None, CultureInfo.InvariantCulture, out var each)
            && each > 0
                ? each
                : 1m,
            [new Evidence(part, clause.Offset + first, end - first)],
            [new Evidence(part, anchor.Index, anchor.Value.TrimEnd().TrimEnd('x', '×').TrimEnd().Length)],
            [new Evidence(part, clause.Offset + from, to - from)]
        );
    }

    // Their words for it, which a person settled before.
    private static ReadLine Learned(Said said, Alias alias, Item item, Scene scene)
    {
        var (quantity, unit, _) = Counted.Of(said.Anchor, item, scene);
        return new ReadLine(
            new Field<ItemId>(item.Id, 0.97m, "their words, learned", said.Item),
            said.Words,
            null,
            said.IsUsual && alias.Quantity is { } q
                ? new Field<decimal?>(q, 0.95m, "what you settled before", said.Quantity)
                : quantity with
                {
                    Evidence = said.Quantity,
                },
            said.IsUsual && alias.Unit is { } u
                ? new Field<Unit>(u, 0.95m, "what you settled before", said.Quantity)
                : unit with
                {
                    Evidence = said.Quantity,
                },
            said.Price,
            said.PriceBase,
            "",
            [],
            said.Line
        );
    }

    private static ItemReading Find(Clause clause, string words, ReadLine? before, Scene scene)
    {
        ItemReading By(string text, string? searched = null) =>
            ItemReading.Find(text, scene.Buyer, scene.Bought, scene.Context, scene.Language, searched);
        ItemReading AsBefore(ItemReading found, string how) =>
            found with
            {
                Sure = Math.Min(found.Sure, LikeBefore),
                How = found.IsTie ? found.How : how,
            };
        // "Same in black": the thing of the line before, in what is said to be other.
        if (
            before is { Item.Sure: >= LeastScore }
            && scene.Context.Items.ById(before.Item.Value) is { } previous
            && scene.Grammar.Same.Match(words) is { Success: true } m
            && scene.Context.Items.Varied(previous, words[m.Length..], scene.Language) is { } same
        )
            return AsBefore(By(words, same), "as the line before, but so");
        if (clause.SpokenOf.Length is > 0 and < 200 && scene.Grammar.Them.IsMatch(words))
            return AsBefore(By(Blank().Replace(clause.SpokenOf, " ").Trim()), "what was spoken of before");
        return By(words, BothEnds().Replace(words, ""));
    }

    private static ReadLine Known(Said said, Item item, ItemReading found, Scene scene)
    {
        var (quantity, unit, or) = Counted.Of(said.Anchor, item, scene);
        var note = "";
        if (!item.Stocked && BothEnds().IsMatch(said.Words) && quantity.Value is { } pieces)
        {
            quantity = quantity with { Value = pieces * 2, Sure = 0.8m, How = "both ends of each" };
            note = string.Create(CultureInfo.InvariantCulture, $"both ends, {pieces:0.##} lengths");
        }
        ImmutableArray<Proposal> proposals =
            said.IsUsual ? UsualOrder.Proposals(item, scene.Bought, scene.Letter.Text)
            : or is { } other && quantity.Value is { } one ? Either(said.Anchor, item, one, other, unit.Value)
            : found.Proposals(quantity.Value ?? 1m, unit.Value);
        return new ReadLine(
            new Field<ItemId>(item.Id, found.Sure, found.How, said.Item),
            said.Words,
            found.Code,
            said.IsUsual
                ? UsualOrder.Quantity(item, scene.Bought, said.Quantity)
                : quantity with
                {
                    Evidence = said.Quantity,
                },
            said.IsUsual
                ? new Field<Unit>(UsualOrder.UnitOf(item, scene.Bought), 0.6m, "what they took before", said.Quantity)
                : unit with
                {
                    Evidence = said.Quantity,
                },
            said.Price,
            said.PriceBase,
            note,
            proposals,
            said.Line
        );
    }

    private static ImmutableArray<Proposal> Either(Match anchor, Item item, decimal one, decimal other, Unit unit)
    {
        Proposal Proposed(decimal quantity, string why) =>
            new(item.Id, item.Code, item.Words, quantity, unit, 0.5m, why);
        return anchor.Groups["upto"].Success || !anchor.Groups["n"].Success
            ? [Proposed(one, "the least"), Proposed(other, "the most")]
            : [Proposed(one, "a thousands sign"), Proposed(other, "a decimal sign")];
    }

    // A thing that we do not know, with a quantity that is one: a person says what it is. Words behind a bare number
    // are a thing only where the number stands as one does that counts.
    private static ReadLine? Unknown(Clause clause, Said said, ItemReading found, Scene scene)
    {
        if (said.IsUsual || said.Words.Split(' ').Length > 12 || !said.Words.Any(char.IsLetter))
            return null;
        if (!said.Anchor.Groups["unit"].Success && !Things.IsCounted(clause, said.Anchor, said.Words, scene))
            return null;
        var unit = Counted.UnitOf(said.Anchor, scene.Language) ?? Unit.Piece;
        var (number, or, why) = Counted.Number(said.Anchor, scene);
        return new ReadLine(
            new Field<ItemId>(default, 0.1m, "we know nothing that is called so", said.Item),
            said.Words,
            null,
            new Field<decimal?>(number, or is null ? 0.9m : 0.4m, or is null ? "written so" : why, said.Quantity),
            new Field<Unit>(unit, 0.9m, "written so", said.Quantity),
            said.Price,
            said.PriceBase,
            "",
            found.Proposals(number ?? 1m, unit),
            said.Line
        );
    }

    [GeneratedRegex(@"\s+(?:on|at)\s+both\s+ends\b.*$", RegexOptions.IgnoreCase)]
    private static partial Regex BothEnds();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();
}
