using System.Collections.Immutable;

namespace Solvenda.Core.Approvals.Policies;

/// <summary>
/// The policies that a house begins with: each figure beyond the hand's authority, up to the first who covers it. From
/// there on they are the administrator's.
/// </summary>
public static class HousePolicies
{
    /// <summary>Working hours after which an ask moves on, where nobody said otherwise.</summary>
    public const int Patience = 8;

    /// <summary>One for each figure that a house begins with.</summary>
    public static readonly ImmutableArray<Policy> All =
    [
        .. FigureList
            .All.Where(f => FigureList.Policies.Contains(f.Code))
            .Select(f => new Policy(f.Code, f.Code, RouteKind.FirstAble) { PatienceHours = Patience }),
    ];
}
