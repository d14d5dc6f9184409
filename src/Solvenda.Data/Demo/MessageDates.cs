using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Solvenda.Data.Demo;

/// <summary>Moves the dates inside a sample message, so that it arrives today and asks for dates ahead.</summary>
public static partial class MessageDates
{
    /// <summary>
    /// Every date form that the samples use is moved by the same number of days; all else stays as it is.
    /// </summary>
    /// <param name="written">The day the sample was written.</param>
    public static byte[] Shift(byte[] sample, DateOnly written, DateOnly today)
    {
        var days = today.DayNumber - written.DayNumber;
        var text = Encoding.Latin1.GetString(sample);
        text = MailDate()
            .Replace(
                text,
                m =>
                    Moved(m, "d MMM yyyy", "dd MMM yyyy", days, out var day)
                        ? (m.Groups["weekday"].Success ? day.ToString("ddd, ", CultureInfo.InvariantCulture) : "")
                            + day.ToString("dd MMM yyyy", CultureInfo.InvariantCulture)
                        : m.Value
            );
        text = Compact()
            .Replace(
                text,
                m =>
                    Moved(m, "yyyyMMdd", "yyyyMMdd", days, out var day)
                        ? day.ToString("yyyyMMdd", CultureInfo.InvariantCulture)
                        : m.Value
            );
        text = IsaDate()
            .Replace(
                text,
                m =>
                    Moved(m, "yyMMdd", "yyMMdd", days, out var day)
                        ? day.ToString("yyMMdd", CultureInfo.InvariantCulture)
                        : m.Value
            );
        text = IsoDate()
            .Replace(
                text,
                m =>
                    Moved(m, "yyyy-MM-dd", "yyyy-MM-dd", days, out var day)
                        ? day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
                        : m.Value
            );
        text = PointDate()
            .Replace(
                text,
                m =>
                    Moved(m, "dd.MM.yyyy", "d.M.yyyy", days, out var day)
                        ? day.ToString("dd.MM.yyyy", CultureInfo.InvariantCulture)
                        : m.Value
            );
        text = UnbDate()
            .Replace(
                text,
                m =>
                    Moved(m, "yyMMdd", "yyMMdd", days, out var day)
                        ? day.ToString("yyMMdd", CultureInfo.InvariantCulture)
                        : m.Value
            );
        text = Week()
            .Replace(text, m => $"vecka {ISOWeek.GetWeekOfYear(today.AddDays(12).ToDateTime(TimeOnly.MinValue))}");
        return Encoding.Latin1.GetBytes(text);
    }

    private static bool Moved(Match match, string format, string other, int days, out DateOnly day)
    {
        var ok = DateOnly.TryParseExact(
            match.Groups["date"].Value,
            [format, other],
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out day
        );
        if (ok)
            day = day.AddDays(days);
        return ok;
    }

    [GeneratedRegex(
        @"(?<weekday>\b(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun), )?\b(?<date>\d{1,2} (?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) 20\d\d)\b"
    )]
    private static partial Regex MailDate();

    [GeneratedRegex(@"(?<!\d)(?<date>20\d\d(?:0[1-9]|1[0-2])(?:0[1-9]|[12]\d|3[01]))(?=\d{6}\.|\D|$)")]
    private static partial Regex Compact();

    [GeneratedRegex(@"(?<![\d-])(?<date>20\d\d-\d\d-\d\d)(?!\d)")]
    private static partial Regex IsoDate();

    [GeneratedRegex(@"(?<!\d)(?<date>\d{1,2}\.\d{1,2}\.20\d\d)(?!\d)")]
    private static partial Regex PointDate();

    // The date of an interchange, before its time.
    [GeneratedRegex(@"(?<=\+)(?<date>\d{6})(?=:\d{4}\+)")]
    private static partial Regex UnbDate();

    [GeneratedRegex(@"\bvecka \d+")]
    private static partial Regex Week();

    // ISA09, the only date of six digits, stands between the receiver and the time.
    [GeneratedRegex(@"(?<=^ISA.{67})(?<date>\d{6})", RegexOptions.Singleline)]
    private static partial Regex IsaDate();
}
