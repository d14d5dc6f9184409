using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Shipping;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Shipping;

/// <summary>The rows of the file that a carrier gets.</summary>
public static class CarrierRows
{
    /// <param name="which">Of theirs.</param>
    public static async Task<(IReadOnlyList<string> Head, List<IReadOnlyList<string>> Rows)> OfAsync(
        SolvendaDb db,
        string carrier,
        Expression<Func<ShipmentRow, bool>> which,
        DateOnly today,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var typed =
            await db.Carriers.Where(c => c.Code == carrier).Select(c => c.Form).FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such carrier");
        var form = CarrierForm.Of(typed);
        var shipments = await db
            .Shipments.AsNoTracking()
            .Where(s => s.Carrier == carrier)
            .Where(which)
            .OrderBy(s => s.Id)
            .Select(s => new
            {
                Row = s,
                Order = s.Order.Number,
                s.Order.Sheet.PoNumber,
                s.Order.Sheet.Head,
                s.Order.Dossier.Buyer.Name,
                s.Order.Dossier.Buyer.ContactName,
                s.Order.Dossier.Buyer.ContactMail,
            })
            .ToListAsync(cancel);
        return (
            [.. form.Columns.Select(c => c.Head)],
            shipments.ConvertAll(s =>
                form.Row(
                    new CarriedShipment(
                        s.Row.Number,
                        s.Order,
                        s.PoNumber ?? "",
                        s.Name,
                        s.Row.DeliverTo,
                        HeadTerms.DeliverToCountry.In(s.Head) ?? "",
                        s.ContactName ?? "",
                        s.ContactMail ?? "",
                        s.Row.Parcels,
                        s.Row.WeightKg,
                        s.Row.Day ?? today
                    )
                )
            )
        );
    }
}
