using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>
/// Who may decide what on a day: people with their authority and absences, what machines were given,
/// and what stands under whose letters.
/// </summary>
public sealed record Deciders(
    IReadOnlyDictionary<PersonId, Decider> People,
    ImmutableDictionary<string, Authority> Machines,
    IReadOnlyDictionary<PersonId, string> Signatures
)
{
    /// <summary>As it is on a day.</summary>
    public static async Task<Deciders> OnAsync(SolvendaDb db, DateOnly day, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var people = await db.People.AsNoTracking().ToListAsync(cancel);
        var limits = await db.Authorities.AsNoTracking().Where(a => a.Holds && a.From <= day).ToListAsync(cancel);
        var away = await db.Absences.AsNoTracking().Where(a => a.To >= day).ToListAsync(cancel);
        var keys = limits.Exists(l => l.KeyId is not null)
            ? await db.ApiKeys.AsNoTracking().Where(k => k.RevokedAt == null).ToListAsync(cancel)
            : [];
        return Of(people, limits, away, keys, day);
    }

    /// <summary>From rows that are at hand.</summary>
    public static Deciders Of(
        IEnumerable<Person> people,
        IReadOnlyCollection<AuthorityRow> limits,
        IEnumerable<AbsenceRow> away,
        IEnumerable<ApiKey> keys,
        DateOnly day
    )
    {
        ArgumentNullException.ThrowIfNull(people);
        List<Person> rows = [.. people];
        var ofPeople = limits.Where(l => l.PersonId is not null).ToLookup(l => l.PersonId!.Value);
        var ofKeys = limits.Where(l => l.KeyId is not null).ToLookup(l => l.KeyId!.Value);
        var absences = away.ToLookup(a => a.PersonId);
        return new Deciders(
            rows.Select(p => new Decider(
                    new PersonId(p.Id),
                    p.Name,
                    p.ReportsToId is { } r ? new PersonId(r) : null,
                    AuthorityOf(ofPeople[p.Id], day),
                    p.Roles,
                    p.Active
                )
                {
                    Away =
                    [
                        .. absences[p.Id]
                            .Select(a => new Absence(a.From, a.To, a.StandInId is { } s ? new PersonId(s) : null)),
                    ],
                })
                .ToDictionary(d => d.Id),
            keys.ToImmutableDictionary(k => k.Name, k => AuthorityOf(ofKeys[k.Id], day)),
            rows.Where(p => p.Signature.Length > 0).ToDictionary(p => new PersonId(p.Id), p => p.Signature)
        );
    }

    // Of each kind the latest that has begun; of one day the one given last.
    private static Authority AuthorityOf(IEnumerable<AuthorityRow> limits, DateOnly day) =>
        AuthorityKinds.Of(
            limits
                .Where(l => l.Holds && l.From <= day)
                .GroupBy(l => l.Kind)
                .Select(g => (g.Key, g.OrderBy(l => l.From).ThenBy(l => l.Id).Last().Limit))
        );
}
