using System.Collections.Immutable;

namespace Solvenda.Core.Approvals;

/// <summary>A policy that fired, in words for the seller.</summary>
public sealed record Fired(string Policy, string Words);

/// <summary>What a sheet needs before it may leave: the policies that fired, and who decides. No approver: nobody on the line may.</summary>
public sealed record ApprovalNeed(ImmutableArray<Fired> Fired, Decider? Approver)
{
    public static readonly ApprovalNeed Nothing = new([], null);

    public bool Needed => !Fired.IsEmpty;
}

/// <summary>Finds who decides.</summary>
public static class Route
{
    /// <summary>What the seller may not decide alone, and the first on the reporting line who may decide all of it.</summary>
    public static ApprovalNeed Find(SheetFigures figures, Decider seller, IReadOnlyDictionary<PersonId, Decider> people)
    {
        ImmutableArray<Fired> fired =
        [
            .. Policies
                .All.Where(p => p.Fires(figures, seller.Authority))
                .Select(p => new Fired(p.Code, p.Say(figures, seller.Authority))),
        ];
        return fired.IsEmpty
            ? ApprovalNeed.Nothing
            : new ApprovalNeed(fired, Climb(seller, people).FirstOrDefault(p => MayDecide(p, seller.Id, figures)));
    }

    /// <summary>Nobody decides on their own sheet; everybody else whose authority covers every figure may.</summary>
    public static bool MayDecide(Decider person, PersonId seller, SheetFigures figures) =>
        person.Id != seller && !Policies.All.Any(p => p.Fires(figures, person.Authority));

    /// <summary>The reporting line above somebody, nearest first; a ring in it ends it.</summary>
    public static IEnumerable<Decider> Climb(Decider from, IReadOnlyDictionary<PersonId, Decider> people)
    {
        var seen = new HashSet<PersonId> { from.Id };
        for (
            var at = from.ReportsTo;
            at is { } id && seen.Add(id) && people.TryGetValue(id, out var person);
            at = person.ReportsTo
        )
            yield return person;
    }
}
