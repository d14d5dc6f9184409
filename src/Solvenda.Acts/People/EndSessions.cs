using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;

namespace Solvenda.Acts.People;

/// <summary>Ends sessions of one's own, or as an administrator of anybody's.</summary>
/// <param name="But">Hash of the session that goes on; null: none does.</param>
/// <param name="Only">Beginning of the hash of the one that ends; null: all.</param>
public sealed record EndSessions(long Person, string? But, string? Only) : IAct<int>;

[Leaves(typeof(SessionsEnded))]
public sealed class EndSessionsAct : Act<EndSessions, int>
{
    public override Right Needs => Rights.Own;

    /// <returns>How many.</returns>
    public override async Task<int> RunAsync(Work work, EndSessions input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Person != work.Actor.PersonId && !work.Actor.Roles.HasFlag(Roles.Admin))
            throw RefusedException.Forbidden("Sessions are ended by who has them, or by an administrator.");
        var person =
            await work.Db.People.FirstOrDefaultAsync(p => p.Id == input.Person, cancel)
            ?? throw RefusedException.NotFound("such person");
        var ended = await work
            .Db.Sessions.Where(s =>
                s.PersonId == person.Id && s.Hash != input.But && (input.Only == null || s.Hash.StartsWith(input.Only))
            )
            .ExecuteDeleteAsync(cancel);
        if (ended > 0)
            work.Leave(new SessionsEnded(person.Name, ended), Work.SubjectOf("people", person.Id));
        return ended;
    }
}
