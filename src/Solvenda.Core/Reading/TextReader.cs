using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>
/// Reads free text by rules, in the languages of <see cref="Language"/>: quantities are the anchors, and what stands
/// behind one (or before it, where nothing stands behind) are the words for an item.
/// A value that is not sure stays open for a person; nothing is settled by luck.
/// </summary>
public static partial class TextReader
{
    /// <summary>Longer letters are read as far as this; the rest is kept.</summary>
    public const int LongestRead = 60_000;

    // Under this, words behind a number are not an item at all ("call me in 2 minutes").
    private const decimal LeastScore = 0.45m;

    // A letter with more lines is no letter; those below are kept in the original, and that is said.
    private const int MostLines = 500;

    // A thing that is told by the line before is well known, but not as well as one that is named.
    private const decimal LikeBefore = 0.8m;

    private const int FarthestPrice = 12;

    /// <summary>Reads a letter that has no table.</summary>
    public static Reading Read(Letter letter, ReadingContext context) => Read(letter, context, [], elsewhere: 0);

    /// <param name="more">Clues that stand outside the letter.</param>
    /// <param name="elsewhere">How many lines stand in tables; where there are any, the letter itself has none.</param>
    public static Reading Read(Letter letter, ReadingContext context, ImmutableArray<Clue> more, int elsewhere)
    {
        ArgumentNullException.ThrowIfNull(letter);
        ArgumentNullException.ThrowIfNull(context);
        var fresh = letter.Text[..Math.Min(Math.Min(letter.FreshLength, letter.Text.Length), LongestRead)];
        var language = Language.Of(letter.Subject + "\n" + fresh);
        var (buyer, candidates) = BuyerFinder.Find(context, [.. more, .. Clues(letter, context)]);
        var head = TextHead.Read(letter, fresh, language, buyer, context);
        var lines = elsewhere == 0 ? Lines(letter, fresh, language, buyer, context) : [];
        var warnings = ImmutableArray.CreateBuilder<string>();
        if (letter.FreshLength > LongestRead)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The letter is longer than {LongestRead:#,0} characters; it was read as far as that."
                )
            );
        if (lines.Length >= MostLines)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{MostLines} lines of the letter were read; what stands below is kept in the original."
                )
            );
        return new Reading(
            Kind(letter, fresh, language, head, lines.Length + elsewhere, elsewhere),
            buyer,
            head.Contact,
            head.PoNumber,
            head.Wanted,
            head.DeliverTo,
            head.Incoterm,
            head.IncotermPlace,
            head.Currency,
            head.PaymentDays,
            lines,
            [],
            warnings.ToImmutable()
        )
        {
            QuoteNumber = head.QuoteNumber,
            DeliverToCountry = head.DeliverToCountry,
            Goods = head.Goods,
            BuyerCandidates = candidates,
            Language = language.Code,
        };
    }

    private static IEnumerable<Clue> Clues(Letter letter, ReadingContext context)
    {
        yield return new Clue("mail", letter.FromAddress, []);
        yield return new Clue(
            "domain",
            letter.FromAddress.Contains('@', StringComparison.Ordinal) ? letter.FromAddress.Split('@')[^1] : "",
            []
        );
        if (letter.FromName.Length > 0)
            yield return new Clue("name", letter.FromName, []);
        // Addresses in what is quoted are mostly ours or another's; a tax number or a name in the signature is the
        // sender's.
        foreach (
            var clue in TextClues
                .Of(letter.Text, letter.Part, "text", context)
                .Where(c => c.Kind != "mail" || c.Where[0].Start < letter.FreshLength)
        )
            yield return clue;
    }

    private static MessageKind Kind(
        Letter letter,
        string fresh,
        Language language,
        TextHead head,
        int lines,
        int elsewhere
    )
    {
        var text = letter.Subject + "\n" + fresh;
        bool Says(Func<Language, string[]> of) =>
            Language.Says(text, of(language)) || (language.Code != "en" && Language.Says(text, of(Language.English)));
        if (letter.Automatic || (lines == 0 && Says(l => l.NotForUs)))
            return MessageKind.NotForUs;
        if (head.QuoteNumber.Sure > 0 && Says(l => l.Accept))
            return MessageKind.AnswerToQuote;
        // "Change line 2, cancel the shackles" changes.
        if (Says(l => l.Change) && head.PoNumber.Sure > 0)
            return MessageKind.Change;
        if (Says(l => l.Cancel) && (head.PoNumber.Sure > 0 || lines == 0))
            return MessageKind.Cancellation;
        // Our quote's number beside an order's number of theirs says yes, however it is put.
        if (Says(l => l.Accept) || head is { QuoteNumber.Sure: > 0, PoNumber.Sure: > 0 })
            return MessageKind.AnswerToQuote;
        if (
            Says(l => l.Quote)
            && !(
                head.PoNumber.Sure > 0 && lines > 0 && !Language.Says(fresh, language.Quote.Except(language.QuoteNoun))
            )
        )
            return MessageKind.RequestForQuotation;
        if (lines == 0)
            return fresh.Contains('?', StringComparison.Ordinal) ? MessageKind.Question
                : head.PoNumber.Sure > 0 && Says(l => l.Order) ? MessageKind.Order
                : MessageKind.Unclear;
        return head.PoNumber.Sure > 0 || Says(l => l.Order) ? MessageKind.Order
            : lines > elsewhere ? MessageKind.RequestForQuotation
            : MessageKind.Unclear;
    }

    /// <summary>The lines of a text, for a buyer that is known or not.</summary>
    public static ImmutableArray<ReadLine> Lines(
        Letter letter,
        string fresh,
        Language language,
        Field<BuyerId> buyer,
        ReadingContext context
    )
    {
        var grammar = Grammar.Of(language);
        var lines = ImmutableArray.CreateBuilder<ReadLine>();
        var bought = buyer.Sure > 0 ? context.History(buyer.Value) : [];
        var scene = new Scene(
            letter,
            language,
            buyer,
            bought,
            context,
            grammar,
            NumberForm.Of(Numbers().Matches(fresh).Select(m => m.Value))
        );
        // Dates, prices, telephone numbers and orders' numbers are numbers too, but count nothing.
        var prices = grammar.Price.Matches(fresh).Where(m => m.Groups["p"].Success).ToList();
        var masked = DateWords
            .All(fresh, letter.Written, language)
            .Select(d => (d.Start, d.Length))
            .Concat(prices.Select(p => (p.Index, p.Length)))
            .Concat(NotCounts().Matches(fresh).Select(m => (m.Index, m.Length)))
            .Concat(grammar.Po.Matches(fresh).Select(m => (m.Groups["po"].Index, m.Groups["po"].Length)))
            .Concat(grammar.Payment.Matches(fresh).Select(m => (m.Index, m.Length)))
            .Concat(grammar.Total.Matches(fresh).Select(m => (m.Index, m.Length)))
            .ToList();
        bool Masked(Match m) => masked.Any(x => m.Index < x.Item1 + x.Item2 && m.Index + m.Length > x.Item1);
        var numbers = grammar.Quantity.Matches(fresh).Where(m => !Masked(m)).ToList();
        var (spokenOf, number) = ("", 0);
        foreach (var (start, length) in TextPieces.Clauses(fresh))
        {
            var clause = new Clause(fresh.Substring(start, length), start) { SpokenOf = spokenOf };
            spokenOf = clause.Text;
            var own = numbers
                .Skip(number)
                .SkipWhile(m => m.Index < start)
                .TakeWhile(m => m.Index < start + length)
                .ToList();
            number += own.Count;
            var anchors = TextPieces.Counting(
                clause.Text,
                [.. own.Select(m => new Anchor(m, m.Index - start, Math.Min(m.Length, start + length - m.Index)))],
                grammar,
                context.Items
            );
            var leftward =
                anchors.Count > 0
                && (
                    LeansLeft().IsMatch(clause.Text[..anchors[0].At])
                    || clause
                        .Text[..anchors[0].At]
                        .Split(TextPieces.Blanks, StringSplitOptions.RemoveEmptyEntries)
                        .Any(w => context.Items.ByCode(w) is not null)
                );
            for (var i = 0; i < anchors.Count && lines.Count < MostLines; i++)
            {
                var next = i + 1 < anchors.Count ? anchors[i + 1].At : clause.Text.Length;
                var left = i == 0 ? 0 : anchors[i - 1].End;
                var price =
                    prices.FirstOrDefault(p => p.Index >= start + anchors[i].End && p.Index < start + next)
                    ?? (
                        leftward
                            ? prices.FirstOrDefault(p => p.Index >= start + left && p.Index < start + anchors[i].At)
                            : null
                    );
                // The words for a thing end where a price, a date, or a number of another kind begins.
                var until = masked
                    .Where(x => x.Item1 - start >= anchors[i].End)
                    .Select(x => x.Item1 - start)
                    .Append(next)
                    .Min();
                until = Math.Min(until, next);
                var (from, to) =
                    anchors[i].ThingFrom is { } thing ? Phrase(clause.Text, thing, anchors[i].At, scene)
                    : leftward ? Phrase(clause.Text, left, anchors[i].At, scene)
                    : Phrase(clause.Text, anchors[i].End, until, scene);
                if (scene.Grammar.Them.Match(clause.Text[anchors[i].End..next].TrimStart()) is { Success: true } them)
                    (from, to) = (
                        clause.Text.IndexOf(them.Value, anchors[i].End, StringComparison.Ordinal),
                        clause.Text.IndexOf(them.Value, anchors[i].End, StringComparison.Ordinal) + them.Length
                    );
                if (to <= from)
                    (from, to) =
                        leftward ? Phrase(clause.Text, anchors[i].End, until, scene)
                        : i == 0 ? Phrase(clause.Text, 0, anchors[i].At, scene)
                        : (0, 0);
                // A price that other words part from the thing is not its.
                if (price is not null && price.Index - start - Math.Max(to, anchors[i].End) > FarthestPrice)
                    price = null;
                if (
                    to > from
                    && Line(clause, anchors[i].Match, from, to, price, lines.Count > 0 ? lines[^1] : null, scene)
                        is { } line
                )
                    lines.Add(line);
            }
        }
        return lines.ToImmutable();
    }

    private sealed record Scene(
        Letter Letter,
        Language Language,
        Field<BuyerId> Buyer,
        IReadOnlyList<Bought> Bought,
        ReadingContext Context,
        Grammar Grammar,
        NumberForm Form
    );

    private sealed record Clause(string Text, int Offset)
    {
        /// <summary>The clause before, which "of them" points to.</summary>
        public string SpokenOf { get; init; } = "";
    }

    private static (int From, int To) Phrase(string clause, int from, int to, Scene scene)
    {
        while (from < to && !char.IsLetterOrDigit(clause[from]))
            from++;
        var whole = to;
        var stop = scene.Grammar.PhraseEnd.Match(clause, from, to - from);
        if (stop.Success)
            to = stop.Index;
        // "rope 12 mm, white": what stands behind the comma belongs to it, as long as things are called so.
        while (stop.Success && stop.Value == "," && to < whole)
        {
            var end = clause.IndexOfAny([',', ';', '\n', '.'], to + 1, whole - to - 1);
            end = end < 0 ? whole : end;
            var words = ItemFinder.Normal(clause[(to + 1)..end]).Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (words.Length is 0 or > 4 || !words.All(w => scene.Context.Items.Knows(w, scene.Language)))
                break;
            to = end;
            if (end >= whole || clause[end] != ',')
                break;
        }
        to = TrimEnd(clause, from, to);
        // "… three strand and" before the next quantity: the joining word belongs to neither.
        foreach (var joint in scene.Grammar.Joints)
        {
            if (
                to - from > joint.Length
                && clause.AsSpan(from, to - from).EndsWith(joint, StringComparison.OrdinalIgnoreCase)
            )
                to = TrimEnd(clause, from, to - joint.Length);
        }
        var lead = scene.Grammar.Article.Match(clause, from, Math.Max(0, to - from));
        return (from + (lead.Success && lead.Index == from ? lead.Length : 0), to);
    }

    private static int TrimEnd(string clause, int from, int to)
    {
        while (to > from && !char.IsLetterOrDigit(clause[to - 1]))
            to--;
        return to;
    }

    private static ReadLine? Line(
        Clause clause,
        Match anchor,
        int from,
        int to,
        Match? price,
        ReadLine? before,
        Scene scene
    )
    {
        var words = Blank().Replace(clause.Text[from..to], " ");
        var usual = anchor.Groups["usual"].Success;
        var at = anchor.Index - clause.Offset;
        var first = Math.Min(at, from);
        var part = scene.Letter.Part;
        ImmutableArray<Evidence> evidence =
        [
            new Evidence(
                part,
                clause.Offset + first,
                Math.Max(Math.Min(at + anchor.Length, clause.Text.Length), to) - first
            ),
        ];
        ImmutableArray<Evidence> ofQuantity =
        [
            new Evidence(part, anchor.Index, anchor.Value.TrimEnd().TrimEnd('x', '×').TrimEnd().Length),
        ];
        ImmutableArray<Evidence> ofItem = [new Evidence(part, clause.Offset + from, to - from)];
        var stated = price is not null && scene.Form.Read(price.Groups["p"].Value) is { } p ? p : null;
        var priceBase =
            price is not null
            && price.Groups["pb"].Success
            && decimal.TryParse(price.Groups["pb"].Value, NumberStyles.None, CultureInfo.InvariantCulture, out var each)
            && each > 0
                ? each
                : 1m;

        if (
            scene.Context.AliasOf(scene.Buyer, ItemFinder.Normal((usual ? "usual " : "") + words)) is { } alias
            && scene.Context.Items.ById(alias.Item) is { } known
        )
        {
            var (count, unit, _) = Count(anchor, known, scene);
            return new ReadLine(
                new Field<ItemId>(known.Id, 0.97m, "their words, learned", ofItem),
                words,
                null,
                usual && alias.Quantity is { } q
                    ? new Field<decimal?>(q, 0.95m, "what you settled before", ofQuantity)
                    : count with
                    {
                        Evidence = ofQuantity,
                    },
                usual && alias.Unit is { } u
                    ? new Field<Unit>(u, 0.95m, "what you settled before", ofQuantity)
                    : unit with
                    {
                        Evidence = ofQuantity,
                    },
                stated?.Value,
                priceBase,
                "",
                [],
                evidence
            );
        }

        // "Same in black": the thing of the line before, in what is said to be other.
        var same =
            before is { Item.Sure: >= LeastScore }
            && scene.Context.Items.ById(before.Item.Value) is { } previous
            && scene.Grammar.Same.Match(words) is { Success: true } m
                ? scene.Context.Items.Varied(previous, words[m.Length..], scene.Language)
                : null;
        var found = ItemReading.Find(
            words,
            scene.Buyer,
            scene.Bought,
            scene.Context,
            scene.Language,
            same ?? BothEnds().Replace(words, "")
        );
        if (same is null && clause.SpokenOf.Length is > 0 and < 200 && scene.Grammar.Them.IsMatch(words))
        {
            found = ItemReading.Find(
                Blank().Replace(clause.SpokenOf, " ").Trim(),
                scene.Buyer,
                scene.Bought,
                scene.Context,
                scene.Language
            );
            found = found with
            {
                Sure = Math.Min(found.Sure, LikeBefore),
                How = found.IsTie ? found.How : "what was spoken of before",
            };
        }
        if (same is not null)
            found = found with
            {
                Sure = Math.Min(found.Sure, LikeBefore),
                How = found.IsTie ? found.How : "as the line before, but so",
            };
        if (found.Item is not { } best || (found.Sure < LeastScore && !found.IsTie))
            return Unknown(anchor, words, stated?.Value, priceBase, evidence, ofItem, ofQuantity, found, scene);
        var (quantity, unitRead, or) = Count(anchor, best, scene);
        var note = "";
        if (!best.Stocked && BothEnds().IsMatch(words) && quantity.Value is { } pieces)
        {
            quantity = quantity with { Value = pieces * 2, Sure = 0.8m, How = "both ends of each" };
            note = string.Create(CultureInfo.InvariantCulture, $"both ends, {pieces:0.##} lengths");
        }
        ImmutableArray<Proposal> proposals =
            usual ? UsualProposals(best, scene.Bought, scene.Letter.Text)
            : or is { } other
                ? anchor.Groups["upto"].Success
                        ?
                        [
                            Proposed(best, quantity.Value!.Value, unitRead.Value, "the least"),
                            Proposed(best, other, unitRead.Value, "the most"),
                        ]
                    :
                    [
                        Proposed(best, quantity.Value!.Value, unitRead.Value, "a thousands sign"),
                        Proposed(best, other, unitRead.Value, "a decimal sign"),
                    ]
            : found.Proposals(quantity.Value ?? 1m, unitRead.Value);
        return new ReadLine(
            new Field<ItemId>(best.Id, found.Sure, found.How, ofItem),
            words,
            found.Code,
            usual ? Usual(best, scene.Bought, ofQuantity) : quantity with { Evidence = ofQuantity },
            usual
                ? new Field<Unit>(UsualUnit(best, scene.Bought), 0.6m, "what they took before", ofQuantity)
                : unitRead with
                {
                    Evidence = ofQuantity,
                },
            stated?.Value,
            priceBase,
            note,
            proposals,
            evidence
        );
    }

    // A thing that we do not know, with a quantity that is one: a person says what it is. Words behind a bare number
    // are only words.
    private static ReadLine? Unknown(
        Match anchor,
        string words,
        decimal? price,
        decimal priceBase,
        ImmutableArray<Evidence> evidence,
        ImmutableArray<Evidence> ofItem,
        ImmutableArray<Evidence> ofQuantity,
        ItemReading found,
        Scene scene
    )
    {
        if (
            !anchor.Groups["unit"].Success
            || anchor.Groups["usual"].Success
            || words.Split(' ').Length > 12
            || !words.Any(char.IsLetter)
        )
            return null;
        var unit = UnitOf(anchor, scene.Language) ?? Unit.Piece;
        var (number, or, why) = Quantity(anchor, scene);
        return new ReadLine(
            new Field<ItemId>(default, 0.1m, "we know nothing that is called so", ofItem),
            words,
            null,
            new Field<decimal?>(number, or is null ? 0.9m : 0.4m, or is null ? "written so" : why, ofQuantity),
            new Field<Unit>(unit, 0.9m, "written so", ofQuantity),
            price,
            priceBase,
            "",
            found.Proposals(number ?? 1m, unit),
            evidence
        );
    }

    private static Proposal Proposed(Item item, decimal quantity, Unit unit, string why) =>
        new(item.Id, item.Code, item.Words, quantity, unit, 0.5m, why);

    // The number, and where two could be meant the other one and why it is open.
    private static (decimal? Number, decimal? Or, string Why) Quantity(Match anchor, Scene scene)
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
        return anchor.Groups["word"].Success
            ? (NumberWords.Read(anchor.Groups["word"].Value, scene.Language) * many, null, "")
            : (null, null, "");
    }

    private static (Field<decimal?> Quantity, Field<Unit> Unit, decimal? Or) Count(Match anchor, Item item, Scene scene)
    {
        var (number, or, why) = Quantity(anchor, scene);
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

    private static Unit? UnitOf(Match anchor, Language language)
    {
        var word = Plain(anchor.Groups["unit"].Value).TrimEnd('.');
        if (word.Length == 0 || language.Lengths.Concat(Language.English.Lengths).Contains(word))
            return null;
        return language.Units.TryGetValue(word, out var code) || Language.English.Units.TryGetValue(word, out code)
            ? Unit.Of(code)
            : UnitTable.FromWord(word);
    }

    private static Field<decimal?> Usual(Item item, IReadOnlyList<Bought> bought, ImmutableArray<Evidence> evidence)
    {
        var last = bought.Where(b => b.Item == item.Id).OrderByDescending(b => b.Day).FirstOrDefault();
        return last is null
            ? new Field<decimal?>(null, 0.1m, "they never bought it", evidence)
            : new Field<decimal?>(last.Quantity, 0.45m, $"as in {last.Document}", evidence);
    }

    private static Unit UsualUnit(Item item, IReadOnlyList<Bought> bought) =>
        bought.Where(b => b.Item == item.Id).OrderByDescending(b => b.Day).FirstOrDefault()?.Unit ?? item.StockUnit;

    // What they took before, each quantity once with the documents it stands in; then what their own "n lengths" times
    // "n x m" of the quoted letter gives; then a whole larger unit.
    private static ImmutableArray<Proposal> UsualProposals(Item item, IReadOnlyList<Bought> bought, string whole)
    {
        var proposals = ImmutableArray.CreateBuilder<Proposal>();
        var lengths = Lengths().Match(whole);
        var cut = EarlierCut().Match(whole);
        if (item.StockUnit == Unit.Metre && lengths.Success && cut.Success)
        {
            var (count, metres) = (
                decimal.Parse(lengths.Groups["n"].Value, CultureInfo.InvariantCulture),
                decimal.Parse(cut.Groups["m"].Value, CultureInfo.InvariantCulture)
            );
            proposals.Add(
                new Proposal(
                    item.Id,
                    item.Code,
                    item.Words,
                    count * metres,
                    Unit.Metre,
                    0.5m,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{count:0.##} lengths of {metres:0.##} m, “{cut.Value}”"
                    )
                )
            );
        }
        foreach (
            var same in bought
                .Where(b => b.Item == item.Id)
                .OrderByDescending(b => b.Day)
                .GroupBy(b => (b.Quantity, b.Unit))
                .Take(3)
        )
        {
            if (proposals.All(p => (p.Quantity, p.Unit) != same.Key))
                proposals.Add(
                    new Proposal(
                        item.Id,
                        item.Code,
                        item.Words,
                        same.Key.Quantity,
                        same.Key.Unit,
                        0.45m,
                        string.Join(", ", same.Take(2).Select(b => b.Document))
                    )
                );
        }
        var larger = item.SalesUnits.FirstOrDefault(u => u.Factor > 1);
        if (larger is not null && proposals.Count > 0)
            proposals.Add(
                new Proposal(
                    item.Id,
                    item.Code,
                    item.Words,
                    Math.Max(1m, Math.Ceiling(proposals[0].Quantity / larger.Factor)),
                    larger.Unit,
                    0.2m,
                    "next whole unit"
                )
            );
        return proposals.ToImmutable();
    }

    private static string Plain(string word) => Blank().Replace(word.Trim().ToLowerInvariant(), " ");

    [GeneratedRegex(@"[:=–-]\s*$")]
    private static partial Regex LeansLeft();

    [GeneratedRegex(
        @"(?<![\w.,-])(?:\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)+)(?![\w./-])",
        RegexOptions.CultureInvariant
    )]
    internal static partial Regex Numbers();

    // Telephone numbers, percentages, times of the day, our own numbers, postcodes with letters.
    [GeneratedRegex(
        @"(?<!\w)(?:\+\d[\d ()/-]{6,}\d|0\d[\d ()/-]{5,}\d)|\d+(?:[.,]\d+)?\s*%|\b\d{1,2}:\d\d\b|\b[QSRD]\d\d-\d{5}\b",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex NotCounts();

    [GeneratedRegex(@"\s+(?:on|at)\s+both\s+ends\b.*$", RegexOptions.IgnoreCase)]
    private static partial Regex BothEnds();

    [GeneratedRegex(@"\b(?<n>\d{1,3})\s+lengths?\b", RegexOptions.IgnoreCase)]
    private static partial Regex Lengths();

    [GeneratedRegex(@"\b\d{1,3}\s*x\s*(?<m>\d{1,4})\s*m\b", RegexOptions.IgnoreCase)]
    private static partial Regex EarlierCut();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();
}
