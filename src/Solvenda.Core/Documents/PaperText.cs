namespace Solvenda.Core.Documents;

/// <summary>What the house says on a kind of paper, in a language, to all buyers or to some.</summary>
/// <param name="Language">ISO 639-1.</param>
/// <param name="Buyer">Of one buyer alone; null: of more.</param>
/// <param name="Group">Of a group of buyers alone; empty: of all.</param>
/// <param name="Above">Over the lines; empty: nothing.</param>
/// <param name="Below">Under the totals; empty: nothing.</param>
public sealed record PaperText(
    string Name,
    PaperKind Paper,
    string Language,
    long? Buyer,
    string Group,
    string Above,
    string Below
)
{
    /// <summary>
    /// The text that a buyer gets: one of their own before one of their group, and that before one for all; of several
    /// the first by name. Null where the house says nothing there.
    /// </summary>
    public static PaperText? For(
        IEnumerable<PaperText> texts,
        PaperKind paper,
        string language,
        long buyer,
        string group
    ) =>
        texts
            .Where(t => t.Paper == paper && t.Language == language)
            .Where(t => t.Buyer is { } of ? of == buyer : t.Group.Length == 0 || t.Group == group)
            .OrderByDescending(t => t.Buyer is not null)
            .ThenByDescending(t => t.Group.Length > 0)
            .ThenBy(t => t.Name, StringComparer.Ordinal)
            .FirstOrDefault();
}
