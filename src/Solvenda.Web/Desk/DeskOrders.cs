using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Web.Desk;

/// <summary>Orders that need somebody: to be confirmed, held, and those whose promise cannot be kept.</summary>
internal static class DeskOrders
{
    public static async Task<List<DeskItem>> OpenAsync(SolvendaDb db, Actor me, CancellationToken cancel)
    {
        var rows = await db
            .Orders.Where(o =>
                (
                    o.Terms == TermsTrack.Open
                    || o.Terms == TermsTrack.Held
                    || (o.Terms == TermsTrack.Confirmed && o.HeldWhy != "" && o.Goods != GoodsTrack.Shipped)
                ) && (o.SellerId == me.PersonId || me.Roles.HasFlag(Roles.Desk))
            )
            .Select(o => new
            {
                o.Number,
                Buyer = o.Dossier.Buyer.Name,
                o.Sheet.Currency,
                o.Sheet.TotalWithTaxMinor,
                o.CreatedAt,
                o.Sheet.PoNumber,
                o.Channel,
                o.Stops,
                o.FirstStop,
                o.HeldWhy,
                o.ConfirmedAt,
                // The one thing that stops it is with somebody else already.
                Waits = o.Stops == 1 && db.Asks.Any(a => a.SheetId == o.SheetId && a.Outcome == AskOutcome.Waiting),
            })
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(o => new DeskItem(
                o.Waits || o.HeldWhy.Length > 0 ? Urgency.WhenThereIsTime : Urgency.AtOnce,
                "order",
                o.Number,
                $"/orders/{o.Number}",
                o.Buyer,
                o.HeldWhy.Length > 0
                    ? $"held: {o.HeldWhy}"
                    : o.Stops switch
                    {
                        0 => o.ConfirmedAt is null ? "ready to confirm" : "changed, and not confirmed anew",
                        1 when o.Waits => "",
                        1 => o.FirstStop,
                        _ => $"{o.Stops} things stop it: {o.FirstStop}",
                    },
                o.Waits ? o.FirstStop
                    : o.PoNumber is { } po ? string.Create(CultureInfo.InvariantCulture, $"their PO {po}")
                    : "no PO number",
                o.Stops == 0 && o.HeldWhy.Length == 0 ? "order" : "order held",
                o.CreatedAt,
                o.Currency,
                Amount.Major(o.TotalWithTaxMinor, o.Currency),
                o.Stops == 0 && o.HeldWhy.Length == 0 ? "confirm" : "check",
                3
            )),
        ];
    }

    /// <summary>What was promised and cannot be kept: the planner's, and whose order it is.</summary>
    public static async Task<List<DeskItem>> LateAsync(SolvendaDb db, Actor me, CancellationToken cancel)
    {
        var all = (me.Roles & (Roles.Planner | Roles.Desk)) != Roles.None;
        var rows = await db
            .Orders.Where(o =>
                o.Terms == TermsTrack.Confirmed
                && o.Goods == GoodsTrack.Waiting
                && o.Late != ""
                && (all || o.SellerId == me.PersonId)
            )
            .Select(o => new
            {
                o.Number,
                Buyer = o.Dossier.Buyer.Name,
                o.Sheet.Currency,
                o.Sheet.TotalWithTaxMinor,
                o.ConfirmedAt,
                o.Late,
                o.Sheet.PoNumber,
            })
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(o => new DeskItem(
                Urgency.Today,
                "order",
                o.Number,
                $"/orders/{o.Number}",
                o.Buyer,
                o.Late,
                o.PoNumber is { } po ? $"their PO {po}" : "",
                "order late",
                o.ConfirmedAt,
                o.Currency,
                Amount.Major(o.TotalWithTaxMinor, o.Currency),
                "look",
                2
            )),
        ];
    }
}
