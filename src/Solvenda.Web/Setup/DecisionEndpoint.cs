using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;
using Solvenda.Formats.Tables;
using Solvenda.Web.Dossiers;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>Who decided what, on which figures, for an auditor.</summary>
public static class DecisionEndpoint
{
    private const int MostDays = 3_700;

    private static readonly string[] Head =
    [
        "event",
        "at",
        "who",
        "about",
        "what",
        "before",
        "after",
        "why",
        "facts",
        "hash",
    ];

    public static void MapDecisions(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup
            .MapGet("/decisions/{number}", OfDocument)
            .Needs(Rights.SeeSetup)
            .Produces(200, contentType: "application/pdf");
        setup.MapGet("/decisions", Export).Needs(Rights.SeeSetup).Produces(200, contentType: "text/csv");
    }

    /// <summary>
    /// As CSV (RFC 4180), the oldest first; each with the number and hash of its event, so that it can be found again
    /// in the chain.
    /// </summary>
    private static IResult Export(DateOnly from, DateOnly to, SolvendaDb db, CancellationToken cancel)
    {
        if (to < from || to.DayNumber - from.DayNumber > MostDays)
            throw RefusedException.Bad("date", "From a day to a later one, ten years at most.", "to");
        var (begin, end) = (At(from), At(to.AddDays(1)));
        // What carries authority or was decided by it; the rest of the history stays with its document.
        var events = db
            .Events.AsNoTracking()
            .Where(e => e.At >= begin && e.At < end)
            .Where(e =>
                e.Code.StartsWith("ask.")
                || e.Code.StartsWith("authority.")
                || e.Code.StartsWith("policy.")
                || e.Code == "order.waived"
                || e.Code == "order.deposit"
                || (e.Code.StartsWith("people.") && !e.Code.StartsWith("people.signed_"))
            )
            .OrderBy(e => e.Id)
            .AsAsyncEnumerable();
        return Results.Stream(
            to => TableWriter.CsvAsync(to, Head, Rows(events), cancel),
            "text/csv",
            FormattableString.Invariant($"decisions-{from:yyyy-MM-dd}-{to:yyyy-MM-dd}.csv")
        );
    }

    /// <summary>
    /// Everything that was decided about one quote or order, and its moves, to be read by an auditor.
    /// </summary>
    private static async Task<IResult> OfDocument(
        string number,
        SolvendaDb db,
        Seller seller,
        HouseClock clock,
        CancellationToken cancel
    )
    {
        var about =
            await db
                .Quotes.Where(q => q.Number == number)
                .Select(q => q.Dossier.Buyer.Name + " · " + q.Dossier.Matter)
                .FirstOrDefaultAsync(cancel)
            ?? await db
                .Orders.Where(o => o.Number == number)
                .Select(o => o.Dossier.Buyer.Name + " · " + o.Dossier.Matter)
                .FirstOrDefaultAsync(cancel)
            ?? throw RefusedException.NotFound("such document");
        // What was typed stays in the history of the house; here stands what was asked, decided, sent and answered.
        var events = await db
            .Events.AsNoTracking()
            .Where(e => e.Subject == number && !e.Code.StartsWith("sheet."))
            .OrderBy(e => e.Id)
            .ToListAsync(cancel);
        var history = new PrintedHistory(
            seller.Name,
            $"Who decided what: {number}",
            about.TrimEnd(' ', '·'),
            [
                .. from e in events
                from word in EventWords.Of(e)
                select new PrintedDecision(
                    clock.ToLocal(e.At).ToString("d MMM yyyy HH:mm", CultureInfo.InvariantCulture),
                    e.Who,
                    word.Words,
                    word.Before ?? "",
                    word.After ?? "",
                    e.Why ?? "",
                    FormattableString.Invariant($"event {e.Id} {e.Hash}")
                ),
            ],
            "Each entry bears the number and hash of its event. The chain of all events is sealed every day with a key of the house, outside the database; “solvenda check” compares the two and tells what was rewritten."
        );
        return Results.File(HistoryWriter.Write(history), "application/pdf", $"{number}-decisions.pdf");
    }

    private static async IAsyncEnumerable<IReadOnlyList<string>> Rows(IAsyncEnumerable<EventRow> events)
    {
        await foreach (var e in events)
        {
            foreach (var word in EventWords.Of(e))
                yield return
                [
                    e.Id.ToString(CultureInfo.InvariantCulture),
                    e.At.ToString("O", CultureInfo.InvariantCulture),
                    e.Who,
                    e.Subject,
                    word.Words,
                    word.Before ?? "",
                    word.After ?? "",
                    e.Why ?? "",
                    e.Facts,
                    e.Hash,
                ];
        }
    }

    private static DateTime At(DateOnly day) => day.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
}
