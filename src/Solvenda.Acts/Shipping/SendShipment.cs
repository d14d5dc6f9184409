using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Shipping;

/// <summary>Closes a shipment: it goes, its stock falls, the buyer is told.</summary>
/// <param name="AsAsked">What nobody looked at counts as picked whole.</param>
/// <param name="Seen">Version of the shipment.</param>
public sealed record SendShipment(string Shipment, bool AsAsked, long? Seen) : IAct<string>;

[Leaves(typeof(ShipmentSent), typeof(LinesExtended))]
public sealed class SendShipmentAct(SheetLoader loader, Sending sending) : Act<SendShipment, string>
{
    public override Right Needs => Rights.Ship;

    public override async Task<string> RunAsync(Work work, SendShipment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var shipment = await ShipmentSteps.FindAsync(work, input.Shipment, input.Seen, cancel);
        var open = await loader.OrderAsync(work.Db, shipment.Order.Number, cancel);
        await sending.SendAsync(work, open, shipment, input.AsAsked, cancel);
        return shipment.Number;
    }
}
