using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Attachments;
using Solvenda.Acts.Papers;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Documents;

/// <summary>A file of a matter.</summary>
/// <param name="Id">0 for what is no file that was put there: what came in, and what went out.</param>
/// <param name="Path">Where it is looked at.</param>
/// <param name="Kind">inner, buyer, in, or out.</param>
/// <param name="Line">Key of the line that it belongs to; null for all of it.</param>
public sealed record AttachmentView(
    long Id,
    string Kind,
    string Name,
    string Path,
    string ContentType,
    int Bytes,
    long? Line,
    string Who,
    DateTime At
);

/// <param name="ForBuyer">Whether the buyer sees it.</param>
public sealed record ShownTo(bool ForBuyer);

/// <summary>
/// Files of quotes and orders: kept as they came, shown in place only where they are pictures or PDFs, else downloaded.
/// </summary>
public static class AttachmentEndpoints
{
    private const long Largest = 10L * 1024 * 1024;

    public static void MapAttachments(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var of = app.MapGroup("/api/documents/{kind}/{number}/files").WithTags("Documents");
        of.MapGet("", List).Needs(Rights.Look);
        of.MapPost("", Add).Needs<AddAttachment>().WithMetadata(new RequestSizeLimitAttribute(Largest));
        var files = app.MapGroup("/api/files/{file:long}").WithTags("Documents");
        files.MapGet("", Get).Needs(Rights.Look).Produces(200, contentType: "application/octet-stream");
        files.MapPost("/shown", Show).Needs<ShowAttachment>();
        files.MapDelete("", Remove).Needs<RemoveAttachment>();
    }

    private static async Task<List<AttachmentView>> List(
        string kind,
        string number,
        SolvendaDb db,
        SheetLoader loader,
        CancellationToken cancel
    )
    {
        var open = await loader.DocumentAsync(db, new DocumentRef(kind, number), cancel);
        var files = await db
            .Attachments.Where(a => a.DossierId == open.Dossier.Id && (a.Document == number || a.Document == ""))
            .OrderBy(a => a.Id)
            .Select(a => new AttachmentView(
                a.Id,
                a.ForBuyer ? "buyer" : "inner",
                a.Name,
                "/api/files/" + a.Id,
                a.ContentType,
                a.Bytes.Length,
                a.LineKey,
                a.Who,
                a.At
            ))
            .ToListAsync(cancel);
        return [.. files, .. await CameInAsync(db, open.Dossier.Id, cancel), .. await WentOutAsync(db, open, cancel)];
    }

    private static async Task<List<AttachmentView>> CameInAsync(SolvendaDb db, long dossier, CancellationToken cancel)
    {
        var requests = await db
            .Requests.Where(r => r.DossierId == dossier)
            .OrderBy(r => r.Id)
            .Select(r => new
            {
                r.Number,
                r.Channel,
                r.ReceivedAt,
                r.Raw.Bytes.Length,
            })
            .ToListAsync(cancel);
        return requests.ConvertAll(r => new AttachmentView(
            0,
            "in",
            $"{r.Number}, as it came",
            $"/requests/{r.Number}",
            FileTypes.Other,
            r.Length,
            null,
            r.Channel,
            r.ReceivedAt
        ));
    }

    private static async Task<List<AttachmentView>> WentOutAsync(
        SolvendaDb db,
        OpenSheet open,
        CancellationToken cancel
    )
    {
        var quotes = await db
            .Quotes.Where(q => q.Number == open.Subject && q.PrintId != null)
            .OrderBy(q => q.Revision)
            .Select(q => new
            {
                q.Number,
                q.Revision,
                q.SentAt,
                q.SentTo,
            })
            .ToListAsync(cancel);
        return quotes.ConvertAll(q => new AttachmentView(
            0,
            "out",
            $"{q.Number}·{Core.Quoting.Revision.Letter(q.Revision)}, as it was sent",
            $"/api/quotes/{q.Number}/print?revision={q.Revision}",
            "application/pdf",
            0,
            null,
            q.SentTo ?? "",
            q.SentAt ?? default
        ));
    }

    private static async Task<List<AttachmentView>> Add(
        string kind,
        string number,
        string? filename,
        bool? forBuyer,
        long? line,
        HttpRequest http,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        SheetLoader loader,
        CancellationToken cancel
    )
    {
        var body = await RawBody.ReadAsync(http, cancel);
        var add = new AddAttachment(new DocumentRef(kind, number), line, filename, body, forBuyer ?? false);
        await acts.RunAsync(user.ActorOf(), add, cancel);
        return await List(kind, number, db, loader, cancel);
    }

    private static async Task<IResult> Get(long file, SolvendaDb db, CancellationToken cancel)
    {
        var row =
            await db.Attachments.AsNoTracking().FirstOrDefaultAsync(f => f.Id == file, cancel)
            ?? throw RefusedException.NotFound("such file");
        return FileTypes.IsShown(row.ContentType)
            ? Results.File(row.Bytes, row.ContentType)
            : Results.File(row.Bytes, FileTypes.Other, row.Name);
    }

    private static Task<long> Show(
        long file,
        ShownTo body,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    ) => acts.RunAsync(user.ActorOf(), new ShowAttachment(file, body.ForBuyer), cancel);

    private static Task<long> Remove(long file, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new RemoveAttachment(file), cancel);
}
