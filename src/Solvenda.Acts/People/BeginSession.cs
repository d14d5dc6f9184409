using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>Somebody signs in, whose password held.</summary>
/// <param name="Hash">SHA-256 of what their cookie carries.</param>
/// <param name="Device">What they sit at, in few words.</param>
/// <param name="Step">Of the second factor, where there is one; one that was used already is refused.</param>
public sealed record BeginSession(long Person, string Hash, string Device = "", long? Step = null) : IAct<int>;

[Leaves(typeof(SignedIn))]
public sealed class BeginSessionAct : Act<BeginSession, int>
{
    // Whoever never signs out signs in anew after so long.
    private static readonly TimeSpan Longest = TimeSpan.FromDays(14);

    public override Right Needs => Rights.SignIn;

    /// <returns>How many old ones were swept away.</returns>
    public override async Task<int> RunAsync(Work work, BeginSession input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Step is { } step)
        {
            // Two who send the same code at once: one of them comes in.
            var taken = await work
                .Db.People.Where(p => p.Id == input.Person && p.SecondFactorStep < step)
                .ExecuteUpdateAsync(s => s.SetProperty(p => p.SecondFactorStep, step), cancel);
            if (taken == 0)
                throw new RefusedException(Refused.NotSignedIn, "second_factor", "That code was used already.");
        }
        var old = work.Now - Longest;
        var swept = await work.Db.Sessions.Where(s => s.BegunAt < old).ExecuteDeleteAsync(cancel);
        work.Db.Sessions.Add(
            new SessionRow
            {
                Hash = input.Hash,
                PersonId = input.Person,
                BegunAt = work.Now,
                Device = input.Device,
            }
        );
        work.Leave(new SignedIn(), Work.SubjectOf("people", input.Person));
        return swept;
    }
}
