using System.Collections.Frozen;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Calendars;

namespace Solvenda.Data;

/// <summary>The days on which the house works.</summary>
public static class HouseDays
{
    /// <summary>Monday to Friday, less the holidays of the year around a day.</summary>
    public static async Task<WorkCalendar> CalendarAsync(SolvendaDb db, DateOnly day, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var (from, to) = (day.AddDays(-7), day.AddDays(400));
        var off = await db
            .Holidays.AsNoTracking()
            .Where(h => h.Active && h.Day >= from && h.Day <= to)
            .Select(h => h.Day)
            .ToListAsync(cancel);
        return WorkCalendar.MondayToFriday with { Holidays = off.ToFrozenSet() };
    }
}
