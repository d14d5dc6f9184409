using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Events;

namespace Solvenda.Acts.Sheets;

/// <summary>A change that somebody else made meanwhile.</summary>
public sealed record ChangedMeanwhile(string Who, DateTime At, IReadOnlyList<Core.Documents.FieldChange> Changes);

/// <summary>The version of a sheet that a change was decided on, as the screen saw it (RFC 9110, If-Match).</summary>
public static class Versions
{
    private const int Told = 3;

    /// <summary>Refuses a change that was decided on another state of the sheet, and says who changed what.</summary>
    /// <param name="actor">A machine need not say what it saw: it decides by what it knows itself.</param>
    public static async Task MatchAsync(
        SolvendaDb db,
        OpenSheet open,
        long? seen,
        CancellationToken cancel,
        Actor? actor = null
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        ArgumentNullException.ThrowIfNull(open);
        if (seen is null && actor is { Kind: ActorKinds.Machine })
            return;
        if (seen is null)
            throw Missing();
        if (seen == open.Sheet.Version)
            return;
        var last = await SinceAsync(db, open, seen.Value, cancel);
        throw RefusedException.Clash(
            "stale",
            $"{last.FirstOrDefault()?.Who ?? "Somebody"} changed this in the meantime; yours was not saved over it.",
            last
        );
    }

    public static RefusedException Missing() =>
        new(Refused.VersionMissing, "version_missing", "A change names the version that it saw, in If-Match.");

    // Each change is a version of its own, so that the newest ones are those that were not seen.
    private static async Task<List<ChangedMeanwhile>> SinceAsync(
        SolvendaDb db,
        OpenSheet open,
        long seen,
        CancellationToken cancel
    )
    {
        var unseen = (int)Math.Clamp(open.Sheet.Version - seen, 1, Told);
        var codes = SheetSteps.Codes;
        var rows = await db
            .Events.AsNoTracking()
            .Where(e => e.Subject == open.Subject && codes.Contains(e.Code))
            .OrderByDescending(e => e.Id)
            .Take(unseen)
            .ToListAsync(cancel);
        return
        [
            .. rows.Select(r => new ChangedMeanwhile(
                r.Who,
                r.At,
                (EventCodes.FromJson(r.Code, r.Facts) as ISheetChange)?.Changes ?? []
            )),
        ];
    }
}
