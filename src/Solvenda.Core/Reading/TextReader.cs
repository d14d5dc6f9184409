using System.Collections.Immutable;
using System.Globalization;

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
    /// <param name="elsewhere">How many lines stand in tables; where there are any, the letter itself has none.</param>
    public static Reading Read(Letter letter, ReadingContext context, ImmutableArray<Clue> more, int elsewhere)
    {
        ArgumentNullException.ThrowIfNull(letter);
        ArgumentNullException.ThrowIfNull(context);
        var fresh = letter.Text[..Math.Min(Math.Min(letter.FreshLength, letter.Text.Length), LongestRead)];
        var language = Language.Of(letter.Subject + "\n" + fresh);
        var (buyer, candidates) = BuyerFinder.Find(context, [.. more, .. Clues(letter, context)]);
        var head = TextHead.Read(letter, fresh, language, buyer, context);
        var lines = elsewhere == 0 ? TextLines.Of(letter, fresh, language, buyer, context) : [];
        var warnings = ImmutableArray.CreateBuilder<string>();
        if (letter.FreshLength > LongestRead)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The letter is longer than {LongestRead:#,0} characters; it was read as far as that."
                )
            );
        if (lines.Length >= TextLines.Most)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{TextLines.Most} lines of the letter were read; what stands below is kept in the original."
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
}
