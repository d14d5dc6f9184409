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
/// <param name="Of">Number of the quote, where it is another than the link's own, to choose from.</param>
public sealed record AcceptBody(
    string Name,
    string? PoNumber = null,
    IReadOnlyList<long>? Chosen = null,
    string? Of = null
);

/// <param name="Chosen">Keys of the options and alternatives that they would take.</param>
public sealed record ChoiceBody(IReadOnlyList<long> Chosen, string? Of = null);

public sealed record DeclineBody(string Reason, string? Name = null, string? Of = null);

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
        offers.MapGet("/files/{file:long}", File).Produces(200, contentType: "application/octet-stream");
        offers.MapPost("/choice", Choice);
        offers.MapPost("/accept", Accept);
        offers.MapPost("/decline", Decline);
    }

    // Whoever tries links that lead nowhere is slowed down; whoever has a good one is not.
    internal static async ValueTask<object?> MissesAreCounted(
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
        string? of,
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
            await acts.RunAsync(Buyer("the buyer"), new OpenOffer(token, of), cancel);
        return await ViewAsync(db, offers, views, token, of, clock, cancel);
    }

    private static async Task<IResult> Print(
        string token,
        string? of,
        SolvendaDb db,
        Offers offers,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var open = await offers.ByTokenAsync(db, token, clock.Today, cancel, of);
        var print = await db.Prints.AsNoTracking().FirstAsync(p => p.Id == open.Quote!.PrintId, cancel);
        return Results.File(print.Bytes, print.ContentType, print.Name);
    }

    // Only what is for the buyer, of the quotes that the link leads to.
    private static async Task<IResult> File(
        string token,
        long file,
        string? of,
        SolvendaDb db,
        Offers offers,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var open = await offers.ByTokenAsync(db, token, clock.Today, cancel, of);
        var row =
            await db
                .Attachments.AsNoTracking()
                .FirstOrDefaultAsync(a => a.Id == file && a.ForBuyer && a.Document == open.Subject, cancel)
            ?? throw RefusedException.NotFound("such file");
        return Results.File(row.Bytes, row.ContentType, row.Name);
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
        var open = await offers.ByTokenAsync(db, token, clock.Today, cancel, body.Of);
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
        await acts.RunAsync(Buyer(body.Name), new AcceptOffer(token, body.PoNumber, body.Chosen, body.Of), cancel);
        return await ViewAsync(db, offers, views, token, body.Of, clock, cancel);
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
        await acts.RunAsync(Buyer(name ?? "the buyer"), new DeclineOffer(token, body.Reason, name, body.Of), cancel);
        return await ViewAsync(db, offers, views, token, body.Of, clock, cancel);
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
        string? of,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        await views.OfAsync(
            db,
            await offers.ByTokenAsync(db, token, clock.Today, cancel, of),
            new Hand(null, "the buyer"),
            cancel
        );
}
