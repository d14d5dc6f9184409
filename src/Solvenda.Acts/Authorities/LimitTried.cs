using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Acts.Authorities;

/// <summary>What another limit would have made of the asks of the last ninety days.</summary>
/// <param name="Asks">How many there were.</param>
/// <param name="Spared">How many of them would not have been needed.</param>
/// <param name="Granted">How many of those were granted.</param>
/// <param name="GivenAway">What was given away in them, home currency.</param>
/// <param name="AnswerMinutes">How long they waited, the middle one; null where none was answered.</param>
public sealed record LimitTried(int Asks, int Spared, int Granted, decimal GivenAway, int? AnswerMinutes)
{
    private const int Days = 90;

    /// <summary>Tries a limit for a person; changes nothing.</summary>
    public static async Task<LimitTried> TryAsync(
        SolvendaDb db,
        PersonId person,
        AuthorityKind kind,
        decimal? limit,
        DateTime now,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(kind);
        var deciders = await Deciders.OnAsync(db, DateOnly.FromDateTime(now), cancel);
        if (!deciders.People.TryGetValue(person, out var who))
            return new LimitTried(0, 0, 0, 0m, null);
        var authority = kind.With(who.Authority, limit);
        var since = now.AddDays(-Days);
        var asks = await db
            .Asks.AsNoTracking()
            .Where(a => a.HandId == person.Value && a.AskedAt >= since)
            .ToListAsync(cancel);
        var spared = asks.FindAll(a => Route.Covers(authority, AskFacts.FiredOf(a)));
        var waited = spared
            .Where(a => a.DecidedAt is not null)
            .Select(a => (int)(a.DecidedAt!.Value - a.AskedAt).TotalMinutes)
            .Order()
            .ToList();
        return new LimitTried(
            asks.Count,
            spared.Count,
            spared.Count(a => a.Outcome == AskOutcome.Granted),
            spared.Sum(a => AskFacts.ShownOf(a).GivenAway),
            waited.Count > 0 ? waited[waited.Count / 2] : null
        );
    }
}
