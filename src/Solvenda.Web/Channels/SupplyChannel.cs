using Solvenda.Acts.Planning;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels;

/// <summary>
/// Purchasing and production: what is asked of them goes out as files; what they say is taken by ArrivalsWorker.
/// </summary>
public sealed class SupplyChannel(OutsideFolders folders) : IChannel
{
    public string Name => AskForStockAct.Kind;

    public string Words => "purchasing and production";

    public bool Takes => false;

    public bool Sends(string kind, string to) => kind == AskForStockAct.Kind;

    public IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel) => AsyncEnumerable.Empty<Arrived>();

    public async Task<Departed> SendAsync(Departing message, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(message);
        await OutsideFolders.WriteWholeAsync(folders.SupplyOut, message.Name, message.Bytes, cancel);
        return Departed.Well;
    }
}
