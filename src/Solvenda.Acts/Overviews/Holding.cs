using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Acts.Overviews;

/// <summary>
/// What lists are filtered by that is not kept on the documents themselves: numbers of those that it holds for.
/// </summary>
internal static class Holding
{
    /// <summary>Orders with a line of an item, by its code or its words.</summary>
    public static IQueryable<string> OrdersOf(SolvendaDb db, string item) =>
        from l in db.SheetLines
        join i in db.Items on l.ItemId equals i.Id
        join o in db.Orders on l.SheetId equals o.SheetId
        where i.Code == item || EF.Functions.Like(i.Code, item + "%") || EF.Functions.Like(i.Words, "%" + item + "%")
        select o.Number;

    /// <summary>Shipments that took something of a lot along.</summary>
    public static IQueryable<string> ShipmentsOfLot(SolvendaDb db, string lot)
    {
        // As lots are kept: "L2408A 12, L2409B 3".
        var named = $", {lot.ToUpperInvariant()} ";
        return from p in db.Set<Data.Rows.ShipmentPickRow>()
            join s in db.Shipments on p.ShipmentId equals s.Id
            where (", " + p.Lots).Contains(named)
            select s.Number;
    }

    /// <summary>Quotes with a line of an item.</summary>
    public static IQueryable<string> QuotesOf(SolvendaDb db, string item) =>
        from l in db.SheetLines
        join i in db.Items on l.ItemId equals i.Id
        join q in db.Quotes on l.SheetId equals q.SheetId
        where i.Code == item || EF.Functions.Like(i.Code, item + "%") || EF.Functions.Like(i.Words, "%" + item + "%")
        select q.Number;

    /// <summary>Documents of a list that lie on a pile, by its key.</summary>
    public static Func<SolvendaDb, string, IQueryable<string>> OnPile(string kind) =>
        (db, key) =>
            from i in db.PileItems
            join p in db.Piles on i.PileId equals p.Id
            where p.Key == key && i.Kind == kind
            select i.Number;
}
