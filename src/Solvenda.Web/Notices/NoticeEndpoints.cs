using System.Runtime.CompilerServices;
using System.Security.Claims;
using System.Threading.Channels;
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

/// <summary>What somebody is told; open pages hear of it by a stream of their own.</summary>
public static class NoticeEndpoints
{
    private const int Most = 30;

    public static void MapNotices(this IEndpointRouteBuilder app)
    {
        var notices = app.MapGroup("/api/notices").WithTags("Notices");
        notices.MapGet("", Get).Needs(Rights.Own);
        notices.MapGet("/stream", Stream).ExcludeFromDescription().Needs(Rights.Own);
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

    // A stream ends after that and is begun anew by the page, so that a session that ended ends it too.
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(10);

    /// <summary>Says, as it happens, that one was told something (server-sent events); what, is asked for.</summary>
    private static IResult Stream(ClaimsPrincipal user, Pulse pulse, IHostApplicationLifetime house, HttpContext http)
    {
        var ends = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, house.ApplicationStopping);
        ends.CancelAfter(Longest);
        http.Response.RegisterForDispose(ends);
        return TypedResults.ServerSentEvents(UntilAsync(pulse, $"notices:{user.ActorOf().PersonId}", ends.Token));
    }

    private static async IAsyncEnumerable<string> UntilAsync(
        Pulse pulse,
        string subject,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        // Several at once are one: the page asks for all that is new.
        var bell = Channel.CreateBounded<bool>(
            new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
        );
        void Hear(IReadOnlyCollection<string> subjects)
        {
            if (subjects.Contains(subject))
                bell.Writer.TryWrite(true);
        }
        pulse.Told += Hear;
        try
        {
            // What came before it began is asked for at once.
            yield return "begun";
            while (true)
            {
                try
                {
                    await bell.Reader.ReadAsync(cancel);
                }
                catch (OperationCanceledException)
                {
                    // The page was closed, the house stops, or it was long enough: the stream simply ends.
                    yield break;
                }
                yield return "told";
            }
        }
        finally
        {
            pulse.Told -= Hear;
        }
    }

    private static Task<int> See(SeenBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new SeeNotices(body.UpTo), cancel);
}
