using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Mail;

namespace Solvenda.Acts.Requests;

/// <summary>
/// Finds what a message belongs to: by what it answers (Message-ID, In-Reply-To and References of RFC 5322), by what
/// a channel says that it is about, or by a number of ours in its subject and text.
/// </summary>
public static partial class Threads
{
    private const int MostNumbers = 20;

    /// <summary>
    /// Notes on a request the dossier that it belongs to, where one is found and is of the same buyer, and the request
    /// that it goes on from.
    /// </summary>
    /// <param name="about">Ids that the message itself says it is about, as raw messages keep them.</param>
    public static async Task FindAsync(
        SolvendaDb db,
        RequestRow request,
        IReadOnlyCollection<string> about,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(request);
        var answered = request.Syntax == nameof(Syntax.Mail) ? MailHead.Of(request.Raw.Bytes)?.References ?? [] : [];
        var theirs = answered.Select(id => $"mail:{id}").Concat(about).ToList();
        var ours = answered
            .Reverse()
            .Select(id => id.Split('@')[0].Split('.')[0])
            .Concat(Numbers().Matches($"{request.Subject} {request.Text}").Select(m => m.Value))
            .Select(n => n.ToUpperInvariant())
            .Distinct()
            .Take(MostNumbers)
            .ToList();
        if (theirs.Count + ours.Count == 0)
            return;
        // By their ids, each by its own index: an "or" over both would read every request.
        var raws = await db
            .RawMessages.Where(m => m.OwnId != null && EF.Parameter(theirs).Contains(m.OwnId))
            .Select(m => m.Id)
            .ToListAsync(cancel);
        var earlier = await db
            .Requests.Where(r => EF.Parameter(raws).Contains(r.RawId))
            .Union(db.Requests.Where(r => EF.Parameter(ours).Contains(r.Number)))
            .Where(r =>
                r.Id != request.Id && (r.BuyerId == null || request.BuyerId == null || r.BuyerId == request.BuyerId)
            )
            .OrderByDescending(r => r.Id)
            .Select(r => new { r.Number, r.DossierId })
            .FirstOrDefaultAsync(cancel);
        request.Follows = earlier?.Number;
        var found = earlier?.DossierId ?? await OursAsync(db, ours, cancel);
        // Another's number in somebody's letter opens no dossier to them.
        if (
            found is { } dossier
            && await db.Dossiers.AnyAsync(
                d => d.Id == dossier && (request.BuyerId == null || d.BuyerId == request.BuyerId),
                cancel
            )
        )
            request.DossierId = dossier;
    }

    private static Task<long?> OursAsync(SolvendaDb db, List<string> numbers, CancellationToken cancel)
    {
        var quotes = db.Quotes.Where(q => EF.Parameter(numbers).Contains(q.Number)).Select(q => q.DossierId);
        var orders = db.Orders.Where(o => EF.Parameter(numbers).Contains(o.Number)).Select(o => o.DossierId);
        var dossiers = db.Dossiers.Where(d => EF.Parameter(numbers).Contains(d.Number)).Select(d => d.Id);
        return quotes
            .Concat(orders)
            .Concat(dossiers)
            .OrderByDescending(d => d)
            .Select(d => (long?)d)
            .FirstOrDefaultAsync(cancel);
    }

    // Letters and digits with a hyphen, as series of numbers are made.
    [GeneratedRegex(@"\b[A-Za-z]{1,4}\d{0,4}-\d{3,8}\b")]
    private static partial Regex Numbers();
}
