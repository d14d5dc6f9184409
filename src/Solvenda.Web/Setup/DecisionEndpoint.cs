using System.Globalization;
using System.Text;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Data;
using Solvenda.Web.Dossiers;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

/// <summary>Who decided what, on which figures, for an auditor.</summary>
public static class DecisionEndpoint
{
    private const int MostDays = 3_700;

    // What carries authority or was decided by it; the rest of the history stays with its document.
    private static readonly string[] Kinds = ["ask.", "authority.", "policy.", "order.waived", "people."];

    public static void MapDecisions(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/decisions", Export).Needs(Rights.SeeSetup).Produces(200, contentType: "text/csv");
    }

    /// <summary>
    /// As CSV (RFC 4180), the oldest first; each with the number and hash of its event, so that it can be found again
    /// in the chain.
    /// </summary>
    private static async Task<FileContentHttpResult> Export(
        DateOnly from,
        DateOnly to,
        SolvendaDb db,
        CancellationToken cancel
    )
    {
        if (to < from || to.DayNumber - from.DayNumber > MostDays)
            throw RefusedException.Bad("date", "From a day to a later one, ten years at most.", "to");
        var (begin, end) = (At(from), At(to.AddDays(1)));
        var events = await db
            .Events.AsNoTracking()
            .Where(e => e.At >= begin && e.At < end)
            .Where(e =>
                e.Code.StartsWith(Kinds[0])
                || e.Code.StartsWith(Kinds[1])
                || e.Code.StartsWith(Kinds[2])
                || e.Code == Kinds[3]
                || (e.Code.StartsWith(Kinds[4]) && !e.Code.StartsWith("people.signed_"))
            )
            .OrderBy(e => e.Id)
            .ToListAsync(cancel);
        await using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = new CsvWriter(text, CultureInfo.InvariantCulture))
        {
            foreach (
                var head in new[] { "event", "at", "who", "about", "what", "before", "after", "why", "facts", "hash" }
            )
                csv.WriteField(head);
            await csv.NextRecordAsync();
            foreach (var e in events)
            {
                foreach (var word in EventWords.Of(e))
                {
                    csv.WriteField(e.Id);
                    csv.WriteField(e.At.ToString("O", CultureInfo.InvariantCulture));
                    foreach (
                        var field in new[] { e.Who, e.Subject, word.Words, word.Before, word.After, e.Why, e.Facts }
                    )
                        csv.WriteField(Inert(field));
                    csv.WriteField(e.Hash);
                    await csv.NextRecordAsync();
                }
            }
        }
        return TypedResults.File(
            Encoding.UTF8.GetBytes(text.ToString()),
            "text/csv; charset=utf-8",
            FormattableString.Invariant($"decisions-{from:yyyy-MM-dd}-{to:yyyy-MM-dd}.csv")
        );
    }

    private static DateTime At(DateOnly day) => day.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);

    // What a spreadsheet would take for a formula is only text.
    private static string Inert(string? field) =>
        field?.FirstOrDefault() is '=' or '+' or '-' or '@' or '\t' ? "'" + field : field ?? "";
}
