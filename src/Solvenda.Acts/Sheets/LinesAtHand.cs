using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Sheets;

/// <summary>
/// The lines of the sheets that were typed on last. Who types on a sheet of hundreds of lines changes one of them, and
/// reading the others is most of the work. A version of a sheet stands for its lines
/// (<see cref="SolvendaDb.SaveChangesAsync(bool, CancellationToken)"/> sees to it), so what is kept is right for
/// as long as that version is the newest, whichever process wrote it.
/// </summary>
public sealed class LinesAtHand
{
    private const int MostSheets = 40;

    private readonly Lock _lock = new();
    private readonly LinkedList<Kept> _newestFirst = [];

    /// <summary>Rows of their own, to be changed; null where the lines of that version are not at hand.</summary>
    public List<SheetLineRow>? Of(SheetRow sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        lock (_lock)
            return Find(sheet.Id) is { } kept && kept.Version == sheet.Version
                ? kept.Lines.ConvertAll(l => l.Apart())
                : null;
    }

    /// <summary>Keeps lines that are stored, after their act is done.</summary>
    public void Keep(SheetRow sheet)
    {
        ArgumentNullException.ThrowIfNull(sheet);
        var kept = new Kept(sheet.Id, sheet.Version, [.. sheet.Lines.Select(l => l.AsStored())]);
        lock (_lock)
        {
            if (Find(sheet.Id) is { } before)
                _newestFirst.Remove(before);
            _newestFirst.AddFirst(kept);
            if (_newestFirst.Count > MostSheets)
                _newestFirst.RemoveLast();
        }
    }

    private Kept? Find(long sheet) => _newestFirst.FirstOrDefault(k => k.Sheet == sheet);

    private sealed record Kept(long Sheet, long Version, List<SheetLineRow> Lines);
}
