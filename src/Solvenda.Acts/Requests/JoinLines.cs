using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Joins a line of a reading with the one behind it.</summary>
public sealed record JoinLines(string Request, long Version, int Line) : IReadingChange;

[Leaves(typeof(ReadingCorrected))]
public sealed class JoinLinesAct : ReadingAct<JoinLines>
{
    protected override Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        JoinLines input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var line = RequestSteps.LineOf(reading, input.Line);
        var behind =
            reading.Lines.FirstOrDefault(l => l.No == input.Line + 1)
            ?? throw RefusedException.Bad("line_last", "There is no line behind it to join it with.", "line");
        var same = line.ItemCode == behind.ItemCode && line.Unit == behind.Unit;
        // Two of the same add up; else the second was only more words for the first.
        var joined = line with
        {
            Words = same ? line.Words : $"{line.Words} {behind.Words}",
            Quantity = same ? line.Quantity + behind.Quantity : line.Quantity ?? behind.Quantity,
            Note = string.Join("; ", new[] { line.Note, behind.Note }.Where(n => n.Length > 0).Distinct()),
            ItemCode = line.ItemCode ?? behind.ItemCode,
            ItemWords = line.ItemWords ?? behind.ItemWords,
            Evidence = [.. line.Evidence, .. behind.Evidence],
            QuantityEvidence = [.. line.QuantityEvidence, .. same ? behind.QuantityEvidence : []],
        };
        var lines = reading.Lines.Where(l => l.No != behind.No).Select(l => l.No == line.No ? joined : l);
        return Task.FromResult(
            (
                RequestSteps.Numbered(reading, lines),
                new ReadingCorrected("joined", line.No, null, $"{line.Words}; {behind.Words}", joined.Words)
            )
        );
    }
}
