using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>The policies of the house, as Core judges with them.</summary>
public static class PolicyBook
{
    /// <summary>Those that hold, in the order in which they were made.</summary>
    public static async Task<ImmutableArray<Policy>> HoldingAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db
            .Policies.AsNoTracking()
            .Where(p => p.Holds && !p.Dropped)
            .OrderBy(p => p.Id)
            .ToListAsync(cancel);
        var teams = rows.Exists(r => r.Named.Length > 0) ? await TeamsAsync(db, cancel) : Teams.None;
        return [.. rows.Select(r => Of(r, teams))];
    }

    /// <summary>A row as a value.</summary>
    public static Policy Of(PolicyRow row, Teams teams)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(teams);
        return new Policy(row.Code, row.Figure, row.Route)
        {
            When = PolicyCondition.Read(row.Conditions),
            Named = [.. Split(row.Named).SelectMany(teams.Members).Distinct()],
            Scope = new PolicyScope(
                [.. Split(row.Buyers).Select(Key)],
                [.. Split(row.Groups)],
                [.. Split(row.Families)],
                [.. Split(row.Channels)],
                [.. Split(row.Hands).SelectMany(teams.Members).Distinct()]
            ),
            PatienceHours = row.PatienceHours,
            From = row.From,
            To = row.To,
        };
    }

    /// <summary>The teams with their members.</summary>
    public static async Task<Teams> TeamsAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var teams = await db.Teams.AsNoTracking().Where(t => t.Active).ToListAsync(cancel);
        var logins = await db.People.ToDictionaryAsync(p => p.Login, p => new PersonId(p.Id), cancel);
        return new Teams(
            teams.ToImmutableDictionary(
                t => t.Code,
                t => Split(t.Members).Where(logins.ContainsKey).Select(m => logins[m]).ToImmutableArray()
            )
        );
    }

    /// <summary>A list as a row keeps it.</summary>
    public static IEnumerable<string> Split(string list) =>
        (list ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private static long Key(string text) => long.Parse(text, CultureInfo.InvariantCulture);
}

/// <summary>Teams by their code.</summary>
public sealed record Teams(ImmutableDictionary<string, ImmutableArray<PersonId>> ByCode)
{
    public static readonly Teams None = new(ImmutableDictionary<string, ImmutableArray<PersonId>>.Empty);

    /// <summary>Whom a word of a policy means: the key of a person, or a team's members.</summary>
    public IEnumerable<PersonId> Members(string word) =>
        long.TryParse(word, NumberStyles.None, CultureInfo.InvariantCulture, out var id) ? [new PersonId(id)]
        : ByCode.TryGetValue(word, out var members) ? members
        : [];
}
