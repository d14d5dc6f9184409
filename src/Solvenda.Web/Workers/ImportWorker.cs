using System.Collections.Concurrent;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;

namespace Solvenda.Web.Workers;

/// <summary>
/// Looks at imports and takes them, one after the other. What was under way when the process ended is gone on with.
/// </summary>
public sealed class ImportWorker(
    IDbContextFactory<SolvendaDb> factory,
    ActRunner acts,
    PriceBooks books,
    HouseClock clock,
    Troubles troubles
) : Worker(Acts.House.Workers.Imports, troubles)
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(5);

    private readonly ConcurrentDictionary<long, int> _progress = new();
    private readonly Signal _signal = new();

    /// <summary>There is something to look at or to take.</summary>
    public void Wake() => _signal.Wake();

    /// <summary>Rows done so far.</summary>
    public int Progress(long id) => _progress.GetValueOrDefault(id);

    protected override Task PauseAsync(CancellationToken cancel) => _signal.WaitAsync(Pause, cancel);

    // The queue is the imports that are to be looked at or taken: what a crash left is taken up by itself.
    protected override async Task RoundAsync(CancellationToken cancel)
    {
        List<long> waiting;
        await using (var db = await factory.CreateDbContextAsync(cancel))
            waiting = await db
                .Imports.Where(i => i.State == ImportState.Looking || i.State == ImportState.Taking)
                .OrderBy(i => i.Id)
                .Select(i => i.Id)
                .ToListAsync(cancel);
        foreach (var id in waiting)
        {
            var subject = string.Create(CultureInfo.InvariantCulture, $"import {id}");
            var done = await TryAsync(subject, () => OneAsync(id, cancel), cancel);
            // Set apart, it does not stay under way for whoever waits for it.
            if (!done && Troubles.IsApart(Acts.House.Workers.Imports, subject))
                await acts.RunAsync(Actor.House, new KeepImport(id, null, null, GivenUp), cancel);
        }
    }

    private const string GivenUp =
        "Something went wrong here, again and again; your administrator is told. What was taken by then stays; bring the file again.";

    private async Task OneAsync(long id, CancellationToken cancel)
    {
        await using var db = await factory.CreateDbContextAsync(cancel);
        var import = await db.Imports.AsNoTracking().FirstAsync(i => i.Id == id, cancel);
        try
        {
            var kind = await RecordKinds.FindAsync(db, import.Kind, cancel);
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
            if (import.State == ImportState.Looking)
            {
                var looked = await LookAsync(
                    db,
                    kind.Importer,
                    id,
                    rows,
                    columns,
                    null,
                    await KeepingAsync(db, import, cancel),
                    cancel
                );
                await acts.RunAsync(Actor.House, new KeepImport(id, null, looked, null), cancel);
            }
            else
                await TakeAsync(db, kind.Importer, import, rows, columns, cancel);
        }
        catch (Exception e) when (e is TableException or RefusedException)
        {
            await acts.RunAsync(Actor.House, new KeepImport(id, null, null, e.Message), cancel);
        }
        finally
        {
            _progress.TryRemove(id, out _);
        }
    }

    private async Task<ImportOutcome> LookAsync(
        SolvendaDb db,
        IImporter importer,
        long id,
        HeldRows rows,
        IReadOnlyDictionary<string, string> columns,
        Roles? roles,
        Keeping keeping,
        CancellationToken cancel
    )
    {
        var run = await importer.BeginAsync(db, rows, columns, roles, keeping, cancel);
        foreach (var portion in run.Portions())
        {
            await run.LookAsync(db, portion, cancel);
            _progress[id] = run.Outcome.Total;
        }
        return run.Outcome;
    }

    // What policies ask about first is refused in the file as it is in a form.
    private Task<Keeping> KeepingAsync(SolvendaDb db, ImportRow import, CancellationToken cancel) =>
        Keeping.ForAsync(db, books, new PersonId(import.ById), clock.Today, cancel);

    private async Task TakeAsync(
        SolvendaDb db,
        IImporter importer,
        ImportRow import,
        HeldRows rows,
        IReadOnlyDictionary<string, string> columns,
        CancellationToken cancel
    )
    {
        var person = await db.People.AsNoTracking().FirstAsync(p => p.Id == import.ById, cancel);
        // Once more, since the house may have changed since it was looked at: where a cell does not fit, nothing is
        // begun.
        var keeping = await KeepingAsync(db, import, cancel);
        var looked = await LookAsync(db, importer, import.Id, rows, columns, person.Roles, keeping, cancel);
        if (looked.Refused.Count > 0)
            throw RefusedException.Clash(
                "import_state",
                $"{looked.Refused.Count} cells no longer fit, the first in line {looked.Refused[0].Line}: {looked.Refused[0].Why}. Nothing was changed; look at it again."
            );
        var actor = Actor.Person(person.Id, person.Name, person.Roles);
        var run = await importer.BeginAsync(db, rows, columns, person.Roles, keeping, cancel);
        foreach (var portion in run.Portions())
        {
            try
            {
                await acts.RunAsync(actor, new TakeImport(import.Id, run, portion), cancel);
            }
            catch (Exception e) when (e is DbUpdateException or RefusedException { Code: "stale" })
            {
                // Somebody made or changed one of them in this moment; they were found anew.
                await acts.RunAsync(actor, new TakeImport(import.Id, run, portion), cancel);
            }
            _progress[import.Id] = run.Outcome.Total;
        }
        var ahead = await books.ReadAsync(db, cancel);
        await acts.RunAsync(actor, new TakeImport(import.Id, run, null), cancel);
        await books.OfferAsync(db, ahead, cancel);
    }
}
