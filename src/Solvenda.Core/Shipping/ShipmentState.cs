using Solvenda.Core.Documents;

namespace Solvenda.Core.Shipping;

/// <summary>How far a shipment is.</summary>
public enum ShipmentState
{
    /// <summary>Released: it is picked and packed, its goods still lie in the house.</summary>
    Picking,

    /// <summary>It left.</summary>
    Gone,

    /// <summary>Not made after all: what was to go with it waits again.</summary>
    Dropped,
}

/// <summary>What can be done to a shipment.</summary>
public enum ShipmentDoing
{
    /// <summary>Closed, and on its way.</summary>
    Send,

    /// <summary>Put back on the shelves.</summary>
    Drop,
}

/// <summary>The legal moves of shipments.</summary>
public static class ShipmentMoves
{
    /// <summary>All of them.</summary>
    public static readonly MoveTable<ShipmentState, ShipmentDoing> Table = new(
        new Move<ShipmentState, ShipmentDoing>(ShipmentState.Picking, ShipmentDoing.Send, ShipmentState.Gone),
        new Move<ShipmentState, ShipmentDoing>(ShipmentState.Picking, ShipmentDoing.Drop, ShipmentState.Dropped)
    );
}
