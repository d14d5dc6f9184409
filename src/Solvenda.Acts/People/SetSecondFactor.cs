using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.People;

/// <summary>Sets one's own second factor, or takes it off.</summary>
/// <param name="Secret">Base 32, proved by a code; null: off.</param>
/// <param name="Step">Of the code that proved it: it is not taken again.</param>
public sealed record SetSecondFactor(string? Secret, long Step) : IAct<bool>;

[Leaves(typeof(SecretSet))]
public sealed class SetSecondFactorAct : Act<SetSecondFactor, bool>
{
    public override Right Needs => Rights.Own;

    /// <returns>Whether there is one now.</returns>
    public override async Task<bool> RunAsync(Work work, SetSecondFactor input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var person = await work.Db.People.FirstAsync(p => p.Id == work.Actor.PersonId, cancel);
        (person.SecondFactor, person.SecondFactorStep) = (input.Secret, input.Step);
        work.Leave(
            new SecretSet(person.Name, input.Secret is null ? "factor-gone" : "factor"),
            Work.SubjectOf("people", person.Id)
        );
        return input.Secret is not null;
    }
}
