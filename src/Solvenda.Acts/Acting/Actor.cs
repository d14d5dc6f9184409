using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Acts.Acting;

/// <summary>Who acts: a person, a machine, the buyer behind a link, or the house itself.</summary>
/// <param name="PersonId">Key of the person; null for everybody else.</param>
/// <param name="Scopes">Of a machine's key.</param>
public sealed record Actor(ActorKinds Kind, long? PersonId, string Name, Roles Roles, ImmutableArray<string> Scopes)
{
    /// <summary>The house itself, for workers and channels.</summary>
    public static readonly Actor House = new(ActorKinds.House, null, "Solvenda", Roles.None, []);

    /// <summary>Nobody who is known.</summary>
    public static readonly Actor Stranger = new(ActorKinds.Stranger, null, "somebody", Roles.None, []);

    public static Actor Person(long id, string name, Roles roles) => new(ActorKinds.Person, id, name, roles, []);

    public static Actor Machine(string name, IEnumerable<string> scopes) =>
        new(ActorKinds.Machine, null, name, Roles.None, [.. scopes]);

    /// <summary>Whoever holds a buyer's link, by the name that they give.</summary>
    public static Actor Buyer(string name) => new(ActorKinds.Buyer, null, name, Roles.None, []);

    /// <summary>Their hand on what is typed.</summary>
    public Hand Hand => new(PersonId is { } id ? new PersonId(id) : null, Name);

    /// <summary>Whether they see what goods cost and what is earned.</summary>
    public bool SeesCost => Kind == ActorKinds.Machine ? Scopes.Contains(Rights.CostScope) : Sight.SeesCost(Roles);

    /// <summary>Whether they see who may give how much.</summary>
    public bool SeesAuthority =>
        Kind == ActorKinds.Machine ? Scopes.Contains(Rights.AuthorityScope) : Sight.SeesCost(Roles);
}
