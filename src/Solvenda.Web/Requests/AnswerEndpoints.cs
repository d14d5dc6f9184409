using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Wordings;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Machines;
using Solvenda.Web.Security;

namespace Solvenda.Web.Requests;

/// <param name="To">A mail address; empty: the one that it came from.</param>
/// <param name="Done">Whether that was all.</param>
public sealed record AnswerBody(long Version, string To, string Subject, string Text, bool Done);

/// <param name="To">Key of the person; null: nobody has it.</param>
public sealed record HandBody(long? To = null);

/// <summary>Words to begin an answer with, filled in for one request.</summary>
public sealed record AnswerTemplate(string Name, string Language, string Subject, string Words);

/// <summary>What can be written to whoever sent a request.</summary>
/// <param name="Language">The one that they are written to in.</param>
public sealed record AnswerChoices(string To, string Subject, string Language, IReadOnlyList<AnswerTemplate> Templates);

/// <param name="IsNew">False where it was there already.</param>
public sealed record TakenFile(string Number, bool IsNew);

/// <summary>Requests in people's hands: brought, handed on, answered.</summary>
public static class AnswerEndpoints
{
    // What somebody drops onto the queue.
    private const string ByFile = "file";

    public static void MapAnswers(this IEndpointRouteBuilder app)
    {
        var requests = app.MapGroup("/api/requests").WithTags("Requests");
        requests.MapGet("/{number}/answers", Choices).Needs(Rights.Write);
        requests.MapPost("/{number}/answers", Answer).Needs<AnswerRequest>();
        requests.MapGet("/hands", Hands).Needs(Rights.Write);
        requests.MapPost("/{number}/hand", Hand).Needs<HandRequest>();
        requests
            .MapPost("/files", TakeFile)
            .Needs<TakeIn>()
            .WithMetadata(new RequestSizeLimitAttribute(MachineEndpoints.LargestBody));
    }

    private static async Task<AnswerChoices> Choices(
        string number,
        SolvendaDb db,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var request =
            await db.Requests.AsNoTracking().Include(r => r.Raw).FirstOrDefaultAsync(r => r.Number == number, cancel)
            ?? throw RefusedException.NotFound("such request");
        var buyer = request.BuyerId is { } id
            ? await db.Buyers.AsNoTracking().FirstOrDefaultAsync(b => b.Id == id, cancel)
            : null;
        var reading = request.Reading.Length > 0 ? ReadingView.FromJson(request.Reading) : null;
        var language = new[] { reading?.Language, buyer?.Language, "en" }.First(l =>
            l is not null && Wording.All.ContainsKey(l)
        )!;
        var name =
            reading?.Contact.Value?.Split(' ')[0]
            ?? buyer?.ContactName?.Split(' ')[0]
            ?? Wording.Of(language)["letter.all"];
        var templates = await db.Templates.AsNoTracking().Where(t => t.Active).OrderBy(t => t.Id).ToListAsync(cancel);
        var subject = request.Subject.StartsWith("Re:", StringComparison.OrdinalIgnoreCase)
            ? request.Subject
            : $"Re: {request.Subject}";
        string Fill(string words) =>
            words
                .Replace("{name}", name, StringComparison.Ordinal)
                .Replace("{number}", request.Number, StringComparison.Ordinal)
                .Replace("{me}", user.Identity!.Name, StringComparison.Ordinal);
        return new AnswerChoices(
            RequestViews.AnswerTo(request),
            subject,
            language,
            [
                .. templates
                    // Theirs first, ours of the same name behind.
                    .OrderBy(t => t.Language != language)
                    .Select(t => new AnswerTemplate(t.Name, t.Language, subject, Fill(t.Words))),
            ]
        );
    }

    /// <summary>Who reads requests, and may have one.</summary>
    private static Task<List<Holder>> Hands(SolvendaDb db, CancellationToken cancel) =>
        db
            .People.Where(p => p.Active && ((p.Roles & Roles.Desk) != 0 || (p.Roles & Roles.Seller) != 0))
            .OrderBy(p => p.Name)
            .Select(p => new Holder(p.Id, p.Name))
            .ToListAsync(cancel);

    private static async Task<RequestView> Answer(
        string number,
        AnswerBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(
            user.ActorOf(),
            new AnswerRequest(number, body.Version, body.To, body.Subject, body.Text, body.Done),
            cancel
        );
        return await RequestViews.OfAsync(db, number, cancel);
    }

    private static async Task<RequestView> Hand(
        string number,
        HandBody body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new HandRequest(number, body.To), cancel);
        return await RequestViews.OfAsync(db, number, cancel);
    }

    /// <summary>A file as somebody drops it onto the queue: bytes as they are, its name beside.</summary>
    private static async Task<TakenFile> TakeFile(
        HttpRequest http,
        string? filename,
        ClaimsPrincipal user,
        Intake intake,
        CancellationToken cancel
    )
    {
        var body = await RawBody.ReadAsync(http, cancel);
        if (body.Length == 0)
            throw RefusedException.Bad("file_empty", "There is nothing in it; nothing was taken.", "file");
        var (request, isNew) = await intake.ReceiveAsync(
            user.ActorOf(),
            new TakeIn(ByFile, filename, http.ContentType, body),
            cancel
        );
        return new TakenFile(request.Number, isNew);
    }
}
