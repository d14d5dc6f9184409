using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Data.Rows;
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
