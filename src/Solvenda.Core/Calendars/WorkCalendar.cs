namespace Solvenda.Core.Calendars;

/// <summary>Which days somebody works: the weekdays, less the holidays.</summary>
public sealed record WorkCalendar(IReadOnlySet<DayOfWeek> Days, IReadOnlySet<DateOnly> Holidays)
{
    /// <summary>Monday to Friday, without holidays.</summary>
    public static readonly WorkCalendar MondayToFriday = new(
        new HashSet<DayOfWeek>
        {
            DayOfWeek.Monday,
            DayOfWeek.Tuesday,
            DayOfWeek.Wednesday,
            DayOfWeek.Thursday,
            DayOfWeek.Friday,
        },
        new HashSet<DateOnly>()
    );

    /// <summary>
    /// The days of the week as people write them, three letters each: "Mon Thu"; empty: Monday to Friday.
    /// </summary>
    public static WorkCalendar On(string days)
    {
        var named = Enum.GetValues<DayOfWeek>()
            .Where(d => days.Contains(d.ToString()[..3], StringComparison.OrdinalIgnoreCase))
            .ToHashSet();
        return named.Count == 0 ? MondayToFriday : MondayToFriday with { Days = named };
    }

    /// <summary>Whether work is done on that day.</summary>
    public bool Works(DateOnly day) => Days.Contains(day.DayOfWeek) && !Holidays.Contains(day);

    /// <summary>The day itself if it is worked, else the next one that is.</summary>
    /// <exception cref="InvalidOperationException">No day within two years is worked.</exception>
    public DateOnly OnOrAfter(DateOnly day)
    {
        for (var i = 0; i < 731; i++)
        {
            if (Works(day.AddDays(i)))
                return day.AddDays(i);
        }
        throw new InvalidOperationException("The calendar has no working day within two years.");
    }

    /// <summary>Goes forward by whole working days; 0 gives the day itself, or the next worked one.</summary>
    public DateOnly Add(DateOnly day, int workingDays)
    {
        var at = OnOrAfter(day);
        for (var i = 0; i < workingDays; i++)
            at = OnOrAfter(at.AddDays(1));
        return at;
    }
}
