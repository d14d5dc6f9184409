using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Shipping;
using Solvenda.Core.Shipping;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Overviews.Kinds;

/// <summary>A shipment as a list shows it.</summary>
internal sealed class ShipmentEntry : IListRow
{
    public long Id { get; init; }
    public bool Active { get; init; }
    public string Number { get; init; } = "";
    public string Order { get; init; } = "";
    public string Buyer { get; init; } = "";
    public string To { get; init; } = "";
    public ShipmentState State { get; init; }
    public string Warehouse { get; init; } = "";
    public string Carrier { get; init; } = "";
    public decimal? Weight { get; init; }
    public DateOnly? Day { get; init; }
    public string Tracking { get; init; } = "";
    public string Wave { get; init; } = "";
    public DateOnly? Delivered { get; init; }
    public string By { get; init; } = "";
}

internal static class Shipments
{
    private static readonly Dictionary<string, string> States = new()
    {
        [nameof(ShipmentState.Picking)] = "being picked",
        [nameof(ShipmentState.Gone)] = "gone",
        [nameof(ShipmentState.Dropped)] = "dropped",
    };

    public static readonly DocumentList<ShipmentEntry> Kind = new()
    {
        Name = "shipments",
        Title = "Shipments",
        One = "shipment",
        Number = s => s.Number,
        Rows = db =>
            from s in db.Shipments
            select new ShipmentEntry
            {
                Id = s.Id,
                Active = s.State == ShipmentState.Picking,
                Number = s.Number,
                Order = s.Order.Number,
                Buyer = s.Order.Dossier.Buyer.Name,
                To = s.DeliverTo,
                State = s.State,
                Warehouse = s.Warehouse,
                Carrier = s.Carrier,
                Weight = s.WeightKg,
                Day = s.Day,
                Tracking = s.Tracking,
                Wave = s.Wave,
                Delivered = s.Delivered,
                By = s.ByName,
            },
        Fields =
        [
            Columns.Text<ShipmentEntry>(s => s.Number, "shipment", type: FieldType.Code),
            Columns.Text<ShipmentEntry>(s => s.Order, "order", inList: false, type: FieldType.Code),
            Columns.Text<ShipmentEntry>(s => s.Buyer, "buyer"),
            Columns.Text<ShipmentEntry>(s => s.To, "to"),
            Columns.State<ShipmentEntry, ShipmentState>(s => s.State, "state", States),
            Columns.Text<ShipmentEntry>(s => s.Warehouse, "from"),
            Columns.Text<ShipmentEntry>(s => s.Carrier, "carrier"),
            Columns.Day<ShipmentEntry>(s => s.Day, "went"),
            Columns.Text<ShipmentEntry>(s => s.Tracking, "tracking", type: FieldType.Code),
            Columns.Day<ShipmentEntry>(s => s.Delivered, "delivered"),
            Columns.Text<ShipmentEntry>(s => s.By, "by", inList: false),
            Columns.Text<ShipmentEntry>(s => s.Wave, "wave", inList: false),
            Columns.Among<ShipmentEntry>("lot", "lot", s => s.Number, Holding.ShipmentsOfLot),
        ],
        Deeds =
        [
            new Deed(
                "send",
                "They go, as asked where nobody said otherwise",
                Rights.Ship,
                DeedTakes.Nothing,
                (one, cancel) => one.RunAsync(new SendShipment(one.Number, AsAsked: true, Seen: null), cancel)
            ),
            new Deed(
                "drop",
                "Drop them",
                Rights.Ship,
                DeedTakes.Reason,
                (one, cancel) => one.RunAsync(new DropShipment(one.Number, one.Given, Seen: null), cancel)
            ),
        ],
    };
}
