using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Core.Approvals.Policies;

/// <summary>Whose approval a policy asks for, and in which order.</summary>
public enum RouteKind
{
    /// <summary>Up the reporting line from the hand, to the first whose authority covers the figure.</summary>
    FirstAble,

    /// <summary>Everybody who decides on that way, the first who covers the figure as the last.</summary>
    EachLevel,

    /// <summary>Somebody named, or any one of a team; beyond their authority it climbs from them.</summary>
    Named,
}

/// <summary>A condition on a figure: it holds where the figure is over, or under, a value, and not at it.</summary>
/// <param name="Figure">Code of the figure.</param>
public sealed record PolicyCondition(string Figure, bool Over, decimal Value)
{
    /// <summary>Whether it holds; not where the sheet has no such figure.</summary>
    public bool Holds(IReadOnlyDictionary<string, decimal> figures)
    {
        ArgumentNullException.ThrowIfNull(figures);
        return figures.TryGetValue(Figure, out var value) && (Over ? value > Value : value < Value);
    }
}

/// <summary>
/// A rule that says when approval is needed, and whose. It fires where all of its conditions hold and the hand's own
/// authority does not cover its figure.
/// </summary>
/// <param name="Code">Stable, part of the API.</param>
/// <param name="Figure">Code of the figure that is decided on.</param>
public sealed record Policy(string Code, string Figure, RouteKind Route)
{
    /// <summary>All of them must hold; none: the figure alone counts.</summary>
    public ImmutableArray<PolicyCondition> When { get; init; } = [];

    /// <summary>Whom a named route begins with, any one of them; empty for the others.</summary>
    public ImmutableArray<PersonId> Named { get; init; } = [];

    /// <summary>Whether approval is needed for these figures of a hand with this authority.</summary>
    public bool Fires(IReadOnlyDictionary<string, decimal> figures, Authority authority)
    {
        ArgumentNullException.ThrowIfNull(figures);
        var figure = FigureList.Of(Figure);
        return figures.TryGetValue(Figure, out var value)
            // Nothing that is given away is nothing to decide on, also where no authority is.
            && (value > 0 || !figure.MoreIsWorse)
            && figure.IsBeyond(value, authority)
            && When.All(w => w.Holds(figures));
    }
}
