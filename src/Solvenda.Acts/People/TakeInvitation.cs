using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>Sets the first password, behind the one-time link of an invitation.</summary>
/// <param name="PasswordHash">Of a password that was looked at.</param>
public sealed record TakeInvitation(string Token, string PasswordHash) : IAct<Person>;

[Leaves(typeof(SecretSet))]
public sealed class TakeInvitationAct : Act<TakeInvitation, Person>
{
    public override Right Needs => Rights.OneTimeLink;

    public override async Task<Person> RunAsync(Work work, TakeInvitation input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (link, person) = await FindAsync(work.Db, input.Token, work.Now, cancel);
        link.UsedAt = work.Now;
        person.PasswordHash = input.PasswordHash;
        person.Stamp = Tokens.New();
        // Older links to the same person are worth nothing from here.
        await work
            .Db.OneTimeLinks.Where(l => l.PersonId == person.Id && l.UsedAt == null && l.Hash != link.Hash)
            .ExecuteUpdateAsync(s => s.SetProperty(l => l.UsedAt, work.Now), cancel);
        work.Leave(new SecretSet(person.Name, "password"), Work.SubjectOf("people", person.Id));
        return person;
    }

    /// <summary>The link and whose it is; refused where it was used or has run out.</summary>
    public static async Task<(OneTimeLink Link, Person Person)> FindAsync(
        Data.SolvendaDb db,
        string token,
        DateTime now,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var hash = Tokens.Sha256(token);
        var link = await db.OneTimeLinks.FirstOrDefaultAsync(l => l.Hash == hash && l.PersonId != null, cancel);
        var person =
            link is { UsedAt: null } && link.ExpiresAt >= now
                ? await db.People.FirstOrDefaultAsync(p => p.Id == link.PersonId && p.Active, cancel)
                : null;
        return person is null
            ? throw new RefusedException(
                Refused.Gone,
                "link_used",
                "This link was used or has run out; an administrator sends a new one."
            )
            : (link!, person);
    }
}
