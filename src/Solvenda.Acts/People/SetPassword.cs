using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.People;

/// <summary>Sets one's own password; the old one held. Whoever is signed in elsewhere is out.</summary>
/// <param name="PasswordHash">Of a password that was looked at.</param>
public sealed record SetPassword(string PasswordHash) : IAct<string>;

[Leaves(typeof(SecretSet))]
public sealed class SetPasswordAct : Act<SetPassword, string>
{
    public override Right Needs => Rights.Own;

    /// <returns>The new stamp, for the cookie of whoever set it.</returns>
    public override async Task<string> RunAsync(Work work, SetPassword input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var person = await work.Db.People.FirstAsync(p => p.Id == work.Actor.PersonId, cancel);
        (person.PasswordHash, person.Stamp) = (input.PasswordHash, Tokens.New());
        work.Leave(new SecretSet(person.Name, "password"), Work.SubjectOf("people", person.Id));
        return person.Stamp;
    }
}
