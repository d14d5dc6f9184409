using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Authorities;
using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Dossiers;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>One column of the table.</summary>
public sealed record AuthorityColumn(string Kind, string Label, LimitUnit Unit, decimal Any);

/// <summary>One cell: what may be decided alone.</summary>
/// <param name="Said">As it stands there: 8 %, any, none.</param>
/// <param name="Later">A limit that begins later, in words; empty for none.</param>
/// <param name="Proposal">Key of one that waits for somebody to agree; null for none.</param>
/// <param name="Proposed">What that one would be, and by whom.</param>
/// <param name="MayAgree">Whether it is for whoever looks to agree.</param>
public sealed record AuthorityCell(
    string Kind,
    decimal? Limit,
    string Said,
    string Later,
    long? Proposal,
    string Proposed,
    bool MayAgree
);

/// <summary>One row: a person, or a machine's key.</summary>
public sealed record AuthorityLine(
    long? Person,
    long? Key,
    string Name,
    string Does,
    long? ReportsTo,
    bool SeesCost,
    IReadOnlyList<AuthorityCell> Cells
);

/// <summary>Days on which somebody is away.</summary>
/// <param name="Gap">What nobody can decide meanwhile; empty where somebody can.</param>
public sealed record AwayView(
    long Id,
    long PersonId,
    string Person,
    DateOnly From,
    DateOnly To,
    string? StandIn,
    string Gap,
    bool Mine
);

/// <summary>Who may decide what alone, who reports to whom, who is away.</summary>
public sealed record AuthorityView(
    IReadOnlyList<AuthorityColumn> Columns,
    IReadOnlyList<AuthorityLine> Lines,
    IReadOnlyList<AwayView> Away,
    IReadOnlyList<SetupChange> Lately,
    bool MaySet,
    bool MayMove
);

/// <summary>Something that was changed in setup lately.</summary>
public sealed record SetupChange(DateTime At, string Who, string Words);

/// <param name="Limit">Null: not at all.</param>
public sealed record LimitBody(
    string Kind,
    decimal? Limit = null,
    long? Person = null,
    long? Key = null,
    DateOnly? From = null
);

public sealed record AgreeBody(bool Yes);

/// <param name="To">Null: they stand at the top.</param>
public sealed record ReportsBody(long Person, long? To = null);

public sealed record AwayBody(long Person, DateOnly From, DateOnly To, long? StandIn = null);

/// <summary>Authority as a table, the reporting line, and stand-ins.</summary>
public static class AuthorityEndpoints
{
    private const int Lately = 12;

    public static void MapAuthority(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/authority", Get).Needs(Rights.SeeSetup);
        setup.MapGet("/authority/try", Try).Needs(Rights.Authority);
        setup.MapPost("/authority", Set).Needs<SetAuthority>();
        setup.MapPost("/authority/{proposal:long}", Agree).Needs<AgreeAuthority>();
        setup.MapPost("/reports-to", Move).Needs<SetReportsTo>();
        setup.MapPost("/away", Away).Needs<SetAway>();
        setup.MapDelete("/away/{id:long}", Back).Needs<EndAway>();
    }

    private static async Task<AuthorityView> Get(
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        var today = clock.Today;
        var deciders = await Deciders.OnAsync(db, today, cancel);
        return new AuthorityView(
            [.. AuthorityKinds.All.Select(k => new AuthorityColumn(k.Code, k.Label, k.Unit, k.Any))],
            await LinesAsync(db, deciders, deciders.People[me.Hand.Person!.Value], today, cancel),
            await AwayAsync(db, deciders, me, today, cancel),
            await LatelyAsync(db, ["authority"], cancel),
            Rights.Authority.Allows(me),
            Rights.Administer.Allows(me)
        );
    }

    private static async Task<List<AuthorityLine>> LinesAsync(
        SolvendaDb db,
        Deciders deciders,
        Decider me,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var people = await db.People.AsNoTracking().Where(p => p.Active).OrderBy(p => p.Id).ToListAsync(cancel);
        var keys = await db.ApiKeys.AsNoTracking().Where(k => k.RevokedAt == null).ToListAsync(cancel);
        // What begins later, and what somebody must still agree to.
        var ahead = await db
            .Authorities.AsNoTracking()
            .Where(a => !a.Holds || a.From > today)
            .OrderBy(a => a.From)
            .ToListAsync(cancel);
        List<AuthorityCell> Cells(Authority authority, long? person, long? key) =>
            [
                .. AuthorityKinds.All.Select(k =>
                    Cell(
                        k,
                        authority,
                        ahead.FindAll(a => a.PersonId == person && a.KeyId == key && a.Kind == k.Code),
                        me
                    )
                ),
            ];
        return
        [
            .. people.Select(p => new AuthorityLine(
                p.Id,
                null,
                p.Name,
                p.Does,
                p.ReportsToId,
                Sight.SeesCost(p.Roles),
                Cells(deciders.People[new PersonId(p.Id)].Authority, p.Id, null)
            )),
            .. keys.Select(k => new AuthorityLine(
                null,
                k.Id,
                k.Name,
                "a machine’s key",
                null,
                k.Scopes.Split(' ').Contains(Rights.CostScope),
                Cells(deciders.Machines.GetValueOrDefault(k.Name) ?? Authority.None, null, k.Id)
            )),
        ];
    }

