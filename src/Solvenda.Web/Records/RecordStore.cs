using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Records;

/// <summary>A row of a list: its cells are in the order of the columns asked for.</summary>
public sealed record RecordListRow(long Id, bool Active, IReadOnlyList<string> Cells);

/// <summary>A part of a list, and how long the whole is.</summary>
public sealed record RecordPage(int Total, IReadOnlyList<RecordListRow> Rows);

/// <summary>A record: every field by its name.</summary>
public sealed record RecordView(
    long Id,
    long Version,
    bool Active,
    string Calls,
    IReadOnlyDictionary<string, string> Values,
    IReadOnlyList<RecordChange> History
);

/// <summary>One of the things that are wrong with a record, at its field.</summary>
public sealed record RecordFault(string Field, string Words);

/// <summary>One change of a record.</summary>
public sealed record RecordChange(DateTime At, string Who, string Words, string? Before, string? After, string? Why);

/// <summary>What a list is asked for.</summary>
/// <param name="Filter">Words, and conditions such as <c>family:rope price&gt;5 to&lt;2026-12-31 active:no</c>.</param>
public sealed record RecordQuestion(
    string Filter,
    string? Sort,
    bool Down,
    int Skip,
    int Take,
    IReadOnlyList<string> Columns
);

/// <summary>Reads and changes the records of one kind, whatever it is.</summary>
public interface IRecordStore
{
    Task<RecordPage> ListAsync(SolvendaDb db, RecordQuestion question, CancellationToken cancel);

    Task<RecordView> GetAsync(SolvendaDb db, long id, CancellationToken cancel);

    Task<long> CreateAsync(Work work, IReadOnlyDictionary<string, string> values, CancellationToken cancel);

    Task ChangeAsync(
        Work work,
        long id,
        long version,
        IReadOnlyDictionary<string, string> values,
        CancellationToken cancel
    );

    /// <summary>The same change to many, whatever their versions.</summary>
    Task ChangeAllAsync(
        Work work,
        IReadOnlyList<long> ids,
        IReadOnlyDictionary<string, string> values,
        CancellationToken cancel
    );

    Task SwitchAsync(Work work, long id, long version, bool on, string? why, CancellationToken cancel);

    /// <summary>What stands at the foot of each column, over all that fits the filter: a sum where one means something, else the range of numbers and dates, or how many different ones there are.</summary>
    Task<IReadOnlyList<string>> FootAsync(
        SolvendaDb db,
        string filter,
        IReadOnlyList<string> columns,
        CancellationToken cancel
    );

    /// <summary>The ids of all that fits the filter; at most one more than asked for.</summary>
    Task<List<long>> FittingAsync(SolvendaDb db, string filter, int most, CancellationToken cancel);

    /// <summary>Every record, line by line, in the order of the fields.</summary>
    IAsyncEnumerable<IReadOnlyList<string>> ExportAsync(SolvendaDb db, string filter, CancellationToken cancel);
}

