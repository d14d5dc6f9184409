using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Quotes;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Web.Quotes;
using Solvenda.Web.Security;

namespace Solvenda.Web.Portal;

/// <param name="Name">Who says yes.</param>
/// <param name="Chosen">Keys of the options and alternatives that they take; null: what counts as it was sent.</param>
public sealed record AcceptBody(string Name, string? PoNumber = null, IReadOnlyList<long>? Chosen = null);

/// <param name="Chosen">Keys of the options and alternatives that they would take.</param>
public sealed record ChoiceBody(IReadOnlyList<long> Chosen);

public sealed record DeclineBody(string Reason, string? Name = null);

/// <summary>The buyers' door: whoever has the link, and nobody else.</summary>
public static class OfferEndpoints
{
    private const int MostLetters = 100;

    public static void MapOffers(this IEndpointRouteBuilder app)
    {
        var offers = app.MapGroup("/api/offers/{token}")
            .WithTags("Offers")
            .AllowAnonymous()
            .AddEndpointFilter(MissesAreCounted);
        offers.MapGet("", Get);
        offers.MapGet("/print", Print).Produces(200, contentType: "application/pdf");
        offers.MapPost("/choice", Choice);
        offers.MapPost("/accept", Accept);
        offers.MapPost("/decline", Decline);
    }

    // Whoever tries links that lead nowhere is slowed down; whoever has a good one is not.
    private static async ValueTask<object?> MissesAreCounted(
        EndpointFilterInvocationContext context,
        EndpointFilterDelegate next
    )
    {
        try
        {
            return await next(context);
        }
        catch (RefusedException e) when (e.Code == "link_unknown")
        {
            context.HttpContext.RequestServices.GetRequiredService<Buckets>().Missed(context.HttpContext);
            throw;
        }
    }

    private static async Task<OfferView> Get(
        string token,
        HttpContext http,
        ActRunner acts,
        SolvendaDb db,
        Offers offers,
        OfferViews views,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        // Somebody of the house looking at the page is not the buyer opening it.
        if (http.User.Identity?.IsAuthenticated != true)
            await acts.RunAsync(Buyer("the buyer"), new OpenOffer(token), cancel);
        return await ViewAsync(db, offers, views, token, clock, cancel);
    }

    private static async Task<IResult> Print(
        string token,
        SolvendaDb db,
        Offers offers,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var open = await offers.ByTokenAsync(db, token, clock.Today, cancel);
        var print = await db.Prints.AsNoTracking().FirstAsync(p => p.Id == open.Quote!.PrintId, cancel);
        return Results.File(print.Bytes, print.ContentType, print.Name);
    }

    // What they would accept with that choice; nothing is kept of it.
    private static async Task<OfferView> Choice(
        string token,
        ChoiceBody body,
        SolvendaDb db,
        Offers offers,
        OfferViews views,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var open = await offers.ByTokenAsync(db, token, clock.Today, cancel);
        Offers.MustBeOpen(open, clock.Today);
        Choosing.Take(open, body.Chosen);
        return await views.OfAsync(db, open, new Hand(null, "the buyer"), cancel);
    }

    private static async Task<OfferView> Accept(
        string token,
        AcceptBody body,
        ActRunner acts,
        SolvendaDb db,
        Offers offers,
        OfferViews views,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(Buyer(body.Name), new AcceptOffer(token, body.PoNumber, body.Chosen), cancel);
        return await ViewAsync(db, offers, views, token, clock, cancel);
    }

    private static async Task<OfferView> Decline(
        string token,
        DeclineBody body,
        ActRunner acts,
        SolvendaDb db,
        Offers offers,
        OfferViews views,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var name = string.IsNullOrWhiteSpace(body.Name) ? null : Buyer(body.Name).Name;
        await acts.RunAsync(Buyer(name ?? "the buyer"), new DeclineOffer(token, body.Reason, name), cancel);
        return await ViewAsync(db, offers, views, token, clock, cancel);
    }

    private static Actor Buyer(string name)
    {
        var plain = name.Trim();
        return Actor.Buyer(plain[..Math.Min(plain.Length, MostLetters)]);
    }

    private static async Task<OfferView> ViewAsync(
        SolvendaDb db,
        Offers offers,
        OfferViews views,
        string token,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        await views.OfAsync(
            db,
            await offers.ByTokenAsync(db, token, clock.Today, cancel),
            new Hand(null, "the buyer"),
            cancel
        );
}
