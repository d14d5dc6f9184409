using System.Collections.Immutable;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>One of the things that are wrong with a record, at its field.</summary>
public sealed record RecordFault(string Field, string Words);

/// <summary>Changes the records of one kind, whatever it is, within an act.</summary>
public interface IRecordWriter
{
    Task<long> CreateAsync(
        Work work,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    );

    Task ChangeAsync(
        Work work,
        long id,
        long version,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    );

    /// <summary>The same change to many, whatever their versions.</summary>
    Task ChangeAllAsync(
        Work work,
        IReadOnlyList<long> ids,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    );

    /// <summary>
    /// What a change would be, and what policies say of it; nothing is kept. Refused where it fits nowhere, whoever
    /// may set the fields.
    /// </summary>
    /// <param name="id">Null for a record that is to be made.</param>
    Task<Proposed> ProposeAsync(
        Work work,
        long? id,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    );

    Task SwitchAsync(Work work, long id, long version, bool on, string? why, Keeping keeping, CancellationToken cancel);
}

/// <summary>A change of a record that is not kept yet.</summary>
public sealed record Proposed(string Calls, ImmutableArray<RecordFieldChange> Changes, ImmutableArray<KeptNeed> Needs);

/// <inheritdoc />
public sealed class RecordWriter<TRow>(RecordKind<TRow> kind) : IRecordWriter
    where TRow : class, IRecordRow
{
    public async Task<long> CreateAsync(
        Work work,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    )
    {
        var references = await References.LoadAsync(work.Db, kind.Referred, cancel);
        var row = kind.Make();
        foreach (var field in kind.Fields)
        {
            if (!values.TryGetValue(field.Name, out var text) || text.Trim().Length == 0 && !field.Required)
            {
                if (field.Required && field.IsUnset(row, references))
                    throw RefusedException.Bad(
                        "record_field",
                        $"{Capital(field.Label)} is needed; nothing was made.",
                        field.Name
                    );
                continue;
            }
            MayChange(work, field, keeping);
            if (field.Set(row, text, references) is { } wrong)
                throw RefusedException.Bad("record_field", $"{Capital(wrong)}; nothing was made.", field.Name);
        }
        if (kind.Settle is { } settle)
            await settle(work.Db, row, cancel);
        Whole(row, references);
        keeping.MustBeOurs(kind, row, []);
        work.Db.Set<TRow>().Add(row);
        await SaveAsync(work, row, references, cancel);
        await kind.StandsAloneAsync(work.Db, row, cancel);
        work.Leave(
            new RecordMade(
                kind.Name,
                kind.CallsOf(row, references),
                kind.Money,
                await kind.Owner(work.Db, row, cancel)
            ),
            Subject(row.Id)
        );
        return row.Id;
    }

    public async Task ChangeAsync(
        Work work,
        long id,
        long version,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    )
    {
        var row = await FindAsync(work, id, version, cancel);
        var references = await References.LoadAsync(work.Db, kind.Referred, cancel);
        await ChangeAsync(work, row, references, values, keeping, cancel);
        await SaveAsync(work, row, references, cancel);
        await kind.StandsAloneAsync(work.Db, row, cancel);
    }

    public async Task ChangeAllAsync(
        Work work,
        IReadOnlyList<long> ids,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    )
    {
        var references = await References.LoadAsync(work.Db, kind.Referred, cancel);
        foreach (var some in ids.Chunk(500))
        {
            var rows = await kind.Rows(work.Db).Where(r => EF.Parameter(some).Contains(r.Id)).ToListAsync(cancel);
            if (rows.Count < some.Length)
                throw RefusedException.NotFound($"such {kind.One} any more; nothing was changed");
            foreach (var row in rows)
                await ChangeAsync(work, row, references, values, keeping, cancel);
            await SaveAsync(work, rows[0], references, cancel);
            foreach (var row in rows)
                await kind.StandsAloneAsync(work.Db, row, cancel);
        }
    }

    private async Task ChangeAsync(
        Work work,
        TRow row,
        References references,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    )
    {
        var changes = ImmutableArray.CreateBuilder<RecordFieldChange>();
        var before = await kind.Owner(work.Db, row, cancel);
        foreach (var field in kind.Fields)
        {
            if (!values.TryGetValue(field.Name, out var text))
                continue;
            var old = field.Get(row, references);
            if (old == text.Trim())
                continue;
            MayChange(work, field, keeping);
            if (field.Set(row, text, references) is { } wrong)
                throw RefusedException.Bad("record_field", $"{Capital(wrong)}; the old value was kept.", field.Name);
            var after = field.Get(row, references);
            if (after != old)
                changes.Add(new RecordFieldChange(field.Name, field.Label, old, after, field.Money || kind.Money));
        }
        Whole(row, references);
        row.Version++;
        if (changes.Count == 0)
            return;
        keeping.MustBeOurs(kind, row, changes);
        var owner = await kind.Owner(work.Db, row, cancel);
        var calls = kind.CallsOf(row, references);
        work.Leave(
            new RecordChanged(kind.Name, calls, changes.ToImmutable(), owner, before == owner ? null : before),
            Subject(row.Id)
        );
    }

    public async Task SwitchAsync(
        Work work,
        long id,
        long version,
        bool on,
        string? why,
        Keeping keeping,
        CancellationToken cancel
    )
    {
        var row = await FindAsync(work, id, version, cancel);
        if (row.Active == on)
            return;
        row.Active = on;
        // What was switched off and holds again is kept anew.
        if (on)
            keeping.MustBeOurs(kind, row, []);
        row.Version++;
        var references = await References.LoadAsync(work.Db, [], cancel);
        await work.Db.SaveChangesAsync(cancel);
        await kind.StandsAloneAsync(work.Db, row, cancel);
        work.Leave(new RecordSwitched(kind.Name, kind.CallsOf(row, references), on), Subject(id), null, why);
    }

    public async Task<Proposed> ProposeAsync(
        Work work,
        long? id,
        IReadOnlyDictionary<string, string> values,
        Keeping keeping,
        CancellationToken cancel
    )
    {
        // Looked at apart from everything that is kept.
        var row = id is { } known
            ? await kind.Rows(work.Db).AsNoTracking().FirstOrDefaultAsync(r => r.Id == known, cancel)
                ?? throw RefusedException.NotFound($"such {kind.One}")
            : kind.Make();
        var references = await References.LoadAsync(work.Db, kind.Referred, cancel);
        var changes = ImmutableArray.CreateBuilder<RecordFieldChange>();
        foreach (var field in kind.Fields.Where(f => values.ContainsKey(f.Name)))
        {
            var old = field.Get(row, references);
            // Whoever grants it decides on what policies look at; what else is not theirs to set goes along with
            // nothing.
            if (!kind.Askable.Contains(field.Name))
                MayChange(work, field, keeping);
            if (field.Set(row, values[field.Name], references) is { } wrong)
                throw RefusedException.Bad("record_field", $"{Capital(wrong)}; nothing was asked.", field.Name);
            if (field.Get(row, references) is var after && after != old)
                changes.Add(new RecordFieldChange(field.Name, field.Label, old, after, field.Money || kind.Money));
        }
        Whole(row, references);
        var needs = keeping.Of(kind, row, id is null ? [] : changes);
        return new Proposed(kind.CallsOf(row, references), changes.ToImmutable(), needs);
    }

    private string Subject(long id) => Work.SubjectOf(kind.Name, id);

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];

    private static void MayChange(Work work, Field field, Keeping keeping)
    {
        if (keeping.IsGranted)
            return;
        if (field.ByHouse)
            throw RefusedException.Forbidden($"“{field.Label}” is kept by the house; nothing was changed.");
        if (field.OnlyBy != Roles.None && (work.Actor.Roles & field.OnlyBy) == Roles.None)
            throw RefusedException.Forbidden($"The {field.Label} is not yours to set; nothing was changed.");
    }

    private void Whole(TRow row, References references)
    {
        var faults = kind.Check(row, references).ToList();
        if (faults.Count > 0)
            throw new RefusedException(
                Refused.Bad,
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
            ?? throw RefusedException.NotFound($"such {kind.One}");
        if (row.Version == version)
            return row;
        var subject = Subject(id);
        var last = await work
            .Db.Events.Where(e => e.Subject == subject)
            .OrderByDescending(e => e.Id)
            .Select(e => new
            {
                e.Who,
                e.Code,
                e.Facts,
            })
            .FirstOrDefaultAsync(cancel);
        throw RefusedException.Clash(
            "stale",
            $"{last?.Who ?? "Somebody"} changed this in the meantime; yours was not saved over it.",
            last is null ? null : (EventCodes.FromJson(last.Code, last.Facts) as RecordChanged)?.Changes
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
            throw RefusedException.Bad(
                "record_double",
                $"There is a {kind.One} “{kind.CallsOf(row, references)}” with the same {string.Join(", ", kind.Key.Select(k => kind.Find(k)!.Label))} already; nothing was changed.",
                kind.Key[0]
            );
        }
    }
}
