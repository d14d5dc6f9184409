using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Authorities;

/// <summary>
/// Says what somebody, or a machine, may decide alone from a day on. Where whoever says it does not have that much,
/// an administrator's word waits until somebody who has agrees.
/// </summary>
/// <param name="Person">Whose; null where it is a machine's.</param>
/// <param name="Key">The machine's key; null where it is a person's.</param>
/// <param name="Limit">How far; null: not at all.</param>
public sealed record SetAuthority(long? Person, long? Key, string Kind, decimal? Limit, DateOnly From) : IAct<bool>;

[Leaves(typeof(AuthoritySet), typeof(AuthorityProposed))]
public sealed class SetAuthorityAct(Telling telling) : Act<SetAuthority, bool>
{
    public override Right Needs => Rights.Authority;

    /// <returns>Whether it holds; false: it waits for somebody to agree.</returns>
    public override async Task<bool> RunAsync(Work work, SetAuthority input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var kind =
            AuthorityKinds.Find(input.Kind)
            ?? throw RefusedException.Bad("limit", "There is no such kind of authority.", "kind");
        if (input.From < work.Today || input.From > work.Today.AddYears(5))
            throw RefusedException.Bad("limit", "It holds from today, or from a day within five years.", "from");
        var deciders = await Deciders.OnAsync(work.Db, input.From, cancel);
        var (whose, before) = await WhoseAsync(work, deciders, kind, input, cancel);
        var anybody = deciders.People.Values.Any(d => d.Active && kind.Get(d.Authority) is not null);
        var giver = deciders.People[new PersonId(work.Actor.PersonId!.Value)];
        var (given, no) = Giving.Of(kind, before, input.Limit, giver, giver.Id.Value == input.Person, anybody);
        if (no is not null)
            throw RefusedException.Of(no);
        if (before == input.Limit)
            return true;
        await DropProposedAsync(work, input, cancel);
        work.Db.Authorities.Add(
            new AuthorityRow
            {
                PersonId = input.Person,
                KeyId = input.Key,
                Kind = kind.Code,
                Limit = input.Limit,
                From = input.From,
                GivenById = work.Actor.PersonId,
                GivenByName = work.Actor.Name,
                GivenAt = work.Now,
                Holds = given!.Holds,
            }
        );
        var (was, becomes) = (kind.Say(before), kind.Say(input.Limit));
        work.Leave(
            given.Holds
                ? new AuthoritySet(whose, kind.Label, was, becomes, input.From, given.First, null)
                : new AuthorityProposed(whose, kind.Label, was, becomes, input.From),
            "authority"
        );
        if (!given.Holds)
            await telling.TellAsync(
                work,
                deciders
                    .People.Values.Where(d => d.Active && kind.Reaches(kind.Get(d.Authority), input.Limit))
                    .Where(d => d.Id.Value != input.Person)
                    .Select(d => d.Id),
                FormattableString.Invariant($"authority-{work.Now.Ticks}"),
                $"{work.Actor.Name} proposes that {whose} may decide alone: {kind.Label} {becomes} instead of {was}",
                "/setup/authority",
                cancel
            );
        return given.Holds;
    }

    private static async Task<(string Whose, decimal? Before)> WhoseAsync(
        Work work,
        Deciders deciders,
        AuthorityKind kind,
        SetAuthority input,
        CancellationToken cancel
    )
    {
        if (input.Person is { } id && input.Key is null)
            return deciders.People.TryGetValue(new PersonId(id), out var person) && person.Active
                ? (person.Name, kind.Get(person.Authority))
                : throw RefusedException.NotFound("such person");
        var key =
            await work.Db.ApiKeys.FirstOrDefaultAsync(k => k.Id == input.Key && k.RevokedAt == null, cancel)
            ?? throw RefusedException.NotFound("such key");
        return (key.Name, deciders.Machines.TryGetValue(key.Name, out var has) ? kind.Get(has) : null);
    }

    // A newer word on the same thing takes the place of one that still waited.
    private static Task<int> DropProposedAsync(Work work, SetAuthority input, CancellationToken cancel) =>
        work
            .Db.Authorities.Where(a =>
                !a.Holds && a.PersonId == input.Person && a.KeyId == input.Key && a.Kind == input.Kind
            )
            .ExecuteDeleteAsync(cancel);
}
