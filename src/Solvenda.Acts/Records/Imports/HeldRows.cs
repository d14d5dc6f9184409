using System.Collections;
using System.Text;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Records;

/// <summary>
/// The rows of a table, read once and gone through as often as needed. They lie in a file of their own that goes away
/// with this,
/// so that a table of 200,000 rows does not stand in memory. One at a time may go through them.
/// </summary>
public sealed class HeldRows : IEnumerable<(int Line, IReadOnlyList<string> Cells)>, IDisposable
{
    private readonly FileStream _file = new(
        Path.GetTempFileName(),
        FileMode.Create,
        FileAccess.ReadWrite,
        FileShare.None,
        64 * 1024,
        FileOptions.DeleteOnClose
    );
    private int _count;

    private HeldRows(IReadOnlyList<string> head) => Head = head;

    public IReadOnlyList<string> Head { get; }

    /// <exception cref="TableException">A row cannot be read.</exception>
    public static HeldRows Of(Table table)
    {
        ArgumentNullException.ThrowIfNull(table);
        var held = new HeldRows(table.Head);
        try
        {
            using var to = new BinaryWriter(held._file, Encoding.UTF8, leaveOpen: true);
            foreach (var (line, cells) in table.Rows)
            {
                to.Write(line);
                to.Write(cells.Count);
                foreach (var cell in cells)
                    to.Write(cell);
                held._count++;
            }
            return held;
        }
        catch
        {
            held.Dispose();
            throw;
        }
    }

    public IEnumerator<(int Line, IReadOnlyList<string> Cells)> GetEnumerator()
    {
        _file.Position = 0;
        using var from = new BinaryReader(_file, Encoding.UTF8, leaveOpen: true);
        for (var i = 0; i < _count; i++)
        {
            var line = from.ReadInt32();
            var cells = new string[from.ReadInt32()];
            for (var c = 0; c < cells.Length; c++)
                cells[c] = from.ReadString();
            yield return (line, cells);
        }
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    public void Dispose() => _file.Dispose();
}
