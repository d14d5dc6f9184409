using System.Globalization;
using System.Text;
using System.Text.Json;

namespace Solvenda.Formats.Channels;

/// <summary>
/// Tells a sales channel what became of an order of its beside its goods: that it is cancelled, that something of it is
/// refunded, by which number it is followed. JSON (RFC 8259).
/// </summary>
public static class ChannelNotice
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    /// <param name="id">The channel's own id of the order.</param>
    /// <param name="order">Our number of it.</param>
    public static WrittenMessage Cancelled(string id, string order, DateTime at)
    {
        ArgumentNullException.ThrowIfNull(order);
        return Of(
            $"cancelled-{order}.json",
            id,
            new
            {
                Id = id,
                Ours = order,
                At = Said(at),
                Status = "cancelled",
            }
        );
    }

    /// <summary>By which number a shipment that left is followed at its carrier.</summary>
    /// <param name="id">The channel's own id of the order.</param>
    public static WrittenMessage Followed(
        string id,
        string order,
        string shipment,
        string carrier,
        string tracking,
        DateTime at
    )
    {
        ArgumentNullException.ThrowIfNull(shipment);
        return Of(
            $"followed-{shipment.Replace('/', '-')}.json",
            id,
            new
            {
                Id = id,
                Ours = order,
                Shipment = shipment,
                At = Said(at),
                Status = "followed",
                Carrier = carrier,
                Tracking = tracking,
            }
        );
    }

    /// <param name="id">The channel's own id of the order.</param>
    /// <param name="note">Our number of the credit note.</param>
    /// <param name="amount">With tax, in <paramref name="currency"/>.</param>
    public static WrittenMessage Refunded(
        string id,
        string order,
        string note,
        decimal amount,
        string currency,
        string reason,
        DateTime at
    )
    {
        ArgumentNullException.ThrowIfNull(note);
        return Of(
            $"refunded-{note}.json",
            id,
            new
            {
                Id = id,
                Ours = order,
                Note = note,
                At = Said(at),
                Status = "refunded",
                Amount = amount,
                Currency = currency,
                Reason = reason,
            }
        );
    }

    private static string Said(DateTime at) => at.ToString("O", CultureInfo.InvariantCulture);

    private static WrittenMessage Of(string name, string id, object told) =>
        new(name, id, Encoding.UTF8.GetBytes(JsonSerializer.Serialize(told, Json)));
}
