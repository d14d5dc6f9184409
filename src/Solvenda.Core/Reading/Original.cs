using System.Collections.Immutable;

namespace Solvenda.Core.Reading;

/// <summary>What a part of a message is, and so how it is shown.</summary>
public enum PartKind
{
    /// <summary>Running text.</summary>
    Letter,

    /// <summary>Rows of cells: CSV, a sheet of a workbook.</summary>
    Table,

    /// <summary>Segments.</summary>
    Edi,

    /// <summary>XML, such as UBL.</summary>
    Xml,

    /// <summary>JSON of a sales channel.</summary>
    Json,

    /// <summary>Pages with text at known places.</summary>
    Pages,

    /// <summary>A picture that text was recognised on, or none.</summary>
    Picture,

    /// <summary>Kept, listed, not read.</summary>
    Kept,
}

/// <summary>
/// A word on a page: its characters in the part's text, and its box as fractions of the page, from the top left.
/// </summary>
public sealed record PlacedWord(int Start, int Length, int Page, double Left, double Top, double Width, double Height);

/// <summary>A cell of a table: what it says and the characters it stands in.</summary>
public sealed record Cell(string Text, int Start, int Length);

/// <summary>One part of what came in, as the text that evidence points into.</summary>
public sealed record OriginalPart(string Name, PartKind Kind, string Text)
{
    /// <summary>Characters of the text that are new; what follows is quoted history or a signature.</summary>
    public int Fresh { get; init; } = Text.Length;

    /// <summary>Rows of cells, for tables and for the tables found on pages.</summary>
    public ImmutableArray<ImmutableArray<Cell>> Rows { get; init; } = [];

    /// <summary>Where the words stand, for pages and pictures.</summary>
    public ImmutableArray<PlacedWord> Words { get; init; } = [];

    /// <summary>Number of pages; 0 where there are none.</summary>
    public int Pages { get; init; }

    /// <summary>
    /// How well the text itself is known: 1 for what was typed, less for what was recognised on a picture.
    /// </summary>
    public decimal Sure { get; init; } = 1m;

    /// <summary>
    /// What of it is not here though the original has it: rows or pages beyond what is read. Empty where all is.
    /// </summary>
    public string Warning { get; init; } = "";

    /// <summary>A mail's HTML, cleaned: no scripts, no remote pictures. Empty where it had none.</summary>
    public string Html { get; init; } = "";

    /// <summary>Which attachment it is, to fetch its bytes by; -1 for the message itself.</summary>
    public int Attachment { get; init; } = -1;
}

/// <summary>
/// One message as it came in: who sent it, its parts, and the document where the form states one. A file may hold
/// several.
/// </summary>
public sealed record Incoming(string From, string Subject, ImmutableArray<OriginalPart> Parts)
{
    /// <summary>The identity that the sender gave it; null where it has none.</summary>
    public string? OwnId { get; init; }

    /// <summary>The letter, where it is one.</summary>
    public Letter? Letter { get; init; }

    /// <summary>What a structured form states.</summary>
    public OrderDocument? Document { get; init; }

    /// <summary>Clues to the buyer that stand outside the parts: the sender's address.</summary>
    public ImmutableArray<Clue> Clues { get; init; } = [];

    /// <summary>Why it could not be read, in words; null where it could.</summary>
    public string? Problem { get; init; }

    /// <summary>What was odd about it, in words.</summary>
    public ImmutableArray<string> Warnings { get; init; } = [];
}
