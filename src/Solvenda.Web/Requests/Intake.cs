using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Ordering;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Requests;

/// <summary>The one door for everything that comes in: stores it raw first, then reads it. The same thing twice is one request.</summary>
public sealed class Intake(CommandHandler commands, Reader reader)
{
    /// <summary>True where it was new; else the request that it repeats.</summary>
    public async Task<(RequestRow Request, bool IsNew)> ReceiveAsync(string channel, string? filename, string? contentType, byte[] bytes, Actor actor, CancellationToken cancel)
    {
        var (id, isNew) = await commands.RunAsync(actor, work => StoreAsync(channel, Name(filename), contentType, bytes, work, cancel), cancel);
        // Read in a transaction of its own: what was taken in is kept, whatever reading makes of it.
        var request = isNew ? await commands.RunAsync(Actor.House, work => ReadAsync(id, work, cancel), cancel) : await commands.RunAsync(Actor.House, work => LoadAsync(id, work, cancel), cancel);
        return (request, isNew);
    }

    /// <summary>Reads what a stopped process had only stored.</summary>
    public async Task ReadLeftOversAsync(IReadOnlyList<long> requests, CancellationToken cancel)
    {
        foreach (var id in requests)
            await commands.RunAsync(Actor.House, work => ReadAsync(id, work, cancel), cancel);
    }

    private static async Task<(long Id, bool IsNew)> StoreAsync(string channel, string? filename, string? contentType, byte[] bytes, Work work, CancellationToken cancel)
    {
        var hash = Convert.ToHexString(SHA256.HashData(bytes));
        var key = Reader.OwnIdOf(bytes, filename, work.Today) ?? $"hash:{hash}";
        var before = await work.Db.RawMessages.Where(r => r.Hash == hash || r.DedupeKey == key).OrderBy(r => r.Id).Select(r => new { r.Id, r.Hash }).FirstOrDefaultAsync(cancel);
        var raw = new RawMessage { Channel = channel, Filename = filename, ContentType = contentType, Bytes = bytes, Hash = hash, DedupeKey = key, ReceivedAt = work.Now };
        if (before is not null)
        {
            var first = await work.Db.Requests.Where(r => r.RawId == before.Id).Select(r => new { r.Id, r.Number, r.DossierId }).FirstAsync(cancel);
            var same = before.Hash == hash || await work.Db.RawMessages.AnyAsync(r => r.Hash == hash, cancel);
            if (!same)
            {
                // The sender's own number again, over other bytes: one request, but nothing that arrived is lost.
                raw.DedupeKey = $"{key}#{hash}";
                work.Db.RawMessages.Add(raw);
            }
            work.History(first.Number, first.DossierId, "request.repeated", same ? $"the same message came again by {channel}" : $"the same number came again by {channel}, with other contents; kept beside it");
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

    private async Task<RequestRow> ReadAsync(long id, Work work, CancellationToken cancel)
    {
        var request = await LoadAsync(id, work, cancel);
        var result = await reader.ReadAsync(work.Db, request.Raw.Bytes, request.Raw.Filename, work.Today, cancel);
        request.Text = result.Text;
        request.FromWords = result.From;
        request.Subject = result.Subject.Length > 0 ? result.Subject : request.Raw.Filename ?? "no name";
        request.Version++;
        if (result.Reading is not { } reading)
        {
            request.State = RequestState.NeedsYou;
            request.Reason = result.Problem ?? "Could not be read.";
            work.History(request.Number, null, "request.unreadable", request.Reason);
            return request;
        }
        Take(request, reading);
        work.History(request.Number, null, "request.read", $"read as {Say(reading)}");
        return request;
    }

    /// <summary>Writes a reading, as read or as settled, onto its request.</summary>
    public static void Take(RequestRow request, ReadingView reading)
    {
        request.Reading = reading.ToJson();
        request.Kind = reading.Kind.ToString();
        request.BuyerId = reading.BuyerId;
        request.PoKey = reading.PoNumber.Value is { } po ? PoKey.Of(po) : "";
        request.State = reading.NeedsYou ? RequestState.NeedsYou : RequestState.New;
        request.Reason = Why(reading);
    }

    private static string Why(ReadingView reading)
    {
        if (reading.BuyerId is null)
            return "we do not know who this is";
        if (reading.Lines.Count == 0)
            return reading.Kind == Core.Reading.MessageKind.Question ? "asks something" : "no lines could be read";
        var open = reading.Lines.Where(l => l.NeedsYou).ToList();
        return open.Count switch
        {
            0 => "",
            1 when open[0].ItemCode is null => $"one item is unknown: {open[0].TheirCode ?? open[0].Words}",
            1 => $"not sure about “{open[0].Words}”",
            _ => $"not sure about {open.Count} lines",
        };
    }

    private static string Say(ReadingView reading) => reading.Kind switch
    {
        Core.Reading.MessageKind.Order => $"an order with {reading.Lines.Count} lines",
        Core.Reading.MessageKind.RequestForQuotation => $"a request for a quote with {reading.Lines.Count} lines",
        _ => "a message without lines",
    };

    private static async Task<RequestRow> LoadAsync(long id, Work work, CancellationToken cancel) => await work.Db.Requests.Include(r => r.Raw).FirstAsync(r => r.Id == id, cancel);

    // A name is shown and kept, never used as a path; control characters have no place in it.
    private static string? Name(string? filename)
    {
        if (string.IsNullOrWhiteSpace(filename))
            return null;
        var plain = new string([.. Path.GetFileName(filename).Where(c => !char.IsControl(c))]);
        return plain.Length > 200 ? plain[..200] : plain;
    }
}
