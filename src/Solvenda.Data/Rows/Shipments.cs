using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Shipping;

namespace Solvenda.Data.Rows;

/// <summary>Goods of one order that go together from one warehouse.</summary>
[
    Index(nameof(Number), IsUnique = true),
    Index(nameof(OrderId), nameof(No), IsUnique = true),
    Index(nameof(State), nameof(Warehouse)),
    Index(nameof(State), nameof(Invoice)),
    Index(nameof(Day))
]
public sealed class ShipmentRow
{
    public long Id { get; set; }

    /// <summary>The order's, and which of its shipments: S26-00311/1.</summary>
    public required string Number { get; set; }

    /// <summary>Its number as files and keys say it, which know no slash.</summary>
    public string FileName => Number.Replace('/', '-');
    public long OrderId { get; set; }
    public OrderRow Order { get; set; } = null!;

    /// <summary>From 1.</summary>
    public int No { get; set; }
    public ShipmentState State { get; set; }
    public required string Warehouse { get; set; }

    /// <summary>Code of who carries it; empty where nobody said, or it is handed over.</summary>
    public string Carrier { get; set; } = "";

    /// <summary>What it was released with, to be picked together; empty where it was released alone.</summary>
    public string Wave { get; set; } = "";

    /// <summary>Where it goes, on one line.</summary>
    public string DeliverTo { get; set; } = "";

    /// <summary>Whose hands it is in; empty before somebody began.</summary>
    public string ByName { get; set; } = "";
    public DateTime BegunAt { get; set; }

    /// <summary>The day on which it left; null before.</summary>
    public DateOnly? Day { get; set; }
    public DateTime? GoneAt { get; set; }

    /// <summary>In kilograms: what its goods weigh, and once it is packed what its parcels do; null where nobody
    /// weighed.</summary>
    public decimal? WeightKg { get; set; }

    /// <summary>How many; 0 before they were packed.</summary>
    public int Parcels { get; set; }

    /// <summary>The carrier's number by which it is followed; empty before they gave one.</summary>
    public string Tracking { get; set; } = "";

    /// <summary>What the carrier takes for it, in home currency; null before they said.</summary>
    public long? CostMinor { get; set; }

    /// <summary>The day on which the carrier handed it over; null before.</summary>
    public DateOnly? Delivered { get; set; }

    /// <summary>Number of the invoice that bills it; empty before.</summary>
    public string Invoice { get; set; } = "";

    /// <summary>The delivery note as it went with it; null before.</summary>
    public long? PrintId { get; set; }

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;
    public List<ShipmentLineRow> Lines { get; set; } = [];
    public List<ShipmentPickRow> Picks { get; set; } = [];
}

/// <summary>A line of the order, as far as it goes with a shipment.</summary>
[PrimaryKey(nameof(ShipmentId), nameof(LineKey))]
public sealed class ShipmentLineRow
{
    public long ShipmentId { get; set; }

    /// <summary>Of the order's sheet.</summary>
    public long LineKey { get; set; }

    /// <summary>In the order's unit: what is to go; once it left, what went.</summary>
    public decimal Quantity { get; set; }
}

/// <summary>What is taken from a shelf for a line of a shipment; a bundle is picked by its parts.</summary>
[PrimaryKey(nameof(ShipmentId), nameof(LineKey), nameof(ItemId)), Index(nameof(ItemId))]
public sealed class ShipmentPickRow
{
    public long ShipmentId { get; set; }
    public long LineKey { get; set; }
    public long ItemId { get; set; }

    /// <summary>In stock units: what is to be taken; once it left, what was.</summary>
    public decimal Quantity { get; set; }

    /// <summary>What was there of it; null before somebody looked.</summary>
    public decimal? Picked { get; set; }

    /// <summary>Numbers of the pieces, apart by blanks; empty where the item has none.</summary>
    public string Serials { get; set; } = "";

    /// <summary>Which lots it is of (Core's Lots): "L2408A 12, L2409B 3"; empty where the item has none.</summary>
    public string Lots { get; set; } = "";
}

/// <summary>Who carries goods to buyers.</summary>
[Index(nameof(Code), IsUnique = true)]
public sealed class CarrierRow : IRecordRow
{
    public long Id { get; set; }
    public bool Active { get; set; } = true;

    [ConcurrencyCheckVersion]
    public long Version { get; set; }

    /// <summary>Their name, by which shipments know them.</summary>
    public required string Code { get; set; }

    /// <summary>What they carry, in a word: parcels, pallets.</summary>
    public string Carries { get; set; } = "";

    /// <summary>The freight services that they do, apart by commas; empty: all.</summary>
    public string Services { get; set; } = "";

    /// <summary>The heaviest that they take, in kilograms; null: whatever it weighs.</summary>
    public decimal? MostKg { get; set; }

    /// <summary>When they come, by the warehouse's clock: "15:00".</summary>
    public string CutOff { get; set; } = "15:00";

    /// <summary>The columns of the file that they get (Core's CarrierForm); empty: all there is.</summary>
    public string Form { get; set; } = "";

    /// <summary>Whether they are told of each shipment by a file in their folder, and answer by one.</summary>
    public bool ByFile { get; set; }

    /// <summary>Where a shipment is followed, with {0} for its number; empty for nowhere.</summary>
    public string FollowAt { get; set; } = "";
}
