namespace Solvenda.Web.Sheets;

/// <summary>
/// The lines that screens were shown last, so that an answer to an edit need only carry what is otherwise since: of a
/// sheet of hundreds of lines that is one. Nothing hangs on it: who was shown something that is not kept any more, or
/// says nothing, gets the whole sheet.
/// </summary>
public sealed class ShownLines
{
    /// <summary>The header by which a screen says what it was shown last.</summary>
    public const string Header = "Solvenda-Shown";

    private const int Most = 40;

    private readonly Lock _lock = new();
    private readonly LinkedList<(string Tag, IReadOnlyList<LineView> Lines)> _newestFirst = [];

    /// <summary>The answer with only those lines that differ from what was shown.</summary>
    /// <param name="shown">What <see cref="SheetAnswer.Shown"/> said of it; null: nothing was.</param>
    public SheetAnswer Since(string? shown, SheetAnswer whole)
    {
        ArgumentNullException.ThrowIfNull(whole);
        var lines = whole.Sheet.Lines;
        var tag = Guid.NewGuid().ToString("N");
        IReadOnlyList<LineView>? before;
        lock (_lock)
        {
            var known = _newestFirst.FirstOrDefault(s => s.Tag == shown);
            before = known.Lines;
            // That screen shows this from now on.
            _newestFirst.Remove(known);
            _newestFirst.AddFirst((tag, lines));
            if (_newestFirst.Count > Most)
                _newestFirst.RemoveLast();
        }
        if (before is null)
            return whole with { Shown = tag };
        var old = before.ToDictionary(l => l.Key);
        return whole with
        {
            Shown = tag,
            Keys = [.. lines.Select(l => l.Key)],
            Sheet = whole.Sheet with { Lines = [.. lines.Where(l => !l.IsAs(old.GetValueOrDefault(l.Key)))] },
        };
    }
}
