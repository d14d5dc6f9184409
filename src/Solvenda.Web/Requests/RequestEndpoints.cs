using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Formats;
using Solvenda.Web.Security;

namespace Solvenda.Web.Requests;

/// <summary>
/// Settles one line: item, and quantity or unit where they change. <paramref name="Remember"/>: as this buyer's words
/// from now on.
/// </summary>
/// <param name="ForAll">Remembered for whoever writes it, not for this buyer alone.</param>
public sealed record SettleBody(
    long Version,
    int Line,
    string ItemCode,
    decimal? Quantity,
    string? Unit,
    bool Remember,
    bool ForAll = false
);

/// <summary>
/// Corrects a field of the head: kind, buyer (its id), contact, poNumber, wanted, deliverTo, incoterm, incotermPlace,
/// currency, paymentDays. A date may be in the words of the original.
/// </summary>
/// <param name="Where">Where in the original it stands, if it was chosen there.</param>
public sealed record CorrectBody(long Version, string Field, string Value, EvidenceView? Where = null);

/// <summary>Text chosen in the original: for a line that is there, or for a new one.</summary>
/// <param name="Line">0: a new line.</param>
public sealed record ChooseBody(long Version, int Line, int Part, int Start, int Length);

/// <summary>Splits a line: so much in the first, the rest in the second.</summary>
public sealed record SplitBody(long Version, int Line, decimal First);

/// <summary>Joins a line with the one behind it.</summary>
public sealed record JoinBody(long Version, int Line);

/// <summary>
/// Says what the columns of a table mean: code, buyersCode, gtin, words, quantity, unit, price, priceBase, amount,
/// wanted, note, number. Remembered for this sender; the request is read anew.
/// </summary>
/// <param name="Row">The row that is the head, from 0.</param>
public sealed record SayColumns(long Version, int Part, int Row, IReadOnlyDictionary<int, string> Columns);

/// <summary>Words that nothing explained mean nothing here.</summary>
/// <param name="Start">The first letter of them, in that part.</param>
public sealed record DismissBody(long Version, int Part, int Start);

public sealed record TurnBody(long Version, bool IntoOrder);

/// <summary>Takes what a buyer wants otherwise.</summary>
/// <param name="Lines">Numbers of the lines of the message that are taken.</param>
/// <param name="Day">Whether the day that they name for the whole is taken.</param>
public sealed record TakeChangeBody(long Version, string Order, IReadOnlyList<int> Lines, bool Day);

/// <param name="Reason">As the buyer reads it.</param>
public sealed record RefuseChangeBody(long Version, string Order, string Reason);

public sealed record ChangeNotTaken(string ToldTo);

public sealed record PutAside(long Version, string Reason);

public static class RequestEndpoints
{
    public static void MapRequests(this IEndpointRouteBuilder app)
    {
        var requests = app.MapGroup("/api/requests").WithTags("Requests");
        requests.MapGet("/{number}", Get).Needs(Rights.Look);
        requests
            .MapGet("/{number}/original", Original)
            .Needs(Rights.Look)
            .Produces(200, contentType: "application/octet-stream");
        requests
            .MapGet("/{number}/attachments/{index:int}", Attachment)
            .Needs(Rights.Look)
            .Produces(200, contentType: "application/octet-stream");
        requests.MapPost("/{number}/choose", Choose).Needs<ChooseText>();
        requests.MapPost("/{number}/split", Split).Needs<SplitLine>();
        requests.MapPost("/{number}/join", Join).Needs<JoinLines>();
        requests.MapPost("/{number}/columns", Columns).Needs<NameColumns>();
        requests.MapPost("/{number}/settle", Settle).Needs<SettleLine>();
        requests.MapPost("/{number}/correct", Correct).Needs<CorrectField>();
        requests.MapPost("/{number}/leave-out/{line:int}", LeaveOut).Needs<LeaveOutLine>();
        requests.MapPost("/{number}/dismiss", Dismiss).Needs<DismissLeftOver>();
        requests.MapPost("/{number}/turn", Turn).Needs<TurnRequest>();
        requests.MapGet("/{number}/change", Change).Needs(Rights.Look);
        requests.MapPost("/{number}/take-change", TakeIt).Needs<TakeChange>();
        requests.MapPost("/{number}/refuse-change", RefuseIt).Needs<RefuseChange>();
        requests.MapPost("/{number}/set-aside", SetAside).Needs<SetRequestAside>();
    }

    private static Task<RequestView> Get(string number, SolvendaDb db, CancellationToken cancel) =>
        RequestViews.OfAsync(db, number, cancel);

