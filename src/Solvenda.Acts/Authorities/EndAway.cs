using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Authorities;

/// <summary>Takes days away back; from here on they decide themselves again.</summary>
public sealed record EndAway(long Absence) : IAct<bool>;

[Leaves(typeof(AwaySet))]
public sealed class EndAwayAct : Act<EndAway, bool>
{
    public override Right Needs => Rights.Own;

    /// <returns>True.</returns>
    public override async Task<bool> RunAsync(Work work, EndAway input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Absences.FirstOrDefaultAsync(a => a.Id == input.Absence, cancel)
            ?? throw RefusedException.NotFound("such absence");
        var person = await SetAwayAct.OfAsync(work, row.PersonId, cancel);
        work.Db.Absences.Remove(row);
        work.Leave(new AwaySet(person.Name, row.From, row.To, null, true), Work.SubjectOf("people", person.Id));
        return true;
    }
}
