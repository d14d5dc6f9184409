using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Receipts;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Keeps what came of reading a request. Several messages in one file are several requests: the first is the one that
/// was stored, the others are made beside it.
/// </summary>
public sealed record KeepReading(long Request, ReadResult Result) : IAct<int>;

[Leaves(
    typeof(RequestRead),
    typeof(RequestUnreadable),
    typeof(RequestReceived),
    typeof(MessagesLeft),
    typeof(InterchangeAnswered),
    typeof(DocumentReceived),
    typeof(DocumentNotReceived),
    typeof(RequestSetAside)
)]
public sealed class KeepReadingAct : Act<KeepReading, int>
{
    // More messages than this in one file are not made into requests; the file itself is kept whole.
    private const int MostMessages = 1_000;

    public override Right Needs => Rights.House;

    /// <returns>How many requests there are of it.</returns>
    public override async Task<int> RunAsync(Work work, KeepReading input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var request = await work.Db.Requests.Include(r => r.Raw).FirstAsync(r => r.Id == input.Request, cancel);
        // Read twice (by whoever brought it, and by a worker that took it up): the first stands.
        if (request.State != RequestState.Reading)
            return 0;
        var result = input.Result;
        var aliases = result.Helped.ToList();
        await work
            .Db.Aliases.Where(a => EF.Parameter(aliases).Contains(a.Id))
            .ExecuteUpdateAsync(a => a.SetProperty(x => x.Helped, x => x.Helped + 1), cancel);
        var made = Math.Min(result.Messages.Count, MostMessages);
        for (var i = 0; i < made; i++)
        {
            var row = i == 0 ? request : await BesideAsync(request, i, work, cancel);
            row.Syntax = result.File.Syntax.ToString();
            RequestSteps.Take(row, result.Messages[i], work);
            await Threads.FindAsync(work.Db, row, result.Messages[i].Message.Document?.About ?? [], cancel);
        }
        if (result.Messages.Count > MostMessages)
            work.Leave(new MessagesLeft(result.Messages.Count, MostMessages), request.Number);
        await ReceiptAsync(request, result.File, work, cancel);
        await AnswerAsync(request, result.File, work, cancel);
        return made;
    }

    private static async Task<RequestRow> BesideAsync(
        RequestRow first,
        int message,
        Work work,
        CancellationToken cancel
    )
    {
        var beside = new RequestRow
        {
            Number = await work.NumberAsync(NumberSeries.Request, cancel),
            RawId = first.RawId,
            Raw = first.Raw,
            Message = message,
            State = RequestState.Reading,
            Channel = first.Channel,
            ReceivedAt = first.ReceivedAt,
            Names = first.Names,
        };
        work.Db.Requests.Add(beside);
        work.Leave(new RequestReceived(first.Channel, first.Names, first.Number), beside.Number);
        return beside;
    }

    // What only says that they have what we sent, or have not, waits for nobody.
    private static async Task ReceiptAsync(RequestRow request, OpenedFile file, Work work, CancellationToken cancel)
    {
        var said = SaidReceipts.In(request.Raw.Bytes, file.Syntax);
        if (said.IsEmpty)
            return;
        var about = await ReceiptSteps.TakeAsync(work, said, cancel);
        if (about.Count == 0)
        {
            request.Reason = "acknowledges something that we did not send";
            return;
        }
        var before = request.State;
        request.Reason =
            $"{(said.All(s => s.HasIt) ? "they have" : "they did not receive")} {string.Join(", ", about)}";
        request.Kind = nameof(Core.Reading.MessageKind.NotForUs);
        RequestSteps.Move(request, RequestDoing.SetAside);
        work.Leave(new RequestSetAside(before, request.State), request.Number, request.DossierId, request.Reason);
    }

    // Each interchange is answered: taken, or what is wrong and where.
    private static async Task AnswerAsync(RequestRow request, OpenedFile file, Work work, CancellationToken cancel)
    {
        for (var i = 0; i < file.Interchanges.Length; i++)
        {
            var x = file.Interchanges[i];
            if (Writers.InterchangeAnswer(file.Syntax, x) is not { } writer)
                continue;
            var control = await Series.NextCountInTransactionAsync(work.Db, Series.Interchange, 0, cancel);
            // The first is known by the request's number; those behind it in the same file are counted.
            var number =
                i == 0 ? request.Number : string.Create(CultureInfo.InvariantCulture, $"{request.Number}-{i + 1}");
            var answer = writer.Write(x, number, control, work.Now);
            work.Send(DocumentsBy.Edi, $"{number}.answer".ToLowerInvariant(), answer.To, answer.Name, answer.Bytes);
            work.Leave(
                new InterchangeAnswered(answer.Name, x.Faults.Count + x.Messages.Sum(m => m.Faults.Count)),
                request.Number
            );
        }
    }
}
