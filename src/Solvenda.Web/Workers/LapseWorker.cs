using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Quoting;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Sheets;

namespace Solvenda.Web.Workers;

/// <summary>
/// At the start and every quarter of an hour: lapses quotes whose validity is over, and runs the checks of open orders anew, since stock and credit
/// change without them.
/// </summary>
public sealed class LapseWorker(CommandHandler commands, SheetLoader loader, Judge judge) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromMinutes(15));
        try
        {
            do
            {
                await commands.RunAsync(
                    Actor.House,
                    async work =>
                    {
                        var over = await work
                            .Db.Quotes.Where(q => q.State == QuoteState.WithCustomer && q.ValidUntil < work.Today)
                            .ToListAsync(stoppingToken);
                        foreach (var quote in over)
                        {
                            quote.State = QuoteMoves.After(quote.State, QuoteAct.Lapse)!.Value;
                            work.History(
                                quote.Number,
                                quote.DossierId,
                                "quote.lapsed",
                                $"{QuoteMoves.Letter(quote.Revision)} lapsed",
                                nameof(QuoteState.WithCustomer),
                                nameof(QuoteState.Lapsed)
                            );
                        }
                        return over.Count;
                    },
                    stoppingToken
                );
                await RecheckAsync(stoppingToken);
            } while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // Stopping.
        }
    }

    // One order a transaction, so that nobody who types waits for all of them.
    private async Task RecheckAsync(CancellationToken cancel)
    {
        var open = await commands.RunAsync(
            Actor.House,
            work =>
                work.Db.Orders.Where(o => o.Terms == TermsTrack.Open || o.Terms == TermsTrack.Held)
                    .Select(o => o.SheetId)
                    .ToListAsync(cancel),
            cancel
        );
        foreach (var sheet in open)
            await commands.RunAsync(
                Actor.House,
                async work =>
                    await judge.JudgeAsync(work.Db, await loader.BySheetAsync(work.Db, sheet, cancel), cancel),
                cancel
            );
    }
}
