using System.Security.Claims;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Records;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;
using Solvenda.Web.Machines;
using Solvenda.Web.Security;
using Solvenda.Web.Workers;

namespace Solvenda.Web.Records;

/// <summary>An import: which column is which field, how far it is, what it would do or did.</summary>
/// <param name="Done">Rows looked at or taken so far.</param>
/// <param name="Refused">The first thousand cells that were refused; <paramref name="RefusedCount"/> tells how many
/// there are.</param>
public sealed record ImportView(
    long Id,
    string Kind,
    string FileName,
    ImportState State,
    IReadOnlyDictionary<string, string> Columns,
    IReadOnlyList<string> Head,
    int Done,
    int Total,
    int New,
    int Changed,
    int Same,
    int RefusedCount,
    IReadOnlyList<RefusedCell> Refused,
    string Problem
);

/// <summary>Head of a column to the name of a field; empty: left out.</summary>
public sealed record ImportColumns(IReadOnlyDictionary<string, string> Columns);

/// <summary>Files of records, in and out.</summary>
public static class ImportEndpoints
{
    private const int ShownRefused = 1_000;

    public static void MapImports(this IEndpointRouteBuilder app)
    {
        var records = app.MapGroup("/api/records/{kind}").WithTags("Records");
        records
            .MapPost("/imports", Begin)
            .Needs<BeginImport>()
            .WithMetadata(new RequestSizeLimitAttribute(MachineEndpoints.LargestBody));
        var imports = app.MapGroup("/api/imports/{id:long}").WithTags("Records");
        imports.MapGet("", Get).Needs(Rights.Records);
        imports.MapPost("/columns", Columns).Needs<NameImportColumns>();
        imports.MapPost("/take", Take).Needs<StartImport>();
        imports.MapGet("/refused", Refused).Needs(Rights.Records).Produces(200, contentType: "text/csv");
    }

    private static async Task<ImportView> Begin(
        string kind,
        string? filename,
        HttpRequest http,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        ImportWorker worker,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var body = await RawBody.ReadAsync(http, cancel);
        var id = await acts.RunAsync(actor, new BeginImport(kind, filename, body), cancel);
        return await EnqueuedAsync(id, actor, db, worker, cancel);
    }

    private static async Task<ImportView> Get(
        long id,
        ClaimsPrincipal user,
        SolvendaDb db,
        ImportWorker worker,
        CancellationToken cancel
    ) => View(await ImportSteps.FindAsync(db, id, user.ActorOf(), cancel), worker);

    private static async Task<ImportView> Columns(
        long id,
        ImportColumns body,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        ImportWorker worker,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        await acts.RunAsync(actor, new NameImportColumns(id, body.Columns), cancel);
        return await EnqueuedAsync(id, actor, db, worker, cancel);
    }

    private static async Task<ImportView> Take(
        long id,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        ImportWorker worker,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        await acts.RunAsync(actor, new StartImport(id), cancel);
        return await EnqueuedAsync(id, actor, db, worker, cancel);
    }

    private static async Task<ImportView> EnqueuedAsync(
        long id,
        Actor actor,
        SolvendaDb db,
        ImportWorker worker,
        CancellationToken cancel
    )
    {
        var view = View(await ImportSteps.FindAsync(db, id, actor, cancel), worker);
        worker.Wake();
        return view;
    }

    private static async Task<IResult> Refused(long id, ClaimsPrincipal user, SolvendaDb db, CancellationToken cancel)
    {
        var cells = JsonSerializer.Deserialize<List<RefusedCell>>(
            (await ImportSteps.FindAsync(db, id, user.ActorOf(), cancel)).Refused
        )!;
        return Results.Stream(
            to => TableWriter.CsvAsync(to, ["line", "column", "value", "why"], Rows(cells), cancel),
            "text/csv",
            "refused.csv"
        );
    }

    private static async IAsyncEnumerable<IReadOnlyList<string>> Rows(List<RefusedCell> cells)
    {
        foreach (var c in cells)
            yield return [c.Line.ToString(System.Globalization.CultureInfo.InvariantCulture), c.Column, c.Value, c.Why];
        await Task.CompletedTask;
    }

    private static ImportView View(ImportRow row, ImportWorker worker)
    {
        var refused = JsonSerializer.Deserialize<List<RefusedCell>>(row.Refused)!;
        var columns =
            row.Columns.Length > 0 ? JsonSerializer.Deserialize<Dictionary<string, string>>(row.Columns)! : [];
        return new ImportView(
            row.Id,
            row.Kind,
            row.FileName,
            row.State,
            columns,
            [.. columns.Keys],
            worker.Progress(row.Id),
            row.Total,
            row.New,
            row.Changed,
            row.Same,
            refused.Count,
            [.. refused.Take(ShownRefused)],
            row.Problem
        );
    }
}
