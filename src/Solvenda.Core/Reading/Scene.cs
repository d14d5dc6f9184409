using Solvenda.Core.Buyers;

namespace Solvenda.Core.Reading;

/// <summary>What is known while the lines of one text are read.</summary>
/// <param name="Bought">What the buyer took before; empty where nobody knows who it is.</param>
/// <param name="Form">How this text writes its numbers.</param>
internal sealed record Scene(
    Letter Letter,
    Language Language,
    Field<BuyerId> Buyer,
    IReadOnlyList<Bought> Bought,
    ReadingContext Context,
    Grammar Grammar,
    NumberForm Form
)
{
    public static Scene Of(
        Letter letter,
        string fresh,
        Language language,
        Field<BuyerId> buyer,
        ReadingContext context
    ) =>
        new(
            letter,
            language,
            buyer,
            buyer.Sure > 0 ? context.History(buyer.Value) : [],
            context,
            Grammar.Of(language),
            NumberForm.OfText(fresh)
        );
}

/// <summary>A piece of the text that says one thing, or counts several.</summary>
/// <param name="Offset">Where it begins in the whole text.</param>
internal sealed record Clause(string Text, int Offset)
{
    /// <summary>The clause before, which "of them" points to.</summary>
    public string SpokenOf { get; init; } = "";
}
