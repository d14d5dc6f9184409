using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Calendars;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Acts.Approvals;

/// <summary>When an ask moves on: after working hours of those who have it, on working days of the house.</summary>
public sealed class AskClock(HouseClock clock)
{
    /// <returns>UTC; null where it waits without end.</returns>
    public async Task<DateTime?> DueAsync(
        SolvendaDb db,
        DateTime from,
        int hours,
        IEnumerable<PersonId> holders,
        CancellationToken cancel
    )
    {
        ArgumentNullException.ThrowIfNull(db);
        if (hours <= 0)
            return null;
        var ids = holders.Select(h => h.Value).ToList();
        var works = await db
            .People.Where(p => EF.Parameter(ids).Contains(p.Id))
            .Select(p => new { p.WorksFrom, p.WorksTo })
            .ToListAsync(cancel);
        // Any one of them decides: the time runs while one of them works.
        var working =
            works.Count == 0
                ? WorkingHours.House
                : new WorkingHours(works.Min(w => w.WorksFrom), works.Max(w => w.WorksTo));
        var calendar = await HouseDays.CalendarAsync(db, clock.Today, cancel);
        return clock.ToUtc(working.After(clock.ToLocal(from), hours, calendar));
    }
}
