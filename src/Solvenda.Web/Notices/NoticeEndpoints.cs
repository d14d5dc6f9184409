using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Notices;
using Solvenda.Data;
using Solvenda.Web.Security;

namespace Solvenda.Web.Notices;

/// <summary>Something that one is told.</summary>
public sealed record NoticeView(long Id, string Words, string Link, DateTime At, bool Seen);

/// <summary>One's notices, the newest first.</summary>
public sealed record NoticesView(int Unseen, IReadOnlyList<NoticeView> Notices);

public sealed record SeenBody(long UpTo);

/// <summary>What somebody is told; open pages hear of it by the stream of what changes.</summary>
public static class NoticeEndpoints
{
    private const int Most = 30;

    public static void MapNotices(this IEndpointRouteBuilder app)
    {
        var notices = app.MapGroup("/api/notices").WithTags("Notices");
        notices.MapGet("", Get).Needs(Rights.Own);
        notices.MapPost("/seen", See).Needs<SeeNotices>();
    }

    private static async Task<NoticesView> Get(ClaimsPrincipal user, SolvendaDb db, CancellationToken cancel)
    {
        var mine = db.Notices.AsNoTracking().Where(n => n.PersonId == user.ActorOf().PersonId);
        var newest = await mine.OrderByDescending(n => n.Id)
            .Take(Most)
            .Select(n => new NoticeView(n.Id, n.Words, n.Link, n.At, n.SeenAt != null))
            .ToListAsync(cancel);
        return new NoticesView(await mine.CountAsync(n => n.SeenAt == null, cancel), newest);
    }

    private static Task<int> See(SeenBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new SeeNotices(body.UpTo), cancel);
}
