using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>
/// What a letter asks beside the goods: how to deliver, what to print, which certificates to send, and questions. Each
/// is a whole sentence, since half of one misleads.
/// </summary>
internal static partial class Remarks
{
    // Longer ones are no sentence, and shorter ones no question.
    private const int Longest = 300;
    private const int ShortestQuestion = 10;

    private const int Most = 20;

    private static readonly (string Key, RemarkKind Kind)[] Kinds =
    [
        ("certificate", RemarkKind.Certificate),
        ("printed", RemarkKind.Printed),
        ("delivery", RemarkKind.Delivery),
    ];

    public static ImmutableArray<Remark> Of(
        Letter letter,
        string fresh,
        Language language,
        ImmutableArray<ReadLine> lines
    )
    {
        var remarks = ImmutableArray.CreateBuilder<Remark>();
        var patterns = Made.GetOrAdd(language.Code, _ => Make(language));
        foreach (Match m in Sentence().Matches(fresh))
        {
            var (start, words) = (m.Index, m.Value.Trim());
            if (remarks.Count >= Most || words.Length is 0 or > Longest)
                continue;
            if (KindOf(words, start, m.Length, patterns, lines) is { } kind)
                remarks.Add(
                    new Remark(kind, Blank().Replace(words, " "), new Evidence(letter.Part, start, words.Length))
                );
        }
        return remarks.ToImmutable();
    }

    private static RemarkKind? KindOf(
        string words,
        int start,
        int length,
        Patterns patterns,
        ImmutableArray<ReadLine> lines
    )
    {
        // "Can you quote 40 shackles?" asks for what is read already; what it knows of our things is no remark.
        var hasLine = lines.Any(l =>
            l.Item.Value.Value > 0 && l.Evidence.Any(e => e.Start < start + length && start < e.Start + e.Length)
        );
        if (words.EndsWith('?') && words.Length > ShortestQuestion && !hasLine && !patterns.Wants.IsMatch(words))
            return RemarkKind.Question;
        foreach (var (kind, says) in patterns.Kinds)
        {
            if ((!hasLine || kind != RemarkKind.Delivery) && says.IsMatch(words))
                return kind;
        }
        return null;
    }

    // What remarks of a kind say, and what asks for prices or goods, in one language and English.
    private sealed record Patterns((RemarkKind Kind, Regex Says)[] Kinds, Regex Wants);

    // Making one takes longer than using it.
    private static readonly ConcurrentDictionary<string, Patterns> Made = new();

    private static Patterns Make(Language language)
    {
        Regex Of(Func<Language, IEnumerable<string>> words) =>
            new(
                $@"(?<!\w)(?:{Language.AnyOf(words(language).Concat(words(Language.English)))})(?!\w)",
                RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
                TookTooLongException.OfPatterns
            );
        return new Patterns(
            [.. Kinds.Select(k => (k.Kind, Of(l => l.Remarks[k.Key])))],
            Of(l => l.Quote.Concat(l.Order))
        );
    }

    // To a stop that no digit follows ("3.1"), or the end of a line that does not go on in the next.
    [GeneratedRegex(
        @"[^\s.!?\n](?:[^.!?\n]|\.(?=\d)|(?<=[\p{Ll},])\n(?=\p{Ll}))*[.!?]?",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Sentence();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Blank();
}
