using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Money;
using Solvenda.Core.Units;

namespace Solvenda.Core.Reading;

/// <summary>A letter as its words: who it is from, when it was written, and its text with the new part told from the quoted.</summary>
/// <param name="FreshLength">Characters of <paramref name="Text"/> that are new; what follows is quoted history or a signature.</param>
public sealed record Letter(string FromAddress, string FromName, string Subject, DateOnly Written, string Text, int FreshLength);

/// <summary>
/// Reads free text by rules: quantities are the anchors, and what stands behind one (or before it, where nothing stands behind) are the words for an item.
/// English, so far. A value that is not sure stays open for a person; nothing is settled by luck.
/// </summary>
public static partial class TextReader
{
    /// <summary>The part index of the letter's text in evidence.</summary>
    public const int TextPart = 0;

    // Under this, words behind a number are not an item at all ("call me in 2 minutes").
    private const decimal LeastScore = 0.45m;

    // Two candidates closer than this are a near tie: a person decides.
    private const decimal NearTie = 0.06m;

    public static Reading Read(Letter letter, ReadingContext context)
    {
        ArgumentNullException.ThrowIfNull(letter);
        var domain = letter.FromAddress.Contains('@', StringComparison.Ordinal) ? letter.FromAddress.Split('@')[^1] : "";
        var buyer = BuyerFinder.Find(context, [("mail", letter.FromAddress, []), ("domain", domain, [])]);
        var fresh = letter.Text[..Math.Min(letter.FreshLength, letter.Text.Length)];
        var lines = Lines(fresh, letter.Text, buyer, context);
        var po = PoNumber().Match(fresh) is { Success: true } m ? m : PoNumber().Match(letter.Subject);
        var wanted = DateWords.Find(fresh, letter.Written);
        return new Reading(
            Kind(letter, fresh, po.Success, lines.Length),
            buyer,
            letter.FromName.Length > 0 ? new Field<string>(letter.FromName, 0.9m, "sender's name", []) : Field<string>.Missing,
            po.Success
                ? new Field<string>(po.Groups["po"].Value, 0.9m, "“" + po.Value.Trim() + "”", po.Index < fresh.Length && fresh.Contains(po.Value, StringComparison.Ordinal) ? [new Evidence(TextPart, po.Index, po.Length)] : [])
                : Field<string>.Missing,
            wanted is { } w
                ? new Field<DateOnly?>(w.Day, 0.85m, w.How, [new Evidence(TextPart, w.Start, w.Length)])
                : Field<DateOnly?>.Missing,
            Field<string>.Missing,
            Field<string>.Missing,
            Field<string>.Missing,
            Field<Currency?>.Missing,
            Field<int?>.Missing,
            lines,
            [],
            []);
    }

    private static MessageKind Kind(Letter letter, string fresh, bool hasPo, int lines)
    {
        var text = letter.Subject + "\n" + fresh;
        if (lines == 0)
            return fresh.Contains('?', StringComparison.Ordinal) ? MessageKind.Question : MessageKind.Unclear;
        if (AsksPrice().IsMatch(text))
            return MessageKind.RequestForQuotation;
        return hasPo || Orders().IsMatch(text) ? MessageKind.Order : MessageKind.RequestForQuotation;
    }

    private static ImmutableArray<ReadLine> Lines(string fresh, string whole, Field<BuyerId> buyer, ReadingContext context)
    {
        var lines = ImmutableArray.CreateBuilder<ReadLine>();
        var bought = buyer.Sure > 0 ? context.History(buyer.Value) : [];
        foreach (var (start, length) in Clauses(fresh))
        {
            var clause = fresh.Substring(start, length);
            var anchors = Quantity().Matches(clause).Where(a => a.Groups["n"].Success || a.Groups["word"].Success || a.Groups["usual"].Success).ToList();
            for (var i = 0; i < anchors.Count; i++)
            {
                var anchor = anchors[i];
                var end = i + 1 < anchors.Count ? anchors[i + 1].Index : clause.Length;
                var (from, to) = Phrase(clause, anchor.Index + anchor.Length, end);
                if (to <= from && i == 0)
                    (from, to) = Phrase(clause, 0, anchor.Index);
                if (to <= from || Line(clause, start, anchor, from, to, whole, buyer, bought, context, [.. lines]) is not { } line)
                    continue;
                lines.Add(line);
            }
        }
        return lines.ToImmutable();
    }

