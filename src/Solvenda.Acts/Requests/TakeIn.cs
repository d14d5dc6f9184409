using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;

namespace Solvenda.Acts.Requests;

/// <summary>A message that came, as it came.</summary>
/// <param name="Delivery">One delivery by a channel, by which it knows a file again that it could not move away; null
/// where it has none.</param>
public sealed record TakeIn(
    string Channel,
    string? Filename,
    string? ContentType,
    byte[] Bytes,
    string? Delivery = null
) : IAct<TakenIn>
{
    /// <summary>So long it waited before it was taken.</summary>
    public TimeSpan Age { get; init; }

    /// <summary>Key of the buyer, where the way itself knows them.</summary>
    public long? Buyer { get; init; }
}

/// <param name="Request">Key of the request; of the first one, where nothing new was made.</param>
public sealed record TakenIn(long Request, bool IsNew);

/// <summary>
/// Stores a message raw, before anybody reads it. It is one request with an earlier one only where the sender's own id
/// and the content are the same;
/// the same id over other content, or the same content without an id, is a request of its own that names the first.
/// </summary>
[Leaves(typeof(RequestReceived), typeof(RequestRepeated))]
public sealed class TakeInAct : Act<TakeIn, TakenIn>
{
    private const int MostNameLetters = 200;

    public override Right Needs => Rights.Inbound;

    public override async Task<TakenIn> RunAsync(Work work, TakeIn input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (await work.Db.Ways.AnyAsync(w => w.Channel == input.Channel && w.BuyerId == null && !w.Open, cancel))
            throw RefusedException.Clash("way_closed", "That way in is closed; nothing was taken.");
        var hash = Convert.ToHexString(SHA256.HashData(input.Bytes));
        var name = NameOf(input.Filename);
        var own = Readers.OwnIdOf(input.Bytes, name);
        if (await SameAsync(work.Db, input.Delivery, own, hash, cancel) is { } same)
        {
            work.Leave(new RequestRepeated(input.Channel), same.Number, same.DossierId);
            return new TakenIn(same.Id, false);
        }
        var first = await FirstAsync(work.Db, own, hash, cancel);
        var request = new RequestRow
        {
            Number = await work.NumberAsync(NumberSeries.Request, cancel),
            Raw = new RawMessage
            {
                Channel = input.Channel,
                Filename = name,
                ContentType = input.ContentType,
                Bytes = input.Bytes,
                Hash = hash,
                OwnId = own,
                Delivery = input.Delivery,
                ReceivedAt = work.Now,
                BuyerId = input.Buyer,
            },
            State = RequestState.Reading,
            // The first try begins as soon as it is stored.
            ReadTries = 1,
            Channel = input.Channel,
            ReceivedAt = work.Now - input.Age,
            Subject = name ?? "",
            Names = first,
        };
        work.Db.Requests.Add(request);
        work.Leave(new RequestReceived(input.Channel, first, null), request.Number);
        await work.Db.SaveChangesAsync(cancel);
        return new TakenIn(request.Id, true);
    }

    private static Task<RequestRow?> SameAsync(
        SolvendaDb db,
        string? delivery,
        string? own,
        string hash,
        CancellationToken cancel
    ) =>
        db
            .Requests.AsNoTracking()
            .Where(r =>
                (delivery != null && r.Raw.Delivery == delivery && r.Raw.Hash == hash)
                || (own != null && r.Raw.OwnId == own && r.Raw.Hash == hash)
            )
            .OrderBy(r => r.Id)
            .FirstOrDefaultAsync(cancel);

    private static Task<string?> FirstAsync(SolvendaDb db, string? own, string hash, CancellationToken cancel) =>
        db
            .Requests.Where(r => own != null ? r.Raw.OwnId == own : r.Raw.Hash == hash)
            .OrderBy(r => r.Id)
            .Select(r => (string?)r.Number)
            .FirstOrDefaultAsync(cancel);

    // A name is shown and kept, never used as a path; control characters have no place in it.
    private static string? NameOf(string? filename)
    {
        if (string.IsNullOrWhiteSpace(filename))
            return null;
        var plain = new string([.. Path.GetFileName(filename).Where(c => !char.IsControl(c))]);
        return plain.Length > MostNameLetters ? plain[..MostNameLetters] : plain;
    }
}
