using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>Somebody signs in, whose password held.</summary>
/// <param name="Hash">SHA-256 of what their cookie carries.</param>
public sealed record BeginSession(long Person, string Hash) : IAct<int>;

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
        var old = work.Now - Longest;
        var swept = await work.Db.Sessions.Where(s => s.BegunAt < old).ExecuteDeleteAsync(cancel);
        work.Db.Sessions.Add(
            new SessionRow
            {
                Hash = input.Hash,
                PersonId = input.Person,
                BegunAt = work.Now,
            }
        );
        work.Leave(new SignedIn(), Work.SubjectOf("people", input.Person));
        return swept;
    }
}