    private static AuthorityCell Cell(AuthorityKind kind, Authority authority, List<AuthorityRow> ahead, Decider me)
    {
        var later = ahead.Find(w => w.Holds);
        var asked = ahead.Find(w => !w.Holds);
        return new AuthorityCell(
            kind.Code,
            kind.Get(authority),
            kind.Say(kind.Get(authority)),
            later is null ? "" : FormattableString.Invariant($"{kind.Say(later.Limit)} from {later.From:d MMM}"),
            asked?.Id,
            asked is null ? "" : $"{kind.Say(asked.Limit)}, proposed by {asked.GivenByName}",
            asked is not null && asked.PersonId != me.Id.Value && kind.Reaches(kind.Get(me.Authority), asked.Limit)
        );
    }

    private static async Task<List<AwayView>> AwayAsync(
        SolvendaDb db,
        Deciders deciders,
        Actor me,
        DateOnly today,
        CancellationToken cancel
    )
    {
        var rows = await db.Absences.AsNoTracking().Where(a => a.To >= today).OrderBy(a => a.From).ToListAsync(cancel);
        return rows.ConvertAll(a =>
        {
            var person = deciders.People[new PersonId(a.PersonId)];
            var standIn = a.StandInId is { } id ? deciders.People.GetValueOrDefault(new PersonId(id)) : null;
            return new AwayView(
                a.Id,
                a.PersonId,
                person.Name,
                a.From,
                a.To,
                standIn?.Name,
                Gap(person, standIn),
                a.PersonId == me.PersonId || me.Roles.HasFlag(Roles.Admin)
            );
        });
    }

    // What is beyond the stand-in goes past them.
    private static string Gap(Decider person, Decider? standIn)
    {
        var beyond = AuthorityKinds
            .All.Where(k =>
                k.Get(person.Authority) is { } far && !k.Reaches(standIn is null ? null : k.Get(standIn.Authority), far)
            )
            .ToList();
        if (beyond.Count == 0)
            return "";
        return standIn is null
            ? "what they would decide goes a level up in those days"
            : $"what is beyond {standIn.Name}’s own ({string.Join(", ", beyond.Take(3).Select(k => $"{k.Label} {k.Say(k.Get(standIn.Authority))}"))}) goes a level up in those days";
    }

    /// <summary>What was changed about some subjects lately.</summary>
    internal static async Task<List<SetupChange>> LatelyAsync(
        SolvendaDb db,
        IReadOnlyList<string> subjects,
        CancellationToken cancel
    )
    {
        var events = await db
            .Events.AsNoTracking()
            .Where(e => subjects.Contains(e.Subject) && !e.Code.StartsWith("people.signed_"))
            .OrderByDescending(e => e.Id)
            .Take(Lately)
            .ToListAsync(cancel);
        return
        [
            .. from e in events
            from w in EventWords.Of(e)
            select new SetupChange(
                e.At,
                e.Who,
                w.After is { Length: > 0 }
                    ? $"{w.Words}: {(w.Before is null ? "" : $"{w.Before} → ")}{w.After}"
                    : w.Words
            ),
        ];
    }

    private static async Task<LimitTried> Try(
        long person,
        string kind,
        decimal? limit,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        AuthorityKinds.Find(kind) is { } found
            ? await LimitTried.TryAsync(db, new PersonId(person), found, limit, clock.UtcNow, cancel)
            : throw RefusedException.Bad("limit", "There is no such kind of authority.", "kind");

    private static Task<bool> Set(
        LimitBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        acts.RunAsync(
            user.ActorOf(),
            new SetAuthority(body.Person, body.Key, body.Kind, body.Limit, body.From ?? clock.Today),
            cancel
        );

    private static Task<bool> Agree(
        long proposal,
        AgreeBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new AgreeAuthority(proposal, body.Yes), cancel);

    private static Task<bool> Move(ReportsBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new SetReportsTo(body.Person, body.To), cancel);

    private static Task<long> Away(AwayBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new SetAway(body.Person, body.From, body.To, body.StandIn), cancel);

    private static Task<bool> Back(long id, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new EndAway(id), cancel);
}
