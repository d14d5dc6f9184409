using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>A row of a list: its cells are in the order of the columns asked for.</summary>
public sealed record RecordListRow(long Id, bool Active, IReadOnlyList<string> Cells);

/// <summary>A part of a list, and how long the whole is.</summary>
public sealed record RecordPage(int Total, IReadOnlyList<RecordListRow> Rows);

/// <summary>A record: every field by its name.</summary>
public sealed record RecordState(
    long Id,
    long Version,
    bool Active,
    string Calls,
    IReadOnlyDictionary<string, string> Values
);

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

/// <summary>
/// Reads the records of one kind, whatever it is; each person sees the fields that are theirs to see.
/// </summary>
public interface IRecordReader
{
    Task<RecordPage> ListAsync(SolvendaDb db, Roles who, RecordQuestion question, CancellationToken cancel);

    Task<RecordState> GetAsync(SolvendaDb db, Roles who, long id, CancellationToken cancel);

    /// <summary>
    /// What stands at the foot of each column, over all that fits the filter: a sum where one means something, else the
    /// range of numbers and dates, or how many different ones there are.
    /// </summary>
    Task<IReadOnlyList<string>> FootAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        IReadOnlyList<string> columns,
        CancellationToken cancel
    );

    /// <summary>The ids of all that fits the filter; at most one more than asked for.</summary>
    Task<List<long>> FittingAsync(SolvendaDb db, string filter, int most, CancellationToken cancel);

    /// <summary>Every record, line by line, in the order of the fields.</summary>
    IAsyncEnumerable<IReadOnlyList<string>> ExportAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        CancellationToken cancel
    );
}

/// <inheritdoc />
public sealed class RecordReader<TRow>(RecordKind<TRow> kind) : IRecordReader
    where TRow : class, IRecordRow
{
    private const int MostRows = 500;

    // Whoever changes many by a filter was let through the right of the kind.
    private const Roles Everything = (Roles)int.MaxValue;

    public async Task<RecordPage> ListAsync(SolvendaDb db, Roles who, RecordQuestion question, CancellationToken cancel)
    {
        var rows = RecordFilter.Apply(kind, db, kind.Rows(db).AsNoTracking(), question.Filter, who);
        var total = await rows.CountAsync(cancel);
        var sort = kind.Find(question.Sort ?? "") is { } by && by.IsSeenBy(who) ? by.Property : null;
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
                ? kind.Fields.Where(f => f.InList && f.IsSeenBy(who)).ToList()
                :
                [
                    .. question.Columns.Select(c =>
                        kind.Find(c) is { } field && field.IsSeenBy(who)
                            ? field
                            : throw RefusedException.Bad("field_unknown", $"There is no field “{c}”.", c)
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

    public async Task<RecordState> GetAsync(SolvendaDb db, Roles who, long id, CancellationToken cancel)
    {
        var row =
            await kind.Rows(db).AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel)
            ?? throw RefusedException.NotFound($"such {kind.One}");
        var references = await ShownAsync(db, [row], kind.Fields, cancel);
        return new RecordState(
            row.Id,
            row.Version,
            row.Active,
            kind.CallsOf(row, references),
            kind.Fields.Where(f => f.IsSeenBy(who)).ToDictionary(f => f.Name, f => f.Get(row, references))
        );
    }

    public Task<List<long>> FittingAsync(SolvendaDb db, string filter, int most, CancellationToken cancel) =>
        RecordFilter
            .Apply(kind, db, kind.Rows(db).AsNoTracking(), filter, Everything)
            .OrderBy(r => r.Id)
            .Select(r => r.Id)
            .Take(most + 1)
            .ToListAsync(cancel);

    public async Task<IReadOnlyList<string>> FootAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        IReadOnlyList<string> columns,
        CancellationToken cancel
    )
    {
        var rows = RecordFilter.Apply(kind, db, db.Set<TRow>().AsNoTracking(), filter, who);
        var foot = new List<string>();
        foreach (var name in columns)
            foot.Add(
                kind.Find(name) is { Property: not null } field && field.IsSeenBy(who)
                    ? await RecordFoot.OfAsync(rows, field, cancel)
                    : ""
            );
        return foot;
    }

    public async IAsyncEnumerable<IReadOnlyList<string>> ExportAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        var references = await References.LoadAsync(db, kind.Referred, cancel);
        await foreach (
            var row in RecordFilter
                .Apply(kind, db, kind.Rows(db).AsNoTracking(), filter, who)
                .OrderBy(r => r.Id)
                .AsAsyncEnumerable()
                .WithCancellation(cancel)
        )
            yield return [.. kind.Fields.Where(f => f.IsSeenBy(who)).Select(f => f.Get(row, references))];
    }

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
}
