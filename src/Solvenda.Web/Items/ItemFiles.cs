using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Items;

/// <summary>A picture or a data sheet.</summary>
public sealed record ItemFileView(long Id, string Name, bool IsPicture, int Bytes, string Who, DateTime At);

/// <summary>
/// Pictures and data sheets of items: kept as they came, shown only where they are pictures, else downloaded.
/// </summary>
public static class ItemFiles
{
    private const long Largest = 10L * 1024 * 1024;

    public static void MapItemFiles(this IEndpointRouteBuilder app)
    {
        var files = app.MapGroup("/api/items/{id:long}/files").WithTags("Items").Needs(Rights.Look);
        files.MapGet("", List);
        files.MapPost("", Add).Needs<AddItemFile>().WithMetadata(new RequestSizeLimitAttribute(Largest));
        files.MapGet("/{file:long}", Get).Produces(200, contentType: "application/octet-stream");
        files.MapDelete("/{file:long}", Remove).Needs<RemoveItemFile>();
    }

    private static Task<List<ItemFileView>> List(long id, SolvendaDb db, CancellationToken cancel) =>
        db
            .ItemFiles.Where(f => f.ItemId == id)
            .OrderBy(f => f.Id)
            .Select(f => new ItemFileView(
                f.Id,
                f.Name,
                f.ContentType.StartsWith("image/"),
                f.Bytes.Length,
                f.Who,
                f.At
            ))
            .ToListAsync(cancel);

    private static async Task<List<ItemFileView>> Add(
        long id,
        string? filename,
        HttpRequest http,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var body = await RawBody.ReadAsync(http, cancel);
        await acts.RunAsync(user.ActorOf(), new AddItemFile(id, filename, body), cancel);
        return await List(id, db, cancel);
    }

    private static async Task<IResult> Get(long id, long file, SolvendaDb db, CancellationToken cancel)
    {
        var row =
            await db.ItemFiles.AsNoTracking().FirstOrDefaultAsync(f => f.Id == file && f.ItemId == id, cancel)
            ?? throw RefusedException.NotFound("such file");
        return row.ContentType.StartsWith("image/", StringComparison.Ordinal)
            ? Results.File(row.Bytes, row.ContentType)
            : Results.File(row.Bytes, "application/octet-stream", row.Name);
    }

    private static async Task<NoContent> Remove(
        long id,
        long file,
        ClaimsPrincipal user,
        ActRunner acts,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new RemoveItemFile(id, file), cancel);
        return TypedResults.NoContent();
    }
}
