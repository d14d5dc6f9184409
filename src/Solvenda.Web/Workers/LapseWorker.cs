using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Quoting;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Workers;

/// <summary>Lapses quotes whose validity is over, at the start and every hour.</summary>
public sealed class LapseWorker(CommandHandler commands) : BackgroundService
{
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromHours(1));
        try
        {
            do
            {
                await commands.RunAsync(Actor.House, async work =>
                {
                    var over = await work.Db.Quotes.Where(q => q.State == QuoteState.WithCustomer && q.ValidUntil < work.Today).ToListAsync(stoppingToken);
                    foreach (var quote in over)
                    {
                        quote.State = QuoteMoves.After(quote.State, QuoteAct.Lapse)!.Value;
                        work.History(quote.Number, quote.DossierId, "quote.lapsed", $"{QuoteMoves.Letter(quote.Revision)} lapsed", nameof(QuoteState.WithCustomer), nameof(QuoteState.Lapsed));
                    }
                    return over.Count;
                }, stoppingToken);
            }
            while (await timer.WaitForNextTickAsync(stoppingToken));
        }
        catch (OperationCanceledException)
        {
            // Stopping.
        }
    }
}
