using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Overviews;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Lists;

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
    public static void MapViews(this IEndpointRouteBuilder app)
    {
        var views = app.MapGroup("/api/views/{kind}").WithTags("Lists");
        views.MapGet("", List).Needs(Rights.Look);
        views.MapPost("", Save).Needs<SaveView>();
        views.MapDelete("/{id:long}", Remove).Needs<RemoveView>();
    }

    private static async Task<List<SavedView>> List(
        string kind,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        var all = SaveViewAct.MayForAll(ListKinds.Find(kind), me);
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
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var act = new SaveView(kind, body.Name, body.ForAll, body.Filter, body.Columns, body.Sort, body.Down);
        await acts.RunAsync(user.ActorOf(), act, cancel);
        return await List(kind, user, db, cancel);
    }

    private static async Task<NoContent> Remove(
        string kind,
        long id,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new RemoveView(kind, id), cancel);
        return TypedResults.NoContent();
    }
}
