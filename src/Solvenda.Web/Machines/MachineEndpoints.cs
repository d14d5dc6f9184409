using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Channels;
using Solvenda.Web.Security;

namespace Solvenda.Web.Machines;

/// <summary>A request as machines see it.</summary>
/// <param name="Names">Number of an earlier request that it repeats or names.</param>
/// <param name="Reason">Why it needs a person, or why it could not be read; empty where neither.</param>
public sealed record InboundView(
    long Id,
    string Number,
    RequestState State,
    string Reason,
    string Channel,
    DateTime ReceivedAt,
    string? Names,
    ReadingView? Reading
);

/// <summary>The machine's door, kept stable: what comes in, what became of it, and prices.</summary>
public static class MachineEndpoints
{
    /// <summary>Larger bodies are refused at the door: 64 MB.</summary>
    public const long LargestBody = 64L * 1024 * 1024;

    public static void MapMachines(this IEndpointRouteBuilder app)
    {
        var v1 = app.MapGroup("/api/v1").WithTags("Machines");
        v1.MapPost("/inbound", Inbound)
            .Needs(Rights.Inbound)
            .WithMetadata(new RequestSizeLimitAttribute(LargestBody))
            .Produces<InboundView>(201)
            .Produces<InboundView>(200);
        v1.MapGet("/requests/{id:long}", Get).Needs(Rights.Read);
        v1.MapPost("/price", PriceDoor.Price).Needs(Rights.Price);
        v1.MapOrdersDoor();
        v1.MapMoneyDoor();
        app.MapGet("/healthz", Health).AllowAnonymous().ExcludeFromDescription();
    }

    private static async Task<IResult> Inbound(
        HttpRequest http,
        string? filename,
        string? channel,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        Intake intake,
        IEnumerable<IChannel> channels,
        CancellationToken cancel
    )
    {
        // A channel that pushes says which it is; it has to be one that there is.
        if (channel is not null && !channels.Any(c => c.Takes && c.Name == channel))
            throw RefusedException.Bad(
                "channel_unknown",
                $"There is no way in “{channel}”; nothing was kept.",
                "channel"
            );
        var body = await RawBody.ReadAsync(http, cancel);
        var message = new TakeIn(channel ?? "machine", filename, http.ContentType, body);
        var (request, isNew) = await intake.ReceiveAsync(user.ActorOf(), message, cancel, key);
        var view = ViewOf(request);
        return isNew ? Results.Created($"/api/v1/requests/{request.Id}", view) : Results.Ok(view);
    }

    private static async Task<InboundView> Get(long id, SolvendaDb db, CancellationToken cancel) =>
        ViewOf(
            await db.Requests.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id, cancel)
                ?? throw RefusedException.NotFound("such request")
        );

    private static InboundView ViewOf(RequestRow r) =>
        new(
            r.Id,
            r.Number,
            r.State,
            r.Reason,
            r.Channel,
            r.ReceivedAt,
            r.Names,
            r.Reading.Length > 0 ? ReadingView.FromJson(r.Reading) : null
        );

    private static async Task<IResult> Health(SolvendaDb db, CancellationToken cancel) =>
        await db.Database.CanConnectAsync(cancel)
            ? Results.Text("ok")
            : Results.Text("the database does not answer", statusCode: 503);
}
