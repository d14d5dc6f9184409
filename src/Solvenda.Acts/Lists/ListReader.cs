using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Lists;

/// <summary>A row of a list: its cells are in the order of the columns asked for.</summary>
/// <param name="Calls">What it is known by: the number of a document.</param>
public sealed record ListRow(long Id, bool Active, string Calls, IReadOnlyList<string> Cells);

/// <summary>A part of a list, and how long the whole is.</summary>
public sealed record ListPage(int Total, IReadOnlyList<ListRow> Rows);

/// <summary>What a list is asked for.</summary>
/// <param name="Filter">Words, and conditions such as <c>family:rope price&gt;5 to&lt;2026-12-31 active:no</c>.</param>
public sealed record ListQuestion(
    string Filter,
    string? Sort,
    bool Down,
    int Skip,
    int Take,
    IReadOnlyList<string> Columns
);

/// <summary>Reads a list, whatever it is of; each person sees the fields that are theirs to see.</summary>
public interface IListReader
{
    Task<ListPage> ListAsync(SolvendaDb db, Roles who, ListQuestion question, CancellationToken cancel);

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

    /// <summary>Keys of all that fits the filter, in the order in which they came; at most one more than asked
    /// for.</summary>
    Task<List<long>> FittingAsync(SolvendaDb db, Roles who, string filter, int most, CancellationToken cancel);

    /// <summary>What rows are known by, for those of the keys that are there.</summary>
    Task<List<string>> CalledAsync(SolvendaDb db, IReadOnlyList<long> ids, CancellationToken cancel);

    /// <summary>Every row that fits, in the order of the fields.</summary>
    IAsyncEnumerable<IReadOnlyList<string>> ExportAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        CancellationToken cancel
    );
}

/// <inheritdoc />
public class ListReader<TRow>(IListOf<TRow> kind) : IListReader
    where TRow : class, IListRow
{
    private const int MostRows = 500;

    public async Task<ListPage> ListAsync(SolvendaDb db, Roles who, ListQuestion question, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(question);
        var rows = ListFilter.Apply(kind, db, kind.Rows(db).AsNoTracking(), question.Filter, who);
        var total = await rows.CountAsync(cancel);
        var page = await Sorted(rows, question, who)
            .Skip(Math.Max(0, question.Skip))
            .Take(Math.Clamp(question.Take, 1, MostRows))
            .ToListAsync(cancel);
        var columns =
            question.Columns.Count == 0
                ? kind.Fields.Where(f => f.InList && f.IsSeenBy(who)).ToList()
                :
                [
                    .. question.Columns.Select(c =>
                        Find(c, who) ?? throw RefusedException.Bad("field_unknown", $"There is no field “{c}”.", c)
                    ),
                ];
        var references = await ShownAsync(db, page, columns, cancel);
        return new ListPage(
            total,
            [
                .. page.Select(r => new ListRow(
                    r.Id,
                    r.Active,
                    kind.Called(r),
                    [.. columns.Select(c => (c.Show ?? c.Get)(r, references))]
                )),
            ]
        );
    }

    public async Task<List<long>> FittingAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        int most,
        CancellationToken cancel
    ) =>
        await ListFilter
            .Apply(kind, db, kind.Rows(db).AsNoTracking(), filter, who)
            .OrderBy(Member.Of<TRow, long>(nameof(IListRow.Id)))
            .Select(Member.Of<TRow, long>(nameof(IListRow.Id)))
            .Take(most + 1)
            .ToListAsync(cancel);

    public async Task<List<string>> CalledAsync(SolvendaDb db, IReadOnlyList<long> ids, CancellationToken cancel)
    {
        var rows = await kind.Rows(db).AsNoTracking().Where(IsOneOf([.. ids])).ToListAsync(cancel);
        return [.. rows.OrderBy(r => r.Id).Select(kind.Called)];
    }

    public async Task<IReadOnlyList<string>> FootAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        IReadOnlyList<string> columns,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(columns);
        var rows = ListFilter.Apply(kind, db, kind.Rows(db).AsNoTracking(), filter, who);
        var foot = new List<string>();
        foreach (var name in columns)
            foot.Add(
                Find(name, who) is { Property: not null } field ? await ListFoot.OfAsync(rows, field, cancel) : ""
            );
        return foot;
    }

    // A filter that cannot be is refused before the first row, and so before an answer has begun.
    public IAsyncEnumerable<IReadOnlyList<string>> ExportAsync(
        SolvendaDb db,
        Roles who,
        string filter,
        CancellationToken cancel
    ) =>
        CellsAsync(
            db,
            ListFilter
                .Apply(kind, db, kind.Rows(db).AsNoTracking(), filter, who)
                .OrderBy(Member.Of<TRow, long>(nameof(IListRow.Id))),
            [.. kind.Fields.Where(f => f.IsSeenBy(who))],
            cancel
        );

    private static async IAsyncEnumerable<IReadOnlyList<string>> CellsAsync(
        SolvendaDb db,
        IQueryable<TRow> rows,
        ImmutableArray<Field<TRow>> fields,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var references = await References.LoadAsync(
            db,
            fields.Where(f => f.Of is not null).Select(f => f.Of!).Distinct(),
            cancel
        );
        await foreach (var row in rows.AsAsyncEnumerable().WithCancellation(cancel))
            yield return [.. fields.Select(f => f.Get(row, references))];
    }

    // Only what these rows refer to is looked up: a list of prices does not read the whole catalogue.
    protected static Task<References> ShownAsync(
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

    private Field<TRow>? Find(string? name, Roles who) =>
        kind.Fields.FirstOrDefault(f => f.Name == name && f.IsSeenBy(who));

    private IQueryable<TRow> Sorted(IQueryable<TRow> rows, ListQuestion question, Roles who)
    {
        var id = Member.Of<TRow, long>(nameof(IListRow.Id));
        if (Find(question.Sort, who) is not { Property: not null } field)
            return kind.NewestFirst ? rows.OrderByDescending(id) : rows.OrderBy(id);
        var by = Member.Of<TRow, object>(field);
        return question.Down ? rows.OrderByDescending(by).ThenBy(id) : rows.OrderBy(by).ThenBy(id);
    }

    private static System.Linq.Expressions.Expression<Func<TRow, bool>> IsOneOf(List<long> ids)
    {
        var id = Member.Of<TRow, long>(nameof(IListRow.Id));
        return System.Linq.Expressions.Expression.Lambda<Func<TRow, bool>>(
            System.Linq.Expressions.Expression.Call(
                typeof(Enumerable),
                nameof(Enumerable.Contains),
                [typeof(long)],
                System.Linq.Expressions.Expression.Constant(ids),
                id.Body
            ),
            id.Parameters
        );
    }
}
