using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.House;

/// <summary>
/// Puts the public holidays of a country and year into the house's calendar; days that are there stay.
/// </summary>
public sealed record FillHolidays(string Country, int Year) : IAct<int>;

[Leaves(typeof(HolidaysFilled))]
public sealed class FillHolidaysAct : Act<FillHolidays, int>
{
    public override Right Needs => Rights.Administer;

    /// <returns>How many days are new.</returns>
    public override async Task<int> RunAsync(Work work, FillHolidays input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        if (input.Year < work.Today.Year || input.Year > work.Today.Year + 5)
            throw RefusedException.Bad("holidays", "This year, or one of the five to come.", "year");
        var days =
            PublicHolidays.Of(input.Country, input.Year)
            ?? throw RefusedException.Bad(
                "holidays",
                $"The holidays of “{input.Country}” are not known here; put them in by hand.",
                "country"
            );
        var there = await work.Db.Holidays.Select(h => h.Day).ToListAsync(cancel);
        var fresh = days.Where(d => !there.Contains(d.Day)).ToList();
        work.Db.Holidays.AddRange(fresh.Select(d => new HolidayRow { Day = d.Day, Words = d.Name }));
        work.Leave(new HolidaysFilled(input.Country, input.Year, fresh.Count), "house");
        return fresh.Count;
    }
}