    /// <summary>
    /// An attachment, or the file itself with -1. A picture is given as what it is, to be shown; everything else only
    /// as bytes.
    /// </summary>
    private static async Task<IResult> Attachment(
        string number,
        int index,
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var raw =
            await db.Requests.Where(r => r.Number == number).Select(r => r.Raw).FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such request");
        var part =
            FileReader.PartOf(raw.Bytes, raw.Filename, index, clock.Today)
            ?? throw RefusedException.NotFound("such attachment");
        return part.Syntax == Syntax.Picture && PictureType(part.Bytes) is { } type
            ? Results.Bytes(part.Bytes, type)
            : Results.File(part.Bytes, "application/octet-stream", part.Name);
    }

    private static string? PictureType(byte[] bytes) =>
        bytes switch
        {
            [0x89, ..] => "image/png",
            [0xFF, 0xD8, ..] => "image/jpeg",
            [(byte)'G', ..] => "image/gif",
            _ => null,
        };

    /// <summary>The raw bytes, as a download; never shown in place, whatever they claim to be.</summary>
    private static async Task<IResult> Original(string number, SolvendaDb db, CancellationToken cancel)
    {
        var raw =
            await db.Requests.Where(r => r.Number == number).Select(r => r.Raw).FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such request");
        return Results.File(raw.Bytes, "application/octet-stream", raw.Filename ?? $"{number}.bin");
    }

    private static async Task<RequestView> ActAsync(
        ActRunner acts,
        ClaimsPrincipal user,
        IAct<string> act,
        SolvendaDb db,
        CancellationToken cancel
    ) => await RequestViews.OfAsync(db, await acts.RunAsync(user.ActorOf(), act, cancel), cancel);

    private static Task<RequestView> Settle(
        string number,
        SettleBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) =>
        ActAsync(
            acts,
            user,
            new SettleLine(
                number,
                body.Version,
                body.Line,
                body.ItemCode,
                body.Quantity,
                body.Unit,
                body.Remember,
                body.ForAll
            ),
            db,
            cancel
        );

    private static Task<RequestView> Correct(
        string number,
        CorrectBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => ActAsync(acts, user, new CorrectField(number, body.Version, body.Field, body.Value, body.Where), db, cancel);

    private static Task<RequestView> Choose(
        string number,
        ChooseBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) =>
        ActAsync(
            acts,
            user,
            new ChooseText(number, body.Version, body.Line, body.Part, body.Start, body.Length),
            db,
            cancel
        );

    private static Task<RequestView> Split(
        string number,
        SplitBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => ActAsync(acts, user, new SplitLine(number, body.Version, body.Line, body.First), db, cancel);

    private static Task<RequestView> Join(
        string number,
        JoinBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => ActAsync(acts, user, new JoinLines(number, body.Version, body.Line), db, cancel);

    private static Task<RequestView> Columns(
        string number,
        SayColumns body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => ActAsync(acts, user, new NameColumns(number, body.Version, body.Part, body.Row, body.Columns), db, cancel);

    private static Task<RequestView> LeaveOut(
        string number,
        int line,
        long version,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => ActAsync(acts, user, new LeaveOutLine(number, version, line), db, cancel);

    private static Task<RequestView> Dismiss(
        string number,
        DismissBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => ActAsync(acts, user, new DismissLeftOver(number, body.Version, body.Part, body.Start), db, cancel);

    private static Task<RequestView> SetAside(
        string number,
        PutAside body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    ) => ActAsync(acts, user, new SetRequestAside(number, body.Version, body.Reason), db, cancel);

    private static Task<ChangeView> Change(
        string number,
        string? order,
        ClaimsPrincipal user,
        SolvendaDb db,
        SheetLoader loader,
        Judge judge,
        CancellationToken cancel
    ) => ChangeViews.OfAsync(db, number, order, user.ActorOf(), loader, judge, cancel);

    private static Task<DocumentRef> TakeIt(
        string number,
        TakeChangeBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        acts.RunAsync(
            user.ActorOf(),
            new TakeChange(number, body.Version, body.Order, [.. body.Lines], body.Day),
            cancel
        );

    private static async Task<ChangeNotTaken> RefuseIt(
        string number,
        RefuseChangeBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) =>
        new(
            await acts.RunAsync(user.ActorOf(), new RefuseChange(number, body.Version, body.Order, body.Reason), cancel)
        );

    private static Task<DocumentRef> Turn(
        string number,
        TurnBody body,
        [FromHeader(Name = "Idempotency-Key")] string? key,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new TurnRequest(number, body.Version, body.IntoOrder), cancel, key);
}
