namespace Solvenda.Core.Calendars;

/// <summary>The hours of a day in which work is done.</summary>
/// <param name="To">After <paramref name="From" />.</param>
public sealed record WorkingHours(TimeOnly From, TimeOnly To)
{
    /// <summary>Where nobody said otherwise.</summary>
    public static readonly WorkingHours House = new(new TimeOnly(9, 0), new TimeOnly(17, 0));

    /// <summary>
    /// The moment after so many working hours: what is left of the day counts, then whole days of the calendar.
    /// </summary>
    /// <param name="from">House time.</param>
    /// <param name="hours">Not negative.</param>
    /// <exception cref="InvalidOperationException">No day within two years is worked.</exception>
    public DateTime After(DateTime from, int hours, WorkCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        var left = TimeSpan.FromHours(hours);
        for (var day = DateOnly.FromDateTime(from); ; day = day.AddDays(1))
        {
            day = calendar.OnOrAfter(day);
            var (begin, end) = (day.ToDateTime(From), day.ToDateTime(To));
            if (begin < from)
                begin = from;
            if (begin >= end)
                continue;
            if (end - begin >= left)
                return begin + left;
            left -= end - begin;
        }
    }
}
