using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Acts.Authorities;

/// <summary>Agrees to a limit that was proposed, or not; whoever proposed it may take it back.</summary>
public sealed record AgreeAuthority(long Proposal, bool Yes) : IAct<bool>;

[Leaves(typeof(AuthoritySet), typeof(AuthorityDropped))]
public sealed class AgreeAuthorityAct : Act<AgreeAuthority, bool>
{
    public override Right Needs => Rights.Authority;

    /// <returns>Whether it holds.</returns>
    public override async Task<bool> RunAsync(Work work, AgreeAuthority input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var row =
            await work.Db.Authorities.FirstOrDefaultAsync(a => a.Id == input.Proposal && !a.Holds, cancel)
            ?? throw RefusedException.NotFound("such proposal any more");
        var kind = AuthorityKinds.Find(row.Kind)!;
        var deciders = await Deciders.OnAsync(work.Db, work.Today, cancel);
        var me = deciders.People[new PersonId(work.Actor.PersonId!.Value)];
        var covers = kind.Reaches(kind.Get(me.Authority), row.Limit) && me.Id.Value != row.PersonId;
        if (!covers && (input.Yes || row.GivenById != me.Id.Value))
            throw RefusedException.Forbidden("Somebody else who has that much agrees to it, or does not.");
        var person = row.PersonId is { } id ? deciders.People[new PersonId(id)] : null;
        var whose =
            person?.Name ?? await work.Db.ApiKeys.Where(k => k.Id == row.KeyId).Select(k => k.Name).FirstAsync(cancel);
        if (!input.Yes)
        {
            work.Db.Authorities.Remove(row);
            work.Leave(new AuthorityDropped(whose, kind.Label, kind.Say(row.Limit)), "authority");
            return false;
        }
        row.Holds = true;
        if (row.From < work.Today)
            row.From = work.Today;
        var before = person is null
            ? deciders.Machines.TryGetValue(whose, out var has)
                ? kind.Get(has)
                : null
            : kind.Get(person.Authority);
        work.Leave(
            new AuthoritySet(whose, kind.Label, kind.Say(before), kind.Say(row.Limit), row.From, false, me.Name),
            "authority"
        );
        return true;
    }
}
