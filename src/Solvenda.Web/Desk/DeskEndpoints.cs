using System.Security.Claims;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ways;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Web.Credit;
using Solvenda.Web.Outside;
using Solvenda.Web.Security;

namespace Solvenda.Web.Desk;

/// <summary>How soon something needs this person.</summary>
public enum Urgency
{
    AtOnce,
    Today,
    WhenThereIsTime,
}

/// <summary>
/// One thing that needs this person, with the reason in words. <paramref name="Reason"/> is what the highlighter marks;
/// <paramref name="Rest"/> stands behind it.
/// </summary>
public sealed record DeskItem(
    Urgency Urgency,
    string Kind,
    string Number,
    string Path,
    string Buyer,
    string Reason,
    string Rest,
    string What,
    DateTime? Since,
    string Currency,
    decimal? Value,
    string Act,
    int Rank
)
{
    /// <summary>Of a request: so much of its value is sure, in percent.</summary>
    public int? Sure { get; init; }
}

/// <summary>Something on the day's hours.</summary>
public sealed record DayMark(DateTime At, string Words, string Rest, string? Path);

public sealed record DeskView(
    DateOnly Today,
    string Person,
    IReadOnlyList<DeskItem> Items,
    IReadOnlyList<DayMark> Day,
    int CameSinceYesterday,
    int TurnedSinceYesterday
)
{
    /// <summary>Of those that came, the ones that went through by themselves.</summary>
    public int ThroughSinceYesterday { get; init; }

    /// <summary>What is read and ready, with nothing left open: to be looked through and taken together.</summary>
    public IReadOnlyList<ReadyItem> Ready { get; init; } = [];

    /// <summary>What came today by each way, the most first.</summary>
    public IReadOnlyList<WayCount> Came { get; init; } = [];
}

/// <summary>A request in which nothing is left open.</summary>
/// <param name="Id">By which it is picked.</param>
/// <param name="Words">What of the buyer's it is: their PO, how many lines.</param>
/// <param name="Says">What checks say of it, though they stop nothing.</param>
public sealed record ReadyItem(
    long Id,
    string Number,
    string Path,
    string Buyer,
    string Words,
    bool IsOrder,
    string Says,
    string Currency,
    decimal? Value,
    string Channel,
    DateTime Since
);

public static class DeskEndpoints
{
    /// <summary>So much stands on a desk; the rest is on its list.</summary>
    internal const int Most = 60;

    public static void MapDesk(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/desk", Get).WithTags("Desk").Needs(Rights.Look);

    private static async Task<DeskView> Get(
        ClaimsPrincipal user,
        SolvendaDb db,
        HouseClock clock,
        CreditLists credit,
        OutsideFolders folders,
        CancellationToken cancel
    )
    {
        var me = user.ActorOf();
        var id = me.PersonId!.Value;
        var items = await ItemsAsync(db, me, clock, credit, folders, cancel);
        var dayStart = clock.UtcNow.Date;
        var followUps = await (
            from f in db.FollowUps
            join d in db.Dossiers on f.DossierId equals d.Id
            where f.PersonId == id && f.DoneAt == null && f.Due >= dayStart && f.Due < dayStart.AddDays(1)
            orderby f.Due
            select new
            {
                f.Due,
                f.Words,
                d.Buyer.Name,
                Quote = db.Quotes.Where(q => q.DossierId == d.Id).Select(q => q.Number).FirstOrDefault(),
            }
        ).ToListAsync(cancel);
        var day = followUps
            .Select(f => new DayMark(f.Due, f.Words, f.Name, f.Quote is null ? null : $"/quotes/{f.Quote}"))
            .ToList();
        day.AddRange(await CutOffsAsync(db, clock, cancel));
        var since = clock.UtcNow.AddDays(-1);
        var came = await db.Requests.CountAsync(r => r.ReceivedAt >= since, cancel);
        var turned = await db.Requests.CountAsync(r => r.ReceivedAt >= since && r.State == RequestState.Turned, cancel);
        return new DeskView(
            clock.Today,
            user.Identity!.Name!,
            [.. items.OrderBy(i => i.Urgency).ThenBy(i => i.Rank).ThenBy(i => i.Since).Take(Most)],
            [.. day.OrderBy(d => d.At)],
            came,
            turned
        )
        {
            ThroughSinceYesterday = await db.Requests.CountAsync(r => r.ReceivedAt >= since && r.Through, cancel),
            Came = await WayBook.CameAsync(db, clock.ToUtc(clock.Today.ToDateTime(TimeOnly.MinValue)), cancel),
            Ready =
                me.Roles.HasFlag(Roles.Desk) || me.Roles.HasFlag(Roles.Seller)
                    ? await DeskRequests.ReadyAsync(db, me, cancel)
                    : [],
        };
    }

    private static async Task<List<DeskItem>> ItemsAsync(
        SolvendaDb db,
        Actor me,
        HouseClock clock,
        CreditLists credit,
        OutsideFolders folders,
        CancellationToken cancel
    )
    {
        var id = me.PersonId!.Value;
        var items = new List<DeskItem>();
        if (me.Roles.HasFlag(Roles.Desk) || me.Roles.HasFlag(Roles.Seller))
        {
            items.AddRange(await DeskRequests.OfAsync(db, me, cancel));
            items.AddRange(await DeskRequests.MissingAsync(db, cancel));
        }
        items.AddRange(await DeskAsks.OfAsync(db, id, clock.UtcNow, cancel));
        if (me.Roles.HasFlag(Roles.Seller) || me.Roles.HasFlag(Roles.Desk))
        {
            items.AddRange(await DeskQuotes.OfAsync(db, me, clock.Today, cancel));
            items.AddRange(await DeskOrders.OpenAsync(db, me, cancel));
        }
        items.AddRange(await DeskOrders.LateAsync(db, me, cancel));
        if (me.Roles.HasFlag(Roles.Planner))
        {
            items.AddRange(await DeskGoods.OfAsync(db, clock.Today, cancel));
            items.AddRange(await DeskStock.OfAsync(db, clock.Today, cancel));
        }
        if (me.Roles.HasFlag(Roles.Billing))
            items.AddRange(await DeskMoney.OfAsync(db, folders, clock.Today, cancel));
        items.AddRange(await DeskReturns.OfAsync(db, me, cancel));
        if (me.Roles.HasFlag(Roles.Credit))
            items.AddRange(DeskCredit.Of(await credit.OfAsync(db, cancel), clock.Today));
        items.AddRange(await DeskRecords.OfAsync(db, id, clock.UtcNow, cancel));
        if (me.Roles.HasFlag(Roles.Admin))
            items.AddRange(await DeskTroubles.OfAsync(db, cancel));
        return items;
    }

    private static async Task<IEnumerable<DayMark>> CutOffsAsync(
        SolvendaDb db,
        HouseClock clock,
        CancellationToken cancel
    ) =>
        (await HouseDays.WarehousesAsync(db, clock.Today, cancel)).Values.Select(w => new DayMark(
            clock.ToUtc(clock.Today.ToDateTime(w.CutOff)),
            $"cut-off {w.Name}",
            "what is confirmed later leaves a day later",
            null
        ));
}
