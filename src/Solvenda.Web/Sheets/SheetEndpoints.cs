using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Sheets;
using Solvenda.Web.Security;

namespace Solvenda.Web.Sheets;

/// <summary>Rows of a spreadsheet, a tab between cells.</summary>
/// <param name="After">Key of the line that they go behind; null: at the end.</param>
public sealed record RowsPasted(string Text, long? After);

/// <summary>The sheet after rows were pasted; how many lines they became, and how many are to be put right.</summary>
public sealed record PasteAnswer(SheetAnswer Answer, int Lines, int ToFix, string Words);

public static class SheetEndpoints
{
    public static void MapSheets(this IEndpointRouteBuilder app)
    {
        ArgumentNullException.ThrowIfNull(app);
        var sheets = app.MapGroup("/api/sheets").WithTags("Sheets");
        sheets.MapPost("/{id:long}/edits", Edit).Needs<EditSheet>();
        sheets.MapPost("/{id:long}/paste", Paste).Needs<PasteRows>();
        sheets.MapPost("/{id:long}/undo", Undo).Needs<UndoEdit>();
        sheets.MapPost("/{id:long}/redo", Redo).Needs<RedoEdit>();
        sheets.MapEntry();
        sheets.MapNotes();
        sheets.MapOtherWays();
        sheets.MapReach();
        sheets.MapSources();
    }

    /// <summary>
    /// Carries edits out on the version that the screen saw; answers with the sheet priced and judged anew.
    /// </summary>
    private static async Task<SheetAnswer> Edit(
        long id,
        SheetEdit[] edits,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        [FromHeader(Name = ShownLines.Header)] string? shown,
        ClaimsPrincipal user,
        ActRunner acts,
        ShownLines lines,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var judged = await acts.RunAsync(actor, new EditSheet(id, edits, Seen.Of(ifMatch)), cancel);
        return lines.Since(shown, SheetAnswer.Of(judged, actor));
    }

    /// <summary>Puts rows of a spreadsheet onto the sheet, behind a line or at the end.</summary>
    private static async Task<PasteAnswer> Paste(
        long id,
        RowsPasted rows,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        [FromHeader(Name = ShownLines.Header)] string? shown,
        ClaimsPrincipal user,
        ActRunner acts,
        ShownLines lines,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        var done = await acts.RunAsync(actor, new PasteRows(id, rows.Text, rows.After, Seen.Of(ifMatch)), cancel);
        var answer = lines.Since(shown, SheetAnswer.Of(done.Judged, actor));
        return new PasteAnswer(answer, done.Lines, done.ToFix, done.Words);
    }

    /// <summary>Takes one's own last change back.</summary>
    private static async Task<SheetAnswer> Undo(
        long id,
        [FromHeader(Name = ShownLines.Header)] string? shown,
        ClaimsPrincipal user,
        ActRunner acts,
        ShownLines lines,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        return lines.Since(shown, SheetAnswer.Of(await acts.RunAsync(actor, new UndoEdit(id), cancel), actor));
    }

    /// <summary>Puts in again what one took back last.</summary>
    private static async Task<SheetAnswer> Redo(
        long id,
        [FromHeader(Name = ShownLines.Header)] string? shown,
        ClaimsPrincipal user,
        ActRunner acts,
        ShownLines lines,
        CancellationToken cancel
    )
    {
        var actor = user.ActorOf();
        return lines.Since(shown, SheetAnswer.Of(await acts.RunAsync(actor, new RedoEdit(id), cancel), actor));
    }
}
