using System.Globalization;
using System.Text.RegularExpressions;
using Solvenda.Core.Reading;

namespace Solvenda.Core.Sheets.Entry;

/// <summary>
/// Days as people type them into a field: <c>2026-12-12</c>, <c>12 Dec</c>, <c>fri</c>, <c>+2w</c>, <c>today</c>.
/// </summary>
public static partial class Dates
{
    /// <summary>The next such day, from today on; null where it is none.</summary>
    public static DateOnly? Read(string text, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (
            DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var plain)
        )
            return plain;
        var typed = text.Trim().ToLowerInvariant();
        if (typed == "today")
            return today;
        if (Ahead().Match(typed) is { Success: true } ahead)
            return Add(
                today,
                int.Parse(ahead.Groups["n"].Value, CultureInfo.InvariantCulture),
                ahead.Groups["by"].Value
            );
        // "fri" is the next Friday.
        if (typed.Length == 3 && Array.IndexOf(ShortDays, typed) is >= 0 and var at)
            return today.AddDays(((at - (int)today.DayOfWeek + 6) % 7) + 1);
        var said = $"by {text}";
        return
            DateWords.All(said, today) is [{ Sure: >= Reading.Reading.UnsureDate } day, ..]
            && day.Start + day.Length == said.Length
            ? day.Day
            : null;
    }

    private static readonly string[] ShortDays = ["sun", "mon", "tue", "wed", "thu", "fri", "sat"];

    private static DateOnly Add(DateOnly today, int count, string by) =>
        by switch
        {
            "w" => today.AddDays(7 * count),
            "m" => today.AddMonths(count),
            _ => today.AddDays(count),
        };

    [GeneratedRegex(@"^\+\s?(?<n>\d{1,3})\s?(?<by>[dwm]?)$")]
    private static partial Regex Ahead();
}