/// <inheritdoc />
public sealed class RecordStore<TRow>(RecordKind<TRow> kind) : IRecordStore
    where TRow : class, IRecordRow
{
    private const int MostRows = 500;

    public async Task<RecordPage> ListAsync(SolvendaDb db, RecordQuestion question, CancellationToken cancel)
    {
        var rows = RecordFilter.Apply(kind, db, kind.Rows(db).AsNoTracking(), question.Filter);
        var total = await rows.CountAsync(cancel);
        var sort = kind.Find(question.Sort ?? "")?.Property;
        var ordered =
            sort is null ? rows.OrderBy(r => r.Id)
            : question.Down ? rows.OrderByDescending(r => EF.Property<object>(r, sort))
            : rows.OrderBy(r => EF.Property<object>(r, sort));
        var page = await ordered
            .ThenBy(r => r.Id)
            .Skip(Math.Max(0, question.Skip))
            .Take(Math.Clamp(question.Take, 1, MostRows))
            .ToListAsync(cancel);
        var columns =
            question.Columns.Count == 0
                ? kind.Fields.Where(f => f.InList).ToList()
                :
                [
                    .. question.Columns.Select(c =>
                        kind.Find(c) ?? throw RefusalException.Bad("field_unknown", $"There is no field “{c}”.", c)
                    ),
                ];
        var references = await ShownAsync(db, page, columns, cancel);
        return new RecordPage(
            total,
            [
                .. page.Select(r => new RecordListRow(
                    r.Id,
                    r.Active,
                    [.. columns.Select(c => (c.Show ?? c.Get)(r, references))]
                )),
            ]
        );
    }

    public async Task<RecordView> GetAsync(SolvendaDb db, long id, CancellationToken cancel)
    {
        var row =
            await kind.Rows(db).AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel)
            ?? throw RefusalException.NotFound($"such {kind.One}");
        var references = await ShownAsync(db, [row], kind.Fields, cancel);
        var subject = Subject(id);
        var history = await db
            .History.AsNoTracking()
            .Where(h => h.Subject == subject)
            .OrderByDescending(h => h.Id)
            .Take(100)
            .Select(h => new RecordChange(h.At, h.Who, h.Words, h.Before, h.After, h.Why))
            .ToListAsync(cancel);
        return new RecordView(
            row.Id,
            row.Version,
            row.Active,
            Calls(row, references),
            kind.Fields.ToDictionary(f => f.Name, f => f.Get(row, references)),
            history
        );
    }

    public async Task<long> CreateAsync(Work work, IReadOnlyDictionary<string, string> values, CancellationToken cancel)
    {
        var references = await References.LoadAsync(work.Db, kind.Referred, cancel);
        var row = kind.Make();
        foreach (var field in kind.Fields)
        {
            if (!values.TryGetValue(field.Name, out var text) || text.Trim().Length == 0 && !field.Required)
            {
                if (field.Required && field.IsUnset(row, references))
                    throw RefusalException.Bad(
                        "record_field",
                        $"{Capital(field.Label)} is needed; nothing was made.",
                        field.Name
                    );
                continue;
            }
            MayChange(work, field);
            if (field.Set(row, text, references) is { } wrong)
                throw RefusalException.Bad("record_field", $"{Capital(wrong)}; nothing was made.", field.Name);
        }
        Whole(row, references);
        work.Db.Set<TRow>().Add(row);
        await SaveAsync(work, row, references, cancel);
        work.History(Subject(row.Id), null, "record.created", $"{kind.One} made", null, Calls(row, references));
        return row.Id;
    }

    public async Task ChangeAsync(
        Work work,
        long id,
        long version,
        IReadOnlyDictionary<string, string> values,
        CancellationToken cancel
    )
    {
        var row = await FindAsync(work, id, version, cancel);
        var references = await References.LoadAsync(work.Db, kind.Referred, cancel);
        Change(work, row, references, values);
        await SaveAsync(work, row, references, cancel);
    }

    public async Task ChangeAllAsync(
        Work work,
        IReadOnlyList<long> ids,
        IReadOnlyDictionary<string, string> values,
        CancellationToken cancel
    )
    {
        var references = await References.LoadAsync(work.Db, kind.Referred, cancel);
        foreach (var some in ids.Chunk(500))
        {
            var rows = await kind.Rows(work.Db).Where(r => EF.Parameter(some).Contains(r.Id)).ToListAsync(cancel);
            if (rows.Count < some.Length)
                throw RefusalException.NotFound($"such {kind.One} any more; nothing was changed");
            foreach (var row in rows)
                Change(work, row, references, values);
            await SaveAsync(work, rows[0], references, cancel);
        }
    }

    private void Change(Work work, TRow row, References references, IReadOnlyDictionary<string, string> values)
    {
        foreach (var field in kind.Fields)
        {
            if (!values.TryGetValue(field.Name, out var text))
                continue;
            var before = field.Get(row, references);
            if (before == text.Trim())
                continue;
            MayChange(work, field);
            if (field.Set(row, text, references) is { } wrong)
                throw RefusalException.Bad("record_field", $"{Capital(wrong)}; the old value was kept.", field.Name);
            var after = field.Get(row, references);
            if (after != before)
                work.History(Subject(row.Id), null, "record.changed", field.Label, before, after);
        }
        Whole(row, references);
        row.Version++;
    }

    public async Task SwitchAsync(Work work, long id, long version, bool on, string? why, CancellationToken cancel)
    {
        var row = await FindAsync(work, id, version, cancel);
        if (row.Active == on)
            return;
        row.Active = on;
        row.Version++;
        work.History(
            Subject(id),
            null,
            on ? "record.on" : "record.off",
            on ? "switched on again" : "switched off",
            null,
            null,
            why
        );
    }

    public Task<List<long>> FittingAsync(SolvendaDb db, string filter, int most, CancellationToken cancel) =>
        RecordFilter
            .Apply(kind, db, kind.Rows(db).AsNoTracking(), filter)
            .OrderBy(r => r.Id)
            .Select(r => r.Id)
            .Take(most + 1)
            .ToListAsync(cancel);

    public async Task<IReadOnlyList<string>> FootAsync(
        SolvendaDb db,
        string filter,
        IReadOnlyList<string> columns,
        CancellationToken cancel
    )
    {
        var rows = RecordFilter.Apply(kind, db, db.Set<TRow>().AsNoTracking(), filter);
        var foot = new List<string>();
        foreach (var name in columns)
            foot.Add(
                kind.Find(name) is { Property: not null } field ? await RecordFoot.OfAsync(rows, field, cancel) : ""
            );
        return foot;
    }

    public async IAsyncEnumerable<IReadOnlyList<string>> ExportAsync(
        SolvendaDb db,
        string filter,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        var references = await References.LoadAsync(db, kind.Referred, cancel);
        await foreach (
            var row in RecordFilter
                .Apply(kind, db, kind.Rows(db).AsNoTracking(), filter)
                .OrderBy(r => r.Id)
                .AsAsyncEnumerable()
                .WithCancellation(cancel)
        )
            yield return [.. kind.Fields.Select(f => f.Get(row, references))];
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    // Only what these rows refer to is looked up: a list of prices does not read the whole catalogue.
    private static Task<References> ShownAsync(
        SolvendaDb db,
        IReadOnlyList<TRow> rows,
        IEnumerable<Field<TRow>> fields,
        CancellationToken cancel
    ) =>
        References.OfAsync(
            db,
            from f in fields
            where f is { Of: not null, Property: not null }
            let property = typeof(TRow).GetProperty(f.Property!)!
            where property.PropertyType != typeof(string)
            from row in rows
            let id = property.GetValue(row) as long?
            where id is not null
            select (f.Of!, id.Value),
            cancel
        );

    private string Subject(long id) => string.Create(CultureInfo.InvariantCulture, $"{kind.Name}:{id}");

    private string Calls(TRow row, References references) => kind.Find(kind.Calls)!.Get(row, references);

    private static void MayChange(Work work, Field field)
    {
        if (field.ByHouse)
            throw RefusalException.Forbidden($"“{field.Label}” is kept by the house; nothing was changed.");
        if (field.OnlyBy != Roles.None && (work.Actor.Roles & field.OnlyBy) == Roles.None)
            throw RefusalException.Forbidden($"The {field.Label} is not yours to set; nothing was changed.");
    }

    private void Whole(TRow row, References references)
    {
        var faults = kind.Check(row, references).ToList();
        if (faults.Count > 0)
            throw new RefusalException(
                422,
                "record_field",
                $"{Capital(string.Join("; ", faults.Select(f => f.Words)))}; nothing was changed.",
                faults[0].Field,
                faults.Select(f => new RecordFault(f.Field, Capital(f.Words)))
            );
    }

    private async Task<TRow> FindAsync(Work work, long id, long version, CancellationToken cancel)
    {
        var row =
            await kind.Rows(work.Db).FirstOrDefaultAsync(r => r.Id == id, cancel)
            ?? throw RefusalException.NotFound($"such {kind.One}");
        if (row.Version == version)
            return row;
        var subject = Subject(id);
        var last = await work
            .Db.History.Where(h => h.Subject == subject)
            .OrderByDescending(h => h.Id)
            .Take(3)
            .Select(h => new
            {
                h.Who,
                h.Words,
                h.Before,
                h.After,
            })
            .ToListAsync(cancel);
        throw RefusalException.Clash(
            "stale",
            $"{last.FirstOrDefault()?.Who ?? "Somebody"} changed this in the meantime; yours was not saved over it.",
            last
        );
    }

    // The database holds what is only once; its "no" is told as the field's.
    private async Task SaveAsync(Work work, TRow row, References references, CancellationToken cancel)
    {
        try
        {
            await work.Db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException e)
            when (e is not DbUpdateConcurrencyException && e.InnerException is SqliteException { SqliteErrorCode: 19 })
        {
            throw RefusalException.Bad(
                "record_double",
                $"There is a {kind.One} “{Calls(row, references)}” with the same {string.Join(", ", kind.Key.Select(k => kind.Find(k)!.Label))} already; nothing was changed.",
                kind.Key[0]
            );
        }
    }
}
