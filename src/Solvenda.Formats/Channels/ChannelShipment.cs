using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Solvenda.Formats.Channels;

/// <summary>A line of what went, as the channel calls it.</summary>
/// <param name="Sku">Their code of it, else ours.</param>
public sealed record ChannelShipped(string Sku, decimal Quantity);

/// <summary>
/// Tells a sales channel that goods of an order of its went: its own id, who carries it, what went. JSON (RFC 8259).
/// </summary>
public static class ChannelShipment
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    /// <param name="id">The channel's own id of the order.</param>
    /// <param name="shipment">Our number of the shipment.</param>
    /// <param name="whole">Whether nothing of the order is still to come.</param>
    public static WrittenMessage Write(
        string id,
        string order,
        string shipment,
        string carrier,
        string tracking,
        ImmutableArray<ChannelShipped> lines,
        bool whole,
        DateTime at
    )
    {
        ArgumentNullException.ThrowIfNull(shipment);
        var told = new
        {
            Id = id,
            Ours = order,
            Shipment = shipment,
            At = at.ToString("O", CultureInfo.InvariantCulture),
            Status = whole ? "shipped" : "part-shipped",
            Carrier = carrier,
            Tracking = tracking,
            Lines = lines,
        };
        return new WrittenMessage(
            $"shipped-{shipment.Replace('/', '-')}.json",
            id,
            Encoding.UTF8.GetBytes(JsonSerializer.Serialize(told, Json))
        );
    }
}
