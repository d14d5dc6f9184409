using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.People;

/// <summary>Somebody signs out: a copy of their cookie is worth nothing from here.</summary>
/// <param name="Hash">SHA-256 of what the cookie carries.</param>
public sealed record EndSession(string Hash) : IAct<int>;

[Leaves(typeof(SignedOut))]
public sealed class EndSessionAct : Act<EndSession, int>
{
    public override Right Needs => Rights.Own;

    /// <returns>How many sessions were ended.</returns>
    public override async Task<int> RunAsync(Work work, EndSession input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var person = work.Actor.PersonId!.Value;
        var ended = await work
            .Db.Sessions.Where(s => s.Hash == input.Hash && s.PersonId == person)
            .ExecuteDeleteAsync(cancel);
        if (ended > 0)
            work.Leave(new SignedOut(), Work.SubjectOf("people", person));
        return ended;
    }
}
