using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Makes two requests of one: some of its lines become a request of their own, of the same message.</summary>
/// <param name="Lines">Numbers of the lines that go.</param>
public sealed record SplitRequest(string Request, long Version, IReadOnlyList<int> Lines) : IAct<string>;

[Leaves(typeof(RequestReceived), typeof(RequestSplit))]
public sealed class SplitRequestAct : Act<SplitRequest, string>
{
    public override Right Needs => Rights.Write;

    /// <returns>Number of the new request.</returns>
    public override async Task<string> RunAsync(Work work, SplitRequest input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var (request, reading) = await RequestSteps.OpenAsync(work.Db, input.Request, input.Version, cancel);
        var going = input.Lines.Select(no => RequestSteps.LineOf(reading, no).No).ToHashSet();
        if (going.Count == 0 || going.Count == reading.Lines.Count)
            throw RefusedException.Bad(
                "split_lines",
                "Pick some of the lines, and leave at least one; nothing was changed.",
                "lines"
            );
        // What was paid was paid for all of it.
        if (reading.Paid is not null)
            throw RefusedException.Bad("split_paid", "It is paid as one; nothing was changed.", "lines");
        // Neither comes to what their document states for both.
        reading = reading with
        {
            Goods = FieldView.Missing,
        };
        var beside = new RequestRow
        {
            Number = await work.NumberAsync(NumberSeries.Request, cancel),
            RawId = request.RawId,
            Raw = request.Raw,
            Message = request.Message,
            State = RequestState.Reading,
            Channel = request.Channel,
            ReceivedAt = request.ReceivedAt,
            Names = request.Names,
            DossierId = request.DossierId,
            Syntax = request.Syntax,
            FromWords = request.FromWords,
            Subject = request.Subject,
            Text = request.Text,
            Parts = request.Parts,
            Corrected = 1,
        };
        work.Db.Requests.Add(beside);
        RequestSteps.Take(
            beside,
            RequestSteps.Numbered(reading, reading.Lines.Where(l => going.Contains(l.No))) with
            {
                // What was not read, and what they charge beside the goods, stays with the first.
                LeftOvers = [],
                Charges = [],
            }
        );
        RequestSteps.Take(request, RequestSteps.Numbered(reading, reading.Lines.Where(l => !going.Contains(l.No))));
        request.Version++;
        request.Corrected++;
        work.Leave(new RequestReceived(beside.Channel, beside.Names, request.Number), beside.Number, beside.DossierId);
        work.Leave(new RequestSplit(beside.Number, going.Count), request.Number, request.DossierId);
        return beside.Number;
    }
}