    // Sentences and comma clauses are too short to lose a quantity behind its thing: "Eye splices on both ends of the navy, 4 lengths."
    // So a clause ends at a sentence's end, a blank line or a dash; commas stay inside.
    private static IEnumerable<(int Start, int Length)> Clauses(string text)
    {
        var start = 0;
        foreach (Match end in ClauseEnd().Matches(text))
        {
            if (end.Index > start)
                yield return (start, end.Index - start);
            start = end.Index + end.Length;
        }
        if (start < text.Length)
            yield return (start, text.Length - start);
    }

    private static (int From, int To) Phrase(string clause, int from, int to)
    {
        var stop = PhraseEnd().Match(clause, from, to - from);
        if (stop.Success)
            to = stop.Index;
        while (from < to && !char.IsLetterOrDigit(clause[from]))
            from++;
        to = TrimEnd(clause, from, to);
        // "… three strand and" before the next quantity: the joining word belongs to neither.
        foreach (var joint in new[] { " and", " plus", " with" })
        {
            if (clause[from..to].EndsWith(joint, StringComparison.OrdinalIgnoreCase))
                to = TrimEnd(clause, from, to - joint.Length);
        }
        var lead = Article().Match(clause, from, to - from);
        return (from + (lead.Success && lead.Index == from ? lead.Length : 0), to);
    }

    private static int TrimEnd(string clause, int from, int to)
    {
        while (to > from && !char.IsLetterOrDigit(clause[to - 1]))
            to--;
        return to;
    }

    private static ReadLine? Line(
        string clause, int offset, Match anchor, int from, int to, string whole, Field<BuyerId> buyer, IReadOnlyList<Bought> bought, ReadingContext context, ImmutableArray<ReadLine> before)
    {
        var words = Blank().Replace(clause[from..to], " ");
        var usual = anchor.Groups["usual"].Success;
        var evidenceStart = Math.Min(anchor.Index, from);
        ImmutableArray<Evidence> evidence = [new Evidence(TextPart, offset + evidenceStart, Math.Max(anchor.Index + anchor.Length, to) - evidenceStart)];
        ImmutableArray<Evidence> ofQuantity = [new Evidence(TextPart, offset + anchor.Index, anchor.Value.TrimEnd().Length)];
        ImmutableArray<Evidence> ofItem = [new Evidence(TextPart, offset + from, to - from)];

        if (context.Aliases.FirstOrDefault(a => a.Buyer == buyer.Value && buyer.Sure > 0 && a.Words == ItemFinder.Normal((usual ? "usual " : "") + words)) is { } alias && context.Items.ById(alias.Item) is { } known)
        {
            var (count, unit) = Count(anchor, known);
            return new ReadLine(
                new Field<ItemId>(known.Id, 0.97m, "their words, learned", ofItem), words, null,
                usual && alias.Quantity is { } q ? new Field<decimal?>(q, 0.95m, "what you settled before", ofQuantity) : count,
                usual && alias.Unit is { } u ? new Field<Unit>(u, 0.95m, "what you settled before", ofQuantity) : unit,
                null, 1m, "", [], evidence);
        }

        var byCode = words.Split(' ').Select(context.Items.ByCode).FirstOrDefault(i => i is not null);
        var candidates = byCode is not null
            ? [new Candidate(byCode, 1m)]
            : context.Items.Search(BothEnds().Replace(words, ""), 5, id => bought.Any(b => b.Item == id) ? 0.08m : 0m);
        if (candidates.IsEmpty || candidates[0].Score < LeastScore)
            return null;
        var best = candidates[0].Item;
        var tie = candidates.Length > 1 && candidates[0].Score - candidates[1].Score < NearTie;
        var sure = tie ? 0.5m : Math.Min(0.95m, candidates[0].Score);
        var how = byCode is not null ? "our code" : tie ? $"{candidates[1].Item.Code} fits nearly as well" : bought.Any(b => b.Item == best.Id) ? "words; they bought it before" : "words";
        var (quantity, unitRead) = Count(anchor, best);
        var note = "";
        if (!best.Stocked && BothEnds().IsMatch(words) && quantity.Value is { } pieces)
        {
            quantity = quantity with { Value = pieces * 2, Sure = 0.8m, How = "both ends of each" };
            note = string.Create(CultureInfo.InvariantCulture, $"both ends, {pieces:0.##} lengths");
        }
        return new ReadLine(
            new Field<ItemId>(best.Id, sure, how, ofItem), words, byCode is null ? null : best.Code,
            usual ? Usual(best, bought, ofQuantity) : quantity with { Evidence = ofQuantity },
            usual ? new Field<Unit>(UsualUnit(best, bought), 0.6m, "what they took before", ofQuantity) : unitRead with { Evidence = ofQuantity },
            null, 1m, note,
            usual ? UsualProposals(best, bought, whole) : tie ? [.. candidates.Select(c => new Proposal(c.Item.Id, c.Item.Code, c.Item.Words, quantity.Value ?? 1m, unitRead.Value, c.Score, "words"))] : [],
            evidence);
    }

