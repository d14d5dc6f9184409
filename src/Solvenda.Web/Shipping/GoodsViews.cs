using Solvenda.Core.Shipping;

namespace Solvenda.Web.Shipping;

/// <summary>An order whose goods may go, or wait.</summary>
/// <param name="Id">For what is done to many.</param>
/// <param name="To">The town where they go.</param>
/// <param name="Lines">With goods that nobody began with.</param>
/// <param name="Here">Of them those that are all there.</param>
/// <param name="WeightKg">Of what may go; null where something of it was never weighed.</param>
/// <param name="MayGo">Whether something of it goes as the buyer wants it.</param>
/// <param name="Could">Whether something could go though the buyer wants it otherwise.</param>
/// <param name="Why">Why nothing of it may; empty where something may.</param>
/// <param name="Leaves">The day on which the first of it is to be taken from its shelf.</param>
/// <param name="Promised">When the buyer was told that it is there.</param>
public sealed record GoodsRow(
    long Id,
    string Order,
    string Buyer,
    string To,
    string Carrier,
    int Lines,
    int Here,
    decimal? WeightKg,
    bool MayGo,
    bool Could,
    string Why,
    string Rule,
    DateOnly Leaves,
    DateOnly? Promised
);

/// <summary>A carrier and when they come.</summary>
public sealed record CarrierBrief(string Code, string Carries, string CutOff);

/// <summary>A shipment that is being picked.</summary>
/// <param name="Id">For what is done to many.</param>
public sealed record ShipmentBrief(
    long Id,
    string Number,
    string Order,
    string Buyer,
    string Carrier,
    string Wave,
    string ByName,
    int Picks,
    int Picked,
    decimal? WeightKg
);

/// <summary>What may go from a warehouse, and what is on its way out.</summary>
/// <param name="Today">At the house.</param>
/// <param name="Day">Today, or the next day on which it works.</param>
/// <param name="Now">By its clock, "10:20".</param>
/// <param name="NextWave">What is released together next is called so, unless somebody says otherwise.</param>
/// <param name="GoneToday">How many left today.</param>
public sealed record GoodsView(
    IReadOnlyList<string> Warehouses,
    string Warehouse,
    DateOnly Today,
    DateOnly Day,
    string Now,
    IReadOnlyList<CarrierBrief> Carriers,
    IReadOnlyList<GoodsRow> Waiting,
    IReadOnlyList<ShipmentBrief> Picking,
    string NextWave,
    int GoneToday,
    bool MayShip
);

/// <summary>How far the goods of a line are, in the order's unit.</summary>
/// <param name="Key">Of the line.</param>
/// <param name="Here">What lies there for it and could go now.</param>
public sealed record GoodsLineView(
    long Key,
    string Words,
    string Unit,
    decimal Ordered,
    decimal Gone,
    decimal InWork,
    decimal Here,
    DateOnly? Promised
);

/// <summary>A shipment of an order, as its page names it.</summary>
public sealed record ShipmentOfOrder(
    string Number,
    ShipmentState State,
    string Carrier,
    string Tracking,
    string FollowAt,
    DateOnly? Day,
    DateOnly? Delivered
);

/// <summary>The goods of an order: line by line, and its shipments.</summary>
/// <param name="IsFrame">Goods do not go with it, but with what is called off of it.</param>
/// <param name="AtCounter">They are handed over where they lie.</param>
public sealed record OrderGoodsView(
    string Order,
    bool IsFrame,
    bool AtCounter,
    IReadOnlyList<GoodsLineView> Lines,
    IReadOnlyList<ShipmentOfOrder> Shipments
);

/// <summary>Something to be taken from a shelf.</summary>
/// <param name="Line">Key of the order's line that it is for.</param>
/// <param name="Quantity">In stock units.</param>
/// <param name="Picked">Null before somebody looked.</param>
/// <param name="Lots">Which it is of, as it was said; empty before.</param>
/// <param name="LotInFront">The lot that lies in front of its shelf; empty where nobody said.</param>
/// <param name="ForWarehouse">What the order says for the warehouse on that line.</param>
/// <param name="Most">How much may be picked: what the buyer takes beyond what they ordered too.</param>
public sealed record PickView(
    long Line,
    string Bin,
    string Item,
    string Words,
    decimal Quantity,
    decimal? Picked,
    string Unit,
    bool BySerial,
    IReadOnlyList<string> Serials,
    bool ByLot,
    string Lots,
    string LotInFront,
    string ForWarehouse,
    decimal Most
);

/// <summary>A shipment with what is picked for it, in walking order.</summary>
/// <param name="LeavesUnion">Whether papers for customs go with it.</param>
/// <param name="Services">Lines that lie on no shelf and go with it, with how much of each.</param>
public sealed record ShipmentView(
    string Number,
    long Version,
    string Order,
    string Buyer,
    ShipmentState State,
    string Warehouse,
    string Carrier,
    string Wave,
    string DeliverTo,
    string ByName,
    string ForWarehouse,
    IReadOnlyList<PickView> Picks,
    IReadOnlyList<string> Services,
    int Parcels,
    decimal? WeightKg,
    string Tracking,
    string FollowAt,
    DateOnly? Day,
    DateOnly? Delivered,
    bool HasNote,
    bool LeavesUnion,
    bool MayShip
);

public sealed record ReleaseBody(string Order, IReadOnlyList<GoodsBody>? Lines);

/// <summary>So much of a line, in the order's unit.</summary>
/// <param name="Key">Of the line.</param>
public sealed record GoodsBody(long Key, decimal Quantity);

/// <summary>What was picked.</summary>
public sealed record PickBody(IReadOnlyList<PickedBody> Picked, long Seen);

public sealed record PickedBody(
    long Line,
    string Item,
    decimal Picked,
    IReadOnlyList<string>? Serials = null,
    string Lots = ""
);

public sealed record PackBody(int Parcels, decimal WeightKg, string Carrier, long Seen);

public sealed record SendBody(bool AsAsked, long Seen);

public sealed record DropBody(string Reason, long Seen);
