using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Policies;

/// <summary>What acts on policies share.</summary>
internal static class PolicySteps
{
    /// <summary>The policy, at the version that was seen.</summary>
    public static async Task<PolicyRow> FindAsync(Work work, long id, long? seen, CancellationToken cancel)
    {
        var row =
            await work.Db.Policies.FirstOrDefaultAsync(p => p.Id == id && !p.Dropped, cancel)
            ?? throw RefusedException.NotFound("such policy");
        return seen == row.Version
            ? row
            : throw RefusedException.Clash(
                "stale",
                "Somebody changed this policy in the meantime; yours was not saved over it."
            );
    }

    /// <summary>Whoever decides by it is told when one asks less, or nothing any more.</summary>
    public static async Task TellAsync(Work work, Telling telling, string words, CancellationToken cancel)
    {
        var leads = await work.Db.People.Where(p => p.Active).Select(p => new { p.Id, p.Roles }).ToListAsync(cancel);
        await telling.TellAsync(
            work,
            leads.Where(p => p.Roles.HasFlag(Roles.Lead)).Select(p => new PersonId(p.Id)),
            FormattableString.Invariant($"policy-{work.Now.Ticks}"),
            words,
            "/setup/policies",
            cancel
        );
    }
}
