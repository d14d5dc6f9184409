using System.Globalization;
using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Security;

namespace Solvenda.Web.Records;

/// <summary>A field as the form and the list need it.</summary>
public sealed record RecordField(
    string Name,
    string Label,
    FieldType Type,
    bool Required,
    string Hint,
    IReadOnlyList<string> Choices,
    string? Of,
    bool InList,
    bool CanSort,
    bool MayChange,
    bool Seldom
);

/// <summary>A kind of record, for this person.</summary>
public sealed record KindView(
    string Name,
    string Title,
    string One,
    string Calls,
    bool MayChange,
    IReadOnlyList<RecordField> Fields
);

/// <summary>A record made.</summary>
public sealed record RecordMade(long Id);

public sealed record RecordValues(IReadOnlyDictionary<string, string> Values);

/// <param name="Why">Kept in the history.</param>
/// <param name="Values">Fields that change in the same step: the successor of an item that goes.</param>
public sealed record RecordSwitch(bool On, string? Why = null, IReadOnlyDictionary<string, string>? Values = null);

/// <param name="Ids">Which records.</param>
/// <param name="Filter">In place of ids: everything that fits this filter.</param>
/// <param name="Count">How many the person saw to fit it; where it is no longer so many, nothing is changed.</param>
public sealed record RecordBulk(
    IReadOnlyDictionary<string, string> Values,
    IReadOnlyList<long>? Ids = null,
    string? Filter = null,
    int Count = 0
);

/// <summary>What stands at the foot of each column asked for.</summary>
public sealed record RecordFootView(IReadOnlyList<string> Cells);

/// <summary>How many were changed.</summary>
public sealed record RecordBulkDone(int Changed);

public static class RecordEndpoints
{
    private const int MostBulk = 5_000;

    public static void MapRecords(this IEndpointRouteBuilder app)
    {
        var records = app.MapGroup("/api/records").WithTags("Records").RequireAuthorization(May.Look);
        records.MapGet("", Kinds);
        records.MapGet("/{kind}", List);
        records.MapGet("/{kind}/foot", Foot);
        records.MapGet("/{kind}/{id:long}", Get);
        // Who may change is told by the kind; it is looked at in the command.
        records.MapPost("/{kind}", Create);
        records.MapPut("/{kind}/{id:long}", Change);
        records.MapPost("/{kind}/{id:long}/switch", Switch);
        records.MapPost("/{kind}/bulk", Bulk);
    }

    private static List<KindView> Kinds(ClaimsPrincipal user)
    {
        var roles = user.ActorOf().Roles;
        return
        [
            .. RecordKinds.All.Select(k => new KindView(
                k.Name,
                k.Title,
                k.One,
                k.Calls,
                (roles & k.ChangedBy) != Roles.None,
                [
                    .. k.AllFields.Select(f => new RecordField(
                        f.Name,
                        f.Label,
                        f.Type,
                        f.Required,
                        f.Hint,
                        f.Choices,
                        f.Of,
                        f.InList,
                        f.Property is not null,
                        (roles & k.ChangedBy) != Roles.None
                            && !f.ByHouse
                            && (f.OnlyBy == Roles.None || (roles & f.OnlyBy) != Roles.None),
                        k.Seldom.Contains(f.Name)
                    )),
                ]
            )),
        ];
    }

    /// <param name="filter">Words and conditions: rope family:hardware price&gt;5 active:no.</param>
    /// <param name="columns">Names of fields, apart by commas; without it those that the list shows by itself.</param>
    private static Task<RecordPage> List(
        string kind,
        SolvendaDb db,
        CancellationToken cancel,
        string filter = "",
        string? sort = null,
        bool down = false,
        int skip = 0,
        int take = 100,
        string columns = ""
    ) =>
        RecordKinds
            .Find(kind)
            .Store.ListAsync(
                db,
                new RecordQuestion(
                    filter,
                    sort,
                    down,
                    skip,
                    take,
                    columns.Split(',', StringSplitOptions.RemoveEmptyEntries)
                ),
                cancel
            );

    private static async Task<RecordFootView> Foot(
        string kind,
        SolvendaDb db,
        CancellationToken cancel,
        string filter = "",
        string columns = ""
    ) =>
        new(
            await RecordKinds
                .Find(kind)
                .Store.FootAsync(db, filter, columns.Split(',', StringSplitOptions.RemoveEmptyEntries), cancel)
        );

    private static Task<RecordView> Get(string kind, long id, SolvendaDb db, CancellationToken cancel) =>
        RecordKinds.Find(kind).Store.GetAsync(db, id, cancel);

    private static async Task<RecordMade> Create(
        string kind,
        RecordValues body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        var of = Changeable(kind, user);
        return new RecordMade(
            await commands.RunAsync(user.ActorOf(), work => of.Store.CreateAsync(work, body.Values, cancel), cancel)
        );
    }

    private static async Task<RecordView> Change(
        string kind,
        long id,
        RecordValues body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        var of = Changeable(kind, user);
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                await of.Store.ChangeAsync(work, id, Version(ifMatch), body.Values, cancel);
                await work.Db.SaveChangesAsync(cancel);
                return await of.Store.GetAsync(work.Db, id, cancel);
            },
            cancel
        );
    }

    private static async Task<RecordView> Switch(
        string kind,
        long id,
        RecordSwitch body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        var of = Changeable(kind, user);
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var version = Version(ifMatch);
                if (body.Values is { Count: > 0 } values)
                    await of.Store.ChangeAsync(work, id, version++, values, cancel);
                await of.Store.SwitchAsync(work, id, version, body.On, body.Why, cancel);
                await work.Db.SaveChangesAsync(cancel);
                return await of.Store.GetAsync(work.Db, id, cancel);
            },
            cancel
        );
    }

    /// <summary>The same change to many records: all of them or none.</summary>
    private static async Task<RecordBulkDone> Bulk(
        string kind,
        RecordBulk body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        var of = Changeable(kind, user);
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var ids = body.Filter is { } filter
                    ? await of.Store.FittingAsync(work.Db, filter, MostBulk, cancel)
                    : [.. (body.Ids ?? []).Distinct()];
                if (ids.Count > MostBulk)
                    throw RefusalException.Bad(
                        "too_many_lines",
                        $"At most {MostBulk:#,0} records are changed at once; nothing was changed. Narrow the filter, or import a file.",
                        "ids"
                    );
                if (body.Filter is not null && ids.Count != body.Count)
                    throw RefusalException.Clash(
                        "stale",
                        $"{ids.Count:#,0} fit the filter now, not {body.Count:#,0}; nothing was changed. Look again."
                    );
                await of.Store.ChangeAllAsync(work, ids, body.Values, cancel);
                return new RecordBulkDone(ids.Count);
            },
            cancel
        );
    }

    internal static RecordKind Changeable(string kind, ClaimsPrincipal user)
    {
        var of = RecordKinds.Find(kind);
        return (user.ActorOf().Roles & of.ChangedBy) != Roles.None
            ? of
            : throw RefusalException.Forbidden($"{of.Title} are not yours to change.");
    }

    private static long Version(string? ifMatch) =>
        long.TryParse(ifMatch?.Trim('"'), NumberStyles.None, CultureInfo.InvariantCulture, out var seen)
            ? seen
            : throw new RefusalException(
                428,
                "version_missing",
                "A change names the version that it saw, in If-Match."
            );
}
