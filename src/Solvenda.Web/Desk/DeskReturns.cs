using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Data;

namespace Solvenda.Web.Desk;

/// <summary>Goods that buyers give back, each with whoever has the next step: to allow it, to settle what is
/// here.</summary>
internal static class DeskReturns
{
    public static async Task<List<DeskItem>> OfAsync(SolvendaDb db, Actor me, CancellationToken cancel)
    {
        var (decides, settles) = (Rights.Orders.Allows(me), Rights.Bill.Allows(me));
        if (!decides && !settles)
            return [];
        var rows = await db
            .Returns.Where(r => (decides && r.State == ReturnState.Asked) || (settles && r.State == ReturnState.Back))
            .OrderBy(r => r.Id)
            .Select(r => new
            {
                r.Number,
                r.State,
                r.For,
                r.Reason,
                r.Day,
                Order = r.Order.Number,
                Buyer = r.Order.Dossier.Buyer.Name,
            })
            .ToListAsync(cancel);
        return rows.ConvertAll(r => new DeskItem(
            Urgency.Today,
            "return",
            r.Number,
            $"/orders/{r.Order}",
            r.Buyer,
            r.State == ReturnState.Asked ? "asks to give goods back"
                : r.For == ReturnFor.Credit ? "goods are back, to be credited"
                : "goods are back, to be replaced",
            r.Reason,
            "return",
            r.Day.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc),
            "",
            null,
            r.State == ReturnState.Asked ? "decide" : "settle",
            3
        ));
    }
}
