using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Requests;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats;
using Solvenda.Formats.Mail;

namespace Solvenda.Web.Requests;

/// <summary>A part of the original, as it is shown.</summary>
/// <param name="Segments">For EDI: its segments with their names.</param>
public sealed record PartShown(KeptPart Part, IReadOnlyList<LegiblePiece> Segments);

/// <summary>Another request that came in the same file.</summary>
public sealed record Sibling(string Number, string Subject, RequestState State);

/// <summary>A request: its original and its reading.</summary>
/// <param name="Names">Number of an earlier request that it repeats or names.</param>
public sealed record RequestView(
    long Id,
    string Number,
    long Version,
    RequestState State,
    string Reason,
    string Channel,
    DateTime ReceivedAt,
    string From,
    string Subject,
    string? Filename,
    int Bytes,
    IReadOnlyList<PartShown> Parts,
    ReadingView? Reading,
    string? Names,
    string? Dossier,
    string? Matter,
    DocumentRef? TurnedInto,
    int Position,
    int Waiting,
    string? Next,
    IReadOnlyList<Sibling> Siblings
)
{
    /// <summary>What it is worth at our prices, with tax; null where nobody can say.</summary>
    public decimal? Worth { get; init; }
    public string Currency { get; init; } = "";

    /// <summary>So much of its goods is sure, in percent.</summary>
    public int? SurePercent { get; init; }

    /// <summary>Whether nothing is left open in it.</summary>
    public bool Ready { get; init; }

    /// <summary>Who has it.</summary>
    public Holder? Hand { get; init; }

    /// <summary>Number of the request that it goes on from; null for none.</summary>
    public string? Follows { get; init; }

    /// <summary>What we wrote to whoever sent it, and to what it goes on from.</summary>
    public IReadOnlyList<AnswerView> Answers { get; init; } = [];

    /// <summary>Where an answer goes; empty where it has to be said.</summary>
    public string AnswerTo { get; init; } = "";
}

/// <summary>Somebody who has something.</summary>
public sealed record Holder(long Id, string Name);

/// <summary>What we wrote to whoever sent a request.</summary>
public sealed record AnswerView(DateTime At, string By, string To, string Subject, string Text);

/// <summary>Reads a request into the shape that its page needs.</summary>
public static class RequestViews
{
    public static async Task<RequestView> OfAsync(SolvendaDb db, string number, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var r =
            await db.Requests.AsNoTracking().Include(x => x.Raw).FirstOrDefaultAsync(x => x.Number == number, cancel)
            ?? throw RefusedException.NotFound("such request");
        return await OfAsync(db, r, cancel);
    }

    private static async Task<RequestView> OfAsync(SolvendaDb db, RequestRow r, CancellationToken cancel)
    {
        var dossier = r.DossierId is { } id
            ? await db
                .Dossiers.Where(d => d.Id == id)
                .Select(d => new { d.Number, d.Matter })
                .FirstOrDefaultAsync(cancel)
            : null;
        var turned =
            await db
                .Quotes.Where(q => q.RequestId == r.Id)
                .Select(q => new DocumentRef("quote", q.Number))
                .FirstOrDefaultAsync(cancel)
            ?? await db
                .Orders.Where(o => o.RequestId == r.Id || (r.Changes != null && o.Number == r.Changes))
                .Select(o => new DocumentRef("order", o.Number))
                .FirstOrDefaultAsync(cancel);
        var waiting = await db
            .Requests.Where(x => x.State == RequestState.New || x.State == RequestState.NeedsYou)
            .OrderBy(x => x.ReceivedAt)
            .ThenBy(x => x.Id)
            .Select(x => x.Number)
            .ToListAsync(cancel);
        var at = waiting.IndexOf(r.Number);
        var next = waiting.Count > 1 || (waiting.Count == 1 && at < 0) ? waiting[(at + 1) % waiting.Count] : null;
        var siblings = await db
            .Requests.Where(x => x.RawId == r.RawId && x.Id != r.Id)
            .OrderBy(x => x.Message)
            .Take(50)
            .Select(x => new Sibling(x.Number, x.Subject, x.State))
            .ToListAsync(cancel);
        var view = new RequestView(
            r.Id,
            r.Number,
            r.Version,
            r.State,
            r.Reason,
            r.Channel,
            r.ReceivedAt,
            r.FromWords,
            r.Subject,
            r.Raw.Filename,
            r.Raw.Bytes.Length,
            [
                .. KeptPart
                    .FromJson(r.Parts, r.Text)
                    .Select(p => new PartShown(p, p.Kind == PartKind.Edi ? Readers.PiecesOf(p.Text) : [])),
            ],
            r.Reading.Length > 0 ? ReadingView.FromJson(r.Reading) : null,
            r.Names,
            dossier?.Number,
            dossier?.Matter,
            turned,
            at + 1,
            waiting.Count,
            next,
            siblings
        );
        return await InHandAsync(db, r, view, cancel);
    }

    // What it is worth, who has it, and what was written about it.
    private static async Task<RequestView> InHandAsync(
        SolvendaDb db,
        RequestRow r,
        RequestView view,
        CancellationToken cancel
    ) =>
        view with
        {
            Worth = r.WorthMinor is { } minor ? Amount.FromMinor(minor, Currency.Of(r.Currency)).Value : null,
            Currency = r.Currency,
            SurePercent = r.SurePercent,
            Ready = r.Ready,
            Hand = await db
                .People.Where(p => p.Id == r.HandId)
                .Select(p => new Holder(p.Id, p.Name))
                .FirstOrDefaultAsync(cancel),
            Follows = r.Follows,
            Answers = await db
                .Answers.Where(a =>
                    a.RequestId == r.Id
                    || (r.Follows != null && db.Requests.Any(x => x.Number == r.Follows && x.Id == a.RequestId))
                )
                .OrderBy(a => a.Id)
                .Select(a => new AnswerView(a.At, a.ByName, a.To, a.Subject, a.Text))
                .ToListAsync(cancel),
            AnswerTo = AnswerTo(r),
        };

    /// <summary>Where an answer to it goes; empty where it has to be said.</summary>
    public static string AnswerTo(RequestRow request)
    {
        ArgumentNullException.ThrowIfNull(request);
        return request.Syntax switch
        {
            nameof(Syntax.Json) => request.FromWords,
            nameof(Syntax.Mail) => MailHead.Of(request.Raw.Bytes)?.ReplyTo ?? "",
            _ => "",
        };
    }
}
