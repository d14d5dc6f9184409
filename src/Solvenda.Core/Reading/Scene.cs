using System.Text.RegularExpressions;
using Solvenda.Core.Buyers;

namespace Solvenda.Core.Reading;

/// <summary>What is known while one text is read.</summary>
/// <param name="Text">What of it is new.</param>
/// <param name="Bought">What the buyer took before; empty where nobody knows who it is.</param>
/// <param name="Form">How this text writes its numbers.</param>
/// <param name="Dates">Every date of the text, in the order in which they stand.</param>
/// <param name="Pos">Every number of an order that the text names.</param>
internal sealed record Scene(
    Letter Letter,
    string Text,
    Language Language,
    Field<BuyerId> Buyer,
    IReadOnlyList<Bought> Bought,
    ReadingContext Context,
    Grammar Grammar,
    NumberForm Form,
    IReadOnlyList<WrittenDate> Dates,
    IReadOnlyList<Match> Pos
)
{
    public static Scene Of(Letter letter, string text, Language language, Field<BuyerId> buyer, ReadingContext context)
    {
        var grammar = Grammar.Of(language);
        return new(
            letter,
            text,
            language,
            buyer,
            buyer.Sure > 0 ? context.History(buyer.Value) : [],
            context,
            grammar,
            NumberForm.OfText(text),
            DateWords.All(text, letter.Written, language),
            grammar.Po.Matches(text)
        );
    }
}

/// <summary>A piece of the text that says one thing, or counts several.</summary>
/// <param name="Offset">Where it begins in the whole text.</param>
internal sealed record Clause(string Text, int Offset)
{
    /// <summary>The clause before, which "of them" points to.</summary>
    public string SpokenOf { get; init; } = "";
}
