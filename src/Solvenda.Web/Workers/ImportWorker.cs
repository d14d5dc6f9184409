using System.Collections.Concurrent;
using System.Globalization;
using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;

namespace Solvenda.Web.Workers;

/// <summary>
/// Looks at imports and takes them, one after the other. What was under way when the process ended has changed nothing,
/// and says so.
/// </summary>
public sealed partial class ImportWorker(
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    Troubles troubles,
    ILogger<ImportWorker> log
) : Worker(Acts.House.Workers.Imports, troubles)
{
    private readonly Channel<long> _waiting = Channel.CreateUnbounded<long>();
    private readonly ConcurrentDictionary<long, int> _progress = new();
    private readonly Queue<long> _again = new();
    private bool _begun;

    public void Enqueue(long id) => _waiting.Writer.TryWrite(id);

    /// <summary>Rows done so far.</summary>
    public int Progress(long id) => _progress.GetValueOrDefault(id);

    protected override async Task PauseAsync(CancellationToken cancel)
    {
        if (_again.Count > 0)
            await Task.Delay(TimeSpan.FromSeconds(1), cancel);
        else
            await _waiting.Reader.WaitToReadAsync(cancel);
        while (_again.TryDequeue(out var id))
            Enqueue(id);
    }

    protected override async Task RoundAsync(CancellationToken cancel)
    {
        if (!_begun)
            await acts.RunAsync(Actor.House, new EndImports(), cancel);
        _begun = true;
        while (_waiting.Reader.TryRead(out var id))
        {
            if (
                !await TryAsync(
                    string.Create(CultureInfo.InvariantCulture, $"import {id}"),
                    () => OneAsync(id, cancel),
                    cancel
                )
            )
                _again.Enqueue(id);
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
            await acts.RunAsync(Actor.House, new KeepImport(id, all, null, null), cancel);
            // Read before anything is written: while a large workbook is unpacked, others go on working.
            using var rows = HeldRows.Of(table);
            void Progress(int done) => _progress[id] = done;
            if (import.State == ImportState.Looking)
            {
                var outcome = await kind.Importer.RunAsync(db, rows, columns, null, Progress, cancel);
                await acts.RunAsync(Actor.House, new KeepImport(id, null, outcome, null), cancel);
            }
            else
            {
                var person = await db.People.AsNoTracking().FirstAsync(p => p.Id == import.ById, cancel);
                var actor = Actor.Person(person.Id, person.Name, person.Roles);
                await acts.RunAsync(actor, new TakeImport(id, rows, columns, Progress), cancel);
            }
        }
        catch (Exception e) when (e is TableException or RefusedException)
        {
            await acts.RunAsync(Actor.House, new KeepImport(id, null, null, e.Message), cancel);
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            Failed(log, e, id);
            await acts.RunAsync(
                Actor.House,
                new KeepImport(id, null, null, "Something went wrong here; nothing was changed."),
                cancel
            );
        }
        _progress.TryRemove(id, out _);
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "Import {Id} failed")]
    private static partial void Failed(ILogger logger, Exception exception, long id);
}
