using System.Globalization;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Ordering;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.X12;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Requests;

/// <summary>The one door for everything that comes in: stores it raw first, then reads it. The same thing twice is one request.</summary>
public sealed class Intake(
    CommandHandler commands,
    Reader reader,
    IDbContextFactory<SolvendaDb> factory,
    HouseClock clock
)
{
    // More messages than this in one file are not made into requests; the file itself is kept whole.
    private const int MostMessages = 1_000;

    /// <summary>True where it was new; else the request that it repeats.</summary>
    public async Task<(RequestRow Request, bool IsNew)> ReceiveAsync(
        string channel,
        string? filename,
        string? contentType,
        byte[] bytes,
        Actor actor,
        CancellationToken cancel
    )
    {
        var (id, isNew) = await commands.RunAsync(
            actor,
            work => StoreAsync(channel, Name(filename), contentType, bytes, work, cancel),
            cancel
        );
        var request = isNew
            ? await ReadAsync(id, cancel)
            : await commands.RunAsync(Actor.House, work => LoadAsync(id, work, cancel), cancel);
        return (request, isNew);
    }

    /// <summary>Reads what a stopped process had only stored.</summary>
    public async Task ReadLeftOversAsync(IReadOnlyList<long> requests, CancellationToken cancel)
    {
        foreach (var id in requests)
            await ReadAsync(id, cancel);
    }

    private static async Task<(long Id, bool IsNew)> StoreAsync(
        string channel,
        string? filename,
        string? contentType,
        byte[] bytes,
        Work work,
        CancellationToken cancel
    )
    {
        var hash = Convert.ToHexString(SHA256.HashData(bytes));
        var key = Reader.OwnIdOf(bytes, filename) ?? $"hash:{hash}";
        var before = await work
            .Db.RawMessages.Where(r => r.Hash == hash || r.DedupeKey == key)
            .OrderBy(r => r.Id)
            .Select(r => new { r.Id, r.Hash })
            .FirstOrDefaultAsync(cancel);
        var raw = new RawMessage
        {
            Channel = channel,
            Filename = filename,
            ContentType = contentType,
            Bytes = bytes,
            Hash = hash,
            DedupeKey = key,
            ReceivedAt = work.Now,
        };
        if (before is not null)
        {
            var first = await work
                .Db.Requests.Where(r => r.RawId == before.Id)
                .Select(r => new
                {
                    r.Id,
                    r.Number,
                    r.DossierId,
                })
                .FirstAsync(cancel);
            var same = before.Hash == hash || await work.Db.RawMessages.AnyAsync(r => r.Hash == hash, cancel);
            if (!same)
            {
                // The sender's own number again, over other bytes: one request, but nothing that arrived is lost.
                raw.DedupeKey = $"{key}#{hash}";
                work.Db.RawMessages.Add(raw);
            }
            work.History(
                first.Number,
                first.DossierId,
                "request.repeated",
                same
                    ? $"the same message came again by {channel}"
                    : $"the same number came again by {channel}, with other contents; kept beside it"
            );
            return (first.Id, false);
        }
        var request = new RequestRow
        {
            Number = await work.NumberAsync(Series.Request, cancel),
            Raw = raw,
            State = RequestState.Reading,
            Channel = channel,
            ReceivedAt = work.Now,
            Subject = filename ?? "",
        };
        work.Db.Requests.Add(request);
        work.History(request.Number, null, "request.received", $"came by {channel}");
        await work.Db.SaveChangesAsync(cancel);
        return (request.Id, true);
    }

    // Several messages in one file are several requests: the first is the one that was stored, the others are made beside it.
    private async Task<RequestRow> ReadAsync(long id, CancellationToken cancel)
    {
        // Reading may take its time (pages, pictures), and nobody else waits for it; what was taken in is kept, whatever it makes of it.
        ReadResult result;
        await using (var db = await factory.CreateDbContextAsync(cancel))
        {
            var raw = await db.Requests.AsNoTracking().Where(r => r.Id == id).Select(r => r.Raw).FirstAsync(cancel);
            result = await reader.ReadAsync(db, raw.Bytes, raw.Filename, clock.Today, cancel);
        }
        return await commands.RunAsync(Actor.House, work => KeepAsync(id, result, work, cancel), cancel);
    }

    private static async Task<RequestRow> KeepAsync(long id, ReadResult result, Work work, CancellationToken cancel)
    {
        var request = await LoadAsync(id, work, cancel);
        var aliases = result.Helped.ToList();
        await work
            .Db.Aliases.Where(a => EF.Parameter(aliases).Contains(a.Id))
            .ExecuteUpdateAsync(a => a.SetProperty(x => x.Helped, x => x.Helped + 1), cancel);
        for (var i = 0; i < Math.Min(result.Messages.Count, MostMessages); i++)
        {
            var row = i == 0 ? request : await BesideAsync(request, i, work, cancel);
            Take(row, result.Messages[i], work);
        }
        if (result.Messages.Count > MostMessages)
            work.History(
                request.Number,
                null,
                "request.left",
                $"{result.Messages.Count:#,0} messages stand in the file; {MostMessages:#,0} became requests"
            );
        await AcknowledgeAsync(request, result.File, work, cancel);
        return request;
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
            Number = await work.NumberAsync(Series.Request, cancel),
            RawId = first.RawId,
            Raw = first.Raw,
            Message = message,
            State = RequestState.Reading,
            Channel = first.Channel,
            ReceivedAt = first.ReceivedAt,
        };
        work.Db.Requests.Add(beside);
        work.History(beside.Number, null, "request.received", $"came in one file with {first.Number}");
        return beside;
    }

    private static void Take(RequestRow request, ReadMessage read, Work work)
    {
        var message = read.Message;
        request.Parts = KeptPart.ToJson(message.Parts);
        request.Text = message.Parts.FirstOrDefault()?.Text ?? "";
        request.FromWords = Short(message.From);
        request.Subject = message.Subject.Length > 0 ? Short(message.Subject) : request.Raw.Filename ?? "no name";
        request.Version++;
        if (read.Reading is not { } reading)
        {
            request.State = RequestState.NeedsYou;
            request.Reason = read.Problem ?? "Could not be read.";
            work.History(request.Number, null, "request.unreadable", request.Reason);
            return;
        }
        Take(request, reading);
        work.History(request.Number, null, "request.read", $"read as {Say(reading)}");
    }

    /// <summary>Reads a request anew, after something about its form was said.</summary>
    public async Task RereadAsync(RequestRow request, Work work, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(work);
        var before = request.Reading.Length > 0 ? ReadingView.FromJson(request.Reading) : null;
        // A buyer that a person said stays; one that was read is read again.
        var said = before?.Buyer.IsSettled == true ? before.BuyerId : null;
        var result = await reader.ReadAsync(
            work.Db,
            request.Raw.Bytes,
            request.Raw.Filename,
            DateOnly.FromDateTime(request.ReceivedAt),
            cancel,
            said
        );
        var read = result.Messages[Math.Min(request.Message, result.Messages.Count - 1)];
        Take(
            request,
            before is null || read.Reading is null ? read : read with { Reading = read.Reading.Keeping(before) },
            work
        );
    }

    // Each interchange is answered: taken, or what is wrong and where. An answer is never answered.
    private static async Task AcknowledgeAsync(RequestRow request, OpenedFile file, Work work, CancellationToken cancel)
    {
        if (
            file.Interchange is not { } x
            || x.Messages.All(m => m.Type is "997" or "999" or "CONTRL" or "APERAK")
            || x.Sender.Length == 0
        )
            return;
        var control = await Series.NextCountInTransactionAsync(work.Db, Series.Interchange, 0, cancel);
        var isX12 = file.Syntax == Syntax.X12;
        var answer = isX12
            ? FunctionalAcknowledgement.Write(x, control, work.Now)
            : SyntaxReport.Write(x, control.ToString(CultureInfo.InvariantCulture), work.Now);
        var name = isX12 ? $"997-{request.Number}.x12" : $"CONTRL-{request.Number}.edi";
        work.Send(
            "edi",
            $"{request.Number}.answer".ToLowerInvariant(),
            x.Sender,
            name,
            System.Text.Encoding.Latin1.GetBytes(answer)
        );
        var faults = x.Faults.Count + x.Messages.Sum(m => m.Faults.Count);
        work.History(
            request.Number,
            null,
            "interchange.answered",
            $"answered with {name}{(faults > 0 ? $", {faults} faults named" : "")}"
        );
    }

    /// <summary>Writes a reading, as read or as settled, onto its request.</summary>
    public static void Take(RequestRow request, ReadingView reading)
    {
        request.Reading = reading.ToJson();
        request.Kind = reading.Kind.ToString();
        request.BuyerId = reading.BuyerId;
        request.PoKey = reading.PoNumber.Value is { } po ? PoKey.Of(po) : "";
        request.State =
            reading.NeedsYou
            || reading.Kind is not (Core.Reading.MessageKind.Order or Core.Reading.MessageKind.RequestForQuotation)
                ? RequestState.NeedsYou
                : RequestState.New;
        request.Reason = Why(reading);
    }

    private static string Why(ReadingView reading)
    {
        if (reading.Kind == Core.Reading.MessageKind.NotForUs)
            return "looks as if it was not for us";
        if (reading.BuyerCandidates.Count > 1)
            return $"it could be from {string.Join(" or ", reading.BuyerCandidates.Take(2).Select(c => c.Name))}";
        if (reading.BuyerId is null)
            return "we do not know who this is";
        switch (reading.Kind)
        {
            case Core.Reading.MessageKind.Cancellation:
                return $"takes order {reading.PoNumber.Value ?? "?"} back";
            case Core.Reading.MessageKind.Change:
                return $"changes order {reading.PoNumber.Value ?? "?"}";
            case Core.Reading.MessageKind.AnswerToQuote:
                return $"answers our quote {reading.QuoteNumber.Value ?? "?"}";
        }
        if (reading.Lines.Count == 0)
            return reading.Kind == Core.Reading.MessageKind.Question ? "asks something" : "no lines could be read";
        if (reading.Wanted.Value is not null && reading.Wanted.Sure < Core.Reading.Reading.UnsureDate)
            return $"wanted when? {reading.Wanted.How}";
        var open = reading.Lines.Where(l => l.NeedsYou).ToList();
        return open.Count switch
        {
            0 => "",
            1 when open[0].ItemCode is null => $"one item is unknown: {open[0].TheirCode ?? open[0].Words}",
            1 => $"not sure about “{open[0].Words}”",
            _ => $"not sure about {open.Count} lines",
        };
    }

    private static string Say(ReadingView reading) =>
        reading.Kind switch
        {
            Core.Reading.MessageKind.Order => $"an order with {reading.Lines.Count} lines",
            Core.Reading.MessageKind.RequestForQuotation => $"a request for a quote with {reading.Lines.Count} lines",
            Core.Reading.MessageKind.Change =>
                $"a change of order {reading.PoNumber.Value}, {reading.Lines.Count} lines",
            Core.Reading.MessageKind.Cancellation => $"a cancellation of order {reading.PoNumber.Value}",
            Core.Reading.MessageKind.AnswerToQuote => $"an answer to our quote {reading.QuoteNumber.Value}",
            Core.Reading.MessageKind.Question => "a question",
            Core.Reading.MessageKind.NotForUs => "something that is not for us",
            _ => "a message without lines",
        };

    private static async Task<RequestRow> LoadAsync(long id, Work work, CancellationToken cancel) =>
        await work.Db.Requests.Include(r => r.Raw).FirstAsync(r => r.Id == id, cancel);

    private static string Short(string text) => text.Length > 300 ? text[..300] : text;

    // A name is shown and kept, never used as a path; control characters have no place in it.
    private static string? Name(string? filename)
    {
        if (string.IsNullOrWhiteSpace(filename))
            return null;
        var plain = new string([.. Path.GetFileName(filename).Where(c => !char.IsControl(c))]);
        return plain.Length > 200 ? plain[..200] : plain;
    }
}
