using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;

namespace Solvenda.Acts.Requests;

/// <summary>Takes a request, hands it to somebody, or lays it back for whoever comes.</summary>
/// <param name="To">Key of the person; null: nobody has it.</param>
public sealed record HandRequest(string Request, long? To) : IAct<string>;

[Leaves(typeof(RequestHanded))]
public sealed class HandRequestAct : Act<HandRequest, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>Who has it; empty where nobody has.</returns>
    public override async Task<string> RunAsync(Work work, HandRequest input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var request = await RequestSteps.FindAsync(work.Db, input.Request, null, cancel);
        if (request.HandId == input.To)
            return "";
        var names = await work
            .Db.People.Where(p => p.Id == input.To || p.Id == request.HandId)
            .Select(p => new
            {
                p.Id,
                p.Name,
                p.Active,
                p.Roles,
            })
            .ToListAsync(cancel);
        var to = names.Find(p => p.Id == input.To);
        if (input.To is not null && to is not { Active: true })
            throw RefusedException.NotFound("such person");
        if (to is not null && (to.Roles & (Roles.Desk | Roles.Seller)) == Roles.None)
            throw RefusedException.Bad("not_theirs", $"{to.Name} reads no requests; nothing was changed.", "to");
        var before = names.Find(p => p.Id == request.HandId)?.Name ?? "";
        request.HandId = input.To;
        work.Leave(new RequestHanded(before, to?.Name ?? ""), request.Number, request.DossierId);
        return to?.Name ?? "";
    }
}
