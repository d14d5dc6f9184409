using Microsoft.EntityFrameworkCore;
using MimeKit;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Web.Outside;
using Solvenda.Web.Security;

namespace Solvenda.Web.Demo;

/// <summary>A message in the post room: what went out, by mail, by EDI or on paper.</summary>
public sealed record PostListRow(string Name, string Channel, string To, string Subject, DateTime At);

/// <summary>One of them, exactly as it went, and its parts made readable.</summary>
public sealed record PostView(
    string Name,
    string Channel,
    string From,
    string To,
    string Subject,
    DateTime At,
    string Text,
    IReadOnlyList<PostPart> Attachments,
    string Raw
);

public sealed record PostPart(string Name, string ContentType, int Bytes);

public sealed record StepIn(long Id);

/// <param name="Left">Messages of the day that are still to come; 0 where none is played.</param>
public sealed record DayPlayed(int Left);

public sealed record DayBody(bool On);

/// <summary>
/// The doors that only the demo has: stepping in as anybody, and the post room. They are not mapped at all elsewhere.
/// </summary>
public static class DemoEndpoints
{
    public static void MapDemo(this IEndpointRouteBuilder app)
    {
        var demo = app.MapGroup("/api/demo").WithTags("Demo");
        demo.MapGet("/people", People).AllowAnonymous();
        demo.MapPost("/step-in", In).AllowAnonymous();
        demo.MapGet("/day", (DemoDay day) => new DayPlayed(day.Left)).Needs(Rights.Look);
        demo.MapPost(
                "/day",
                (DayBody body, DemoDay day) =>
                {
                    day.Play(body.On);
                    return new DayPlayed(day.Left);
                }
            )
            .Needs(Rights.Write);
        demo.MapGet("/post", Post).Needs(Rights.Look);
        demo.MapGet("/post/{name}", One).Needs(Rights.Look);
        demo.MapGet("/post/{name}/attachment/{at:int}", Attachment)
            .Needs(Rights.Look)
            .Produces(200, contentType: "application/octet-stream");
    }

    private static async Task<List<PersonView>> People(SolvendaDb db, CancellationToken cancel) =>
        [.. (await db.People.AsNoTracking().Where(p => p.Active).ToListAsync(cancel)).Select(SessionEndpoints.ViewOf)];

    private static async Task<SessionView> In(
        StepIn body,
        HttpContext http,
        SolvendaDb db,
        ActRunner acts,
        Seller seller,
        CancellationToken cancel
    )
    {
        var person =
            await db.People.AsNoTracking().FirstOrDefaultAsync(p => p.Id == body.Id && p.Active, cancel)
            ?? throw RefusedException.NotFound("such person");
        await Sessions.BeginAsync(http, acts, person, cancel);
        return new SessionView(SessionEndpoints.ViewOf(person), true, seller.Name);
    }

    private static List<PostListRow> Post(OutsideFolders folders) =>
        [
            .. Directory
                .EnumerateFiles(folders.Post, "*.eml")
                .Select(MailRow)
                .Concat(
                    Directory
                        .EnumerateFiles(folders.EdiOut)
                        .Where(f => !Path.GetFileName(f).StartsWith('.'))
                        .Select(f => new PostListRow(
                            Path.GetFileName(f),
                            "edi",
                            "EDI mailbox",
                            Path.GetFileName(f),
                            File.GetLastWriteTimeUtc(f)
                        ))
                )
                .Concat(
                    Directory
                        .EnumerateFiles(folders.Paper, "*.pdf")
                        .Select(f => new PostListRow(
                            Path.GetFileName(f),
                            "paper",
                            "the printer, for the post",
                            Path.GetFileNameWithoutExtension(f),
                            File.GetLastWriteTimeUtc(f)
                        ))
                )
                .OrderByDescending(p => p.At)
                .Take(200),
        ];

    private static PostListRow MailRow(string file)
    {
        var mail = Load(file);
        return new PostListRow(
            Path.GetFileName(file),
            "mail",
            mail.To.ToString(),
            mail.Subject ?? "",
            File.GetLastWriteTimeUtc(file)
        );
    }

    private static PostView One(string name, OutsideFolders folders)
    {
        var file = FileOf(name, folders);
        var at = File.GetLastWriteTimeUtc(file);
        if (Path.GetExtension(file) == ".pdf")
            return new PostView(
                name,
                "paper",
                "",
                "the printer, for the post",
                Path.GetFileNameWithoutExtension(file),
                at,
                "A letter and its document, printed and posted.",
                [new PostPart(name, "application/pdf", (int)new FileInfo(file).Length)],
                ""
            );
        var raw = File.ReadAllText(file, System.Text.Encoding.Latin1);
        if (Path.GetExtension(file) != ".eml")
            return new PostView(name, "edi", "", "EDI mailbox", name, at, raw, [], raw);
        var m = Load(file);
        return new PostView(
            name,
            "mail",
            m.From.ToString(),
            m.To.ToString(),
            m.Subject ?? "",
            at,
            m.TextBody ?? "",
            [
                .. m
                    .Attachments.OfType<MimePart>()
                    .Select(p => new PostPart(p.FileName ?? "", p.ContentType.MimeType, Bytes(p).Length)),
            ],
            raw
        );
    }

    private static IResult Attachment(string name, int at, OutsideFolders folders)
    {
        if (Path.GetExtension(name) == ".pdf")
            return Results.File(File.ReadAllBytes(FileOf(name, folders)), "application/pdf");
        var part =
            Load(FileOf(name, folders)).Attachments.OfType<MimePart>().ElementAtOrDefault(at)
            ?? throw RefusedException.NotFound("such attachment");
        // Only what this house itself makes is shown in place.
        return part.ContentType.MimeType == "application/pdf"
            ? Results.File(Bytes(part), "application/pdf")
            : Results.File(Bytes(part), "application/octet-stream", part.FileName);
    }

    // Names are compared with what lies in the folders; a path in a name finds nothing.
    private static string FileOf(string name, OutsideFolders folders) =>
        Directory
            .EnumerateFiles(folders.Post)
            .Concat(Directory.EnumerateFiles(folders.EdiOut))
            .Concat(Directory.EnumerateFiles(folders.Paper))
            .FirstOrDefault(f => Path.GetFileName(f) == name)
        ?? throw RefusedException.NotFound("such message");

    private static MimeMessage Load(string file) => MimeMessage.Load(file);

    private static byte[] Bytes(MimePart part)
    {
        using var stream = new MemoryStream();
        part.Content?.DecodeTo(stream);
        return stream.ToArray();
    }
}