    private static (Field<decimal?> Quantity, Field<Unit> Unit) Count(Match anchor, Item item)
    {
        var times = anchor.Groups["times"].Success ? Number(anchor.Groups["times"].Value) : 1m;
        var number = anchor.Groups["n"].Success ? Number(anchor.Groups["n"].Value) * times
            : anchor.Groups["word"].Success ? NumberOf(anchor.Groups["word"].Value) : (decimal?)null;
        var unclear = anchor.Groups["n"].Success && Ambiguous().IsMatch(anchor.Groups["n"].Value);
        var quantity = new Field<decimal?>(number, number is null ? 0.2m : unclear ? 0.4m : 0.95m, unclear ? "is it a decimal or a thousands sign?" : "written so", []);
        var word = anchor.Groups["unit"].Value;
        var unit = word.Length == 0 || word.StartsWith("length", StringComparison.OrdinalIgnoreCase) ? null : UnitTable.FromWord(word);
        return unit is { } u && item.Factor(u) is not null
            ? (quantity, new Field<Unit>(u, 0.95m, "written so", []))
            : (quantity, new Field<Unit>(item.StockUnit, item.StockUnit == Unit.Piece || word.Length == 0 && item.SalesUnits.IsEmpty ? 0.9m : 0.55m, "the item's own unit", []));
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

    // What they took before, each quantity once with the documents it stands in; then what their own "n lengths" times "n x m" of the quoted letter gives; then a whole larger unit.
    private static ImmutableArray<Proposal> UsualProposals(Item item, IReadOnlyList<Bought> bought, string whole)
    {
        var proposals = ImmutableArray.CreateBuilder<Proposal>();
        var lengths = Lengths().Match(whole);
        var cut = EarlierCut().Match(whole);
        if (item.StockUnit == Unit.Metre && lengths.Success && cut.Success)
        {
            var (count, metres) = (Number(lengths.Groups["n"].Value), Number(cut.Groups["m"].Value));
            proposals.Add(new Proposal(item.Id, item.Code, item.Words, count * metres, Unit.Metre, 0.5m,
                string.Create(CultureInfo.InvariantCulture, $"{count:0.##} lengths of {metres:0.##} m, “{cut.Value}”")));
        }
        foreach (var same in bought.Where(b => b.Item == item.Id).OrderByDescending(b => b.Day).GroupBy(b => (b.Quantity, b.Unit)).Take(3))
        {
            if (proposals.All(p => (p.Quantity, p.Unit) != same.Key))
                proposals.Add(new Proposal(item.Id, item.Code, item.Words, same.Key.Quantity, same.Key.Unit, 0.45m, string.Join(", ", same.Take(2).Select(b => b.Document))));
        }
        var larger = item.SalesUnits.FirstOrDefault(u => u.Factor > 1);
        if (larger is not null && proposals.Count > 0)
            proposals.Add(new Proposal(item.Id, item.Code, item.Words, Math.Max(1m, Math.Ceiling(proposals[0].Quantity / larger.Factor)), larger.Unit, 0.2m, "next whole unit"));
        return proposals.ToImmutable();
    }

    private static decimal Number(string text)
    {
        var plain = text.Replace(" ", "", StringComparison.Ordinal).Replace("\u00a0", "", StringComparison.Ordinal);
        plain = plain.Contains(',', StringComparison.Ordinal) && plain.Contains('.', StringComparison.Ordinal)
            ? plain.LastIndexOf(',') > plain.LastIndexOf('.') ? plain.Replace(".", "", StringComparison.Ordinal).Replace(',', '.') : plain.Replace(",", "", StringComparison.Ordinal)
            : plain.Replace(',', '.');
        return decimal.Parse(plain, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture);
    }

    private static decimal NumberOf(string word)
    {
        var plain = word.ToLowerInvariant().Trim();
        if (plain.Contains("dozen", StringComparison.Ordinal))
            return plain.StartsWith("half", StringComparison.Ordinal) ? 6m : plain.StartsWith("two", StringComparison.Ordinal) ? 24m : 12m;
        string[] small = ["a", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];
        return Math.Max(1, Array.IndexOf(small, plain));
    }

    // A number that is not a size; or a number word; or "the usual". Then "x 45", then a unit.
    [GeneratedRegex(@"(?:(?<![\w.,-])(?:(?:(?<times>\d{1,4})\s*[x×]\s*)?(?<n>\d{1,3}(?:[ \u00a0]\d{3})+(?:[.,]\d+)?|\d+(?:[.,]\d+)*)(?!\s*(?:mm|cm|%|kg\b|st\b\s+of)|[\w-])|(?<word>(?:half a |two |a )?dozen|one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\b(?![\s-]*strand)|(?<usual>(?:the|our|my)\s+usual)\b)(?:\s*(?<unit>mtrs?|metres?|meters?|m2|m²|m|coils?|rolls?|rulle|rullar|box(?:es)?|pcs?|pieces?|stk?|ft|feet|foot|lengths?|litres?|pallets?|off|nos?)\b\.?)?(?:\s*[x×]\s(?=\D))?)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Quantity();

    [GeneratedRegex(@"(?<=[a-z\d])[.!?](?=\s|$)|\r?\n\s*\r?\n|\s[–—-]\s|;", RegexOptions.IgnoreCase)]
    private static partial Regex ClauseEnd();

    [GeneratedRegex(@",|\bplus\b|\band\s+(?=the\s+usual|\d|an?\s|some)|\bplease\b|\bneed\b|\bà\b|@", RegexOptions.IgnoreCase)]
    private static partial Regex PhraseEnd();

    [GeneratedRegex(@"(?:(?:of|the|your|our|some)\s+)+", RegexOptions.IgnoreCase)]
    private static partial Regex Article();

    [GeneratedRegex(@"\b(?:P\.?O\.?|purchase order|order)\s*(?:no\.?|nr\.?|number|#|:)*\s*(?<po>(?!(?:19|20)\d\d\b(?![/-]))[A-Z]{0,4}[-/]?\d[\w/-]{2,})", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex PoNumber();

    [GeneratedRegex(@"\b(?:price|quote|quotation|how much|cost)\b", RegexOptions.IgnoreCase)]
    private static partial Regex AsksPrice();

    [GeneratedRegex(@"\b(?:order|send|ship|deliver|need)\b", RegexOptions.IgnoreCase)]
    private static partial Regex Orders();

    [GeneratedRegex(@"\s+(?:on|at)\s+both\s+ends\b.*$", RegexOptions.IgnoreCase)]
    private static partial Regex BothEnds();

    [GeneratedRegex(@"\b(?<n>\d{1,3})\s+lengths?\b", RegexOptions.IgnoreCase)]
    private static partial Regex Lengths();

    [GeneratedRegex(@"\b\d{1,3}\s*x\s*(?<m>\d{1,4})\s*m\b", RegexOptions.IgnoreCase)]
    private static partial Regex EarlierCut();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();

    // 1,250 or 1.250: three digits behind one sign could be either.
    [GeneratedRegex(@"^\d{1,3}[.,]\d{3}$")]
    private static partial Regex Ambiguous();
}
