using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>A record: every field by its name.</summary>
public sealed record RecordState(
    long Id,
    long Version,
    bool Active,
    string Calls,
    IReadOnlyDictionary<string, string> Values
);

/// <summary>Reads one record, whatever kind it is of.</summary>
public interface IRecordReader
{
    Task<RecordState> GetAsync(SolvendaDb db, Roles who, long id, CancellationToken cancel);
}

/// <inheritdoc />
public sealed class RecordReader<TRow>(RecordKind<TRow> kind) : ListReader<TRow>(kind), IRecordReader
    where TRow : class, IRecordRow
{
    private readonly RecordKind<TRow> _kind = kind;

    public async Task<RecordState> GetAsync(SolvendaDb db, Roles who, long id, CancellationToken cancel)
    {
        var row =
            await _kind.Rows(db).AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel)
            ?? throw RefusedException.NotFound($"such {_kind.One}");
        var references = await ShownAsync(db, [row], _kind.Fields, cancel);
        return new RecordState(
            row.Id,
            row.Version,
            row.Active,
            _kind.CallsOf(row, references),
            _kind.Fields.Where(f => f.IsSeenBy(who)).ToDictionary(f => f.Name, f => f.Get(row, references))
        );
    }
}
