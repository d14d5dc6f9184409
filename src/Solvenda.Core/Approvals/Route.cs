using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals;

/// <summary>Finds who decides: first able, up the reporting line from the hand.</summary>
public static class Route
{
    /// <summary>
    /// Whether somebody may decide: not on what they typed, asked for, send or own; active; and with an authority that
    /// covers every figure.
    /// </summary>
    public static bool MayDecide(Decider person, IReadOnlySet<PersonId> involved, ImmutableArray<Fired> fired)
    {
        ArgumentNullException.ThrowIfNull(person);
        ArgumentNullException.ThrowIfNull(involved);
        return person.Active && !involved.Contains(person.Id) && Covers(person.Authority, fired);
    }

    /// <summary>Whether an authority covers every figure.</summary>
    public static bool Covers(Authority authority, ImmutableArray<Fired> fired) =>
        fired.All(f => !FigureList.Of(f.Figure).IsBeyond(f.Value, authority));

    /// <summary>The reporting line above somebody, nearest first; a ring in it ends it.</summary>
    public static IEnumerable<Decider> Climb(Decider from, IReadOnlyDictionary<PersonId, Decider> people)
    {
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(people);
        var seen = new HashSet<PersonId> { from.Id };
        for (
            var at = from.ReportsTo;
            at is { } id && seen.Add(id) && people.TryGetValue(id, out var person);
            at = person.ReportsTo
        )
            yield return person;
    }
}
