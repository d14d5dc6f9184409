using Solvenda.Core.People;

namespace Solvenda.Core.Approvals;

/// <summary>Whether somebody's new limit holds, or somebody who has that much must agree first.</summary>
/// <param name="Holds">False: it is proposed.</param>
/// <param name="First">Whether nobody held authority of the kind before: an administrator named its first holder.
/// </param>
public sealed record Given(bool Holds, bool First);

/// <summary>Who may give authority: nobody more than they have, nobody to themselves.</summary>
public static class Giving
{
    /// <param name="before">What they may now; null: nothing.</param>
    /// <param name="limit">What they are to have; null: nothing.</param>
    /// <param name="giver">Who gives it.</param>
    /// <param name="isSelf">Whether that is the same person.</param>
    /// <param name="anybody">Whether anybody who is active has authority of the kind.</param>
    public static (Given? Given, Refusal? No) Of(
        AuthorityKind kind,
        decimal? before,
        decimal? limit,
        Decider giver,
        bool isSelf,
        bool anybody
    )
    {
        ArgumentNullException.ThrowIfNull(kind);
        ArgumentNullException.ThrowIfNull(giver);
        if (limit is { } far && kind.Wrong(far) is { } wrong)
            return (null, new Refusal("limit", $"“{kind.Label}” takes {wrong}; nothing was changed.", "limit"));
        var narrower = kind.Reaches(before, limit);
        var admin = giver.Roles.HasFlag(Roles.Admin);
        if (isSelf && !narrower)
            return (null, new Refusal("own_authority", "Nobody widens what they may decide themselves.", "limit"));
        var mine = kind.Get(giver.Authority);
        // Taking away is for administrators, and for whoever has as much themselves.
        if (narrower)
            return admin || kind.Reaches(mine, before)
                ? (new Given(true, false), null)
                : (null, No("Only an administrator, or somebody who has as much, takes that away."));
        if (kind.Reaches(mine, limit))
            return (new Given(true, false), null);
        if (!admin)
            return (null, No("Nobody gives more than they have."));
        return (new Given(!anybody, !anybody), null);
    }

    private static Refusal No(string words) => new("not_allowed", words);
}
