using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Reading;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Says what the columns of a table mean: code, buyersCode, gtin, words, quantity, unit, price, priceBase, amount,
/// wanted, note, number. Remembered for this sender; the request is read anew.
/// </summary>
/// <param name="Row">The row that is the head, from 0.</param>
public sealed record NameColumns(
    string Request,
    long Version,
    int Part,
    int Row,
    IReadOnlyDictionary<int, string> Columns
) : IAct<string>;

[Leaves(typeof(ColumnsLearned), typeof(RequestRead), typeof(RequestUnreadable))]
public sealed class NameColumnsAct(Reader reader) : PreparedAct<NameColumns, ReadAnew, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>The file as it reads with the columns so named, read while others write.</returns>
    protected override async Task<ReadAnew> PrepareAsync(Ahead ahead, NameColumns input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ahead);
        ArgumentNullException.ThrowIfNull(input);
        var request = await RequestSteps.FindAsync(ahead.Db, input.Request, input.Version, cancel);
        var parts = KeptPart.FromJson(request.Parts, request.Text);
        if (input.Part < 0 || input.Part >= parts.Count || input.Row < 0 || input.Row >= parts[input.Part].Rows.Count)
            throw RefusedException.Bad("table_unknown", "There is no such row of a table.", "row");
        if (
            !input.Columns.Values.Contains("quantity")
            || !input.Columns.Values.Any(v => v is "code" or "words" or "gtin" or "buyersCode")
            || input.Columns.Values.Any(v => !TableReading.Meanings.Contains(v))
        )
            throw RefusedException.Bad(
                "columns",
                "A table needs a column that says how much, and one that says of what.",
                "columns"
            );
        var said = new SaidColumns(SenderOf(request), HeadsOf(parts[input.Part], input.Row), input.Columns);
        // What a person had said of the head stays; a buyer that was read is read again.
        var before = request.Reading.Length > 0 ? ReadingView.FromJson(request.Reading) : null;
        var result = await reader.ReadAsync(
            ahead.Db,
            request.Raw.Bytes,
            request.Raw.Filename,
            DateOnly.FromDateTime(request.ReceivedAt),
            cancel,
            before?.Buyer.IsSettled == true ? before.BuyerId : null,
            said
        );
        var read = result.Messages[Math.Min(request.Message, result.Messages.Count - 1)];
        return new ReadAnew(
            said,
            before is null || read.Reading is null ? read : read with { Reading = read.Reading.Keeping(before) }
        );
    }

    /// <returns>Number of the request.</returns>
    protected override async Task<string> RunAsync(
        Work work,
        NameColumns input,
        ReadAnew prepared,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        ArgumentNullException.ThrowIfNull(prepared);
        // The same version as when it was read.
        var request = await RequestSteps.FindAsync(work.Db, input.Request, input.Version, cancel);
        var (sender, heads, columns) = (
            prepared.Said.Sender,
            prepared.Said.Heads,
            JsonSerializer.Serialize(prepared.Said.Columns)
        );
        var row = await work.Db.Columns.FirstOrDefaultAsync(c => c.Sender == sender && c.Heads == heads, cancel);
        if (row is null)
            work.Db.Columns.Add(
                row = new ColumnsRow
                {
                    Sender = sender,
                    Heads = heads,
                    Columns = columns,
                }
            );
        (row.Columns, row.Who, row.At) = (columns, work.Actor.Name, work.Now);
        RequestSteps.Take(request, prepared.Read, work);
        work.Leave(new ColumnsLearned(sender, columns), request.Number, request.DossierId);
        return request.Number;
    }

    private static string HeadsOf(KeptPart part, int row)
    {
        var cells = part.Rows[row];
        return TableReading.HeadsOf([
            .. Enumerable
                .Range(0, cells.Count / 2)
                .Select(i => new Cell(
                    part.Text.Substring(cells[2 * i], cells[(2 * i) + 1]),
                    cells[2 * i],
                    cells[(2 * i) + 1]
                )),
        ]);
    }

    // As reading remembers a sender: the address in "Name <address>", else what they are called.
    private static string SenderOf(RequestRow request)
    {
        var from = request.FromWords;
        var at = from.LastIndexOf('<');
        return (at >= 0 && from.EndsWith('>') ? from[(at + 1)..^1] : from).ToLowerInvariant();
    }
}

/// <summary>A request as it reads once its columns are named so.</summary>
public sealed record ReadAnew(SaidColumns Said, ReadMessage Read);
