using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Overviews;
using Solvenda.Acts.Piles;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;

namespace Solvenda.Web.Piles;

/// <summary>What of one list lies on a pile.</summary>
/// <param name="Kind">The list: requests, quotes, orders.</param>
/// <param name="Words">What they are called.</param>
public sealed record PilePart(string Kind, string Words, int Count);

/// <param name="Key">By which lists are filtered: pile:key.</param>
/// <param name="Mine">Whether whoever asks may name, share and take it away.</param>
public sealed record PileView(
    string Key,
    string Name,
    string Owner,
    bool Shared,
    bool Mine,
    DateTime CreatedAt,
    IReadOnlyList<PilePart> Parts
);

/// <summary>What is put on a pile, or taken off it.</summary>
/// <param name="Pile">Key; null: a new one.</param>
/// <param name="Name">Of a new one.</param>
/// <param name="Kind">The list that they stand in.</param>
/// <param name="Ids">Keys of their rows.</param>
/// <param name="Filter">In place of ids: everything that fits.</param>
public sealed record OnPile(
    string Kind,
    string? Pile = null,
    string? Name = null,
    bool Shared = false,
    IReadOnlyList<long>? Ids = null,
    string? Filter = null
);

public sealed record PileBody(string Name, bool Shared);

/// <summary>Documents that people put together by hand, to work through them together.</summary>
public static class PileEndpoints
{
    public static void MapPiles(this IEndpointRouteBuilder app)
    {
        var piles = app.MapGroup("/api/piles").WithTags("Piles");
        piles.MapGet("", All).Needs(Rights.Look);
        piles.MapPost("/put", Put).Needs<PutOnPile>();
        piles.MapPost("/take", Take).Needs<TakeOffPile>();
        piles.MapPut("/{key}", Change).Needs<ChangePile>();
        piles.MapDelete("/{key}", Remove).Needs<ChangePile>();
    }

    private static async Task<List<PileView>> All(ClaimsPrincipal user, SolvendaDb db, CancellationToken cancel)
    {
        var me = user.ActorOf();
        var piles = await (
            from p in PileSteps.Of(db, me)
            join o in db.People on p.OwnerId equals o.Id
            orderby p.Name
            select new { Pile = p, Owner = o.Name }
        ).ToListAsync(cancel);
        var ids = piles.ConvertAll(p => p.Pile.Id);
        var parts = (
            await db
                .PileItems.Where(i => ids.Contains(i.PileId))
                .GroupBy(i => new { i.PileId, i.Kind })
                .Select(g => new
                {
                    g.Key.PileId,
                    g.Key.Kind,
                    Count = g.Count(),
                })
                .ToListAsync(cancel)
        ).ToLookup(p => p.PileId);
        return piles.ConvertAll(p => new PileView(
            p.Pile.Key,
            p.Pile.Name,
            p.Owner,
            p.Pile.Shared,
            p.Pile.OwnerId == me.PersonId,
            p.Pile.CreatedAt,
            [.. parts[p.Pile.Id].Select(i => new PilePart(i.Kind, Words(i.Kind, i.Count), i.Count))]
        ));
    }

    private static string Words(string kind, int count) =>
        count == 1 ? ListKinds.Find(kind).One : ListKinds.Find(kind).Title.ToLowerInvariant();

    private static async Task<List<PileView>> Put(
        OnPile body,
        ClaimsPrincipal user,
        SolvendaDb db,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var numbers = await NumbersAsync(body, user, db, cancel);
        await acts.RunAsync(
            user.ActorOf(),
            new PutOnPile(body.Pile, body.Name, body.Shared, body.Kind, [.. numbers]),
            cancel
        );
        return await All(user, db, cancel);
    }

    private static async Task<List<PileView>> Take(
        OnPile body,
        ClaimsPrincipal user,
        SolvendaDb db,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        var numbers = await NumbersAsync(body, user, db, cancel);
        await acts.RunAsync(user.ActorOf(), new TakeOffPile(body.Pile ?? "", body.Kind, [.. numbers]), cancel);
        return await All(user, db, cancel);
    }

    private static async Task<List<PileView>> Change(
        string key,
        PileBody body,
        ClaimsPrincipal user,
        SolvendaDb db,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new ChangePile(key, body.Name, body.Shared, Remove: false), cancel);
        return await All(user, db, cancel);
    }

    private static async Task<List<PileView>> Remove(
        string key,
        ClaimsPrincipal user,
        SolvendaDb db,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new ChangePile(key, "", Shared: false, Remove: true), cancel);
        return await All(user, db, cancel);
    }

    private static async Task<List<string>> NumbersAsync(
        OnPile body,
        ClaimsPrincipal user,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var roles = user.ActorOf().Roles;
        var list = (await ListKinds.SeenAsync(db, body.Kind, roles, cancel)).List;
        var ids = body.Filter is { } filter
            ? await list.FittingAsync(db, roles, filter, PutOnPileAct.Most, cancel)
            : [.. body.Ids ?? []];
        return await list.CalledAsync(db, ids, cancel);
    }
}
