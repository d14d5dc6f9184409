using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.People;

/// <summary>Changes what is kept of a person. With other roles they sign in anew.</summary>
public sealed record ChangePerson(long Person, PersonFields Fields) : IAct<bool>;

[Leaves(typeof(PersonChanged))]
public sealed class ChangePersonAct(Telling telling) : Act<ChangePerson, bool>
{
    public override Right Needs => Rights.Administer;

    /// <returns>Whether anything changed.</returns>
    public override async Task<bool> RunAsync(Work work, ChangePerson input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        input.Fields.MustBeSound();
        var person =
            await work.Db.People.FirstOrDefaultAsync(p => p.Id == input.Person, cancel)
            ?? throw RefusedException.NotFound("such person");
        if (person.Roles.HasFlag(Roles.Admin) && !input.Fields.AllRoles.HasFlag(Roles.Admin))
            await PersonFields.MustLeaveAnAdministratorAsync(work.Db, person.Id, cancel);
        var (roles, mail) = (person.Roles, person.Mail);
        var changes = input.Fields.Into(person);
        if (changes.IsEmpty)
            return false;
        if (person.Roles != roles)
            person.Stamp = Tokens.New();
        // Whoever had the address hears of it there: a new link would go to the new one.
        if (person.Mail != mail && MailWriter.IsAddress(mail))
            telling.Mail(
                work,
                person,
                FormattableString.Invariant($"address-{person.Id}-{work.Now.Ticks}"),
                "Your address was changed",
                $"{work.Actor.Name} changed where the house writes to you: from now on to {person.Mail}. "
                    + "If you do not know of it, ask them.\n",
                mail
            );
        work.Leave(new PersonChanged(person.Name, changes), Work.SubjectOf("people", person.Id));
        return true;
    }
}
