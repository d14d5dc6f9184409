using System.Security.Claims;
using System.Text.Json;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Tables;
using Solvenda.Web.Commands;
using Solvenda.Web.Machines;
using Solvenda.Web.Security;
using Solvenda.Web.Workers;

namespace Solvenda.Web.Records;

/// <summary>An import: which column is which field, how far it is, what it would do or did.</summary>
/// <param name="Done">Rows looked at or taken so far.</param>
/// <param name="Refused">The first thousand cells that were refused; <paramref name="RefusedCount"/> tells how many there are.</param>
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
        var records = app.MapGroup("/api/records/{kind}").WithTags("Records").RequireAuthorization(May.Look);
        records.MapGet("/export", Export).Produces(200, contentType: "text/csv");
        records.MapPost("/imports", Begin).WithMetadata(new RequestSizeLimitAttribute(MachineEndpoints.LargestBody));
        var imports = app.MapGroup("/api/imports/{id:long}").WithTags("Records").RequireAuthorization(May.Look);
        imports.MapGet("", Get);
        imports.MapPost("/columns", Columns);
        imports.MapPost("/take", Take);
        imports.MapGet("/refused", Refused).Produces(200, contentType: "text/csv");
    }

    private static IResult Export(
        string kind,
        SolvendaDb db,
        CancellationToken cancel,
        string format = "csv",
        string filter = ""
    )
    {
        var of = RecordKinds.Find(kind);
        var head = of.AllFields.Select(f => f.Label).ToList();
        return format switch
        {
            "xlsx" => Results.Stream(
                async to =>
                {
                    // A workbook is written back and forth, which an answer is not: through a file of its own.
                    await using var file = new FileStream(
                        Path.GetTempFileName(),
                        FileMode.Create,
                        FileAccess.ReadWrite,
                        FileShare.None,
                        64 * 1024,
                        FileOptions.DeleteOnClose | FileOptions.Asynchronous
                    );
                    await TableWriter.XlsxAsync(
                        file,
                        head,
                        [.. of.AllFields.Select(f => f.Type is FieldType.Number or FieldType.Whole)],
                        of.Store.ExportAsync(db, filter, cancel),
                        cancel
                    );
                    file.Position = 0;
                    await file.CopyToAsync(to, cancel);
                },
                "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                $"{kind}.xlsx"
            ),
            "csv" => Results.Stream(
                to => TableWriter.CsvAsync(to, head, of.Store.ExportAsync(db, filter, cancel), cancel),
                "text/csv",
                $"{kind}.csv"
            ),
            _ => throw RefusalException.Bad("field_unknown", "An export is csv or xlsx.", "format"),
        };
    }

    private static async Task<ImportView> Begin(
        string kind,
        string? filename,
        HttpRequest http,
        ClaimsPrincipal user,
        CommandHandler commands,
        ImportWorker worker,
        CancellationToken cancel
    )
    {
        var of = RecordEndpoints.Changeable(kind, user);
        using var body = new MemoryStream();
        await http.Body.CopyToAsync(body, cancel);
        var import = await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var row = new ImportRow
                {
                    Kind = of.Name,
                    FileName = string.IsNullOrWhiteSpace(filename)
                        ? "file"
                        : Path.GetFileName(filename)[..Math.Min(200, Path.GetFileName(filename).Length)],
                    Bytes = body.ToArray(),
                    State = ImportState.Looking,
                    ById = work.Actor.PersonId!.Value,
                    ByName = work.Actor.Name,
                    At = work.Now,
                };
                work.Db.Imports.Add(row);
                await work.Db.SaveChangesAsync(cancel);
                return row;
            },
            cancel
        );
        worker.Enqueue(import.Id);
        return View(import, worker);
    }

    private static async Task<ImportView> Get(
        long id,
        ClaimsPrincipal user,
        SolvendaDb db,
        ImportWorker worker,
        CancellationToken cancel
    ) => View(await FindAsync(db, id, user, cancel), worker);

    private static async Task<ImportView> Columns(
        long id,
        ImportColumns body,
        ClaimsPrincipal user,
        CommandHandler commands,
        ImportWorker worker,
        CancellationToken cancel
    )
    {
        var import = await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var row = await FindAsync(work.Db, id, user, cancel);
                if (row.State is not (ImportState.Looked or ImportState.Failed))
                    throw RefusalException.Clash("import_state", "It is being worked on, or was taken already.");
                var of = RecordKinds.Find(row.Kind);
                foreach (var (head, field) in body.Columns)
                {
                    if (field.Length > 0 && of.AllFields.All(f => f.Name != field))
                        throw RefusalException.Bad("field_unknown", $"There is no field “{field}”.", head);
                    var plain = head.ToLowerInvariant();
                    if (
                        await work.Db.ImportColumns.FirstOrDefaultAsync(
                            c => c.Kind == row.Kind && c.Head == plain,
                            cancel
                        ) is
                        { } said
                    )
                        said.Field = field;
                    else
                        work.Db.ImportColumns.Add(
                            new ImportColumnRow
                            {
                                Kind = row.Kind,
                                Head = plain,
                                Field = field,
                            }
                        );
                }
                (row.State, row.Columns) = (ImportState.Looking, "");
                return row;
            },
            cancel
        );
        worker.Enqueue(id);
        return View(import, worker);
    }

    private static async Task<ImportView> Take(
        long id,
        ClaimsPrincipal user,
        CommandHandler commands,
        ImportWorker worker,
        CancellationToken cancel
    )
    {
        var import = await commands.RunAsync(
            user.ActorOf(),
            async work =>
            {
                var row = await FindAsync(work.Db, id, user, cancel);
                if (row.State != ImportState.Looked || row.Refused != "[]" || row.Problem.Length > 0)
                    throw RefusalException.Clash(
                        "import_state",
                        "Only what was looked at and refused nowhere is taken; nothing was changed."
                    );
                row.State = ImportState.Taking;
                return row;
            },
            cancel
        );
        worker.Enqueue(id);
        return View(import, worker);
    }

    private static async Task<IResult> Refused(long id, ClaimsPrincipal user, SolvendaDb db, CancellationToken cancel)
    {
        var cells = JsonSerializer.Deserialize<List<RefusedCell>>((await FindAsync(db, id, user, cancel)).Refused)!;
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

    // Whoever may change the kind may see its imports.
    private static async Task<ImportRow> FindAsync(
        SolvendaDb db,
        long id,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var row =
            await db.Imports.FirstOrDefaultAsync(i => i.Id == id, cancel)
            ?? throw RefusalException.NotFound("such import");
        RecordEndpoints.Changeable(row.Kind, user);
        return row;
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
