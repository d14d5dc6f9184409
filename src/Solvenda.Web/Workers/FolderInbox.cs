using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;
using Solvenda.Web.Outside;
using Solvenda.Web.Requests;

namespace Solvenda.Web.Workers;

/// <summary>Takes in what lies in the mail and EDI folders, through the same door as everything else, and moves it aside only when it is stored.</summary>
public sealed partial class FolderInbox(
    Intake intake,
    OutsideFolders folders,
    IDbContextFactory<SolvendaDb> factory,
    ILogger<FolderInbox> log
) : BackgroundService
{
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(500);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            await TakeUpLeftOversAsync(stoppingToken);
            while (!stoppingToken.IsCancellationRequested)
            {
                await TakeAsync(folders.MailIn, "mail", stoppingToken);
                await TakeAsync(folders.EdiIn, "edi", stoppingToken);
                await Task.Delay(Pause, stoppingToken);
            }
        }
        catch (OperationCanceledException)
        {
            // Stopping: what was not taken stays in its folder.
        }
    }

    // A process that was killed between storing and reading left requests that say "Reading".
    private async Task TakeUpLeftOversAsync(CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        await intake.ReadLeftOversAsync(
            await db.Requests.Where(r => r.State == RequestState.Reading).Select(r => r.Id).ToListAsync(cancel),
            cancel
        );
    }

    private async Task TakeAsync(string folder, string channel, CancellationToken cancel)
    {
        foreach (
            var file in Directory
                .EnumerateFiles(folder)
                .Where(f => !Path.GetFileName(f).StartsWith('.'))
                .Order(StringComparer.Ordinal)
                .ToList()
        )
        {
            try
            {
                var bytes = await File.ReadAllBytesAsync(file, cancel);
                await intake.ReceiveAsync(channel, Path.GetFileName(file), null, bytes, Actor.House, cancel);
                var done = Directory.CreateDirectory(Path.Combine(folder, "..", "done")).FullName;
                File.Move(file, Path.Combine(done, Path.GetFileName(file)), overwrite: true);
            }
            catch (IOException e)
            {
                NotTaken(log, e, file);
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "{File} could not be taken in; it stays where it is")]
    private static partial void NotTaken(ILogger logger, Exception exception, string file);
}
