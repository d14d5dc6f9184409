using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Says that words which nothing explained mean nothing here.</summary>
/// <param name="Part">Where they stand: the part of the message, and the first letter.</param>
public sealed record DismissLeftOver(string Request, long Version, int Part, int Start) : IReadingChange;

[Leaves(typeof(ReadingCorrected))]
public sealed class DismissLeftOverAct : ReadingAct<DismissLeftOver>
{
    protected override Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        DismissLeftOver input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var over =
            reading.LeftOvers.FirstOrDefault(l => l.Where.Part == input.Part && l.Where.Start == input.Start)
            ?? throw RefusedException.NotFound("such words");
        var after = reading.Explaining(over.Where) with { MeansNothing = [.. reading.MeansNothing, over.Where] };
        return Task.FromResult((after, new ReadingCorrected("means_nothing", null, null, over.Words, null)));
    }
}
