using System.Collections.Concurrent;
using System.Collections.Immutable;
using Solvenda.Core.Documents;

namespace Solvenda.Core.Reading;

/// <summary>
/// What a letter wants, by what speaks for it and what speaks against it. Where both do, it is not sure, and a person
/// is asked.
/// </summary>
internal static class MessageWants
{
    private const decimal Sure = 0.9m;
    private const decimal Likely = 0.8m;

    // Something is asked, and nothing says what it is about.
    private const decimal Vague = 0.65m;

    // Two things speak for two kinds.
    private const decimal Torn = 0.6m;

    /// <param name="lines">Lines that were read, in the letter or beside it.</param>
    /// <param name="elsewhere">How many of them stand in tables.</param>
    /// <param name="numbers">How our own look.</param>
    public static (MessageKind Kind, decimal Sure) Of(
        Letter letter,
        string fresh,
        Language language,
        TextHead head,
        int lines,
        int elsewhere,
        OurNumbers numbers
    )
    {
        var text = letter.Subject + "\n" + fresh;
        var says = new Words(text, language);
        if (letter.Automatic)
            return (MessageKind.NotForUs, 0.95m);
        var named = head.PoNumber.Sure > 0 || numbers.NamesOrder(text);
        var speaking = Speaking(says, named, lines, head.QuoteNumber.Sure > 0);
        if (says.Any(l => l.NoOrder))
            return (speaking.IsEmpty ? MessageKind.Question : speaking[0], Torn);
        if (!speaking.IsEmpty)
            return (
                speaking[0],
                speaking.Length == 1 ? Sure
                : speaking.Length == 2 ? 0.75m
                : Torn
            );
        var (kind, sure) = Wanted(says, fresh, language, head, lines, elsewhere);
        // An order that speaks of sending something back, or of an order that we have, may be about that.
        return says.Any(l => l.Returns) || numbers.NamesOrder(text) ? (kind, Math.Min(sure, Torn)) : (kind, sure);
    }

    // Kinds that are neither an order nor a request for prices, the one that speaks loudest first.
    private static ImmutableArray<MessageKind> Speaking(Words says, bool named, int lines, bool quoted)
    {
        var kinds = ImmutableArray.CreateBuilder<MessageKind>();
        var (ours, wrong) = (says.Count(l => l.NotForUs), says.Count(l => l.Complaints));
        var back = says.Count(l => l.Returns);
        // Somebody who orders may name an invoice, or a thing that was broken; "send back" sends nothing.
        var orders = lines > 0 && !named && says.Without(l => l.Returns).Any(l => l.Order);
        if (ours > 0 && lines == 0 && (ours > 1 || (wrong == 0 && back == 0)))
            kinds.Add(MessageKind.NotForUs);
        if (quoted && says.Any(l => l.Accept))
            kinds.Add(MessageKind.AnswerToQuote);
        if (back > 0 && !orders)
            kinds.Add(MessageKind.Return);
        if (says.Any(l => l.Reminders) && (named || lines == 0))
            kinds.Add(MessageKind.Reminder);
        // "Change line 2, cancel the shackles" changes.
        if (says.Any(l => l.Change) && named && !kinds.Contains(MessageKind.AnswerToQuote))
            kinds.Add(MessageKind.Change);
        if (says.Any(l => l.Cancel) && (named || lines == 0))
            kinds.Add(MessageKind.Cancellation);
        if (wrong > 0 && (lines == 0 || !orders))
            kinds.Add(MessageKind.Complaint);
        return kinds.ToImmutable();
    }

    private static (MessageKind Kind, decimal Sure) Wanted(
        Words says,
        string fresh,
        Language language,
        TextHead head,
        int lines,
        int elsewhere
    )
    {
        var (asks, orders) = (says.Any(l => l.Quote), says.Any(l => l.Order));
        // Our quote's number beside an order's number of theirs says yes, however it is put.
        if (says.Any(l => l.Accept) || head is { QuoteNumber.Sure: > 0, PoNumber.Sure: > 0 })
            return (MessageKind.AnswerToQuote, head.QuoteNumber.Sure > 0 ? Sure : Torn);
        var onlyNamed = !language.Says(fresh, l => [.. l.Quote.Except(l.QuoteNoun)]);
        if (asks && !(head.PoNumber.Sure > 0 && lines > 0 && onlyNamed))
            return Asked(lines, orders, onlyNamed, head);
        if (lines == 0)
            return fresh.Contains('?', StringComparison.Ordinal) ? (MessageKind.Question, Vague)
                : head.PoNumber.Sure > 0 && orders ? (MessageKind.Order, Vague)
                : (MessageKind.Unclear, 0m);
        if (head.PoNumber.Sure > 0 || orders)
            return (MessageKind.Order, head.PoNumber.Sure > 0 && orders ? Sure : Likely);
        return lines > elsewhere ? (MessageKind.RequestForQuotation, Torn) : (MessageKind.Unclear, 0m);
    }

    // Words of a request for prices: of what, and beside words of an order or not.
    private static (MessageKind Kind, decimal Sure) Asked(int lines, bool orders, bool onlyNamed, TextHead head)
    {
        // Nothing that could be quoted: "inquiry: do you deliver to the south pier?"
        if (lines == 0)
            return (head.QuoteNumber.Sure > 0 ? MessageKind.AnswerToQuote : MessageKind.RequestForQuotation, Torn);
        // "We order as per your offer": an offer is only spoken of.
        if (orders && onlyNamed)
            return (MessageKind.Order, Torn);
        return (
            MessageKind.RequestForQuotation,
            !orders ? Sure
            : head.PoNumber.Sure > 0 ? Torn
            : Likely
        );
    }

    // The words of the letter's language, and English ones, which are understood beside it. Which language a short
    // letter is in is not always clear: what is long enough to be no other language's word counts in any.
    private sealed class Words(string text, Language language)
    {
        private const int LongEnough = 7;

        private static readonly ConcurrentDictionary<(string, Func<Language, string[]>), Phrases> Known = new();

        public bool Any(Func<Language, string[]> of) => PhrasesOf(of).In(text);

        /// <summary>How many of the words stand in the text, each counted once.</summary>
        public int Count(Func<Language, string[]> of) =>
            PhrasesOf(of)
                .Of(text)
                .Select(p => text.Substring(p.Start, p.Length))
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Count();

        private Phrases PhrasesOf(Func<Language, string[]> of) =>
            Known.GetOrAdd((language.Code, of), _ => new Phrases(All(of)));

        /// <summary>The same, with such words taken out.</summary>
        public Words Without(Func<Language, string[]> of) =>
            new(
                PhrasesOf(of)
                    .Of(text)
                    .Reverse()
                    .Aggregate(text, (t, p) => t.Remove(p.Start, p.Length).Insert(p.Start, new string(' ', p.Length))),
                language
            );

        private IEnumerable<string> All(Func<Language, string[]> of) =>
            of(language)
                .Concat(of(Language.English))
                .Concat(Language.All.SelectMany(of).Where(w => w.Length >= LongEnough))
                .Distinct();
    }
}
