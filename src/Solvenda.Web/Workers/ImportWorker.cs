using System.Collections.Concurrent;
using System.Text.Json;
using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;
using Solvenda.Web.Commands;
using Solvenda.Web.Records;

namespace Solvenda.Web.Workers;

/// <summary>Looks at imports and takes them, one after the other. What was under way when the process ended has changed nothing, and says so.</summary>
public sealed partial class ImportWorker(
    IDbContextFactory<SolvendaDb> factory,
    CommandHandler commands,
    ILogger<ImportWorker> log
) : BackgroundService
{
    private readonly Channel<long> _waiting = Channel.CreateUnbounded<long>();
    private readonly ConcurrentDictionary<long, int> _progress = new();

    public void Enqueue(long id) => _waiting.Writer.TryWrite(id);

    /// <summary>Rows done so far.</summary>
    public int Progress(long id) => _progress.GetValueOrDefault(id);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            await commands.RunAsync(
                Actor.House,
                async work =>
                {
                    foreach (
                        var row in await work
                            .Db.Imports.Where(i => i.State == ImportState.Looking || i.State == ImportState.Taking)
                            .ToListAsync(stoppingToken)
                    )
                        (row.State, row.Problem) = (
                            ImportState.Failed,
                            "It was interrupted; nothing was changed. Bring the file again."
                        );
                    return 0;
                },
                stoppingToken
            );
            await foreach (var id in _waiting.Reader.ReadAllAsync(stoppingToken))
                await OneAsync(id, stoppingToken);
        }
        catch (OperationCanceledException)
        {
            // Stopping.
        }
    }

    private async Task OneAsync(long id, CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var import = await db.Imports.AsNoTracking().FirstAsync(i => i.Id == id, cancel);
        try
        {
            var kind = RecordKinds.Find(import.Kind);
            var table = TableReader.Read(import.Bytes);
            var said = await db
                .ImportColumns.Where(c => c.Kind == import.Kind)
                .ToDictionaryAsync(c => c.Head, c => c.Field, cancel);
            var columns = kind.Importer.Recognise(table.Head, said);
            var all = table
                .Head.Where(h => h.Length > 0)
                .Distinct()
                .ToDictionary(h => h, h => columns.GetValueOrDefault(h, ""));
            await KeepAsync(id, row => row.Columns = JsonSerializer.Serialize(all), cancel);
            // Read before anything is written: while a large workbook is unpacked, others go on working.
            using var rows = HeldRows.Of(table);
            if (import.State == ImportState.Looking)
                await LookAsync(db, import, kind, rows, columns, cancel);
            else
                await TakeAsync(import, kind, rows, columns, cancel);
        }
        catch (Exception e) when (e is TableException or RefusalException)
        {
            await KeepAsync(id, row => (row.State, row.Problem) = (ImportState.Failed, e.Message), cancel);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            Failed(log, e, id);
            await KeepAsync(
                id,
                row =>
                    (row.State, row.Problem) = (ImportState.Failed, "Something went wrong here; nothing was changed."),
                cancel
            );
        }
        _progress.TryRemove(id, out _);
    }

    private async Task LookAsync(
        SolvendaDb db,
        ImportRow import,
        RecordKind kind,
        HeldRows table,
        IReadOnlyDictionary<string, string> columns,
        CancellationToken cancel
    )
    {
        var outcome = await kind.Importer.RunAsync(
            db,
            table,
            columns,
            null,
            done => _progress[import.Id] = done,
            cancel
        );
        await KeepAsync(
            import.Id,
            row =>
            {
                Write(row, outcome);
                (row.State, row.Problem) = (ImportState.Looked, "");
            },
            cancel
        );
    }

    // The file is gone through once more, since the house may have changed since it was looked at. All of it is one transaction.
    private async Task TakeAsync(
        ImportRow import,
        RecordKind kind,
        HeldRows table,
        IReadOnlyDictionary<string, string> columns,
        CancellationToken cancel
    )
    {
        var person = await PersonAsync(import.ById, cancel);
        await commands.RunAsync(
            person,
            async work =>
            {
                var outcome = await kind.Importer.RunAsync(
                    work.Db,
                    table,
                    columns,
                    work,
                    done => _progress[import.Id] = done,
                    cancel
                );
                if (outcome.Refused.Count > 0)
                    throw RefusalException.Clash(
                        "import_state",
                        $"{outcome.Refused.Count} cells no longer fit, the first in line {outcome.Refused[0].Line}: {outcome.Refused[0].Why}. Nothing was changed; look at it again."
                    );
                var row = await work.Db.Imports.FirstAsync(i => i.Id == import.Id, cancel);
                Write(row, outcome);
                row.State = ImportState.Taken;
                work.History(
                    $"imports:{row.Id}",
                    null,
                    "import.taken",
                    $"{row.FileName}: {outcome.New} new, {outcome.Changed} changed"
                );
                return 0;
            },
            cancel
        );
    }

    private async Task<Actor> PersonAsync(long id, CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var person = await db.People.AsNoTracking().FirstAsync(p => p.Id == id, cancel);
        return new Actor(person.Id, person.Name, person.Roles);
    }

    private static void Write(ImportRow row, ImportOutcome outcome) =>
        (row.Total, row.New, row.Changed, row.Same, row.Refused) = (
            outcome.Total,
            outcome.New,
            outcome.Changed,
            outcome.Same,
            JsonSerializer.Serialize(outcome.Refused)
        );

    private Task KeepAsync(long id, Action<ImportRow> change, CancellationToken cancel) =>
        commands.RunAsync(
            Actor.House,
            async work =>
            {
                change(await work.Db.Imports.FirstAsync(i => i.Id == id, cancel));
                return 0;
            },
            cancel
        );

    [LoggerMessage(Level = LogLevel.Error, Message = "Import {Id} failed")]
    private static partial void Failed(ILogger logger, Exception exception, long id);
}
