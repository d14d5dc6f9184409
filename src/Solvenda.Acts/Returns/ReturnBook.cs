using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Returns;

/// <summary>What went of an order and may come back.</summary>
public static class ReturnBook
{
    /// <summary>Of each line, in the order's unit, what went less what is to come back or did.</summary>
    public static async Task<Dictionary<long, decimal>> LeftAsync(SolvendaDb db, long order, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var went = await (
            from l in db.Set<ShipmentLineRow>()
            join s in db.Shipments on l.ShipmentId equals s.Id
            where s.OrderId == order && s.State == ShipmentState.Gone
            select new { l.LineKey, l.Quantity }
        ).ToListAsync(cancel);
        var back = await (
            from l in db.Set<ReturnLineRow>()
            join r in db.Returns on l.ReturnId equals r.Id
            where r.OrderId == order && r.State != ReturnState.Refused
            select new { l.LineKey, l.Quantity }
        ).ToListAsync(cancel);
        return went.GroupBy(l => l.LineKey)
            .ToDictionary(
                g => g.Key,
                g => g.Sum(l => l.Quantity) - back.Where(b => b.LineKey == g.Key).Sum(b => b.Quantity)
            );
    }

    /// <summary>A return on the version that was seen.</summary>
    internal static async Task<ReturnRow> FindAsync(Work work, string number, long? seen, CancellationToken cancel)
    {
        var row =
            await work
                .Db.Returns.Include(r => r.Lines)
                .Include(r => r.Order)
                .FirstOrDefaultAsync(r => r.Number == number, cancel)
            ?? throw RefusedException.NotFound("such return");
        return seen is null || seen == row.Version
            ? row
            : throw RefusedException.Clash(
                "stale",
                $"{number} was changed meanwhile; what is there now is shown. Nothing was changed.",
                row.Version
            );
    }

    /// <summary>Moves it; refused where the table has no such move.</summary>
    internal static void Move(ReturnRow row, ReturnDoing doing)
    {
        row.State =
            ReturnMoves.Table.After(row.State, doing)
            ?? throw RefusedException.Clash(
                "return_state",
                row.State switch
                {
                    ReturnState.Asked => $"Nobody said yet whether {row.Number} may come back.",
                    ReturnState.Refused => $"{row.Number} was refused; ask anew.",
                    ReturnState.Settled => $"{row.Number} is settled already.",
                    ReturnState.Back => $"The goods of {row.Number} are here already.",
                    _ => $"It was decided already that {row.Number} may come back.",
                }
            );
        row.Version++;
    }
}
