using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Quotes;
using Solvenda.Core.Documents;
using Solvenda.Data;

namespace Solvenda.Web.Workers;

/// <summary>
/// At the start and every quarter of an hour: lapses quotes whose validity is over, and runs the checks of open orders
/// again.
/// </summary>
public sealed partial class UpkeepWorker(
    ActRunner acts,
    IDbContextFactory<SolvendaDb> factory,
    ILogger<UpkeepWorker> log
) : BackgroundService
{
    private static readonly TimeSpan Between = TimeSpan.FromMinutes(15);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Between);
        try
        {
            do
            {
                await RoundAsync(stoppingToken);
            } while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // Stopping.
        }
    }

    // One order an act, so that nobody who types waits for all of them; one that fails stops none of the others.
    private async Task RoundAsync(CancellationToken cancel)
    {
        await TryAsync(() => acts.RunAsync(Actor.House, new LapseQuotes(), cancel), "lapsing quotes");
        List<long> open;
        await using (var db = await factory.CreateDbContextAsync(cancel))
            open = await db
                .Orders.Where(o => o.Terms == TermsTrack.Open || o.Terms == TermsTrack.Held)
                .Select(o => o.SheetId)
                .ToListAsync(cancel);
        foreach (var sheet in open)
            await TryAsync(() => acts.RunAsync(Actor.House, new RecheckOrder(sheet), cancel), "checking an order");
    }

    private async Task TryAsync(Func<Task> act, string what)
    {
        try
        {
            await act();
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            Failed(log, e, what);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "The upkeep failed at {What}")]
    private static partial void Failed(ILogger logger, Exception exception, string what);
}
