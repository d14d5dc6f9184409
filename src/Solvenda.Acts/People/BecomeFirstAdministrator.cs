using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>
/// Becomes the first administrator, behind the one-time link of the console. They may decide nothing alone: whom they
/// invite is given that (docs/guide/setup.md).
/// </summary>
/// <param name="PasswordHash">Of a password that was long enough.</param>
public sealed record BecomeFirstAdministrator(string Token, string Name, string Login, string PasswordHash)
    : IAct<Person>;

[Leaves(typeof(FirstAdministrator))]
public sealed class BecomeFirstAdministratorAct : Act<BecomeFirstAdministrator, Person>
{
    private const int MostLetters = 100;

    public override Right Needs => Rights.OneTimeLink;

    public override async Task<Person> RunAsync(Work work, BecomeFirstAdministrator input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (name, login) = (input.Name.Trim(), input.Login.Trim().ToLowerInvariant());
        if (name.Length is 0 or > MostLetters || login.Length is 0 or > MostLetters)
            throw RefusedException.Bad("name_missing", "A name and a sign-in name are needed.", "name");
        var hash = Tokens.Sha256(input.Token);
        var link = await work.Db.OneTimeLinks.FirstOrDefaultAsync(l => l.Hash == hash, cancel);
        if (link is null || link.UsedAt is not null || link.ExpiresAt < work.Now)
            throw new RefusedException(
                Refused.Gone,
                "link_used",
                "This link was used or has run out; a new one is printed when Solvenda starts without any person."
            );
        link.UsedAt = work.Now;
        var made = new Person
        {
            Login = login,
            Name = name,
            Does = "administrator",
            Stamp = Tokens.New(),
            Roles = Roles.Admin | Roles.Desk | Roles.Seller | Roles.Lead,
            PasswordHash = input.PasswordHash,
        };
        work.Db.People.Add(made);
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(new FirstAdministrator(made.Login), Work.SubjectOf("people", made.Id));
        return made;
    }
}
