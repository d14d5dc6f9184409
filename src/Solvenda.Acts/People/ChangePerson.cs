using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;

namespace Solvenda.Acts.People;

/// <summary>Changes what is kept of a person. With other roles they sign in anew.</summary>
public sealed record ChangePerson(long Person, PersonFields Fields) : IAct<bool>;

[Leaves(typeof(PersonChanged))]
public sealed class ChangePersonAct : Act<ChangePerson, bool>
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
        var roles = person.Roles;
        var changes = input.Fields.Into(person);
        if (changes.IsEmpty)
            return false;
        if (person.Roles != roles)
            person.Stamp = Tokens.New();
        work.Leave(new PersonChanged(person.Name, changes), Work.SubjectOf("people", person.Id));
        return true;
    }
}
