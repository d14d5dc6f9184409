using Solvenda.Acts.Acting;
using Solvenda.Core.Calendars;
using Solvenda.Data;

namespace Solvenda.Acts.Approvals;

/// <summary>When an ask moves on: after working hours of the house, on its working days.</summary>
public sealed class AskClock(HouseClock clock)
{
    /// <returns>UTC; null where it waits without end.</returns>
    public async Task<DateTime?> DueAsync(SolvendaDb db, DateTime from, int hours, CancellationToken cancel)
    {
        if (hours <= 0)
            return null;
        var calendar = await HouseDays.CalendarAsync(db, clock.Today, cancel);
        return clock.ToUtc(WorkingHours.House.After(clock.ToLocal(from), hours, calendar));
    }
}
