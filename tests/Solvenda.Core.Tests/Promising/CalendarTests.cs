using CsCheck;
using Solvenda.Core.Calendars;
using Xunit;

namespace Solvenda.Core.Tests.Promising;

public sealed class CalendarTests
{
    private static readonly DateOnly Friday = new(2026, 12, 25);

    private static readonly Gen<DateOnly> Days = Gen.Int[0, 4_000].Select(n => new DateOnly(2024, 1, 1).AddDays(n));

    private static readonly Gen<WorkCalendar> Calendars = Gen.Select(
        One.Of("", "Mon", "Tue Thu", "Sat Sun", "Mon Tue Wed Thu Fri Sat"),
        Days.HashSet[0, 30],
        (days, holidays) => WorkCalendar.On(days) with { Holidays = holidays }
    );

    [Theory]
    [InlineData("", "2026-12-26", "2026-12-28")]
    [InlineData("Mon Thu", "2026-12-25", "2026-12-28")]
    [InlineData("mon,thu", "2026-12-29", "2026-12-31")]
    [InlineData("Sat", "2026-12-25", "2026-12-26")]
    [InlineData("every day", "2026-12-26", "2026-12-28")]
    public void Days_are_said_as_people_write_them(string days, string day, string next) =>
        Assert.Equal(DateOnly.Parse(next, null), WorkCalendar.On(days).OnOrAfter(DateOnly.Parse(day, null)));

    [Fact]
    public void A_holiday_is_stepped_over_and_so_is_the_weekend_behind_it()
    {
        var calendar = WorkCalendar.MondayToFriday with { Holidays = new HashSet<DateOnly> { Friday } };
        Assert.Equal(Friday.AddDays(3), calendar.OnOrAfter(Friday));
        Assert.Equal(Friday.AddDays(3), calendar.Add(Friday.AddDays(-1), 1));
        Assert.Equal(Friday.AddDays(4), calendar.Add(Friday, 1));
    }

    [Fact]
    public void Whatever_it_gives_is_worked_and_nothing_worked_lies_between() =>
        Gen.Select(Calendars, Days)
            .Sample(
                (calendar, day) =>
                {
                    var next = calendar.OnOrAfter(day);
                    Assert.True(calendar.Works(next));
                    for (var between = day; between < next; between = between.AddDays(1))
                        Assert.False(calendar.Works(between));
                },
                iter: 500
            );

    [Fact]
    public void Days_add_up_one_by_one() =>
        Gen.Select(Calendars, Days, Gen.Int[0, 12], Gen.Int[0, 12])
            .Sample(
                (calendar, day, a, b) =>
                {
                    Assert.Equal(calendar.Add(day, a + b), calendar.Add(calendar.Add(day, a), b));
                    Assert.True(calendar.Add(day, a) <= calendar.Add(day, a + 1));
                },
                iter: 500
            );

    [Fact]
    public void A_calendar_without_a_working_day_says_so_and_does_not_search_for_ever() =>
        Assert.Throws<InvalidOperationException>(() =>
            new WorkCalendar(new HashSet<DayOfWeek>(), new HashSet<DateOnly>()).OnOrAfter(Friday)
        );
}
