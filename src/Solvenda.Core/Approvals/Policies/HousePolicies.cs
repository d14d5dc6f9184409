using System.Collections.Immutable;

namespace Solvenda.Core.Approvals.Policies;

/// <summary>The policies that hold: each figure beyond the hand's authority, up to the first who covers it.</summary>
public static class HousePolicies
{
    /// <summary>One for each figure that a policy holds on.</summary>
    public static readonly ImmutableArray<Policy> All =
    [
        .. FigureList
            .All.Where(f => FigureList.Policies.Contains(f.Code))
            .Select(f => new Policy(f.Code, f.Code, RouteKind.FirstAble)),
    ];
}
