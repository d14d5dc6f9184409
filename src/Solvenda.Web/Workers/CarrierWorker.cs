using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Shipping;
using Solvenda.Data;
using Solvenda.Web.Channels;
using Solvenda.Web.Outside;

namespace Solvenda.Web.Workers;

/// <summary>
/// Takes what carriers who are told by file lay into their folders: numbers to follow, what it costs, when it was
/// handed
/// over. A file that cannot be taken stays where it is; rows that cannot are told to the administrator.
/// </summary>
public sealed class CarrierWorker(
    ActRunner acts,
    IDbContextFactory<SolvendaDb> factory,
    OutsideFolders folders,
    ILogger<CarrierWorker> log,
    Troubles troubles
) : Worker(Acts.House.Workers.Carriers, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(1);

    protected override Task PauseAsync(CancellationToken cancel) => Task.Delay(Pause, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var carriers = await db.Carriers.Where(c => c.Active && c.ByFile).Select(c => c.Code).ToListAsync(cancel);
        foreach (var carrier in carriers)
        {
            await foreach (var file in new FolderBox(folders.CarrierIn(carrier), log).TakeAsync(cancel))
                await TryAsync($"{carrier}: {file.Name}", () => OneAsync(carrier, file, cancel), cancel);
        }
    }

    private async Task OneAsync(string carrier, Arrived file, CancellationToken cancel)
    {
        if (file.Problem is { } problem)
            throw new InvalidDataException(problem);
        var answer = await acts.RunAsync(Actor.House, new TakeCarrierFile(carrier, file.Name, file.Bytes), cancel);
        await file.Stored();
        if (!answer.Left.IsEmpty)
            throw new InvalidDataException(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{answer.Left.Length} rows were not taken, the others were; the file lies in done/. {string.Join(' ', answer.Left.Take(5).Select(l => $"Row {l.Row}: {l.Why}."))}"
                )
            );
    }
}
