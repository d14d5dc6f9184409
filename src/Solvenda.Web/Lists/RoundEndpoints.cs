using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Overviews;
using Solvenda.Acts.Rounds;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;

namespace Solvenda.Web.Lists;

/// <summary>One that it was not done to, and why.</summary>
public sealed record DeedRefused(string Number, string Words);

/// <summary>A round over many documents: how far it is, and what came of it.</summary>
/// <param name="Kind">The list that they stand in.</param>
/// <param name="Words">What is done.</param>
/// <param name="Left">Those whose turn has not come, or that were left when it was stopped.</param>
/// <param name="Refused">At most 50 of them.</param>
/// <param name="Over">Whether nothing of it goes on any more.</param>
public sealed record RoundView(
    long Id,
    string Kind,
    string Words,
    int Total,
    int Done,
    int NotDone,
    int Left,
    bool Stopped,
    bool Over,
    IReadOnlyList<DeedRefused> Refused
);

/// <summary>Rounds of whoever asks: how far they are, and stopping them.</summary>
public static class RoundEndpoints
{
    private const int MostRefused = 50;

    public static void MapRounds(this IEndpointRouteBuilder app)
    {
        var rounds = app.MapGroup("/api/rounds").WithTags("Lists");
        rounds.MapGet("", Mine).Needs(Rights.Look);
        rounds.MapGet("/{id:long}", Get).Needs(Rights.Look);
        rounds.MapPost("/{id:long}/stop", Stop).Needs<StopRound>();
    }

    /// <summary>Those that are under way.</summary>
    private static async Task<List<RoundView>> Mine(ClaimsPrincipal user, SolvendaDb db, CancellationToken cancel)
    {
        var me = user.ActorOf().PersonId;
        var ids = await db
            .Rounds.Where(r => r.PersonId == me && r.EndedAt == null)
            .OrderBy(r => r.Id)
            .Select(r => r.Id)
            .ToListAsync(cancel);
        var views = new List<RoundView>();
        foreach (var id in ids)
            views.Add(await ViewAsync(db, id, me, cancel));
        return views;
    }

    private static Task<RoundView> Get(long id, ClaimsPrincipal user, SolvendaDb db, CancellationToken cancel) =>
        ViewAsync(db, id, user.ActorOf().PersonId, cancel);

    private static async Task<RoundView> Stop(
        long id,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        return await ViewAsync(db, await acts.RunAsync(me, new StopRound(id), cancel), me.PersonId, cancel);
    }

    /// <summary>A round as whoever began it sees it; refused to all others.</summary>
    public static async Task<RoundView> ViewAsync(SolvendaDb db, long id, long? me, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var round =
            await db.Rounds.AsNoTracking().FirstOrDefaultAsync(r => r.Id == id && r.PersonId == me, cancel)
            ?? throw RefusedException.NotFound("such round of yours");
        var counts = await db
            .RoundItems.Where(i => i.RoundId == id)
            .GroupBy(i => i.Outcome)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);
        var refused = await db
            .RoundItems.Where(i => i.RoundId == id && i.Outcome == RoundOutcome.Refused)
            .OrderBy(i => i.No)
            .Take(MostRefused)
            .Select(i => new DeedRefused(i.Number, i.Words))
            .ToListAsync(cancel);
        return new RoundView(
            id,
            round.Kind,
            ListKinds.Find(round.Kind).Deeds.First(d => d.Name == round.Deed).Words,
            counts.Values.Sum(),
            counts.GetValueOrDefault(RoundOutcome.Done),
            counts.GetValueOrDefault(RoundOutcome.Refused),
            counts.GetValueOrDefault(RoundOutcome.Waiting),
            round.StoppedAt is not null,
            round.EndedAt is not null,
            refused
        );
    }
}
