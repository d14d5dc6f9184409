using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Web.Channels;

namespace Solvenda.Web.Workers;

/// <summary>
/// Takes in what channels bring, through the same door as everything else; each is put away only when it is stored.
/// </summary>
public sealed class ChannelInbox(Intake intake, IEnumerable<IChannel> channels, Troubles troubles)
    : Worker(Acts.House.Workers.Channels, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(500);

    protected override Task PauseAsync(CancellationToken cancel) => Task.Delay(Pause, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        // One way in that is broken closes none of the others.
        foreach (var channel in channels)
            await TryAsync(channel.Name, () => TakeAsync(channel, cancel), cancel);
    }

    private async Task TakeAsync(IChannel channel, CancellationToken cancel)
    {
        await foreach (var arrived in channel.TakeAsync(cancel))
            await TryAsync($"{channel.Name}: {arrived.Name}", () => OneAsync(channel, arrived, cancel), cancel);
    }

    private async Task OneAsync(IChannel channel, Arrived arrived, CancellationToken cancel)
    {
        var message = new TakeIn(channel.Name, arrived.Name, null, arrived.Bytes, $"{channel.Name}:{arrived.Delivery}");
        await intake.StoreAsync(Actor.House, message, cancel);
        arrived.Stored();
    }
}
