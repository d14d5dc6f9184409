using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Authorities;

/// <summary>Says when somebody is away and who decides for them meanwhile: oneself, or an administrator.</summary>
/// <param name="To">The last day away.</param>
/// <param name="StandIn">Null: nobody; it climbs past them.</param>
public sealed record SetAway(long Person, DateOnly From, DateOnly To, long? StandIn) : IAct<long>;

[Leaves(typeof(AwaySet))]
public sealed class SetAwayAct : Act<SetAway, long>
{
    private const int MostDays = 400;

    public override Right Needs => Rights.Own;

    /// <returns>Its key.</returns>
    public override async Task<long> RunAsync(Work work, SetAway input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var person = await OfAsync(work, input.Person, cancel);
        if (input.To < input.From || input.To < work.Today || input.To.DayNumber - input.From.DayNumber > MostDays)
            throw RefusedException.Bad("away", "Away is from a day to a later one that is not over.", "to");
        var other = input.StandIn is { } id
            ? await work.Db.People.FirstOrDefaultAsync(p => p.Id == id && p.Active, cancel)
                ?? throw RefusedException.NotFound("such person")
            : null;
        if (other?.Id == person.Id)
            throw RefusedException.Bad("away", "Nobody stands in for themselves.", "standIn");
        if (
            await work.Db.Absences.AnyAsync(
                a => a.PersonId == person.Id && a.From <= input.To && a.To >= input.From,
                cancel
            )
        )
            throw RefusedException.Bad("away", "They are away on some of these days already.", "from");
        var row = new AbsenceRow
        {
            PersonId = person.Id,
            From = input.From,
            To = input.To,
            StandInId = other?.Id,
        };
        work.Db.Absences.Add(row);
        await work.Db.SaveChangesAsync(cancel);
        work.Leave(
            new AwaySet(person.Name, input.From, input.To, other?.Name, false),
            Work.SubjectOf("people", person.Id)
        );
        return row.Id;
    }

    /// <summary>The person, where whoever acts may say when they are away.</summary>
    internal static async Task<Person> OfAsync(Work work, long id, CancellationToken cancel)
    {
        if (work.Actor.PersonId != id && !work.Actor.Roles.HasFlag(Roles.Admin))
            throw RefusedException.Forbidden("When they are away is theirs to say, or an administrator’s.");
        return await work.Db.People.FirstOrDefaultAsync(p => p.Id == id && p.Active, cancel)
            ?? throw RefusedException.NotFound("such person");
    }
}
