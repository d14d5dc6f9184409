using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.People;

/// <summary>Invites somebody by a letter with a one-time link, behind which they set their own password.</summary>
public sealed record InvitePerson(string Login, PersonFields Fields) : IAct<Invitation>;

/// <summary>Somebody who was invited.</summary>
/// <param name="Link">Theirs alone, once: shown to whoever invites where the house has no mail yet.</param>
public sealed record Invitation(long Person, string Link);

[Leaves(typeof(PersonInvited))]
public sealed class InvitePersonAct(Invitations invitations) : Act<InvitePerson, Invitation>
{
    public override Right Needs => Rights.Administer;

    public override async Task<Invitation> RunAsync(Work work, InvitePerson input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var login = input.Login.Trim().ToLowerInvariant();
        if (!Regex.IsMatch(login, "^[a-z][a-z0-9._-]{1,49}$", RegexOptions.None, TimeSpan.FromSeconds(1)))
            throw RefusedException.Bad("login", "A sign-in name is letters and digits, such as s.quill.", "login");
        if (await work.Db.People.AnyAsync(p => p.Login == login, cancel))
            throw RefusedException.Bad("login", $"There is a “{login}” already; nobody was invited.", "login");
        input.Fields.MustBeSound();
        var person = new Person
        {
            Login = login,
            Name = "",
            Does = "",
            Stamp = Tokens.New(),
        };
        input.Fields.Into(person);
        work.Db.People.Add(person);
        await work.Db.SaveChangesAsync(cancel);
        var link = invitations.Send(work, person);
        work.Leave(
            new PersonInvited(person.Name, login, RoleTable.Say(person.Roles)),
            Work.SubjectOf("people", person.Id)
        );
        return new Invitation(person.Id, link);
    }
}

/// <summary>One-time links by which somebody sets their password.</summary>
public sealed class Invitations(Telling telling, HouseAddress house, Seller seller)
{
    private static readonly TimeSpan Holds = TimeSpan.FromDays(7);

    /// <returns>The link, which is kept nowhere but in the letter.</returns>
    public string Send(Work work, Person person)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(person);
        var token = Tokens.New();
        work.Db.OneTimeLinks.Add(
            new OneTimeLink
            {
                Hash = Tokens.Sha256(token),
                ExpiresAt = work.Now + Holds,
                PersonId = person.Id,
            }
        );
        var link = $"{house.Url}/welcome/{token}";
        telling.Mail(
            work,
            person,
            FormattableString.Invariant($"welcome-{person.Id}-{work.Now.Ticks}"),
            $"Your place at {seller.Name}",
            $"{work.Actor.Name} made a place for you at {seller.Name}. You sign in as “{person.Login}”; set your own "
                + $"password here, once, within a week:\n\n{link}\n"
        );
        return link;
    }
}
