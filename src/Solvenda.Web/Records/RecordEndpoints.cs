using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Records;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Web.Dossiers;
using Solvenda.Web.Security;

namespace Solvenda.Web.Records;

/// <summary>A record made.</summary>
public sealed record RecordMade(long Id);

/// <summary>One change of a record.</summary>
public sealed record RecordChange(DateTime At, string Who, string Words, string? Before, string? After, string? Why);

/// <summary>A record: every field that is theirs to see, by its name.</summary>
public sealed record RecordView(
    long Id,
    long Version,
    bool Active,
    string Calls,
    IReadOnlyDictionary<string, string> Values,
    IReadOnlyList<RecordChange> History
);

public sealed record RecordValues(IReadOnlyDictionary<string, string> Values);

/// <param name="Why">Kept in the history.</param>
/// <param name="Values">Fields that change in the same step: the successor of an item that goes.</param>
public sealed record RecordSwitch(bool On, string? Why = null, IReadOnlyDictionary<string, string>? Values = null);

/// <summary>A change that somebody else has to decide on.</summary>
/// <param name="Id">Null for a record that is to be made.</param>
public sealed record RecordAsk(
    IReadOnlyDictionary<string, string> Values,
    string Why,
    long? Id = null,
    bool Urgent = false
);

/// <param name="Ids">Which records.</param>
/// <param name="Filter">In place of ids: everything that fits this filter.</param>
/// <param name="Count">How many the person saw to fit it; where it is no longer so many, nothing is changed.</param>
public sealed record RecordBulk(
    IReadOnlyDictionary<string, string> Values,
    IReadOnlyList<long>? Ids = null,
    string? Filter = null,
    int Count = 0
);

/// <summary>How many were changed.</summary>
public sealed record RecordBulkDone(int Changed);

public static class RecordEndpoints
{
    public static void MapRecords(this IEndpointRouteBuilder app)
    {
        var records = app.MapGroup("/api/records").WithTags("Records");
        records.MapGet("/{kind}/{id:long}", Get).Needs(Rights.Look);
        records.MapPost("/{kind}", Create).Needs<CreateRecord>();
        records.MapPut("/{kind}/{id:long}", Change).Needs<ChangeRecord>();
        records.MapPost("/{kind}/{id:long}/switch", Switch).Needs<SwitchRecord>();
        records.MapPost("/{kind}/ask", Ask).Needs<AskForChange>();
        records.MapPost("/{kind}/bulk", Bulk).Needs<ChangeRecords>();
    }

    private static Task<RecordView> Get(
        string kind,
        long id,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    ) => ViewAsync(db, kind, id, user.ActorOf().Roles, cancel);

    private static async Task<RecordMade> Create(
        string kind,
        RecordValues body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => new(await acts.RunAsync(user.ActorOf(), new CreateRecord(kind, body.Values), cancel, key));

    private static async Task<RecordView> Change(
        string kind,
        long id,
        RecordValues body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        await acts.RunAsync(actor, new ChangeRecord(kind, id, Seen.MustBe(ifMatch), body.Values), cancel);
        return await ViewAsync(db, kind, id, actor.Roles, cancel);
    }

    private static async Task<RecordView> Switch(
        string kind,
        long id,
        RecordSwitch body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var act = new SwitchRecord(kind, id, Seen.MustBe(ifMatch), body.On, body.Why, body.Values);
        await acts.RunAsync(actor, act, cancel);
        return await ViewAsync(db, kind, id, actor.Roles, cancel);
    }

    /// <summary>Asks for a change that is not theirs to make alone.</summary>
    private static async Task<RecordMade> Ask(
        string kind,
        RecordAsk body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        new(
            await acts.RunAsync(
                user.ActorOf(),
                new AskForChange(kind, body.Id, body.Values, body.Why, body.Urgent),
                cancel,
                key
            )
        );

    /// <summary>The same change to many records: all of them or none.</summary>
    private static async Task<RecordBulkDone> Bulk(
        string kind,
        RecordBulk body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var act = new ChangeRecords(kind, body.Values, body.Ids, body.Filter, body.Count);
        return new RecordBulkDone(await acts.RunAsync(user.ActorOf(), act, cancel));
    }

    private static async Task<RecordView> ViewAsync(
        SolvendaDb db,
        string kind,
        long id,
        Roles roles,
        CancellationToken cancel
    )
    {
        var of = (RecordKind)await RecordKinds.Seen(kind, roles).WithOwnAsync(db, cancel);
        var state = await of.Reader.GetAsync(db, roles, id, cancel);
        var subject = Work.SubjectOf(of.Name, id);
        var rows = await db
            .Events.AsNoTracking()
            .Where(e => e.Subject == subject)
            .OrderByDescending(e => e.Id)
            .Take(100)
            .ToListAsync(cancel);
        var hidden = of.AllFields.Where(f => !f.IsSeenBy(roles)).Select(f => f.Label).ToHashSet();
        return new RecordView(
            state.Id,
            state.Version,
            state.Active,
            state.Calls,
            state.Values,
            [
                .. rows.SelectMany(r =>
                    EventWords
                        .Of(r)
                        .Where(w => !hidden.Contains(w.Words))
                        .Select(w => new RecordChange(r.At, r.Who, w.Words, w.Before, w.After, r.Why))
                ),
            ]
        );
    }
}
