using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Acts.Shipping;

/// <summary>Packs a shipment: its parcels, what they weigh, and who carries them.</summary>
/// <param name="Carrier">Code of one in use; empty: nobody, it is handed over.</param>
/// <param name="Seen">Version of the shipment.</param>
public sealed record PackShipment(string Shipment, int Parcels, decimal WeightKg, string Carrier, long? Seen)
    : IAct<string>;

[Leaves(typeof(ShipmentPacked))]
public sealed class PackShipmentAct : Act<PackShipment, string>
{
    private const int MostParcels = 999;
    private const decimal MostKg = 100_000m;

    public override Right Needs => Rights.Ship;

    public override async Task<string> RunAsync(Work work, PackShipment input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Parcels is < 1 or > MostParcels)
            throw RefusedException.Bad("parcels", $"From 1 to {MostParcels} parcels.", "parcels");
        if (input.WeightKg is <= 0m or > MostKg)
            throw RefusedException.Bad(
                "weight",
                FormattableString.Invariant($"From a gram to {MostKg:#,0} kg."),
                "weightKg"
            );
        var shipment = await ShipmentSteps.FindAsync(work, input.Shipment, input.Seen, cancel);
        ShipmentSteps.MustBePicked(shipment);
        if (
            input.Carrier.Length > 0
            && !(await Carriers.InUseAsync(work.Db, cancel)).Exists(c => c.Code == input.Carrier)
        )
            throw RefusedException.Bad("carrier_unknown", $"There is no carrier “{input.Carrier}”.", "carrier");
        (shipment.Parcels, shipment.WeightKg) = (input.Parcels, input.WeightKg);
        shipment.Carrier = input.Carrier;
        shipment.Version++;
        work.Leave(
            new ShipmentPacked(shipment.Number, input.Parcels, input.WeightKg),
            shipment.Order.Number,
            shipment.Order.DossierId
        );
        return shipment.Number;
    }
}
