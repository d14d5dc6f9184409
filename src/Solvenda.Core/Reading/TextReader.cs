using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Reading;

/// <summary>
/// Reads free text by rules, in the languages of <see cref="Language"/>: who writes, what they want, what they say
/// about the whole, and its lines (<see cref="TextLines"/>).
/// A value that is not sure stays open for a person; nothing is settled by luck.
/// </summary>
public static class TextReader
{
    /// <summary>Longer letters are read as far as this; the rest is kept.</summary>
    public const int LongestRead = 60_000;

    /// <summary>Reads a letter that has no table.</summary>
    public static Reading Read(Letter letter, ReadingContext context) => Read(letter, context, [], elsewhere: 0);

    /// <param name="more">Clues that stand outside the letter.</param>
    /// <param name="elsewhere">How many lines stand in tables; where there are any, the letter itself has only what it
    /// surely names.</param>
    public static Reading Read(Letter letter, ReadingContext context, ImmutableArray<Clue> more, int elsewhere)
    {
        ArgumentNullException.ThrowIfNull(letter);
        ArgumentNullException.ThrowIfNull(context);
        var fresh = letter.Text[..Math.Min(Math.Min(letter.FreshLength, letter.Text.Length), LongestRead)];
        var language = Language.Of(letter.Subject + "\n" + fresh);
        var (buyer, candidates) = BuyerFinder.Find(context, [.. more, .. Clues(letter, context)]);
        var scene = Scene.Of(letter, fresh, language, buyer, context);
        var head = TextHead.Read(scene);
        var marks = TextMarks.Of(scene);
        var lines = TextLines.Of(scene, marks);
        if (elsewhere > 0)
            lines = Surely(lines);
        var remarks = Remarks.Of(letter, fresh, language, lines);
        var asked = remarks.Where(r => r.Kind == RemarkKind.Question).Select(r => r.Where).ToList();
        // "What at 1000 m instead?" counts nothing, "can we have 3 buckets?" does.
        lines = [.. lines.Where(l => !IsOnlyAsked(l, asked))];
        var (kind, sure) = MessageWants.Of(
            letter,
            fresh,
            language,
            head,
            elsewhere > 0 ? elsewhere : lines.Length,
            elsewhere,
            context.Numbers
        );
        return new Reading(
            kind,
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
            [.. CutOff(letter, lines.Length)]
        )
        {
            KindSure = sure,
            Remarks = kind is MessageKind.Order or MessageKind.RequestForQuotation or MessageKind.Unclear
                ? remarks
                : [],
            QuoteNumber = head.QuoteNumber,
            Reference = head.Reference,
            DeliverToCountry = head.DeliverToCountry,
            Goods = head.Goods,
            LeftOvers =
            [
                .. LeftOvers.Of(scene, marks, Evidences(head, lines)),
                .. Disagreeing(head.Goods, elsewhere > 0 ? [] : lines),
            ],
            BuyerCandidates = candidates,
            Language = language.Code,
        };
    }

    private static IEnumerable<string> CutOff(Letter letter, int lines)
    {
        if (letter.FreshLength > LongestRead)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"The letter is longer than {LongestRead:#,0} characters; it was read as far as that."
            );
        if (lines >= TextLines.Most)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"{TextLines.Most} lines of the letter were read; what stands below is kept in the original."
            );
    }

    private static bool IsOnlyAsked(ReadLine line, List<Evidence> asked) =>
        line.Item.Value.Value == 0
        && asked.Exists(q => line.Evidence.Any(q.Meets))
        && line.Words.Split(' ')[^1].ToLowerInvariant() is var last
        && Language.All.Any(l => l.Instead.Contains(last));

    /// <summary>Of lines found in running text, those whose item and quantity are sure.</summary>
    internal static ImmutableArray<ReadLine> Surely(ImmutableArray<ReadLine> lines) =>
        [.. lines.Where(l => l is { Item.Sure: >= ReadLine.SureEnough, Quantity.Sure: >= ReadLine.SureEnough })];

    // A total in words, beside prices that do not make it.
    private static IEnumerable<LeftOver> Disagreeing(Field<decimal?> goods, ImmutableArray<ReadLine> lines)
    {
        if (goods is not { Sure: > 0, Value: { } total, Evidence: [var where, ..] } || lines.IsEmpty)
            yield break;
        if (lines.Any(l => l.Price is null || l.Quantity.Value is null || l.NeedsYou))
            yield break;
        var sum = lines.Sum(l =>
            Math.Round(l.Quantity.Value!.Value * l.Price!.Value / l.PriceBase, 2, MidpointRounding.AwayFromZero)
        );
        if (Math.Abs(total - sum) > 0.01m * lines.Length)
            yield return Sums.Disagreeing(new Stated<decimal>(total, where), sum);
    }

    private static IEnumerable<Clue> Clues(Letter letter, ReadingContext context)
    {
        foreach (var (address, name) in Writers(letter, context))
        {
            yield return new Clue("mail", address, []);
            yield return new Clue("domain", Domain(address), []);
            if (name.Length > 0)
                yield return new Clue("name", name, []);
        }
        // Addresses in what is quoted are mostly ours or another's; a tax number or a name in the signature is the
        // sender's.
        foreach (
            var clue in TextClues
                .Of(letter.Text, letter.Part, "text", context)
                .Where(c => c.Kind != "mail" || c.Where[0].Start < letter.FreshLength)
        )
            yield return clue;
    }

    // Who wrote it first is the sender; a colleague who handed it on is nobody's buyer.
    private static IEnumerable<Writer> Writers(Letter letter, ReadingContext context)
    {
        if (letter.First is { } first)
            yield return first;
        if (letter.First is null || !context.IsOurs(letter.FromAddress))
            yield return new Writer(letter.FromAddress, letter.FromName);
    }

    private static string Domain(string address) =>
        address.Contains('@', StringComparison.Ordinal) ? address.Split('@')[^1] : "";

    private static IEnumerable<Evidence> Evidences(TextHead head, ImmutableArray<ReadLine> lines) =>
        [
            .. head.PoNumber.Evidence,
            .. head.QuoteNumber.Evidence,
            .. head.Reference.Evidence,
            .. head.Wanted.Evidence,
            .. head.Contact.Evidence,
            .. head.DeliverTo.Evidence,
            .. head.Incoterm.Evidence,
            .. head.IncotermPlace.Evidence,
            .. head.PaymentDays.Evidence,
            .. head.Goods.Evidence,
            .. lines.SelectMany(l =>
                l.Evidence.AddRange(l.Quantity.Evidence).AddRange(l.Item.Evidence).AddRange(l.Wanted.Evidence)
            ),
        ];
}
