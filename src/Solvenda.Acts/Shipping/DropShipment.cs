using Solvenda.Acts.Acting;
using Solvenda.Acts.Following;
using Solvenda.Acts.Orders;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Shipping;

namespace Solvenda.Acts.Shipping;

/// <summary>Does not make a shipment after all: what was to go with it waits again.</summary>
/// <param name="Seen">Version of the shipment.</param>
public sealed record DropShipment(string Shipment, string Reason, long? Seen) : IAct<string>;

[Leaves(typeof(ShipmentDropped))]
public sealed class DropShipmentAct : Act<DropShipment, string>
{
    public override Right Needs => Rights.Ship;

    public override async Task<string> RunAsync(Work work, DropShipment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var reason = OrderSteps.Reason(input.Reason, "Say why it does not go");
        var shipment = await ShipmentSteps.FindAsync(work, input.Shipment, input.Seen, cancel);
        ShipmentSteps.Move(shipment, ShipmentDoing.Drop);
        var (before, after) = await Follow.GoodsAsync(work, shipment.Order, cancel);
        work.Leave(
            new ShipmentDropped(shipment.Number, before, after),
            shipment.Order.Number,
            shipment.Order.DossierId,
            reason
        );
        return shipment.Number;
    }
}
