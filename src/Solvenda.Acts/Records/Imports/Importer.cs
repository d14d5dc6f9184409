using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Records;

/// <inheritdoc />
public sealed class Importer<TRow>(RecordKind<TRow> kind) : IImporter
    where TRow : class, IRecordRow
{
    // Rows are written in portions, so that a large import does not stand in memory as a whole twice.
    private const int Portion = 500;

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

    public async Task<IImportRun> BeginAsync(
        SolvendaDb db,
        HeldRows table,
        IReadOnlyDictionary<string, string> columns,
        Roles? roles,
        Keeping? keeping,
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
        var run = new Run(kind, table, roles, keeping, await References.LoadAsync(db, kind.Referred, cancel));
        // In the order of the fields, since some lean on others: a limit on its currency.
        run.Columns = [.. Formed(table, taken, run.Refused).OrderBy(c => kind.Fields.ToList().IndexOf(c.Field))];
        await run.FindAsync(db, cancel);
        return run;
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
    private sealed class Run(
        RecordKind<TRow> kind,
        HeldRows table,
        Roles? roles,
        Keeping? keeping,
        References references
    ) : IImportRun
    {
        private readonly Dictionary<UInt128, long> _there = [];
        private readonly HashSet<UInt128> _seen = [];
        private readonly List<TRow> _made = [];
        private readonly List<(TRow Row, ImmutableArray<RecordFieldChange> Changes)> _written = [];

        public List<Column> Columns { get; set; } = [];

        public List<RefusedCell> Refused { get; } = [];

        public ImportOutcome Outcome => new(Total, New, Changed, Same, Refused);

        public IEnumerable<object> Portions() =>
            table.Chunk(Portion).Select(rows => rows.Select(r => Read(r.Line, r.Cells)).ToList());

        /// <summary>Which records are there already, by their keys.</summary>
        public async Task FindAsync(SolvendaDb db, CancellationToken cancel)
        {
            await foreach (var row in kind.Rows(db).AsNoTracking().AsAsyncEnumerable().WithCancellation(cancel))
                _there[KeyOf(row)] = row.Id;
        }

        public async Task LookAsync(SolvendaDb db, object portion, CancellationToken cancel)
        {
            var rows = (List<ReadRow>)portion;
            var known = await Known(db, rows).AsNoTracking().ToDictionaryAsync(r => r.Id, cancel);
            foreach (var row in rows)
                Take(row, KnownOf(row, known));
            Clear(db);
        }

        public async Task TakeAsync(Work work, object portion, CancellationToken cancel)
        {
            var db = work.Db;
            var rows = (List<ReadRow>)portion;
            var before = (Total, New, Changed, Same, Refused.Count);
            try
            {
                var known = await Known(db, rows).ToDictionaryAsync(r => r.Id, cancel);
                foreach (var row in rows)
                {
                    var there = KnownOf(row, known);
                    // What was set before a cell was refused is not kept either.
                    if (!Take(row, there) && there is not null)
                        db.Entry(there).State = EntityState.Detached;
                }
                if (kind.Settle is { } settle)
                    foreach (var made in _made)
                        await settle(db, made, cancel);
                await BulkWriter.InsertAsync(db, _made, cancel);
                await LeaveAsync(work, cancel);
                await db.SaveChangesAsync(cancel);
                foreach (var row in _made.Concat(_written.Select(w => w.Row)))
                    await kind.StandsAloneAsync(db, row, cancel);
                await work.ChainAsync(cancel);
                await db.SaveChangesAsync(cancel);
            }
            catch
            {
                // Somebody else made or changed such a record; found anew, the portion can be taken once more.
                (Total, New, Changed, Same, var refused) = before;
                Refused.RemoveRange(refused, Refused.Count - refused);
                Clear(db);
                await FindAsync(db, cancel);
                throw;
            }
            Clear(db);
        }

        private IQueryable<TRow> Known(SolvendaDb db, List<ReadRow> rows)
        {
            var ids = rows.Select(r => _there.GetValueOrDefault(r.Key)).Where(id => id > 0).ToList();
            return kind.Rows(db).Where(r => EF.Parameter(ids).Contains(r.Id));
        }

        private TRow? KnownOf(ReadRow row, Dictionary<long, TRow> known) =>
            known.GetValueOrDefault(_there.GetValueOrDefault(row.Key));

        private void Clear(SolvendaDb db)
        {
            db.ChangeTracker.Clear();
            _made.Clear();
            _written.Clear();
        }

        public int Total { get; private set; }

        public int New { get; private set; }

        public int Changed { get; private set; }

        public int Same { get; private set; }

        private ReadRow Read(int line, IReadOnlyList<string> cells)
        {
            var values = Columns.Select(c => (c, c.Text(cells))).ToList();
            var probe = kind.Make();
            var wrong = false;
            foreach (var (column, text) in values.Where(v => kind.Key.Contains(v.c.Field.Name)))
                wrong |= Refuse(line, column.Head, text, column.Field.Set(probe, text, references));
            var key = KeyOf(probe);
            if (!wrong && !_seen.Add(key))
                wrong |= Refuse(
                    line,
                    values[0].c.Head,
                    values[0].Item2,
                    $"the same {kind.One} stands in the file before"
                );
            return new ReadRow(line, key, probe, values, wrong);
        }

        /// <returns>Whether it fits.</returns>
        private bool Take(ReadRow read, TRow? known)
        {
            Total++;
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
                else if (field.OnlyBy != Roles.None && roles is { } have && (have & field.OnlyBy) == Roles.None)
                    wrong |= Refuse(read.Line, column.Head, text, $"the {field.Label} is not yours to set");
                else if (field.Set(row, text, references) is { } why)
                    wrong |= Refuse(read.Line, column.Head, text, why);
                else if (known is not null && field.Get(row, references) is var after && after != before)
                    changes.Add(
                        new RecordFieldChange(field.Name, field.Label, before, after, field.Money || kind.Money)
                    );
            }
            wrong |= IsNotWhole(read, row, known, changes, wrong);
            if (wrong)
                return false;
            if (known is null)
            {
                New++;
                _made.Add(row);
            }
            else if (changes.Count > 0)
            {
                Changed++;
                known.Version++;
                _written.Add((known, changes.ToImmutable()));
            }
            else
                Same++;
            return true;
        }

        // What a row as a whole lacks, is wrong with, or has to be asked about first.
        private bool IsNotWhole(
            ReadRow read,
            TRow row,
            TRow? known,
            IReadOnlyList<RecordFieldChange> changes,
            bool wrong
        )
        {
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
            // Who has to be asked first is asked from the record's own page.
            if (!wrong && (known is null || changes.Count > 0) && keeping?.Of(kind, row, changes) is [var need, ..])
                wrong |= Refuse(read.Line, read.Values[0].Column.Head, read.Values[0].Text, Keeping.Say(need));
            return wrong;
        }

        // Sixteen bytes of a digest stand for a key, so that hundreds of thousands of them are small.
        private UInt128 KeyOf(TRow row) =>
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

        private async Task LeaveAsync(Work work, CancellationToken cancel)
        {
            foreach (var (row, changes) in _written)
            {
                var owner = changes.Any(c => c.Money) ? await kind.Owner(work.Db, row, cancel) : null;
                work.Leave(
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
