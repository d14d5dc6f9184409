using System.Collections.Immutable;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.People;

namespace Solvenda.Acts.Approvals;

/// <summary>Who has an ask next.</summary>
/// <param name="Step">Of its route.</param>
public sealed record Holding(int Step, ImmutableArray<PersonId> People)
{
    /// <summary>As it is said: "A or B".</summary>
    public string NamesOf(IReadOnlyDictionary<PersonId, Decider> people) =>
        string.Join(" or ", People.Select(p => people[p].Name));
}

/// <summary>Where an ask goes on to: the next of its route who is there, or up the line from its end.</summary>
public static class Onward
{
    /// <summary>The next step whose people may decide; null where nobody does.</summary>
    public static Holding? After(OpenAsk ask, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(ask);
        var steps = ask.Steps;
        for (var i = ask.Row.Step + 1; i < steps.Length; i++)
        {
            if (Able(ask, steps[i], i == steps.Length - 1, day) is { IsEmpty: false } people)
                return new Holding(i, people);
        }
        return Above(ask, day);
    }

    /// <summary>
    /// Who has it instead of those who do now: their stand-ins where they are away or left, else whoever comes after
    /// them. Null where nobody may, and it stays.
    /// </summary>
    public static Holding? Instead(OpenAsk ask, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(ask);
        var holders = ask.HolderIds;
        var others = Able(ask, holders, !ask.GoesOn, day).Except(holders).ToImmutableArray();
        return others.IsEmpty ? After(ask, day) : new Holding(ask.Row.Step, others);
    }

    /// <summary>Whether any of those who have it is there to decide.</summary>
    public static bool IsHeld(OpenAsk ask, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(ask);
        return ask.Row.Holders.Exists(h =>
            ask.People.GetValueOrDefault(new PersonId(h.PersonId)) is { Active: true } holder
            && holder.AwayOn(day) is null
        );
    }

    private static ImmutableArray<PersonId> Able(OpenAsk ask, IEnumerable<PersonId> of, bool mustCover, DateOnly day) =>
        [
            .. of.Select(ask.People.GetValueOrDefault)
                .OfType<Decider>()
                .Select(p => PolicyRoute.WhoDecides(p, ask.Involved, ask.People, day))
                .OfType<Decider>()
                .Where(d => !mustCover || Route.Covers(d.Authority, ask.Fired))
                .Select(d => d.Id)
                .Distinct(),
        ];

    // Up the line from those who have it, to the first who covers all of it.
    private static Holding? Above(OpenAsk ask, DateOnly day)
    {
        foreach (var holder in ask.Row.Holders)
        {
            if (ask.People.GetValueOrDefault(new PersonId(holder.PersonId)) is not { } from)
                continue;
            foreach (var level in Route.Climb(from, ask.People))
            {
                if (Able(ask, [level.Id], true, day) is { IsEmpty: false } people && !people.All(ask.IsHeldBy))
                    return new Holding(Math.Max(ask.Row.Step, ask.Steps.Length - 1), people);
            }
        }
        return null;
    }
}
