using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.Ordering;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Requests;

/// <summary>
/// What acts on requests share: finding one on the version that was seen, and writing a reading onto it.
/// </summary>
public static class RequestSteps
{
    private const int MostLetters = 300;

    /// <summary>A request that is still to be dealt with, on the version that was seen.</summary>
    public static async Task<RequestRow> FindAsync(
        SolvendaDb db,
        string number,
        long? version,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        var request =
            await db.Requests.Include(r => r.Raw).FirstOrDefaultAsync(r => r.Number == number, cancel)
            ?? throw RefusedException.NotFound("such request");
        if (!RequestMoves.IsOpen(request.State))
            throw RefusedException.Clash(
                "request_done",
                request.State == RequestState.Reading ? "It is still being read." : "It was dealt with already."
            );
        return version is null || request.Version == version
            ? request
            : throw RefusedException.Clash(
                "stale",
                "Somebody else changed it in the meantime; yours was not saved over it."
            );
    }

    /// <summary>The same with its reading; refused where it could not be read.</summary>
    public static async Task<(RequestRow Request, ReadingView Reading)> OpenAsync(
        SolvendaDb db,
        string number,
        long version,
        CancellationToken cancel
    )
    {
        var request = await FindAsync(db, number, version, cancel);
        return request.Reading.Length > 0
            ? (request, ReadingView.FromJson(request.Reading))
            : throw RefusedException.Bad(
                "not_read",
                "It could not be read, so there is nothing to correct or turn; put it aside, or type it anew."
            );
    }

    /// <summary>Writes a reading that a person corrected onto its request, with its event.</summary>
    /// <returns>Number of the request.</returns>
    internal static string Correct(Work work, RequestRow request, ReadingView after, ReadingCorrected left)
    {
        Take(request, after);
        request.Version++;
        request.Corrected++;
        work.Leave(left, request.Number, request.DossierId);
        return request.Number;
    }

    /// <summary>Writes what came of reading onto a request, with its event.</summary>
    internal static void Take(RequestRow request, ReadMessage read, Work work)
    {
        var message = read.Message;
        request.Parts = KeptPart.ToJson(message.Parts);
        request.Text = message.Parts.FirstOrDefault()?.Text ?? "";
        request.FromWords = Short(message.From);
        request.Subject = message.Subject.Length > 0 ? Short(message.Subject) : request.Raw.Filename ?? "no name";
        request.Version++;
        var before = request.State;
        if (read.Reading is not { } reading)
        {
            Move(request, RequestDoing.Doubt);
            request.Reason = read.Problem ?? "Could not be read.";
            work.Leave(new RequestUnreadable(request.Reason, before, request.State), request.Number, request.DossierId);
            return;
        }
        Take(request, reading);
        work.Leave(
            new RequestRead(
                reading.Kind.ToString(),
                reading.Lines.Count,
                reading.Kind == MessageKind.AnswerToQuote ? reading.QuoteNumber.Value : reading.PoNumber.Value,
                before,
                request.State
            ),
            request.Number,
            request.DossierId
        );
    }

    /// <summary>Writes a reading, as read or as settled, onto its request.</summary>
    public static void Take(RequestRow request, ReadingView reading)
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(reading);
        request.Reading = reading.ToJson();
        request.Brief = Short(reading.InBrief());
        request.Kind = reading.Kind.ToString();
        request.BuyerId = reading.BuyerId;
        request.PoKey = reading.PoNumber.Value is { } po ? PoKey.Of(po) : "";
        var doubt = reading.NeedsYou || reading.Kind is not (MessageKind.Order or MessageKind.RequestForQuotation);
        request.Reason = Why(reading);
        // What looks like an earlier one is looked at by a person, however well it was read.
        if (request.Names is { } names && request.Reason.Length == 0)
            (doubt, request.Reason) = (true, $"names {names}: is it the same again?");
        request.Ready = false;
        Move(request, doubt ? RequestDoing.Doubt : RequestDoing.Settle);
    }

    /// <summary>Moves a request along its table.</summary>
    public static void Move(RequestRow request, RequestDoing doing)
    {
        ArgumentNullException.ThrowIfNull(request);
        request.State =
            RequestMoves.Table.After(request.State, doing)
            ?? throw RefusedException.Clash("request_done", "It was dealt with already.");
    }

    public static ReadLineView LineOf(ReadingView reading, int no)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return reading.Lines.FirstOrDefault(l => l.No == no) ?? throw RefusedException.NotFound("such line");
    }

    public static ReadingView With(ReadingView reading, ReadLineView line)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return reading with { Lines = [.. reading.Lines.Select(l => l.No == line.No ? line : l)] };
    }

    public static ReadingView Numbered(ReadingView reading, IEnumerable<ReadLineView> lines)
    {
        ArgumentNullException.ThrowIfNull(reading);
        return reading with { Lines = [.. lines.Select((l, i) => l with { No = i + 1 })] };
    }

    private static string Why(ReadingView reading)
    {
        if (reading.Kind == MessageKind.NotForUs)
            return "looks as if it was not for us";
        if (reading.BuyerCandidates.Count > 1)
            return $"it could be from {string.Join(" or ", reading.BuyerCandidates.Take(2).Select(c => c.Name))}";
        if (reading.BuyerId is null)
            return "we do not know who this is";
        if (
            reading.KindSure < ReadLine.SureEnough
            && (reading.Kind is not (MessageKind.Unclear or MessageKind.Question) || reading.Lines.Count > 0)
        )
            return $"is it {KindWords.Of(reading.Kind)}?";
        switch (reading.Kind)
        {
            case MessageKind.Cancellation:
                return $"takes order {reading.PoNumber.Value ?? "?"} back";
            case MessageKind.Change:
                return $"changes order {reading.PoNumber.Value ?? "?"}";
            case MessageKind.Return:
                return "wants to give something back";
            case MessageKind.Reminder:
                return $"waits for {reading.PoNumber.Value ?? "an order"}";
            case MessageKind.Complaint:
                return "complains";
            case MessageKind.AnswerToQuote:
                return $"answers our quote {reading.QuoteNumber.Value ?? "?"}";
        }
        if (reading.Lines.Count == 0)
            return reading.Kind == MessageKind.Question ? "asks something" : "no lines could be read";
        if (reading.PoNumber.Sure is > 0 and < ReadLine.SureEnough)
            return reading.PoNumber.How;
        if (reading.Wanted.Value is not null && reading.Wanted.Sure < Reading.UnsureDate)
            return $"wanted when? {reading.Wanted.How}";
        var open = reading.Lines.Where(l => l.NeedsYou).ToList();
        return open.Count switch
        {
            0 when reading.LeftOvers.Count > 0 && reading.LeftOvers[0].Why.Length > 0 => Short(
                reading.LeftOvers[0].Why
            ),
            0 when reading.LeftOvers.Count > 0 => $"not all of it is read: “{Short(reading.LeftOvers[0].Words)}”",
            0 => "",
            1 when open[0].ItemCode is null => $"one item is unknown: {open[0].TheirCode ?? open[0].Words}",
            1 => $"not sure about “{open[0].Words}”",
            _ => $"not sure about {open.Count} lines",
        };
    }

    /// <summary>As a list shows it.</summary>
    internal static string Short(string text) => text.Length > MostLetters ? text[..MostLetters] : text;
}
