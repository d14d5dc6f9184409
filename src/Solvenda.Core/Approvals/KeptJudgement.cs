using System.Collections.Immutable;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals;

/// <summary>What is about to be kept on file, as policies look at it.</summary>
/// <param name="Figures">By their code.</param>
/// <param name="Buyer">Key of the buyer that it is for; 0 where it is for everybody.</param>
/// <param name="Families">Codes of the families that it is about.</param>
public sealed record Kept(
    ImmutableDictionary<string, decimal> Figures,
    long Buyer = 0,
    string? Group = null,
    ImmutableArray<string> Families = default
)
{
    /// <summary>Nothing that a policy looks at.</summary>
    public static readonly Kept Nothing = new(ImmutableDictionary<string, decimal>.Empty);
}

/// <summary>A policy that wants somebody asked before something is kept.</summary>
/// <param name="Route">Who is asked, in order.</param>
public sealed record KeptNeed(Policy Policy, decimal Value, string Words, ImmutableArray<RouteStep> Route);

/// <summary>Judges what is about to be kept on file.</summary>
public static class KeptJudgement
{
    /// <summary>The policies that fire; empty where the hand may keep it alone.</summary>
    /// <param name="who">Whose hand; null for a machine, which has nobody's authority.</param>
    public static ImmutableArray<KeptNeed> Of(
        Kept kept,
        Decider? who,
        IReadOnlyDictionary<PersonId, Decider> people,
        ImmutableArray<Policy> policies,
        DateOnly day
    )
    {
        ArgumentNullException.ThrowIfNull(kept);
        ArgumentNullException.ThrowIfNull(people);
        var authority = who?.Authority ?? Authority.None;
        var needs = ImmutableArray.CreateBuilder<KeptNeed>();
        foreach (var policy in policies.Where(p => p.On(day) && Holds(p.Scope, kept, who)))
        {
            if (
                !kept.Figures.TryGetValue(policy.Figure, out var value) || !policy.Fires(value, kept.Figures, authority)
            )
                continue;
            var figure = FigureList.Of(policy.Figure);
            needs.Add(
                new KeptNeed(
                    policy,
                    value,
                    figure.Say(value, authority),
                    who is null
                        ? [RouteStep.Nobody]
                        : PolicyRoute.Of(policy, value, who, new HashSet<PersonId> { who.Id }, people, day)
                )
            );
        }
        return needs.ToImmutable();
    }

    private static bool Holds(PolicyScope scope, Kept kept, Decider? who) =>
        scope.Holds(kept.Buyer, kept.Group, null, who?.Id)
        && (scope.Families.IsEmpty || (!kept.Families.IsDefault && kept.Families.Any(scope.Families.Contains)));
}
