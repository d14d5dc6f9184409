using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Security;

namespace Solvenda.Web.Records;

/// <summary>A saved view of a list.</summary>
/// <param name="Mine">False for everybody's.</param>
public sealed record SavedView(
    long Id,
    string Name,
    bool Mine,
    bool MayChange,
    string Filter,
    IReadOnlyList<string> Columns,
    string? Sort,
    bool Down
);

/// <param name="ForAll">Everybody's; takes somebody who may change the records.</param>
public sealed record NewView(
    string Name,
    bool ForAll,
    string Filter,
    IReadOnlyList<string> Columns,
    string? Sort = null,
    bool Down = false
);

/// <summary>Saved views: one's own, and everybody's.</summary>
public static class ViewEndpoints
{
    private const int MostViews = 100;

    public static void MapViews(this IEndpointRouteBuilder app)
    {
        var views = app.MapGroup("/api/views/{kind}").WithTags("Records").RequireAuthorization(May.Look);
        views.MapGet("", List);
        views.MapPost("", Save);
        views.MapDelete("/{id:long}", Remove);
    }

    private static async Task<List<SavedView>> List(
        string kind,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        var all = MayForAll(kind, me);
        var rows = await db
            .Views.AsNoTracking()
            .Where(v => v.Kind == kind && (v.OwnerId == null || v.OwnerId == me.PersonId))
            .OrderBy(v => v.OwnerId == null)
            .ThenBy(v => v.Name)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(v => new SavedView(
                v.Id,
                v.Name,
                v.OwnerId is not null,
                v.OwnerId is not null || all,
                v.Filter,
                [.. v.Columns.Split(',', StringSplitOptions.RemoveEmptyEntries)],
                v.Sort,
                v.Down
            )),
        ];
    }

    private static async Task<List<SavedView>> Save(
        string kind,
        NewView body,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        var of = RecordKinds.Find(kind);
        var me = user.ActorOf();
        if (string.IsNullOrWhiteSpace(body.Name) || body.Name.Length > 60)
            throw RefusalException.Bad("name_missing", "A view takes a name of at most 60 letters.", "name");
        if (body.ForAll && !MayForAll(kind, me))
            throw RefusalException.Forbidden(
                $"A view for everybody takes somebody who may change {of.Title.ToLowerInvariant()}."
            );
        return await commands.RunAsync(
            me,
            async work =>
            {
                var owner = body.ForAll ? null : me.PersonId;
                var name = body.Name.Trim();
                var row = await work.Db.Views.FirstOrDefaultAsync(
                    v => v.Kind == kind && v.OwnerId == owner && v.Name == name,
                    cancel
                );
                if (
                    row is null
                    && await work.Db.Views.CountAsync(v => v.Kind == kind && v.OwnerId == owner, cancel) >= MostViews
                )
                    throw RefusalException.Bad(
                        "too_many_lines",
                        $"There are {MostViews} views already; take one away first.",
                        "name"
                    );
                if (row is null)
                    work.Db.Views.Add(
                        row = new ViewRow
                        {
                            Kind = kind,
                            Name = name,
                            OwnerId = owner,
                        }
                    );
                (row.Filter, row.Columns, row.Sort, row.Down) = (
                    body.Filter,
                    string.Join(',', body.Columns),
                    body.Sort,
                    body.Down
                );
                await work.Db.SaveChangesAsync(cancel);
                return await List(kind, user, work.Db, cancel);
            },
            cancel
        );
    }

    private static async Task<NoContent> Remove(
        string kind,
        long id,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        await commands.RunAsync(
            me,
            async work =>
            {
                var row =
                    await work.Db.Views.FirstOrDefaultAsync(
                        v => v.Id == id && v.Kind == kind && (v.OwnerId == null || v.OwnerId == me.PersonId),
                        cancel
                    ) ?? throw RefusalException.NotFound("such view");
                if (row.OwnerId is null && !MayForAll(kind, me))
                    throw RefusalException.Forbidden("That view is everybody's.");
                work.Db.Views.Remove(row);
                return 0;
            },
            cancel
        );
        return TypedResults.NoContent();
    }

    private static bool MayForAll(string kind, Actor me) => (me.Roles & RecordKinds.Find(kind).ChangedBy) != Roles.None;
}
