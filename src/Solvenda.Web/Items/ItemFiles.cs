using System.Security.Claims;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Records;
using Solvenda.Web.Security;

namespace Solvenda.Web.Items;

/// <summary>A picture or a data sheet.</summary>
public sealed record ItemFileView(long Id, string Name, bool IsPicture, int Bytes, string Who, DateTime At);

/// <summary>Pictures and data sheets of items: kept as they came, shown only where they are pictures, else downloaded.</summary>
public static class ItemFiles
{
    private const long Largest = 10L * 1024 * 1024;
    private const int MostFiles = 50;

    public static void MapItemFiles(this IEndpointRouteBuilder app)
    {
        var files = app.MapGroup("/api/items/{id:long}/files").WithTags("Items").RequireAuthorization(May.Look);
        files.MapGet("", List);
        files.MapPost("", Add).WithMetadata(new RequestSizeLimitAttribute(Largest));
        files.MapGet("/{file:long}", Get).Produces(200, contentType: "application/octet-stream");
        files.MapDelete("/{file:long}", Remove);
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
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        RecordEndpoints.Changeable("items", user);
        using var body = new MemoryStream();
        await http.Body.CopyToAsync(body, cancel);
        if (body.Length == 0)
            throw RefusalException.Bad("file_empty", "The file is empty; nothing was kept.", "file");
        return await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                if (!await work.Db.Items.AnyAsync(i => i.Id == id, cancel))
                    throw RefusalException.NotFound("such item");
                if (await work.Db.ItemFiles.CountAsync(f => f.ItemId == id, cancel) >= MostFiles)
                    throw RefusalException.Bad(
                        "too_many_lines",
                        $"An item has at most {MostFiles} files; nothing was kept.",
                        "file"
                    );
                var name = new string([.. Path.GetFileName(filename ?? "").Where(c => !char.IsControl(c))]);
                var bytes = body.ToArray();
                work.Db.ItemFiles.Add(
                    new ItemFileRow
                    {
                        ItemId = id,
                        Name = name.Length == 0 ? "file" : name[..Math.Min(200, name.Length)],
                        ContentType = TypeOf(bytes),
                        Bytes = bytes,
                        Who = work.Actor.Name,
                        At = work.Now,
                    }
                );
                work.History($"items:{id}", null, "record.file", "file", null, name);
                await work.Db.SaveChangesAsync(cancel);
                return await List(id, work.Db, cancel);
            },
            cancel
        );
    }

    private static async Task<IResult> Get(long id, long file, SolvendaDb db, CancellationToken cancel)
    {
        var row =
            await db.ItemFiles.AsNoTracking().FirstOrDefaultAsync(f => f.Id == file && f.ItemId == id, cancel)
            ?? throw RefusalException.NotFound("such file");
        return row.ContentType.StartsWith("image/", StringComparison.Ordinal)
            ? Results.File(row.Bytes, row.ContentType)
            : Results.File(row.Bytes, "application/octet-stream", row.Name);
    }

    private static async Task<NoContent> Remove(
        long id,
        long file,
        ClaimsPrincipal user,
        CommandHandler commands,
        CancellationToken cancel
    )
    {
        RecordEndpoints.Changeable("items", user);
        await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var row =
                    await work.Db.ItemFiles.FirstOrDefaultAsync(f => f.Id == file && f.ItemId == id, cancel)
                    ?? throw RefusalException.NotFound("such file");
                work.Db.ItemFiles.Remove(row);
                work.History($"items:{id}", null, "record.file", "file", row.Name, null);
                return 0;
            },
            cancel
        );
        return TypedResults.NoContent();
    }

    // A picture is what begins as one; vector drawings can hold scripts and are not shown.
    private static string TypeOf(byte[] bytes) =>
        bytes switch
        {
            [0x89, 0x50, 0x4E, 0x47, ..] => "image/png",
            [0xFF, 0xD8, 0xFF, ..] => "image/jpeg",
            [0x52, 0x49, 0x46, 0x46, _, _, _, _, 0x57, 0x45, 0x42, 0x50, ..] => "image/webp",
            _ => "application/octet-stream",
        };
}
