namespace Solvenda.Core.Documents.Events;

/// <summary>A file was put to a document, taken away, or shown to the buyer or not any more.</summary>
/// <param name="Line">Key of the line; null for the whole.</param>
/// <param name="Before">inner, or for the buyer; null where it was not there.</param>
/// <param name="After">The same, since; null where it is gone.</param>
[EventCode("attachment.changed")]
public sealed record AttachmentChanged(string Name, long? Line, string? Before, string? After) : IEvent;

/// <summary>Lines were kept by a name, or are kept no more.</summary>
/// <param name="ForAll">Whether they are the house's.</param>
[EventCode("assortment.kept")]
public sealed record AssortmentKept(string Name, bool ForAll, int Lines, bool Gone) : IEvent;

/// <summary>Somebody chose which columns their sheets show.</summary>
[EventCode("columns.chosen")]
public sealed record ColumnsChosen(string Columns) : IEvent;
