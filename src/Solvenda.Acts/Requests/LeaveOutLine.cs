using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Says that a line of a reading is no item.</summary>
public sealed record LeaveOutLine(string Request, long Version, int Line) : IReadingChange;

[Leaves(typeof(ReadingCorrected))]
public sealed class LeaveOutLineAct : ReadingAct<LeaveOutLine>
{
    protected override Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        LeaveOutLine input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var gone = RequestSteps.LineOf(reading, input.Line);
        return Task.FromResult(
            (
                RequestSteps.Numbered(reading, reading.Lines.Where(l => l.No != gone.No)),
                new ReadingCorrected("left_out", gone.No, null, gone.Words, null)
            )
        );
    }
}
