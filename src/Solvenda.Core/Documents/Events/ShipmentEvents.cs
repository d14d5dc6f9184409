using System.Collections.Immutable;

namespace Solvenda.Core.Documents.Events;

/// <summary>Goods of an order were released, to be picked and packed.</summary>
/// <param name="Shipment">Its number.</param>
/// <param name="Lines">As they are called, with how much of each.</param>
/// <param name="Carrier">Empty where nobody carries it yet.</param>
[EventCode("shipment.released")]
public sealed record GoodsReleased(
    string Shipment,
    string Warehouse,
    string Carrier,
    ImmutableArray<string> Lines,
    GoodsTrack Before,
    GoodsTrack After
) : IEvent;

/// <summary>What was there of goods that are picked.</summary>
/// <param name="Picked">Item by item, with how much of how much, and its numbers.</param>
[EventCode("shipment.picked")]
public sealed record GoodsPicked(string Shipment, ImmutableArray<string> Picked) : IEvent;

/// <summary>A shipment left the house.</summary>
/// <param name="Lines">As they are called, with how much of each went.</param>
/// <param name="Stayed">What was to go with it and stayed.</param>
/// <param name="ToldTo">Where the buyer was told; empty where they could not be.</param>
[EventCode("shipment.sent")]
public sealed record ShipmentSent(
    string Shipment,
    string Carrier,
    string Tracking,
    ImmutableArray<string> Lines,
    ImmutableArray<string> Stayed,
    string ToldTo,
    GoodsTrack Before,
    GoodsTrack After
) : IEvent;

/// <summary>A shipment was not made after all: what was to go with it waits again.</summary>
[EventCode("shipment.dropped")]
public sealed record ShipmentDropped(string Shipment, GoodsTrack Before, GoodsTrack After) : IEvent;

/// <summary>The parcels of a shipment were weighed and closed.</summary>
[EventCode("shipment.packed")]
public sealed record ShipmentPacked(string Shipment, int Parcels, decimal WeightKg) : IEvent;

/// <summary>The carrier said something of a shipment: its number, what it costs, or that it is there.</summary>
/// <param name="Cost">In home currency; null where nothing was said.</param>
/// <param name="ToldTo">Where the buyer was told; empty where they were not.</param>
[EventCode("shipment.carrier_said")]
public sealed record CarrierSaid(
    string Shipment,
    string Carrier,
    string Tracking,
    decimal? Cost,
    DateOnly? Delivered,
    string ToldTo
) : IEvent;
