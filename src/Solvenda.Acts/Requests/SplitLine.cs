using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Splits a line of a reading: so much in the first, the rest in the second.</summary>
public sealed record SplitLine(string Request, long Version, int Line, decimal First) : IReadingChange;

[Leaves(typeof(ReadingCorrected))]
public sealed class SplitLineAct : ReadingAct<SplitLine>
{
    protected override Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        SplitLine input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var line = RequestSteps.LineOf(reading, input.Line);
        if (line.Quantity is not { } whole || input.First <= 0 || input.First >= whole)
            throw RefusedException.Bad(
                "number",
                FormattableString.Invariant(
                    $"The first part is more than nothing and less than {line.Quantity ?? 0m:0.######}."
                ),
                "quantity"
            );
        var lines = reading.Lines.SelectMany(l =>
            l.No == line.No
                ? [l with { Quantity = input.First }, l with { Quantity = whole - input.First }]
                : new[] { l }
        );
        return Task.FromResult(
            (
                RequestSteps.Numbered(reading, lines),
                new ReadingCorrected(
                    "split",
                    line.No,
                    null,
                    FormattableString.Invariant($"{whole:0.######}"),
                    FormattableString.Invariant($"{input.First:0.######} and {whole - input.First:0.######}")
                )
            )
        );
    }
}
