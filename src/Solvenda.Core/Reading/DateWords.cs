using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>Dates as people write them, against the day of the message.</summary>
public static partial class DateWords
{
    /// <summary>The first date in the text, with the characters it stands in; null where there is none.</summary>
    /// <remarks>
    /// "Thursday" is the next one after the message's day; "Thursday week" is the one seven days after that; "next Thursday" is in the following week.
    /// A day and month without a year is the next such day.
    /// </remarks>
    public static (DateOnly Day, int Start, int Length, string How)? Find(string text, DateOnly written)
    {
        foreach (Match m in Weekday().Matches(text))
        {
            var day = Enum.Parse<DayOfWeek>(m.Groups["day"].Value, ignoreCase: true);
            var ahead = (((int)day - (int)written.DayOfWeek + 6) % 7) + 1;
            if (m.Groups["week"].Success)
                ahead += 7;
            else if (m.Groups["next"].Success)
                ahead += ahead + (int)Monday(written.DayOfWeek) < 7 ? 7 : 0;
            else if (!m.Groups["lead"].Success)
                continue;
            return (written.AddDays(ahead), m.Index, m.Length, $"“{m.Value}”, from {written.ToString("d MMM", CultureInfo.InvariantCulture)}");
        }
        foreach (Match m in Iso().Matches(text))
        {
            if (DateOnly.TryParseExact(m.Value, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var iso))
                return (iso, m.Index, m.Length, "written so");
        }
        foreach (Match m in DayMonth().Matches(text))
        {
            var month = Array.FindIndex(Months, p => m.Groups["month"].Value.StartsWith(p, StringComparison.OrdinalIgnoreCase)) + 1;
            var year = m.Groups["year"].Success ? int.Parse(m.Groups["year"].Value, CultureInfo.InvariantCulture) : written.Year;
            var dayOfMonth = int.Parse(m.Groups["d"].Value, CultureInfo.InvariantCulture);
            if (dayOfMonth < 1 || dayOfMonth > DateTime.DaysInMonth(year, month))
                continue;
            var day = new DateOnly(year, month, dayOfMonth);
            if (!m.Groups["year"].Success && day < written)
                day = day.AddYears(1);
            return (day, m.Index, m.Length, "written so");
        }
        return null;
    }

    private static readonly string[] Months = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

    private static DayOfWeek Monday(DayOfWeek day) => (DayOfWeek)(((int)day + 6) % 7);

    [GeneratedRegex(@"\b(?:(?<lead>by|on|until|before|for|this)\s+)?(?<next>next\s+)?(?<day>monday|tuesday|wednesday|thursday|friday|saturday|sunday)(?<week>\s+week)?\b", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Weekday();

    [GeneratedRegex(@"\b20\d\d-\d\d-\d\d\b")]
    private static partial Regex Iso();

    [GeneratedRegex(@"\b(?<d>\d{1,2})(?:st|nd|rd|th)?\s+(?:of\s+)?(?<month>jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\.?(?:\s+(?<year>20\d\d))?\b", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex DayMonth();
}
