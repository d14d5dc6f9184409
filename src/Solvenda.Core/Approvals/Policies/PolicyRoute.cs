using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals.Policies;

/// <summary>
/// One step of a route: any one of these decides. Nobody: the route ends there, and that is a stop.
/// </summary>
public sealed record RouteStep(ImmutableArray<Decider> AnyOf)
{
    /// <summary>Nobody has the authority, or is there.</summary>
    public static readonly RouteStep Nobody = new([]);

    /// <summary>Their names, as they are said; null for nobody.</summary>
    public string? Names => AnyOf.IsEmpty ? null : string.Join(" or ", AnyOf.Select(d => d.Name));
}

/// <summary>
/// Finds who decides on a figure, in which order. At a level decides the person; while they are away their stand-in,
/// who must be there. Nobody decides who typed, asked, sends or owns the sheet, or who left: the level is passed over
/// and the climb goes on from there (docs/calculations.md, "Routes").
/// </summary>
public static class PolicyRoute
{
    /// <summary>
    /// The steps in order; the last is <see cref="RouteStep.Nobody"/> where nobody covers the figure.
    /// </summary>
    /// <param name="from">Whom it climbs from: the hand, or for a machine who follows the sheet up.</param>
    /// <param name="involved">Who may not decide, in whatever part.</param>
    public static ImmutableArray<RouteStep> Of(
        Policy policy,
        decimal value,
        Decider from,
        IReadOnlySet<PersonId> involved,
        IReadOnlyDictionary<PersonId, Decider> people,
        DateOnly day
    )
    {
        ArgumentNullException.ThrowIfNull(policy);
        ArgumentNullException.ThrowIfNull(from);
        ArgumentNullException.ThrowIfNull(involved);
        ArgumentNullException.ThrowIfNull(people);
        var figure = FigureList.Of(policy.Figure);
        bool Covers(Decider person) => !figure.IsBeyond(value, person.Authority);
        var steps = ImmutableArray.CreateBuilder<RouteStep>();
        foreach (var level in Levels(policy, from, people))
        {
            List<Decider> here =
            [
                .. level.Select(p => WhoDecides(p, involved, people, day)).OfType<Decider>().DistinctBy(d => d.Id),
            ];
            ImmutableArray<Decider> able = [.. here.Where(Covers)];
            var decide = policy.Route == RouteKind.EachLevel ? [.. here] : able;
            // Somebody who stands in for two of the way is asked once.
            if (!decide.IsEmpty && !steps.Any(s => s.AnyOf.Select(d => d.Id).SequenceEqual(decide.Select(d => d.Id))))
                steps.Add(new RouteStep(decide));
            if (!able.IsEmpty)
                return steps.ToImmutable();
        }
        return [.. steps, RouteStep.Nobody];
    }

    /// <summary>Who decides for somebody on a day: they, or their stand-in; null for nobody.</summary>
    public static Decider? WhoDecides(
        Decider person,
        IReadOnlySet<PersonId> involved,
        IReadOnlyDictionary<PersonId, Decider> people,
        DateOnly day
    )
    {
        ArgumentNullException.ThrowIfNull(person);
        ArgumentNullException.ThrowIfNull(involved);
        ArgumentNullException.ThrowIfNull(people);
        if (!person.Active || involved.Contains(person.Id))
            return null;
        if (person.AwayOn(day) is not { } away)
            return person;
        // No chain: a stand-in who is away too stands in for nobody.
        return
            away.StandIn is { } id
            && people.GetValueOrDefault(id) is { Active: true } other
            && !involved.Contains(id)
            && other.AwayOn(day) is null
            ? other
            : null;
    }

    // Level by level: those named together, then one person after the other up the line.
    private static IEnumerable<ImmutableArray<Decider>> Levels(
        Policy policy,
        Decider from,
        IReadOnlyDictionary<PersonId, Decider> people
    )
    {
        var begin = from;
        if (policy.Route == RouteKind.Named)
        {
            ImmutableArray<Decider> named = [.. policy.Named.Select(people.GetValueOrDefault).OfType<Decider>()];
            if (named.IsEmpty)
                yield break;
            yield return named;
            begin = named[0];
        }
        foreach (var superior in Approvals.Route.Climb(begin, people))
            yield return [superior];
    }
}
