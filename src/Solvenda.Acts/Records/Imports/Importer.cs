using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Records;

/// <summary>A cell that cannot be taken, and why.</summary>
public sealed record RefusedCell(int Line, string Column, string Value, string Why);

/// <summary>What an import does, or would do.</summary>
public sealed record ImportOutcome(int Total, int New, int Changed, int Same, IReadOnlyList<RefusedCell> Refused);

/// <summary>Takes a table into the records of one kind.</summary>
public interface IImporter
{
    /// <summary>Which field each column means: by what somebody said before, by name, label or another name.</summary>
    IReadOnlyDictionary<string, string> Recognise(IReadOnlyList<string> head, IReadOnlyDictionary<string, string> said);

    /// <summary>
    /// Looks at every row and says what would happen; with a command to write with, it happens, in that one
    /// transaction.
    /// </summary>
    Task<ImportOutcome> RunAsync(
        SolvendaDb db,
        HeldRows table,
        IReadOnlyDictionary<string, string> columns,
        Work? work,
        Action<int> progress,
        CancellationToken cancel
    );
}

/// <inheritdoc />
public sealed class Importer<TRow>(RecordKind<TRow> kind) : IImporter
    where TRow : class, IRecordRow
{
    // Rows are written in portions, so that a large import does not stand in memory as a whole twice.
    private const int Portion = 2_000;

    // A file that is wrong from end to end is told so without filling the memory.
    private const int MostRefused = 100_000;

    public IReadOnlyDictionary<string, string> Recognise(
        IReadOnlyList<string> head,
        IReadOnlyDictionary<string, string> said
    )
    {
        var columns = new Dictionary<string, string>();
        foreach (var column in head.Where(h => h.Length > 0))
        {
            var plain = column.ToLowerInvariant();
            var field = said.TryGetValue(plain, out var name)
                ? kind.Find(name)
                : kind.Fields.FirstOrDefault(f => Same(f.Name, plain) || Same(f.Label, plain))
                    ?? kind.Fields.FirstOrDefault(f => f.AlsoCalled.Any(a => Same(a, plain)));
            if (field is not null && !columns.ContainsValue(field.Name))
                columns[column] = field.Name;
        }
        return columns;
    }

    public async Task<ImportOutcome> RunAsync(
        SolvendaDb db,
        HeldRows table,
        IReadOnlyDictionary<string, string> columns,
        Work? work,
        Action<int> progress,
        CancellationToken cancel
    )
    {
        var taken = table
            .Head.Select(
                (h, i) => (Head: h, Index: i, Field: columns.TryGetValue(h, out var name) ? kind.Find(name) : null)
            )
            .Where(c => c.Field is not null)
            .Select(c => new Column(c.Head, c.Index, c.Field!))
            .ToList();
        if (
            kind
                .Key.Where(k => kind.Find(k)!.Required && taken.All(c => c.Field.Name != k))
                .Select(k => kind.Find(k)!.Label)
                .ToList() is
            { Count: > 0 } missing
        )
            throw new TableException(
                $"No column is the {string.Join(", the ", missing)}; without it nobody can tell which {kind.One} is meant."
            );
        var run = new Run(kind, work, await References.LoadAsync(db, kind.Referred, cancel));
        // In the order of the fields, since some lean on others: a limit on its currency.
        taken = [.. Formed(table, taken, run.Refused).OrderBy(c => kind.Fields.ToList().IndexOf(c.Field))];
        var there = await ThereAsync(db, run, cancel);
        var seen = new HashSet<UInt128>();
        foreach (var portion in table.Chunk(Portion))
        {
            var read = portion.Select(row => run.Read(row.Line, row.Cells, taken, seen)).ToList();
            var ids = read.Select(r => there.GetValueOrDefault(r.Key)).Where(id => id > 0).ToList();
            var rows = kind.Rows(db).Where(r => EF.Parameter(ids).Contains(r.Id));
            var known =
                ids.Count == 0
                    ? []
                    : await (work is null ? rows.AsNoTracking() : rows).ToDictionaryAsync(r => r.Id, cancel);
            foreach (var row in read)
                run.Take(row, known.GetValueOrDefault(there.GetValueOrDefault(row.Key)));
            if (work is not null && run.Refused.Count == 0)
            {
                await BulkWriter.InsertAsync(db, run.Made, cancel);
                await run.LeaveAsync(db, work, cancel);
                await db.SaveChangesAsync(cancel);
                await work.ChainAsync(cancel);
                await db.SaveChangesAsync(cancel);
            }
            db.ChangeTracker.Clear();
            run.Made.Clear();
            run.Written.Clear();
            progress(run.Total);
        }
        return new ImportOutcome(run.Total, run.New, run.Changed, run.Same, run.Refused);
    }

    private sealed record Column(string Head, int Index, Field<TRow> Field)
    {
        public CellForm Form { get; init; } = new(false, null, null);

        public string Text(IReadOnlyList<string> cells) =>
            Index >= cells.Count
                ? ""
                : Field.Type switch
                {
                    FieldType.Number or FieldType.Whole when cells[Index].Length > 0 => Form.Number(
                        cells[Index].Trim()
                    ),
                    FieldType.Date when cells[Index].Length > 0 => Form.Date(cells[Index].Trim()),
                    _ => cells[Index].Trim(),
                };
    }

    private sealed record ReadRow(
        int Line,
        UInt128 Key,
        TRow Probe,
        List<(Column Column, string Text)> Values,
        bool Wrong
    );

    /// <summary>What one going-through has found so far, and what of it waits to be written.</summary>
    private sealed class Run(RecordKind<TRow> kind, Work? work, References references)
    {
        public List<RefusedCell> Refused { get; } = [];

        public List<TRow> Made { get; } = [];

        public List<(TRow Row, ImmutableArray<RecordFieldChange> Changes)> Written { get; } = [];

        public int Total { get; private set; }

        public int New { get; private set; }

        public int Changed { get; private set; }

        public int Same { get; private set; }

        public ReadRow Read(int line, IReadOnlyList<string> cells, List<Column> taken, HashSet<UInt128> seen)
        {
            Total++;
            var values = taken.Select(c => (c, c.Text(cells))).ToList();
            var probe = kind.Make();
            var wrong = false;
            foreach (var (column, text) in values.Where(v => kind.Key.Contains(v.c.Field.Name)))
                wrong |= Refuse(line, column.Head, text, column.Field.Set(probe, text, references));
            var key = KeyOf(probe);
            if (!wrong && !seen.Add(key))
                wrong |= Refuse(
                    line,
                    values[0].c.Head,
                    values[0].Item2,
                    $"the same {kind.One} stands in the file before"
                );
            return new ReadRow(line, key, probe, values, wrong);
        }

        public void Take(ReadRow read, TRow? known)
        {
            var row = known ?? read.Probe;
            var wrong = read.Wrong;
            var changes = ImmutableArray.CreateBuilder<RecordFieldChange>();
            foreach (var (column, text) in read.Values)
            {
                var field = column.Field;
                var before = field.Get(row, references);
                // An empty cell says nothing about what is new and needed by itself; nor does another house's own
                // keeping.
                if (before == text || (known is null && (field.ByHouse || (text.Length == 0 && !field.Required))))
                    continue;
                if (field.ByHouse)
                    wrong |= Refuse(read.Line, column.Head, text, $"“{field.Label}” is kept by the house");
                else if (
                    field.OnlyBy != Roles.None
                    && work is not null
                    && (work.Actor.Roles & field.OnlyBy) == Roles.None
                )
                    wrong |= Refuse(read.Line, column.Head, text, $"the {field.Label} is not yours to set");
                else if (field.Set(row, text, references) is { } why)
                    wrong |= Refuse(read.Line, column.Head, text, why);
                else if (known is not null && field.Get(row, references) is var after && after != before)
                    changes.Add(
                        new RecordFieldChange(field.Name, field.Label, before, after, field.Money || kind.Money)
                    );
            }
            if (known is null)
            {
                foreach (
                    var needed in kind.Fields.Where(f =>
                        f.Required && f.IsUnset(row, references) && read.Values.All(v => v.Column.Field != f)
                    )
                )
                    wrong |= Refuse(read.Line, needed.Label, "", $"{needed.Label} is needed");
            }
            foreach (var (at, words) in wrong ? [] : kind.Check(row, references))
                wrong |= Refuse(
                    read.Line,
                    read.Values.FirstOrDefault(v => v.Column.Field.Name == at).Column?.Head ?? at,
                    "",
                    words
                );
            if (wrong)
                return;
            if (known is null)
            {
                New++;
                Made.Add(row);
            }
            else if (changes.Count > 0)
            {
                Changed++;
                known.Version++;
                Written.Add((known, changes.ToImmutable()));
            }
            else
                Same++;
        }

        // Sixteen bytes of a digest stand for a key, so that hundreds of thousands of them are small.
        public UInt128 KeyOf(TRow row) =>
            System.Buffers.Binary.BinaryPrimitives.ReadUInt128BigEndian(
                SHA256.HashData(
                    Encoding.UTF8.GetBytes(
                        string.Join(
                            '\u001f',
                            kind.Key.Select(k => kind.Find(k)!.Get(row, references).ToUpperInvariant())
                        )
                    )
                )
            );

        public async Task LeaveAsync(SolvendaDb db, Work to, CancellationToken cancel)
        {
            foreach (var (row, changes) in Written)
            {
                var owner = changes.Any(c => c.Money) ? await kind.Owner(db, row, cancel) : null;
                to.Leave(
                    new RecordChanged(kind.Name, kind.CallsOf(row, references), changes, owner),
                    Work.SubjectOf(kind.Name, row.Id)
                );
            }
        }

        private bool Refuse(int line, string column, string value, string? why)
        {
            if (why is not null && Refused.Count < MostRefused)
                Refused.Add(new RefusedCell(line, column, value, why));
            return why is not null;
        }
    }

    private async Task<Dictionary<UInt128, long>> ThereAsync(SolvendaDb db, Run run, CancellationToken cancel)
    {
        var there = new Dictionary<UInt128, long>();
        await foreach (var row in kind.Rows(db).AsNoTracking().AsAsyncEnumerable().WithCancellation(cancel))
            there[run.KeyOf(row)] = row.Id;
        return there;
    }

    // How numbers and dates are written is found from all cells of a column, in one going-through of the rows.
    private static IEnumerable<Column> Formed(HeldRows rows, List<Column> columns, List<RefusedCell> refused)
    {
        var finders = columns.ConvertAll(c =>
            c.Field.Type switch
            {
                FieldType.Number => CellForm.Numbers(),
                FieldType.Date => CellForm.Dates(),
                _ => (CellForm.Finder?)null,
            }
        );
        foreach (var (_, cells) in rows)
        {
            for (var i = 0; i < columns.Count; i++)
            {
                if (
                    finders[i] is { } finder
                    && columns[i].Index < cells.Count
                    && cells[columns[i].Index].Trim() is { Length: > 0 } cell
                )
                    finder.See(cell);
            }
        }
        var formed = columns.Zip(finders, (c, f) => f is null ? c : c with { Form = f.Form }).ToList();
        refused.AddRange(
            formed
                .Where(c => c.Form.Doubt is not null)
                .Select(c => new RefusedCell(1, c.Head, "", $"{c.Form.Doubt}; write them another way"))
        );
        return formed;
    }

    private static bool Same(string a, string b) =>
        string.Equals(
            a.Replace(" ", "", StringComparison.Ordinal),
            b.Replace(" ", "", StringComparison.Ordinal).Replace("_", "", StringComparison.Ordinal),
            StringComparison.OrdinalIgnoreCase
        );
}
