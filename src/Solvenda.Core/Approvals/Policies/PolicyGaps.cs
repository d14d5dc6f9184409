using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals.Policies;

/// <summary>
/// What is wrong with the policies as a whole: figures that nobody decides on, people who left, rings.
/// </summary>
public static class PolicyGaps
{
    /// <summary>Everything worth naming, in words, the gravest first.</summary>
    public static ImmutableArray<string> Of(
        IReadOnlyCollection<Policy> policies,
        IReadOnlyDictionary<PersonId, Decider> people,
        DateOnly day
    )
    {
        ArgumentNullException.ThrowIfNull(policies);
        ArgumentNullException.ThrowIfNull(people);
        List<Policy> holding = [.. policies.Where(p => p.Asks)];
        var gaps = ImmutableArray.CreateBuilder<string>();
        foreach (var figure in FigureList.All.Where(f => FigureList.Policies.Contains(f.Code)))
        {
            if (!holding.Any(p => p.Figure == figure.Code && p.When.IsEmpty && p.Scope.IsAll))
                gaps.Add($"Nobody is always asked when {figure.Beyond}.");
        }
        foreach (var figure in holding.Select(p => FigureList.Of(p.Figure)).Distinct())
            gaps.AddRange(Authority(figure, people, day));
        foreach (var policy in holding)
            gaps.AddRange(Named(policy, people));
        gaps.AddRange(Rings(people));
        gaps.AddRange(Overlaps(holding));
        return gaps.ToImmutable();
    }

    // Who may decide without end on a figure; while all of them are away, nobody can where it goes far.
    private static IEnumerable<string> Authority(
        Figure figure,
        IReadOnlyDictionary<PersonId, Decider> people,
        DateOnly day
    )
    {
        List<Decider> holders = [.. people.Values.Where(p => p.Active && figure.LimitOf(p.Authority) is not null)];
        if (holders.Count == 0)
        {
            yield return $"Nobody may decide on “{figure.Label}”: whatever is asked about it waits for ever.";
            yield break;
        }
        var furthest = holders.Aggregate((a, b) => Reaches(figure, a, b) ? a : b);
        List<Decider> all = [.. holders.Where(h => figure.LimitOf(h.Authority) == figure.LimitOf(furthest.Authority))];
        if (all is [{ } only] && holders.Count > 1 && only.Away.Where(a => a.To >= day).ToList() is [var away, ..])
        {
            var standIn = away.StandIn is { } id ? people.GetValueOrDefault(id) : null;
            if (standIn is null || !Reaches(figure, standIn, only))
                yield return FormattableString.Invariant(
                    $"As far as {only.Name} nobody else decides on “{figure.Label}”, and they are away from {away.From:d MMM} to {away.To:d MMM}: name a stand-in who may."
                );
        }
    }

    private static bool Reaches(Figure figure, Decider one, Decider other) =>
        !figure.IsBeyond(figure.LimitOf(other.Authority) ?? 0m, one.Authority);

    private static IEnumerable<string> Named(Policy policy, IReadOnlyDictionary<PersonId, Decider> people)
    {
        if (policy.Route != RouteKind.Named)
            yield break;
        List<Decider> named = [.. policy.Named.Select(people.GetValueOrDefault).OfType<Decider>()];
        if (!named.Exists(n => n.Active))
            yield return $"“{policy.Code}” asks nobody who is still here.";
        foreach (var left in named.Where(n => !n.Active))
            yield return $"“{policy.Code}” asks {left.Name}, who left.";
    }

    private static IEnumerable<string> Rings(IReadOnlyDictionary<PersonId, Decider> people) =>
        people
            .Values.Where(p => p.Active && Approvals.Route.Climb(p, people).Any(a => a.ReportsTo == p.Id))
            .Select(p => $"{p.Name} reports to somebody who reports to them.")
            .Take(1);

    // The same figure, the same way, the same scope: what the narrower asks the wider asks already.
    private static IEnumerable<string> Overlaps(IReadOnlyCollection<Policy> holding) =>
        from a in holding
        from b in holding
        where
            a.Code != b.Code
            && a.Figure == b.Figure
            && a.Route == b.Route
            && a.Named.SequenceEqual(b.Named)
            && b.When.All(a.When.Contains)
            && (a.When.Length > b.When.Length || string.CompareOrdinal(a.Code, b.Code) > 0)
            && b.Scope.IsAll
        select $"“{a.Code}” asks nothing that “{b.Code}” does not ask already.";
}
