using System.Globalization;
using Solvenda.Core.Calendars;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Shipping;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>What the demo's house shipped, what is being picked, and who carries it.</summary>
internal sealed class DemoGoods(SolvendaDb db, DemoPapers papers)
{
    public const string Post = "Skerry Post";
    public const string Ferry = "Skerrow Ferry";

    private const decimal MostByPost = 70m;

    private long _shipment;

    public void AddCarriers() =>
        db.Carriers.AddRange(
            new CarrierRow
            {
                Code = Post,
                Carries = "parcels",
                Services = "road, express",
                MostKg = MostByPost,
                CutOff = "15:00",
                ByFile = true,
                FollowAt = "https://skerry-post.example/follow/{0}",
                Form =
                    "Reference = shipment; Name = to; Address = address; Country = country; Parcels = parcels; Weight = kg",
            },
            new CarrierRow
            {
                Code = Ferry,
                Carries = "pallets",
                Services = "road, express",
                CutOff = "13:00",
            }
        );

    /// <summary>A shipment of lines of an order.</summary>
    /// <param name="lines">With what each takes from its shelf.</param>
    /// <param name="day">On which it left; null: it is being picked.</param>
    /// <returns>Its number.</returns>
    public string Add(
        OrderRow order,
        string deliverTo,
        IReadOnlyCollection<(SheetLineRow Line, IReadOnlyList<(ItemRow Item, decimal Quantity)> Needs)> lines,
        DateOnly begun,
        DateOnly? day,
        string invoice = ""
    )
    {
        var weight = decimal.Round(lines.SelectMany(l => l.Needs).Sum(n => (n.Item.WeightKg ?? 0m) * n.Quantity), 1);
        var shipment = new ShipmentRow
        {
            Id = ++_shipment,
            Number = $"{order.Number}/1",
            OrderId = order.Id,
            No = 1,
            State = day is null ? ShipmentState.Picking : ShipmentState.Gone,
            Warehouse = DemoStock.Quay,
            Carrier = weight <= MostByPost ? Post : Ferry,
            DeliverTo = deliverTo,
            ByName = "Juno Castellane",
            BegunAt = DemoPapers.At(begun),
            WeightKg = weight,
            Day = day,
            Invoice = invoice,
            Tracking =
                day is not null && weight <= MostByPost
                    ? string.Create(CultureInfo.InvariantCulture, $"SKP{order.Id * 7919 % 10_000_000:0000000}")
                    : "",
            GoneAt = day is { } gone ? DemoPapers.At(gone).AddHours(3) : null,
            Delivered = day is { } left && Later(left, 3) < papers.Today ? Later(left, 3) : null,
        };
        db.Shipments.Add(shipment);
        foreach (var (line, needs) in lines)
        {
            db.Add(
                new ShipmentLineRow
                {
                    ShipmentId = shipment.Id,
                    LineKey = line.Key,
                    Quantity = line.Quantity,
                }
            );
            foreach (var need in needs.GroupBy(n => n.Item.Id))
                db.Add(
                    PickOf(shipment, line.Key, need.First().Item, need.Sum(n => n.Quantity), isGone: day is not null)
                );
        }
        Tell(order, shipment, lines.Select(l => $"{l.Line.Quantity:0.###} {l.Line.Words}"), begun);
        return shipment.Number;
    }

    private ShipmentPickRow PickOf(ShipmentRow shipment, long line, ItemRow item, decimal quantity, bool isGone) =>
        new()
        {
            ShipmentId = shipment.Id,
            LineKey = line,
            ItemId = item.Id,
            Quantity = quantity,
            Picked = isGone ? quantity : null,
            Lots = isGone && item.HasLots ? Lots.Write([new LotPart(LotOf(item.Id), quantity)]) : "",
            Serials = isGone && item.HasSerials ? Serials(quantity) : "",
        };

    // What went was of the lot before the one that lies in front now.
    private string LotOf(long item) => LotOf(item, papers.Today.Year - 1);

    /// <summary>A lot of an item, of a year: L2504A.</summary>
    public static string LotOf(long item, int year) =>
        string.Create(CultureInfo.InvariantCulture, $"L{year % 100:00}{(item % 12) + 1:00}A");

    private int _serial = 1000;

    private string Serials(decimal pieces) =>
        string.Join(
            ' ',
            Enumerable.Range(0, (int)pieces).Select(_ => $"LJ{papers.Today.Year % 100:00}-{++_serial:00000}")
        );

    private void Tell(OrderRow order, ShipmentRow shipment, IEnumerable<string> lines, DateOnly begun)
    {
        var words = lines.ToArray();
        papers.Leave(
            new GoodsReleased(
                shipment.Number,
                shipment.Warehouse,
                shipment.Carrier,
                [.. words],
                GoodsTrack.Waiting,
                GoodsTrack.Picking
            ),
            order.Number,
            order.DossierId,
            DemoPapers.At(begun)
        );
        if (shipment.GoneAt is { } gone)
            papers.Leave(
                new ShipmentSent(
                    shipment.Number,
                    shipment.Carrier,
                    shipment.Tracking,
                    [.. words],
                    [],
                    "",
                    GoodsTrack.Picking,
                    order.Goods
                ),
                order.Number,
                order.DossierId,
                gone
            );
    }

    private static DateOnly Later(DateOnly day, int working) => WorkCalendar.MondayToFriday.Add(day, working);
}
