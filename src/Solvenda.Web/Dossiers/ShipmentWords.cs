using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Web.Dossiers;

/// <summary>Events of shipments in words.</summary>
internal static class ShipmentWords
{
    public static EventWord? Of(IEvent facts) =>
        facts switch
        {
            GoodsReleased e => new(
                $"{e.Shipment} is being picked at {e.Warehouse}",
                null,
                string.Join("; ", e.Lines),
                true
            ),
            GoodsPicked e => new($"picked for {e.Shipment}", null, string.Join("; ", e.Picked)),
            ShipmentPacked e => new(
                FormattableString.Invariant(
                    $"{e.Shipment} packed: {e.Parcels} {(e.Parcels == 1 ? "parcel" : "parcels")}, {e.WeightKg:#,0.##} kg"
                )
            ),
            ShipmentSent e => new(
                $"{e.Shipment} went{(e.Carrier.Length > 0 ? $" with {e.Carrier}" : "")}{Told(e.ToldTo)}",
                e.Stayed.IsEmpty ? null : $"stayed: {string.Join("; ", e.Stayed)}",
                string.Join("; ", e.Lines),
                true
            ),
            ReturnAsked e => new(
                $"{e.Number}: they want to give goods back, for {(e.For == ReturnFor.Credit ? "a credit note" : "a replacement")}: {e.Reason}",
                null,
                string.Join("; ", e.Lines),
                true
            ),
            ReturnDecided e => new(
                $"{e.Number} {(e.Allowed ? "may come back" : "may not come back")}{(e.Words.Length > 0 ? $": {e.Words}" : "")}{Told(e.ToldTo)}"
            ),
            ReturnTaken e => new(
                $"{e.Number} came back{(e.Shelved.IsEmpty ? ", nothing of it to the shelf" : "")}",
                e.Shelved.IsEmpty ? null : $"to the shelf: {string.Join("; ", e.Shelved)}",
                string.Join("; ", e.Lines),
                true
            ),
            ReturnSettled e => new($"{e.Number} is settled by {string.Join(", ", e.By)}", Milestone: true),
            ShipmentDropped e => new($"{e.Shipment} does not go after all", Milestone: true),
            CarrierSaid { Delivered: { } day } e => new(
                FormattableString.Invariant($"{e.Carrier}: {e.Shipment} was handed over on {day:d MMM}"),
                Milestone: true
            ),
            CarrierSaid e => new(
                $"{e.Carrier}: {e.Shipment} is {(e.Tracking.Length > 0 ? e.Tracking : "on its way")}{Told(e.ToldTo)}"
            ),
            _ => null,
        };

    private static string Told(string to) => to.Length > 0 ? $", {to} was told" : "";
}
