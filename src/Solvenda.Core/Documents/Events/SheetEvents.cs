using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>A sheet was changed.</summary>
/// <param name="Sheet">Key of the sheet: a quote has one for each revision.</param>
/// <param name="Overtaken">Asks that no longer are what was asked.</param>
/// <param name="Before">State of the quote where the change moved it.</param>
[EventCode("sheet.edited")]
public sealed record SheetEdited(
    long Sheet,
    ImmutableArray<FieldChange> Changes,
    ImmutableArray<long> Overtaken,
    QuoteState? Before,
    QuoteState? After
) : IEvent;

/// <summary>Somebody took back their own last change.</summary>
/// <param name="Of">Key of the event whose changes were taken back.</param>
[EventCode("sheet.undone")]
public sealed record SheetUndone(
    long Sheet,
    long Of,
    ImmutableArray<FieldChange> Changes,
    ImmutableArray<long> Overtaken,
    QuoteState? Before,
    QuoteState? After
) : IEvent;
