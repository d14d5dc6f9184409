using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Web.Post;

namespace Solvenda.Web.Desk;

/// <summary>What came and waits: apart, what needs judgement and what is ready.</summary>
internal static class DeskRequests
{
    // Of more than so many nobody looks through each.
    private const int MostReady = 200;

    public static async Task<List<DeskItem>> OfAsync(SolvendaDb db, Actor me, CancellationToken cancel)
    {
        var (mine, all) = (me.PersonId, me.Roles.HasFlag(Roles.Desk));
        var rows = await (
            from r in db.Requests
            join b in db.Buyers on r.BuyerId equals b.Id into found
            from b in found.DefaultIfEmpty()
            join p in db.People on r.HandId equals p.Id into hands
            from p in hands.DefaultIfEmpty()
            where (r.State == RequestState.New && !r.Ready) || r.State == RequestState.NeedsYou
            where all || b.AccountManagerId == mine || r.HandId == mine
            // In the order in which they stand on the desk, which shows no more of them.
            orderby r.HandId != null && r.HandId != mine, r.Kind == ""
                || r.Kind == nameof(MessageKind.Unclear)
                || r.Kind == nameof(MessageKind.Question), r.HandId == mine ? 0 : 1, r.ReceivedAt
            select new
            {
                r.Number,
                Buyer = b == null ? null : b.Name,
                r.FromWords,
                r.Subject,
                r.Kind,
                r.State,
                r.Reason,
                r.Channel,
                r.ReceivedAt,
                r.Currency,
                r.WorthMinor,
                r.SurePercent,
                r.HandId,
                Hand = p == null ? null : p.Name,
            }
        )
            .Take(DeskEndpoints.Most)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(r => new DeskItem(
                UrgencyOf(r.HandId, r.Kind, me),
                "request",
                r.Number,
                $"/requests/{r.Number}",
                r.Buyer ?? (r.FromWords.Length > 0 ? r.FromWords : r.Subject),
                r.Reason.Length > 0 ? r.Reason : "is being priced",
                r.Hand is { } who && r.HandId != me.PersonId ? $"{who} has it" : r.Subject,
                r.Channel,
                r.ReceivedAt,
                r.Currency,
                Value(r.WorthMinor, r.Currency),
                r.Kind == "" ? "look" : "read",
                r.HandId == me.PersonId ? 0 : 1
            )
            {
                Sure = r.SurePercent,
            }),
        ];
    }

    // What somebody else has in hand waits for them.
    private static Urgency UrgencyOf(long? hand, string kind, Actor me) =>
        hand is not null && hand != me.PersonId ? Urgency.WhenThereIsTime
        : kind is "" or nameof(MessageKind.Unclear) or nameof(MessageKind.Question) ? Urgency.Today
        : Urgency.AtOnce;

    /// <summary>What we sent and they did not receive.</summary>
    public static async Task<List<DeskItem>> MissingAsync(SolvendaDb db, CancellationToken cancel) =>
        (await MissingEndpoints.List(db, cancel)).ConvertAll(m => new DeskItem(
            Urgency.AtOnce,
            "missing",
            m.Number,
            "/missing",
            m.To,
            $"did not receive {m.What}",
            m.Why,
            "sent",
            m.SentAt,
            "",
            null,
            "see to it",
            0
        ));

    public static async Task<List<ReadyItem>> ReadyAsync(SolvendaDb db, Actor me, CancellationToken cancel)
    {
        var (mine, all) = (me.PersonId, me.Roles.HasFlag(Roles.Desk));
        var rows = await (
            from r in db.Requests
            join b in db.Buyers on r.BuyerId equals b.Id
            where r.State == RequestState.New && r.Ready
            where all || b.AccountManagerId == mine || r.HandId == mine
            orderby r.ReceivedAt
            select new
            {
                r.Id,
                r.Number,
                b.Name,
                r.Kind,
                r.Brief,
                r.Reason,
                r.Currency,
                r.WorthMinor,
                r.Channel,
                r.ReceivedAt,
            }
        )
            .Take(MostReady)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(r => new ReadyItem(
                r.Id,
                r.Number,
                $"/requests/{r.Number}",
                r.Name,
                r.Brief,
                r.Kind == nameof(MessageKind.Order),
                r.Reason,
                r.Currency,
                Value(r.WorthMinor, r.Currency),
                r.Channel,
                r.ReceivedAt
            )),
        ];
    }

    private static decimal? Value(long? minor, string currency) =>
        minor is { } worth && currency.Length > 0 ? Amount.FromMinor(worth, Currency.Of(currency)).Value : null;
}
