using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Solvenda.Core.Documents;

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

    private static readonly (RemarkKind Kind, Func<Language, string[]> Words)[] Kinds =
    [
        (RemarkKind.Certificate, l => l.Remarks["certificate"]),
        (RemarkKind.Printed, l => l.Remarks["printed"]),
        (RemarkKind.Delivery, l => l.Remarks["delivery"]),
    ];

    public static ImmutableArray<Remark> Of(
        Letter letter,
        string fresh,
        Language language,
        ImmutableArray<ReadLine> lines
    )
    {
        var remarks = ImmutableArray.CreateBuilder<Remark>();
        foreach (Match m in Sentence().Matches(fresh))
        {
            var words = m.Value.Trim();
            if (remarks.Count >= Most || words.Length is 0 or > Longest)
                continue;
            var where = new Evidence(letter.Part, m.Index, words.Length);
            // "Can you quote 40 shackles?" asks for what is read already; what it knows of our things is no remark.
            var hasLine = lines.Any(l => l.Item.Value.Value > 0 && l.Evidence.Any(where.Meets));
            if (KindOf(words, hasLine, language) is { } kind)
                remarks.Add(new Remark(kind, Blank().Replace(words, " "), where));
        }
        return remarks.ToImmutable();
    }

    private static RemarkKind? KindOf(string words, bool hasLine, Language language)
    {
        if (
            words.EndsWith('?')
            && words.Length > ShortestQuestion
            && !hasLine
            && !language.Says(words, l => [.. l.Quote, .. l.Order])
        )
            return RemarkKind.Question;
        foreach (var (kind, said) in Kinds)
        {
            if ((!hasLine || kind != RemarkKind.Delivery) && language.Says(words, said))
                return kind;
        }
        return null;
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
