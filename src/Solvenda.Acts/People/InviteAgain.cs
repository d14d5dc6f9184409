using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;

namespace Solvenda.Acts.People;

/// <summary>
/// Sends somebody a new one-time link: they lost their password, or their second factor, which is taken off with it.
/// </summary>
public sealed record InviteAgain(long Person) : IAct<Invitation>;

[Leaves(typeof(PersonInvited), typeof(SecretSet))]
public sealed class InviteAgainAct(Invitations invitations) : Act<InviteAgain, Invitation>
{
    public override Right Needs => Rights.Administer;

    public override async Task<Invitation> RunAsync(Work work, InviteAgain input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var person =
            await work.Db.People.FirstOrDefaultAsync(p => p.Id == input.Person && p.Active, cancel)
            ?? throw RefusedException.NotFound("such person");
        var subject = Work.SubjectOf("people", person.Id);
        if (person.SecondFactor is not null)
        {
            (person.SecondFactor, person.SecondFactorStep) = (null, 0);
            work.Leave(new SecretSet(person.Name, "factor-gone"), subject);
        }
        // Whoever holds the old password is out until the new one is set.
        (person.PasswordHash, person.Stamp) = ("", Tokens.New());
        work.Leave(new PersonInvited(person.Name, person.Login, RoleTable.Say(person.Roles)), subject);
        return new Invitation(person.Id, invitations.Send(work, person));
    }
}
