namespace Solvenda.Core.Documents;

/// <summary>One field, before and after, as data: what undo, history and notices are made of.</summary>
/// <param name="Line">Key of the line; null for the head.</param>
/// <param name="Field">Name of the field; "line" for a whole line that came or went, "place" for where it
/// stands.</param>
/// <param name="Before">In its canonical text; null where there was nothing.</param>
/// <param name="After">In its canonical text; null where there is nothing.</param>
public sealed record FieldChange(long? Line, string Field, string? Before, string? After);
