namespace Solvenda.Core.Reading;

/// <summary>
/// Stretches of a text, to be asked whether one of them meets another; in any order, and they may overlap.
/// </summary>
internal sealed class Stretches
{
    private readonly int[] _starts;

    // The farthest end of all that begin no later.
    private readonly int[] _ends;

    public Stretches(IEnumerable<(int Start, int Length)> all)
    {
        var sorted = all.Where(s => s.Length > 0).OrderBy(s => s.Start).ToArray();
        _starts = [.. sorted.Select(s => s.Start)];
        _ends = new int[sorted.Length];
        for (var i = 0; i < sorted.Length; i++)
            _ends[i] = Math.Max(i > 0 ? _ends[i - 1] : 0, sorted[i].Start + sorted[i].Length);
    }

    /// <summary>Whether one of them has a character of this one.</summary>
    public bool Meet(int start, int length)
    {
        var last = Array.BinarySearch(_starts, start + length - 1);
        // Of several that begin at the same place any will do only if it is the last.
        if (last < 0)
            last = ~last - 1;
        while (last + 1 < _starts.Length && _starts[last + 1] < start + length)
            last++;
        return last >= 0 && _ends[last] > start;
    }
}
