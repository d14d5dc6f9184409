using System.Collections.Immutable;
using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.People;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Outside;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>A person as an administrator sees them.</summary>
/// <param name="Leaves">What they would leave behind if they were switched off, in words; empty for nothing.</param>
public sealed record PersonLine(
    long Id,
    string Login,
    string RoleWords,
    bool Active,
    bool HasPassword,
    bool HasSecondFactor,
    int Sessions,
    DateTime? LastSeen,
    string Leaves,
    PersonFields Fields
);

/// <summary>A role that can be given.</summary>
public sealed record RolePick(Roles Role, string Name, string Does);

public sealed record PeopleView(
    IReadOnlyList<PersonLine> People,
    IReadOnlyList<RolePick> Roles,
    IReadOnlyList<SetupChange> Lately
);

public sealed record InviteBody(string Login, PersonFields Fields);

/// <summary>An invitation that is on its way.</summary>
/// <param name="Link">Null where the letter takes it; shown once where the house has no mail.</param>
public sealed record InvitedView(long Person, string? Link);

public sealed record SwitchBody(bool On, long? To = null);

/// <summary>People: invited, changed, switched off.</summary>
public static class PeopleEndpoints
{
    public static void MapPeople(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/people", Get).Needs(Rights.Administer);
        setup.MapPost("/people", Invite).Needs<InvitePerson>();
        setup.MapPut("/people/{id:long}", Change).Needs<ChangePerson>();
        setup.MapPost("/people/{id:long}/switch", Switch).Needs<SwitchPerson>();
        setup.MapPost("/people/{id:long}/invite", Again).Needs<InviteAgain>();
        setup.MapDelete("/people/{id:long}/sessions", End).Needs<EndSessions>();
    }

    private static async Task<PeopleView> Get(SolvendaDb db, CancellationToken cancel)
    {
        var people = await db
            .People.AsNoTracking()
            .OrderByDescending(p => p.Active)
            .ThenBy(p => p.Name)
            .ToListAsync(cancel);
        var sessions = await db
            .Sessions.GroupBy(s => s.PersonId)
            .Select(g => new
            {
                g.Key,
                Count = g.Count(),
                Last = g.Max(s => s.BegunAt),
            })
            .ToDictionaryAsync(s => s.Key, cancel);
        var leaves = await LeavesAsync(db, cancel);
        var subjects = people.ConvertAll(p => Work.SubjectOf("people", p.Id));
        return new PeopleView(
            people.ConvertAll(p =>
            {
                var seen = sessions.GetValueOrDefault(p.Id);
                return new PersonLine(
                    p.Id,
                    p.Login,
                    RoleTable.Say(p.Roles),
                    p.Active,
                    p.PasswordHash.Length > 0,
                    p.SecondFactor is not null,
                    seen?.Count ?? 0,
                    seen?.Last,
                    leaves.GetValueOrDefault(p.Id, ""),
                    new PersonFields(
                        p.Name,
                        p.Does,
                        p.Mail,
                        [.. RoleTable.All.Select(r => r.Role).Where(r => p.Roles.HasFlag(r))],
                        p.Signature,
                        p.WorksFrom,
                        p.WorksTo
                    )
                );
            }),
            [.. RoleTable.All.Select(r => new RolePick(r.Role, r.Name, r.Does))],
            await AuthorityEndpoints.LatelyAsync(db, subjects, cancel)
        );
    }

    private static async Task<Dictionary<long, string>> LeavesAsync(SolvendaDb db, CancellationToken cancel)
    {
        var parts = new List<(long Person, string Words)>();
        async Task AddAsync(IQueryable<long?> owners, string words)
        {
            var counts = await owners
                .Where(o => o != null)
                .GroupBy(o => o)
                .Select(g => new { g.Key, Count = g.Count() })
                .ToListAsync(cancel);
            parts.AddRange(counts.Select(c => (c.Key!.Value, $"{c.Count} {words}")));
        }
        await AddAsync(db.Buyers.Select(b => b.AccountManagerId), "buyers");
        await AddAsync(LeftBehind.Quotes(db).Select(q => (long?)q.SellerId), "open quotes");
        await AddAsync(LeftBehind.Orders(db).Select(o => (long?)o.SellerId), "open orders");
        await AddAsync(LeftBehind.FollowUps(db).Select(f => (long?)f.PersonId), "follow-ups");
        await AddAsync(db.People.Where(p => p.Active).Select(p => p.ReportsToId), "who report to them");
        return parts.GroupBy(p => p.Person).ToDictionary(g => g.Key, g => string.Join(", ", g.Select(p => p.Words)));
    }

    private static async Task<InvitedView> Invite(
        InviteBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        MailRoute route,
        CancellationToken cancel
    ) => Shown(await acts.RunAsync(user.ActorOf(), new InvitePerson(body.Login, body.Fields), cancel), route);

    private static async Task<InvitedView> Again(
        long id,
        ClaimsPrincipal user,
        ActRunner acts,
        MailRoute route,
        CancellationToken cancel
    ) => Shown(await acts.RunAsync(user.ActorOf(), new InviteAgain(id), cancel), route);

    // Where a letter can go, nobody but its reader sees the link.
    private static InvitedView Shown(Invitation invitation, MailRoute route) =>
        new(invitation.Person, route.Server is null ? invitation.Link : null);

    private static Task<bool> Change(
        long id,
        PersonFields body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new ChangePerson(id, body), cancel);

    private static Task<int> Switch(
        long id,
        SwitchBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new SwitchPerson(id, body.On, body.To), cancel);

    private static Task<int> End(long id, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new EndSessions(id, null, null), cancel);
}
