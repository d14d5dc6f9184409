using System.Collections.Immutable;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents;
using Solvenda.Core.People;

namespace Solvenda.Core.Sheets.Terms;

/// <summary>How a term is typed and shown.</summary>
public enum TermKind
{
    /// <summary>A few words.</summary>
    Text,

    /// <summary>A paragraph.</summary>
    LongText,

    /// <summary>A day.</summary>
    Date,

    /// <summary>A whole number of days.</summary>
    Days,

    /// <summary>One of a few words.</summary>
    Choice,

    /// <summary>An amount in the sheet's currency.</summary>
    Amount,

    /// <summary>A percentage, or an amount with its currency.</summary>
    Discount,
}

/// <summary>From when on a term of an order can no longer be changed.</summary>
public enum StandsOnce
{
    /// <summary>Never: it holds for what is still to come.</summary>
    Never,

    /// <summary>Once goods of it went or are being picked: their tax hangs on it.</summary>
    Begun,

    /// <summary>Once it has an invoice: that has it whole.</summary>
    Billed,
}

/// <summary>Something to choose: what is stored, and what is shown.</summary>
public sealed record TermChoice(string Value, string Words);

/// <summary>A text as somebody typed it, taken: in its canonical form, or refused.</summary>
/// <param name="Also">Other terms that follow from it, by name: the country from an address.</param>
public sealed record Taken(
    string? Text,
    Refusal? Refused = null,
    ImmutableArray<(string Term, string? Text)> Also = default
);

/// <summary>
/// A term on the head of a document: its name, how it is typed, its bounds, what a buyer has of it by default, and how
/// it is said.
/// One entry in <see cref="HeadTerms"/>; doors, screens, papers and history follow from it.
/// </summary>
/// <param name="Name">Stable, part of the API.</param>
/// <param name="Label">What it is called on the screen.</param>
/// <param name="Read">Takes a text that is not empty; its refusals say nothing of what was kept, the door adds
/// that.</param>
public sealed record HeadTerm(string Name, string Label, TermKind Kind, Func<string, DoorFacts, Taken> Read)
{
    /// <summary>Documents that have it; null: both.</summary>
    public DocumentKind? Only { get; init; }

    /// <summary>What a buyer has by default; null: nothing ever.</summary>
    public Func<Buyer, string?>? FromBuyer { get; init; }

    /// <summary>What there is to choose from, where it is chosen.</summary>
    public Func<DoorFacts, IEnumerable<TermChoice>>? Choices { get; init; }

    /// <summary>Whether it may be taken away again.</summary>
    public bool Needed { get; init; }

    /// <summary>From when on it stands on an order that is changed.</summary>
    public StandsOnce Stands { get; init; }

    /// <summary>Whether it has a place of its own on the screen and not in the grid of the head.</summary>
    public bool Elsewhere { get; init; }

    /// <summary>Whether it folds away while nobody said it.</summary>
    public bool Seldom { get; init; }

    /// <summary>Key of the words that it has on paper; null: it is not printed among the facts.</summary>
    public string? Paper { get; init; }

    /// <summary>
    /// Key of the words that its value is put into on paper; one that ends in a point is put before the value itself.
    /// </summary>
    public string? PaperValue { get; init; }

    /// <summary>Its value on the screen and in the history.</summary>
    public Func<string, string> Say { get; init; } = text => text;
}
