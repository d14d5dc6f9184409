using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Portal;
using Solvenda.Acts.Requests;
using Solvenda.Data;
using Solvenda.Web.Requests;
using Solvenda.Web.Security;

namespace Solvenda.Web.Portal;

/// <summary>What a buyer's page says: whose it is, and nothing else. No prices, no orders.</summary>
public sealed record PortalView(string Seller, string Buyer, bool NeedsPoNumber);

/// <summary>What they are told: the number of what they sent.</summary>
public sealed record PortalSent(string Number);

public sealed record PortalKeyView(long Id, string Label, DateTime CreatedAt, DateTime ExpiresAt, bool Holds);

public sealed record PortalKeyBody(string Label, int Days);

/// <param name="Address">Of the page, whole; it is shown once.</param>
public sealed record GivenPortal(string Address, IReadOnlyList<PortalKeyView> Keys);

/// <summary>
/// Pages on which buyers write requests: whoever has the address, for one buyer; it only makes requests, and is ended
/// by us at any time.
/// </summary>
public static class PortalEndpoints
{
    public static void MapPortal(this IEndpointRouteBuilder app)
    {
        var page = app.MapGroup("/api/portal/{secret}").WithTags("Portal").AllowAnonymous();
        page.AddEndpointFilter(OfferEndpoints.MissesAreCounted);
        page.MapGet("", Page);
        page.MapPost("", Send).WithMetadata(new RequestSizeLimitAttribute(TypedForm.LargestBody));
        var keys = app.MapGroup("/api/buyers/{buyer:long}/portal").WithTags("Portal");
        keys.MapGet("", Keys).Needs(Rights.Look);
        keys.MapPost("", Give).Needs<GivePortalKey>();
        keys.MapDelete("/{id:long}", End).Needs<EndPortalKey>();
    }

    private static async Task<PortalView> Page(
        string secret,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var buyer = await PortalKeys.BuyerAsync(db, secret, clock.UtcNow, cancel);
        return new PortalView(seller.Name, buyer.Name, buyer.PoNumberRequired);
    }

    private static async Task<PortalSent> Send(
        string secret,
        HttpRequest http,
        Intake intake,
        Buckets buckets,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var buyer = await PortalKeys.BuyerAsync(db, secret, clock.UtcNow, cancel);
        buckets.Portal(Tokens.Sha256(secret));
        var (typed, form) = await TypedForm.ReadAsync(http, TypedRequest.Portal, cancel);
        // A field that nobody sees: whoever fills it in is no person.
        if (form["website"].ToString().Length > 0)
            throw RefusedException.Bad("portal_robot", "That was filled in by a program; nothing was kept.");
        var taken = await intake.StoreAsync(Actor.House, typed.For(buyer, seller, clock.UtcNow), cancel);
        return new PortalSent(
            await db.Requests.Where(r => r.Id == taken.Request).Select(r => r.Number).FirstAsync(cancel)
        );
    }

    private static async Task<List<PortalKeyView>> Keys(
        long buyer,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var now = clock.UtcNow;
        return await (
            from k in db.PortalKeys
            where k.BuyerId == buyer
            orderby k.Id descending
            select new PortalKeyView(k.Id, k.Label, k.CreatedAt, k.ExpiresAt, k.EndedAt == null && k.ExpiresAt > now)
        ).ToListAsync(cancel);
    }

    private static async Task<GivenPortal> Give(
        long buyer,
        PortalKeyBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        SolvendaOptions options,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        if (options.PublicAddress is not { } root)
            throw RefusedException.Clash(
                "public_address",
                "How buyers reach this house is not set (--public-address); no page was made."
            );
        var given = await acts.RunAsync(user.ActorOf(), new GivePortalKey(buyer, body.Label, body.Days), cancel);
        return new GivenPortal($"{root}/ask/{given.Secret}", await Keys(buyer, db, clock, cancel));
    }

    private static async Task<List<PortalKeyView>> End(
        long buyer,
        long id,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new EndPortalKey(id), cancel);
        return await Keys(buyer, db, clock, cancel);
    }
}
