using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>A change of what stands on a sheet: typed, taken back, or put in again.</summary>
public interface ISheetChange : IEvent
{
    /// <summary>Key of the sheet.</summary>
    long Sheet { get; }

    /// <summary>Field by field, in their order.</summary>
    ImmutableArray<FieldChange> Changes { get; }
}

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
) : ISheetChange;

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
) : ISheetChange;

/// <summary>Somebody put in again what they had taken back.</summary>
/// <param name="Of">Key of the event by which it was taken back.</param>
[EventCode("sheet.redone")]
public sealed record SheetRedone(
    long Sheet,
    long Of,
    ImmutableArray<FieldChange> Changes,
    ImmutableArray<long> Overtaken,
    QuoteState? Before,
    QuoteState? After
) : ISheetChange;
