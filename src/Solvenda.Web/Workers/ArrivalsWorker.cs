using Solvenda.Acts.Acting;
using Solvenda.Acts.Planning;
using Solvenda.Web.Channels;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Workers;

/// <summary>
/// Takes what purchasing and production lay into their folder: what is to come, and what came. A file that cannot be
/// taken stays where it is, and is told to the administrator.
/// </summary>
public sealed class ArrivalsWorker(
    ActRunner acts,
    OutsideFolders folders,
    ILogger<ArrivalsWorker> log,
    Troubles troubles
) : Worker(Acts.House.Workers.Arrivals, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(500);

    private readonly FolderBox _box = new(folders.SupplyIn, log);

    protected override Task PauseAsync(CancellationToken cancel) => Task.Delay(Pause, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        await foreach (var file in _box.TakeAsync(cancel))
            await TryAsync(
                file.Name,
                async () =>
                {
                    await acts.RunAsync(Actor.House, new TakeArrivals(file.Name, file.Bytes), cancel);
                    await file.Stored();
                },
                cancel
            );
    }
}
