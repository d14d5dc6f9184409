using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Records;

/// <summary>A cell that cannot be taken, and why.</summary>
public sealed record RefusedCell(int Line, string Column, string Value, string Why);

/// <summary>What an import does, or would do.</summary>
public sealed record ImportOutcome(int Total, int New, int Changed, int Same, IReadOnlyList<RefusedCell> Refused);

/// <summary>Takes a table into the records of one kind.</summary>
public interface IImporter
{
    /// <summary>Which field each column means: by what somebody said before, by name, label or another name.</summary>
    IReadOnlyDictionary<string, string> Recognise(IReadOnlyList<string> head, IReadOnlyDictionary<string, string> said);

    /// <summary>Looks at every row and says what would happen; with a command to write with, it happens, in that one transaction.</summary>
    Task<ImportOutcome> RunAsync(SolvendaDb db, Table table, IReadOnlyDictionary<string, string> columns, Work? work, Action<int> progress, CancellationToken cancel);
}

/// <inheritdoc />
public sealed class Importer<TRow>(RecordKind<TRow> kind) : IImporter
    where TRow : class, IRecordRow
{
    // Rows are written in portions, so that a large import does not stand in memory as a whole twice.
    private const int Portion = 2_000;

    // A file that is wrong from end to end is told so without filling the memory.
    private const int MostRefused = 100_000;

    public IReadOnlyDictionary<string, string> Recognise(IReadOnlyList<string> head, IReadOnlyDictionary<string, string> said)
    {
        var columns = new Dictionary<string, string>();
        foreach (var column in head.Where(h => h.Length > 0))
        {
            var plain = column.ToLowerInvariant();
            var field = said.TryGetValue(plain, out var name) ? kind.Find(name)
                : kind.Fields.FirstOrDefault(f => Same(f.Name, plain) || Same(f.Label, plain)) ?? kind.Fields.FirstOrDefault(f => f.AlsoCalled.Any(a => Same(a, plain)));
            if (field is not null && !columns.ContainsValue(field.Name))
                columns[column] = field.Name;
        }
        return columns;
    }

    public async Task<ImportOutcome> RunAsync(SolvendaDb db, Table table, IReadOnlyDictionary<string, string> columns, Work? work, Action<int> progress, CancellationToken cancel)
    {
        var taken = table.Head.Select((h, i) => (Head: h, Index: i, Field: columns.TryGetValue(h, out var name) ? kind.Find(name) : null)).Where(c => c.Field is not null).Select(c => (c.Head, c.Index, Field: c.Field!)).ToList();
        if (kind.Key.Where(k => kind.Find(k)!.Required && taken.All(c => c.Field.Name != k)).Select(k => kind.Find(k)!.Label).ToList() is { Count: > 0 } missing)
            throw new TableException($"No column is the {string.Join(", the ", missing)}; without it nobody can tell which {kind.One} is meant.");
        // Looked through more than once: for the form of numbers and dates, and for the rows themselves.
        table = table with { Rows = Held(table.Rows) };
        var forms = Forms(table, taken, out var refused);
        var references = await References.LoadAsync(db, kind.Referred, cancel);
        var there = await ThereAsync(db, references, cancel);
        // In the order of the fields, since some lean on others: a limit on its currency.
        taken = [.. taken.OrderBy(c => kind.Fields.ToList().IndexOf(c.Field))];

        var (total, made, changed, same) = (0, 0, 0, 0);
        var seen = new HashSet<string>();
        var pending = new List<Pending>();
        foreach (var (line, cells) in table.Rows)
        {
            cancel.ThrowIfCancellationRequested();
            total++;
            if (total % 500 == 0)
                progress(total);
            var values = taken.Select(c => (c.Head, c.Field, Text: Plain(c.Field, forms[c.Index], c.Index < cells.Count ? cells[c.Index].Trim() : ""))).ToList();
            var probe = kind.Make();
            var wrong = 0;
            foreach (var (head, field, text) in values.Where(v => kind.Key.Contains(v.Field.Name)))
                wrong += Refuse(refused, line, head, text, field.Set(probe, text, references));
            var key = KeyOf(probe, references);
            if (wrong == 0 && !seen.Add(key))
                wrong += Refuse(refused, line, values[0].Head, values[0].Text, $"the same {kind.One} stands in the file before");
            var isNew = !there.TryGetValue(key, out var row);
            row = isNew ? probe : row!;
            var history = new List<HistoryRow>();
            var sets = new List<(Field<TRow> Field, string Text)>();
            foreach (var (head, field, text) in values)
            {
                var before = field.Get(row, references);
                // An empty cell says nothing about what is new and needed by itself.
                if (before == text || (isNew && text.Length == 0 && !field.Required))
                    continue;
                if (field.OnlyBy != Roles.None && work is not null && (work.Actor.Roles & field.OnlyBy) == Roles.None)
                    wrong += Refuse(refused, line, head, text, $"the {field.Label} is not yours to set");
                else if (field.Set(row, text, references) is { } why)
                    wrong += Refuse(refused, line, head, text, why);
                else if (!isNew && field.Get(row, references) is var after && after != before)
                {
                    sets.Add((field, text));
                    history.Add(new HistoryRow { Subject = string.Create(CultureInfo.InvariantCulture, $"{kind.Name}:{row.Id}"), What = "record.changed", Words = field.Label, Before = before, After = after, Who = "" });
                }
            }
            if (isNew)
                wrong += kind.Fields.Where(f => f.Required && f.IsUnset(row, references) && values.All(v => v.Field != f)).Sum(f => Refuse(refused, line, f.Label, "", $"{f.Label} is needed"));
            if (wrong == 0 && kind.Check(row, references) is var (at, words))
                wrong += Refuse(refused, line, values.FirstOrDefault(v => v.Field.Name == at).Head ?? at, "", words);
            if (wrong > 0)
                continue;
            if (isNew)
                made++;
            else if (history.Count > 0)
                changed++;
            else
                same++;
            if (work is not null && (isNew || history.Count > 0))
            {
                pending.Add(new Pending(row, isNew, sets, history));
                if (pending.Count == Portion)
                    await WriteAsync(db, work, pending, references, cancel);
            }
        }
        if (work is not null)
            await WriteAsync(db, work, pending, references, cancel);
        progress(total);
        return new ImportOutcome(total, made, changed, same, refused);
    }

    private sealed record Pending(TRow Row, bool IsNew, List<(Field<TRow> Field, string Text)> Sets, List<HistoryRow> History);

    private async Task WriteAsync(SolvendaDb db, Work work, List<Pending> pending, References references, CancellationToken cancel)
    {
        await BulkWriter.InsertAsync(db, [.. pending.Where(p => p.IsNew).Select(p => p.Row)], cancel);
        // What is changed is changed on the rows as they stand, with their children.
        var sets = pending.Where(p => !p.IsNew).ToDictionary(p => p.Row.Id);
        var ids = sets.Keys.ToList();
        foreach (var row in ids.Count == 0 ? [] : await kind.Rows(db).Where(r => EF.Parameter(ids).Contains(r.Id)).ToListAsync(cancel))
        {
            foreach (var (field, text) in sets[row.Id].Sets)
                field.Set(row, text, references);
            row.Version++;
        }
        foreach (var h in pending.SelectMany(p => p.History))
        {
            (h.At, h.Who, h.WhoId) = (work.Now, work.Actor.Name, work.Actor.PersonId);
            db.History.Add(h);
        }
        await db.SaveChangesAsync(cancel);
        db.ChangeTracker.Clear();
        pending.Clear();
    }

    private async Task<Dictionary<string, TRow>> ThereAsync(SolvendaDb db, References references, CancellationToken cancel)
    {
        var there = new Dictionary<string, TRow>();
        await foreach (var row in kind.Rows(db).AsNoTracking().AsAsyncEnumerable().WithCancellation(cancel))
            there[KeyOf(row, references)] = row;
        return there;
    }

    private string KeyOf(TRow row, References references) => string.Join('\u001f', kind.Key.Select(k => kind.Find(k)!.Get(row, references).ToUpperInvariant()));

    private static string Plain(Field<TRow> field, CellForm form, string cell) => field.Type switch
    {
        FieldType.Number or FieldType.Whole when cell.Length > 0 => form.Number(cell),
        FieldType.Date when cell.Length > 0 => form.Date(cell),
        _ => cell,
    };

    private static Dictionary<int, CellForm> Forms(Table table, List<(string Head, int Index, Field<TRow> Field)> taken, out List<RefusedCell> refused)
    {
        refused = [];
        var forms = new Dictionary<int, CellForm>();
        foreach (var (head, index, field) in taken)
        {
            IEnumerable<string> Cells() => table.Rows.Select(r => index < r.Cells.Count ? r.Cells[index].Trim() : "").Where(c => c.Length > 0);
            forms[index] = field.Type switch
            {
                FieldType.Number => CellForm.OfNumbers(Cells()),
                FieldType.Date => CellForm.OfDates(Cells()),
                _ => new CellForm(false, null, null),
            };
            if (forms[index].Doubt is { } doubt)
                refused.Add(new RefusedCell(1, head, "", $"{doubt}; write them another way"));
        }
        return forms;
    }

    // A column says the same few things over and over (EUR, MTR): each is held once.
    private static List<(int Line, IReadOnlyList<string> Cells)> Held(IEnumerable<(int Line, IReadOnlyList<string> Cells)> rows)
    {
        const int most = 10_000;
        var known = new Dictionary<string, string>();
        var held = new List<(int, IReadOnlyList<string>)>();
        foreach (var (line, cells) in rows)
        {
            var kept = new string[cells.Count];
            for (var i = 0; i < kept.Length; i++)
            {
                if (!known.TryGetValue(cells[i], out var once) && known.Count < most)
                    known[cells[i]] = once = cells[i];
                kept[i] = once ?? cells[i];
            }
            held.Add((line, kept));
        }
        return held;
    }

    private static int Refuse(List<RefusedCell> refused, int line, string column, string value, string? why)
    {
        if (why is not null && refused.Count < MostRefused)
            refused.Add(new RefusedCell(line, column, value, why));
        return why is null ? 0 : 1;
    }

    private static bool Same(string a, string b) => string.Equals(a.Replace(" ", "", StringComparison.Ordinal), b.Replace(" ", "", StringComparison.Ordinal).Replace("_", "", StringComparison.Ordinal), StringComparison.OrdinalIgnoreCase);
}
