using Solvenda.Acts.Orders;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Channels;

/// <summary>What sales channels are told of their orders, as they take it.</summary>
public sealed class SalesChannelAnswers(OutsideFolders folders) : IChannel
{
    public string Name => Confirming.ByChannel;

    public string Words => "what sales channels are told";

    public bool Takes => false;

    public bool Sends(string kind, string to) => kind == Confirming.ByChannel;

    public IAsyncEnumerable<Arrived> TakeAsync(CancellationToken cancel) => AsyncEnumerable.Empty<Arrived>();

    public async Task<Departed> SendAsync(Departing message, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(message);
        await OutsideFolders.WriteWholeAsync(folders.ChannelOut, message.Name, message.Bytes, cancel);
        return Departed.Well;
    }
}
