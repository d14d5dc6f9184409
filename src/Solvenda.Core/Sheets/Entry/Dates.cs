using System.Globalization;
using Solvenda.Core.Reading;

namespace Solvenda.Core.Sheets.Entry;

/// <summary>Days as people type them into a field: <c>2026-12-12</c>, <c>12 Dec</c>, <c>Friday</c>.</summary>
public static class Dates
{
    /// <summary>The next such day, from today on; null where it is none.</summary>
    public static DateOnly? Read(string text, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (
            DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var plain)
        )
            return plain;
        var said = $"by {text}";
        return
            DateWords.All(said, today) is [{ Sure: >= Reading.Reading.UnsureDate } day, ..]
            && day.Start + day.Length == said.Length
            ? day.Day
            : null;
    }
}
