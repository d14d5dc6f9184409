using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Buyers;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Formats.Tables;

namespace Solvenda.Acts.Requests;

/// <summary>Puts rows of a spreadsheet onto a sheet, as if each were typed.</summary>
/// <param name="Text">The rows as they are copied: a tab between cells, a line to each row.</param>
/// <param name="After">Key of the line that they go behind; null: at the end.</param>
public sealed record PasteRows(long Sheet, string Text, long? After, long? Seen) : IAct<PasteDone>;

/// <summary>The sheet after it, and what was not plain.</summary>
/// <param name="Words">In words, for whoever pasted; empty where everything was taken as it stood.</param>
public sealed record PasteDone(Judged Judged, int Lines, int ToFix, string Words);

[Leaves(typeof(SheetEdited))]
public sealed class PasteRowsAct(SheetLoader loader, Settling settling, Reader reader) : Act<PasteRows, PasteDone>
{
    /// <summary>Letters that are taken at once; a spreadsheet of 2,000 rows has fewer.</summary>
    public const int MostLetters = 1_000_000;

    public override Right Needs => Rights.Write;

    public override async Task<PasteDone> RunAsync(Work work, PasteRows input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Text.Length > MostLetters)
            throw RefusedException.Bad("too_long", "That is more than is taken at once; nothing was taken.");
        var open = await loader.BySheetAsync(work.Db, input.Sheet, cancel);
        EditSheetAct.MustBeOpen(open);
        await Versions.MatchAsync(work.Db, open, input.Seen, cancel);
        var code = HeadTerms.Language.In(open.Sheet.Head) ?? open.Buyer.Language;
        var pasted = PastedRows.Read(
            Rows(input.Text),
            new BuyerId(open.Buyer.Id),
            Language.All.FirstOrDefault(l => l.Code == code) ?? Language.English,
            work.Today,
            await reader.ContextAsync(work.Db, cancel)
        );
        if (pasted is { Rows.IsEmpty: true, TooMany: 0 })
            throw RefusedException.Bad("nothing_pasted", "There is nothing in these rows.");
        var edited = SheetDoor.Paste(open.ToDraft(), pasted, input.After, open.FactsFor(work.Actor.Hand, work.Today));
        var judged = await EditSheetAct.TypedAsync(work, open, edited, settling, cancel);
        return new PasteDone(judged, pasted.Rows.Count(r => r.Line is not null), pasted.ToFix, Say(pasted));
    }

    // As they are copied: cells by tabs, where there are any.
    private static ImmutableArray<ImmutableArray<Cell>> Rows(string text) =>
        Grid.Part(
            "",
            text.ReplaceLineEndings("\n").Split('\n').Select(row => (IReadOnlyList<string>)row.Split('\t'))
        ).Rows;

    private static string Say(Pasted pasted)
    {
        var said = new List<string>();
        if (pasted.ToFix > 0)
            said.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{pasted.ToFix} of {pasted.Rows.Count(r => r.Line is not null)} lines are to be put right."
                )
            );
        if (!pasted.UnusedColumns.IsEmpty)
            said.Add($"No meaning is known for {string.Join(", ", pasted.UnusedColumns.Select(c => $"“{c}”"))}.");
        return string.Join(' ', said);
    }
}
