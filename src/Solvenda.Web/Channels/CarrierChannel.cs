using Solvenda.Acts.Shipping;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels;

/// <summary>Carriers: what goes with them is told as files; what they say is taken by CarrierWorker.</summary>
public sealed class CarrierChannel(OutsideFolders folders) : IChannel
{
    public string Name => Sending.ByFile;

    public string Words => "carriers";

    public bool Takes => false;

    public bool Sends(string kind, string to) => kind == Sending.ByFile;

    public IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel) => AsyncEnumerable.Empty<Arrived>();

    public async Task<Departed> SendAsync(Departing message, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(message);
        await OutsideFolders.WriteWholeAsync(folders.CarrierOut(message.To), message.Name, message.Bytes, cancel);
        return Departed.Well;
    }
}
