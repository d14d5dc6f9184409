using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Authorities;

/// <summary>Says whom somebody reports to; a line that would run in a ring is refused.</summary>
/// <param name="To">Null: nobody; they stand at the top.</param>
public sealed record SetReportsTo(long Person, long? To) : IAct<bool>;

[Leaves(typeof(ReportsToSet))]
public sealed class SetReportsToAct : Act<SetReportsTo, bool>
{
    public override Right Needs => Rights.Administer;

    /// <returns>Whether anything changed.</returns>
    public override async Task<bool> RunAsync(Work work, SetReportsTo input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var people = await work.Db.People.ToDictionaryAsync(p => p.Id, cancel);
        if (!people.TryGetValue(input.Person, out var person) || !person.Active)
            throw RefusedException.NotFound("such person");
        if (input.To is { } to && (!people.TryGetValue(to, out var above) || !above.Active))
            throw RefusedException.NotFound("such person");
        for (var at = input.To; at is { } id; at = people[id].ReportsToId)
        {
            if (id == person.Id)
                throw RefusedException.Bad(
                    "reports_in_ring",
                    $"{people[input.To!.Value].Name} reports to {person.Name}; the line would run in a ring.",
                    "to"
                );
        }
        if (person.ReportsToId == input.To)
            return false;
        string? Name(long? of) => of is { } id ? people[id].Name : null;
        work.Leave(
            new ReportsToSet(person.Name, Name(person.ReportsToId), Name(input.To)),
            Work.SubjectOf("people", person.Id)
        );
        person.ReportsToId = input.To;
        return true;
    }
}
