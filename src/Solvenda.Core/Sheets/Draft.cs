using System.Collections.Immutable;
using Solvenda.Core.Documents;
using Solvenda.Core.People;

namespace Solvenda.Core.Sheets;

/// <summary>A sheet as it is being typed: head and lines, before any figure.</summary>
/// <param name="NextKey">The key that the next line gets; keys are never given twice.</param>
public sealed record Draft(Head Head, ImmutableArray<SheetLine> Lines, long NextKey);

/// <summary>What an edit does.</summary>
public enum EditKind
{
    /// <summary>Sets a field of a line, or of the head where no line is named.</summary>
    Set,

    /// <summary>Adds a line from words as typed ("thimble 12 x 20"), behind <c>After</c>, or at the end.</summary>
    Add,

    /// <summary>Adds a heading.</summary>
    AddHeading,

    /// <summary>Adds words between the lines.</summary>
    AddComment,

    /// <summary>Adds a charge from words as typed ("certificate @45").</summary>
    AddCharge,

    /// <summary>
    /// Makes a line an alternative to the one above it, of which the buyer takes one; or, where it is one, a line of
    /// its own again.
    /// </summary>
    Alternative,

    /// <summary>
    /// Puts lines under a heading of their own, where the first of them stands: <c>Field</c> holds their keys, with
    /// commas between.
    /// </summary>
    Gather,

    /// <summary>Takes a line out.</summary>
    Remove,

    /// <summary>Moves a line behind <c>After</c>; null: to the front.</summary>
    Move,
}

/// <summary>One edit of a sheet, as it was typed.</summary>
/// <param name="Line">Key of the line; null for the head.</param>
/// <param name="Field">A field of the line (<see cref="LineFields"/>) or a term of the head
/// (<see cref="Terms.HeadTerms"/>); for a new line the code that was picked.</param>
/// <param name="Value">As typed; empty clears.</param>
/// <param name="After">Key of the line that it goes behind.</param>
public sealed record SheetEdit(
    EditKind Kind,
    long? Line = null,
    string? Field = null,
    string? Value = null,
    long? After = null
);

/// <summary>What came of edits: the sheet after them and what changed; or why none of them was taken.</summary>
/// <param name="Clash">For undo: the change whose field stands otherwise by now.</param>
public sealed record Edited(
    Draft Draft,
    ImmutableArray<FieldChange> Changes,
    Refusal? Refused = null,
    FieldChange? Clash = null
)
{
    /// <summary>Of lines that were divided, since part of them went, the key of the rest by that of the line.</summary>
    public ImmutableDictionary<long, long> Rests { get; init; } = ImmutableDictionary<long, long>.Empty;
}
