using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals;

/// <summary>The reporting line, and whether an authority covers what fired.</summary>
public static class Route
{
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
