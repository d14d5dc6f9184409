using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Reading;

namespace Solvenda.Acts.Requests;

/// <summary>Takes text chosen in the original: for a line that is there, or for a new one.</summary>
/// <param name="Line">0: a new line.</param>
public sealed record ChooseText(string Request, long Version, int Line, int Part, int Start, int Length) : IAct<string>;

[Leaves(typeof(ReadingCorrected))]
public sealed class ChooseTextAct(Reader reader) : PreparedAct<ChooseText, ReadLineView, string>
{
    private const int MostLetters = 2_000;

    public override Right Needs => Rights.Write;

    /// <returns>What the chosen text says, read while others write.</returns>
    protected override async Task<ReadLineView> PrepareAsync(Ahead ahead, ChooseText input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(ahead);
        ArgumentNullException.ThrowIfNull(input);
        var (request, reading) = await RequestSteps.OpenAsync(ahead.Db, input.Request, input.Version, cancel);
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
        return await reader.ReadPieceAsync(
            ahead.Db,
            parts[input.Part],
            input.Part,
            input.Start,
            input.Length,
            reading.BuyerId,
            DateOnly.FromDateTime(request.ReceivedAt),
            cancel
        );
    }

    /// <returns>Number of the request.</returns>
    protected override async Task<string> RunAsync(
        Work work,
        ChooseText input,
        ReadLineView prepared,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        // The same version as when it was read.
        var (request, reading) = await RequestSteps.OpenAsync(work.Db, input.Request, input.Version, cancel);
        var where = new EvidenceView(input.Start, input.Length, input.Part);
        if (input.Line == 0)
            return RequestSteps.Correct(
                work,
                request,
                RequestSteps.Numbered(reading.Explaining(where), [.. reading.Lines, prepared]),
                new ReadingCorrected("added", reading.Lines.Count + 1, null, null, prepared.Words)
            );
        var line = RequestSteps.LineOf(reading, input.Line);
        return RequestSteps.Correct(
            work,
            request,
            RequestSteps.With(reading.Explaining(where), Joined(line, prepared)),
            new ReadingCorrected("chosen", line.No, null, line.Words, prepared.Words)
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
