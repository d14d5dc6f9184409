using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Reading;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>Takes text chosen in the original: for a line that is there, or for a new one.</summary>
/// <param name="Line">0: a new line.</param>
public sealed record ChooseText(string Request, long Version, int Line, int Part, int Start, int Length)
    : IReadingChange;

[Leaves(typeof(ReadingCorrected))]
public sealed class ChooseTextAct(Reader reader) : ReadingAct<ChooseText>
{
    private const int MostLetters = 2_000;

    protected override async Task<(ReadingView Reading, ReadingCorrected Event)> ChangeAsync(
        Work work,
        ChooseText input,
        RequestRow request,
        ReadingView reading,
        CancellationToken cancel
    )
    {
        var parts = KeptPart.FromJson(request.Parts, request.Text);
        if (
            input.Part < 0
            || input.Part >= parts.Count
            || input.Start < 0
            || input.Length is < 1 or > MostLetters
            || input.Start > parts[input.Part].Text.Length - input.Length
        )
            throw RefusedException.Bad(
                "text_chosen",
                "Choose some words of the original, up to 2,000 letters.",
                "text"
            );
        var read = await reader.ReadPieceAsync(
            work.Db,
            parts[input.Part],
            input.Part,
            input.Start,
            input.Length,
            reading.BuyerId,
            DateOnly.FromDateTime(request.ReceivedAt),
            cancel
        );
        if (input.Line == 0)
            return (
                RequestSteps.Numbered(reading, [.. reading.Lines, read]),
                new ReadingCorrected("added", reading.Lines.Count + 1, null, null, read.Words)
            );
        var line = RequestSteps.LineOf(reading, input.Line);
        return (
            RequestSteps.With(reading, Joined(line, read)),
            new ReadingCorrected("chosen", line.No, null, line.Words, read.Words)
        );
    }

    // What the chosen words do not say stays as it was.
    private static ReadLineView Joined(ReadLineView line, ReadLineView read)
    {
        if (read.Quantity is not null)
            return read with { No = line.No };
        var sure = Math.Min(read.ItemSure, line.QuantitySure);
        return read with
        {
            No = line.No,
            Quantity = line.Quantity,
            QuantitySure = line.QuantitySure,
            QuantityHow = line.QuantityHow,
            QuantityEvidence = line.QuantityEvidence,
            Price = line.Price,
            PriceBase = line.PriceBase,
            Unit = line.Unit,
            UnitWord = line.UnitWord,
            Sure = sure,
            NeedsYou = read.ItemCode is null || sure < ReadLine.SureEnough,
        };
    }
}
