using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Post;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Channels;

namespace Solvenda.Web.Workers;

/// <summary>
/// Sends what is in the outbox by the channel of its kind: at least once, in order, and again later with growing
/// patience where it fails. What came of a portion is kept at once; where the process ends before, the letters of that
/// portion leave once more, each under the same name.
/// </summary>
public sealed partial class OutboxWorker(
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    OutboxSignal signal,
    IEnumerable<IChannel> channels,
    HouseClock clock,
    Troubles troubles,
    ILogger<OutboxWorker> log
) : Worker(Acts.House.Workers.Post, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(2);

    // So many are kept to have left at once.
    private const int Portion = 16;

    protected override Task PauseAsync(CancellationToken cancel) => signal.WaitAsync(Pause, cancel);

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        while (await SendDueAsync(cancel))
        {
            // One portion after the other, until nothing is due.
        }
    }

    private async Task<bool> SendDueAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var now = clock.UtcNow;
        var due = await db
            .Outbox.Where(o => o.SentAt == null && !o.Apart && o.NextTryAt <= now)
            .OrderBy(o => o.Id)
            .Select(o => o.Id)
            .Take(Portion)
            .ToListAsync(cancel);
        var sent = new List<SentLetter>();
        try
        {
            foreach (var id in due)
            {
                var letter = await db.Outbox.AsNoTracking().FirstAsync(o => o.Id == id, cancel);
                var departed = await TryAsync(letter, cancel);
                sent.Add(new SentLetter(id, departed.Problem, departed.Never));
            }
        }
        finally
        {
            // Also where the house is closing: what left is not sent again.
            if (sent.Count > 0)
                await acts.RunAsync(Actor.House, new KeepSent([.. sent]), CancellationToken.None);
        }
        return due.Count > 0;
    }

    // Whatever a channel throws, this letter waits for its next try, and the others go on.
    private async Task<Departed> TryAsync(OutboxRow row, CancellationToken cancel)
    {
        if (channels.FirstOrDefault(c => c.Sends(row.Kind, row.To)) is not { } channel)
            return Departed.Later($"no channel sends {row.Kind} to {row.To}");
        try
        {
            return await channel.SendAsync(new Departing(row.Kind, row.Key, row.To, row.Name, row.Payload), cancel);
        }
        catch (Exception e) when (!cancel.IsCancellationRequested)
        {
            Failed(log, e, row.Key);
            return Departed.Later(e.Message);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "{Key} could not be sent")]
    private static partial void Failed(ILogger logger, Exception exception, string key);
}
