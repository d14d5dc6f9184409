using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Ledger;
using Solvenda.Acts.Orders;
using Solvenda.Acts.Quotes;
using Solvenda.Core.Documents;
using Solvenda.Data;

namespace Solvenda.Web.Workers;

/// <summary>
/// At the start and every quarter of an hour: lapses quotes whose validity is over, and runs the checks of open orders
/// again, and looks whether what confirmed ones were promised can still be kept.
/// </summary>
public sealed class UpkeepWorker(
    ActRunner acts,
    IDbContextFactory<SolvendaDb> factory,
    TimeProvider time,
    Troubles troubles
) : Worker(Acts.House.Workers.Upkeep, troubles)
{
    private static readonly TimeSpan Between = TimeSpan.FromMinutes(15);

    private static readonly TimeSpan AfterStart = TimeSpan.FromSeconds(10);

    // Nobody waits for it while the house opens.
    private bool _begun;

    protected override Task PauseAsync(CancellationToken cancel) => Task.Delay(Between, time, cancel);

    // One order an act, so that nobody who types waits for all of them; one that fails stops none of the others.
    protected override async Task RoundAsync(CancellationToken cancel)
    {
        if (!_begun)
            await Task.Delay(AfterStart, time, cancel);
        _begun = true;
        await TryAsync(
            "quotes whose validity is over",
            () => acts.RunAsync(Actor.House, new LapseQuotes(), cancel),
            cancel
        );
        await TryAsync(
            "what was owed before the ledger",
            () => acts.RunAsync(Actor.House, new OpenBooks(), cancel),
            cancel
        );
        await using var db = await factory.CreateDbContextAsync(cancel);
        var open = await db
            .Orders.Where(o =>
                o.Terms == TermsTrack.Open
                || o.Terms == TermsTrack.Held
                || (o.Terms == TermsTrack.Confirmed && o.Goods != GoodsTrack.Shipped)
            )
            .Select(o => new { o.SheetId, o.Number })
            .ToListAsync(cancel);
        foreach (var order in open)
            await TryAsync(
                order.Number,
                () => acts.RunAsync(Actor.House, new RecheckOrder(order.SheetId), cancel),
                cancel
            );
    }
}
