using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Acts.Closing;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Data;
using Solvenda.Web.Documents;
using Solvenda.Web.Security;

namespace Solvenda.Web.Orders;

/// <summary>Lets a stop pass, with the reason.</summary>
/// <param name="Field">Which, where a check found more than one thing.</param>
/// <param name="Until">The last day on which it passes; null: without end, and of credit a fortnight.</param>
public sealed record Waive(string Check, long? Line, string Reason, string? Field = null, DateOnly? Until = null);

/// <param name="Reason">It is kept.</param>
public sealed record OrderWhy(string Reason);

/// <summary>A part that is called off of a frame.</summary>
/// <param name="Release">The buyer's number for it.</param>
/// <param name="Lines">None: all that is left.</param>
public sealed record CallOffBody(string Release = "", DateOnly? Wanted = null, IReadOnlyList<CalledLine>? Lines = null);

/// <param name="Lines">Keys of the lines.</param>
/// <param name="Reason">It is kept.</param>
public sealed record CloseBody(IReadOnlyList<long> Lines, string Reason);

public static class OrderEndpoints
{
    public static void MapOrders(this IEndpointRouteBuilder app)
    {
        var orders = app.MapGroup("/api/orders").WithTags("Orders");
        orders.MapGet("/{number}", Get).Needs(Rights.Look);
        orders.MapPost("/{number}/ask", Ask).Needs<AskApproval>();
        orders.MapPost("/{number}/waive", WaiveIt).Needs<WaiveStop>();
        orders.MapGet("/{number}/confirming", Confirming).Needs(Rights.Look);
        orders.MapPost("/{number}/confirm", Confirm).Needs<ConfirmOrder>();
        orders.MapPost("/{number}/hold", Hold).Needs<HoldOrder>();
        orders.MapPost("/{number}/go-on", GoOn).Needs<GoOnWithOrder>();
        orders.MapPost("/{number}/change", Change).Needs<ChangeOrder>();
        orders.MapPost("/{number}/leave-as-confirmed", Leave).Needs<LeaveAsConfirmed>();
        orders.MapPost("/{number}/cancel", Cancel).Needs<CancelOrder>();
        orders.MapPost("/{number}/open-again", OpenAgain).Needs<OpenOrderAgain>();
        orders.MapPost("/{number}/copy", Copy).Needs<CopyOrder>();
        orders.MapPost("/{number}/call-off", CallOff).Needs<CallOffPart>();
        orders.MapPost("/{number}/close-lines", Close).Needs<CloseLines>();
        orders.MapPost("/{number}/open-lines", OpenLines).Needs<OpenLinesAgain>();
    }

    private static Task<DocumentView> Get(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        DocumentViews views,
        CancellationToken cancel
    ) => views.OfAsync(db, new DocumentRef("order", number), user.ActorOf(), cancel);

    private static Task<DocumentView> Ask(
        string number,
        AskWhy body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) =>
        door.RunAsync(
            user,
            new AskApproval(new DocumentRef("order", number), body.Why, Seen.Of(ifMatch), body.Urgent),
            cancel
        );

    private static Task<DocumentView> WaiveIt(
        string number,
        Waive body,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new WaiveStop(number, body.Check, body.Line, body.Field, body.Reason, body.Until), cancel);

    private static Task<DocumentView> Confirm(
        string number,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new ConfirmOrder(number, Seen.Of(ifMatch)), cancel, key);

    private static Task<ConfirmingView> Confirming(
        string number,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    ) => ConfirmingView.OfAsync(number, user.ActorOf(), db, loader, judge, cancel);

    private static Task<DocumentView> Hold(
        string number,
        OrderWhy body,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new HoldOrder(number, body.Reason), cancel);

    private static Task<DocumentView> GoOn(
        string number,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new GoOnWithOrder(number), cancel);

    private static Task<DocumentView> Change(
        string number,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new ChangeOrder(number), cancel);

    private static Task<DocumentView> Leave(
        string number,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new LeaveAsConfirmed(number), cancel);

    private static Task<DocumentView> Cancel(
        string number,
        OrderWhy body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new CancelOrder(number, body.Reason, Seen.Of(ifMatch)), cancel);

    private static Task<DocumentRef> Copy(
        string number,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new CopyOrder(number), cancel);

    private static Task<DocumentRef> CallOff(
        string number,
        CallOffBody body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        acts.RunAsync(
            user.ActorOf(),
            new CallOffPart(number, body.Release, body.Wanted, [.. body.Lines ?? []]),
            cancel,
            key
        );

    private static Task<DocumentView> Close(
        string number,
        CloseBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new CloseLines(number, [.. body.Lines], body.Reason, Seen.Of(ifMatch)), cancel);

    private static Task<DocumentView> OpenLines(
        string number,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new OpenLinesAgain(number, []), cancel);

    private static Task<DocumentView> OpenAgain(
        string number,
        ClaimsPrincipal user,
        OrderDoor door,
        CancellationToken cancel
    ) => door.RunAsync(user, new OpenOrderAgain(number), cancel);
}

/// <summary>Does something to an order, and shows it as it stands since.</summary>
public sealed class OrderDoor(ActRunner acts, SolvendaDb db, DocumentViews views)
{
    public async Task<DocumentView> RunAsync(
        ClaimsPrincipal user,
        IAct<DocumentRef> act,
        CancellationToken cancel,
        string? key = null
    )
    {
        var actor = user.ActorOf();
        return await views.OfAsync(db, await acts.RunAsync(actor, act, cancel, key), actor, cancel);
    }
}
