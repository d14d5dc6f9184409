using System.Collections.Concurrent;
using System.Globalization;
using System.Text.RegularExpressions;

namespace Solvenda.Core.Reading;

/// <summary>A date as it stands in a text.</summary>
/// <param name="Sure">Less where the order of day and month is not clear.</param>
/// <param name="Lead">Whether a word before it says that something is wanted by it.</param>
public sealed record WrittenDate(DateOnly Day, int Start, int Length, string How, decimal Sure, bool Lead)
{
    /// <summary>Whether it is a day by which something is wanted only where a word before it says so.</summary>
    public bool IsLoose { get; init; }
}

/// <summary>
/// Dates as people write them in the languages of <see cref="Language"/>, against the day of the message.
/// </summary>
/// <remarks>
/// "Thursday" is the next one after the message's day; "Thursday week" is the one seven days after that; "next
/// Thursday" is in the following week.
/// A day and month without a year is the next such day. A week is its Monday (ISO 8601). Two numbers that could both be
/// the month stay unsure, unless the document shows the order elsewhere.
/// </remarks>
public static class DateWords
{
    // "Tomorrow" without "by" is mostly something else.
    private const decimal Unled = 0.5m;

    private static readonly ConcurrentDictionary<string, Regex> Patterns = new();

    /// <summary>
    /// The first date that something is wanted by, else the first that stands alone; null where there is none.
    /// </summary>
    public static WrittenDate? Find(string text, DateOnly written, Language? language = null) =>
        Wanted(text, written, language ?? Language.English, All(text, written, language));

    /// <summary>The same, of all the dates of a text.</summary>
    public static WrittenDate? Wanted(
        string text,
        DateOnly written,
        Language language,
        IReadOnlyList<WrittenDate> dates
    )
    {
        var all = dates.Select(d => OfTheOffer(text, d, language)).OfType<WrittenDate>().ToList();
        // A date that stands alone is not the day of the letter itself, nor one that is over.
        return all.FirstOrDefault(d => d.Lead)
            ?? all.FirstOrDefault(d => !d.IsLoose && d.Day >= written && !IsOfTheLetter(text, d, language));
    }

    // "We need your offer by 12 March" says nothing about the goods; "please quote 40 shackles by 12 March" may.
    private static WrittenDate? OfTheOffer(string text, WrittenDate date, Language language)
    {
        var from = date.Start == 0 ? -1 : text.LastIndexOfAny(['.', ',', ';', '\n', '?', '!'], date.Start - 1);
        var before = text[(from + 1)..date.Start];
        if (!SaysOffer(before, language))
            return date;
        var words = before.Split([' ', '\t', ':'], StringSplitOptions.RemoveEmptyEntries);
        var near = string.Join(' ', words.TakeLast(MostBetween));
        return SaysOffer(near, language)
            ? null
            : date with
            {
                Sure = Math.Min(date.Sure, Unled),
                IsLoose = true,
                How = "is it the offer that they want by then, or the goods?",
            };
    }

    private static bool SaysOffer(string text, Language language) =>
        language.Says(text, l => [.. l.Quote, .. l.QuoteNoun]);

    // Between "offer" and its date: "offer by the".
    private const int MostBetween = 4;

    private static bool IsOfTheLetter(string text, WrittenDate date, Language language)
    {
        var before = text[Math.Max(0, date.Start - 24)..date.Start].TrimEnd(' ', '\t', ':', '.').ToLowerInvariant();
        return language
            .Dated.Concat(Language.English.Dated)
            .Any(w =>
                before.EndsWith(w, StringComparison.Ordinal)
                && (before.Length == w.Length || !char.IsLetter(before[^(w.Length + 1)]))
            );
    }

    /// <summary>Every date of the text in the order in which they stand.</summary>
    public static IReadOnlyList<WrittenDate> All(string text, DateOnly written, Language? language = null)
    {
        ArgumentNullException.ThrowIfNull(text);
        language ??= Language.English;
        var pattern = Patterns.GetOrAdd(language.Code, _ => Pattern(language));
        var matches = pattern.Matches(text);
        // Whether the day comes first in dates of digits, as the document shows: one that is above 12 tells.
        var tells = matches
            .Where(m => m.Groups["a"].Success && m.Groups["sep"].Value != ".")
            .Select(m =>
                int.Parse(m.Groups["a"].Value, CultureInfo.InvariantCulture) > 12 ? true
                : int.Parse(m.Groups["b"].Value, CultureInfo.InvariantCulture) > 12 ? false
                : (bool?)null
            )
            .Where(t => t is not null)
            .Distinct()
            .ToList();
        var dayFirst = tells.Count == 1 ? tells[0] : null;
        return [.. matches.Select(m => One(m, written, language, dayFirst)).OfType<WrittenDate>()];
    }

    // "end of May": its last day; the middle: the fifteenth. A month that is over is one of next year.
    private static DateOnly? PartOfMonth(Match m, DateOnly written, Language language)
    {
        var month = Month(language, m.Groups["pmonth"].Value);
        if (month == 0)
            return null;
        var year =
            m.Groups["py"].Success ? int.Parse(m.Groups["py"].Value, CultureInfo.InvariantCulture)
            : month < written.Month ? written.Year + 1
            : written.Year;
        var isEnd = language
            .EndOf.Concat(Language.English.EndOf)
            .Contains(Regex.Replace(m.Groups["part"].Value.ToLowerInvariant().Trim(), @"\s+", " "));
        return DateOf(year, month, isEnd ? DateTime.DaysInMonth(year, month) : 15);
    }

    private static WrittenDate? One(Match m, DateOnly written, Language language, bool? dayFirst)
    {
        var lead = m.Groups["lead"];
        var start = lead.Success && !m.Groups["weekday"].Success ? SkipBlank(m, lead.Index + lead.Length) : m.Index;
        var leads = lead.Success || m.Groups["later"].Success || m.Groups["next"].Success;
        WrittenDate? Made(DateOnly? day, decimal sure = 0.9m, string? how = null, bool loose = false)
        {
            if (day is not { } d)
                return null;
            var date = new WrittenDate(d, start, m.Index + m.Length - start, how ?? "written so", sure, leads);
            return Fitting(date with { IsLoose = loose }, m.Groups["said"].Value, language);
        }
        int Number(string group) => int.Parse(m.Groups[group].Value, CultureInfo.InvariantCulture);

        if (m.Groups["iso"].Success)
            return Made(DateOf(Number("iy"), Number("im"), Number("id")), 0.95m);
        if (m.Groups["ofweek"].Success)
            return Made(
                MondayOf(Number("ofweek"), null, written)?.AddDays(DayAt(m, language)),
                0.85m,
                $"“{m.Value.Trim()}”"
            );
        if (m.Groups["weekday"].Success)
            return Weekday(m, written, language) is var (day, how) ? Made(day, 0.85m, how) : null;
        if (m.Groups["weekno"].Success)
            return Made(
                MondayOf(Number("weekno"), m.Groups["wy"].Success ? Number("wy") : null, written),
                0.8m,
                $"week {Number("weekno")}, its Monday"
            );
        if (m.Groups["month"].Success)
            return Made(Ahead(m, Number("d"), Month(language, m.Groups["month"].Value), written), 0.9m);
        if (m.Groups["part"].Success)
            return Made(PartOfMonth(m, written, language), 0.6m, $"“{m.Value.Trim()}”");
        if (m.Groups["relative"].Success && Value(language.Relative, m.Groups["relative"].Value) is { } ahead)
            return Made(
                written.AddDays(ahead),
                lead.Success ? 0.75m : Unled,
                $"“{m.Groups["relative"].Value}”, from {Say(written)}",
                loose: !lead.Success
            );
        if (
            m.Groups["span"].Success
            && Value(language.Spans, m.Groups["span"].Value) is { } span
            && Number("count") is > 0 and < 100
        )
            return Made(written.AddDays(span * Number("count")), 0.7m, $"“{m.Value.Trim()}”, from {Say(written)}");
        // "By the 20th": the next one.
        if (m.Groups["dom"].Success)
            return lead.Success
                ? Made(DayAhead(Number("dom"), written), 0.75m, $"“{m.Value.Trim()}”, from {Say(written)}")
                : null;
        return m.Groups["a"].Success
            ? Digits(m, written, dayFirst, language, (day, sure, how) => Made(day, sure, how))
            : null;
    }

    // "Thursday 20 March" where the 20th is a Friday: which of the two is meant is asked.
    private static WrittenDate Fitting(WrittenDate date, string weekday, Language language) =>
        weekday.Length == 0 || ((int)date.Day.DayOfWeek + 6) % 7 == DayNamed(weekday, language)
            ? date
            : date with
            {
                Sure = 0.5m,
                How = $"{Say(date.Day)} is no {weekday}",
            };

    private static WrittenDate? Digits(
        Match m,
        DateOnly written,
        bool? dayFirst,
        Language language,
        Func<DateOnly?, decimal, string?, WrittenDate?> made
    )
    {
        var (a, b) = (
            int.Parse(m.Groups["a"].Value, CultureInfo.InvariantCulture),
            int.Parse(m.Groups["b"].Value, CultureInfo.InvariantCulture)
        );
        var year = m.Groups["y"].Success ? int.Parse(m.Groups["y"].Value, CultureInfo.InvariantCulture) : 0;
        year = year is > 0 and < 100 ? 2000 + year : year;
        // With points the day is always first; with slashes and dashes the document has to tell.
        var first = m.Groups["sep"].Value == "." || a > 12 || (b <= 12 && dayFirst != false);
        DateOnly? Of(int day, int month)
        {
            if (year > 0)
                return DateOf(year, month, day);
            return DateOf(written.Year, month, day) is not { } d ? null
                : d < written ? DateOf(written.Year + 1, month, day)
                : d;
        }
        var open = m.Groups["sep"].Value != "." && a <= 12 && b <= 12 && a != b && dayFirst is null;
        var found = first ? Of(a, b) : Of(b, a);
        // English is written with the month first as well; in the other languages the day comes first.
        if (open && language.Code != Language.English.Code)
            return made(found, 0.75m, $"the day first, as in {language.Name}");
        return made(
            found,
            open ? 0.5m : 0.9m,
            open
                ? $"the day or the month first? It could be {(Of(b, a) is { } other ? Say(other) : "another")} too"
                : null
        );
    }

    // A week of ISO 8601; one that is over is the next year's. Null where there is no such week.
    private static DateOnly? MondayOf(int week, int? year, DateOnly written)
    {
        DateOnly? In(int y) =>
            week >= 1 && week <= ISOWeek.GetWeeksInYear(y)
                ? DateOnly.FromDateTime(ISOWeek.ToDateTime(y, week, DayOfWeek.Monday))
                : null;
        return year is { } y ? In(y)
            : In(written.Year) is { } monday && monday.AddDays(6) >= written ? monday
            : In(written.Year + 1);
    }

    private static DateOnly? DayAhead(int day, DateOnly written)
    {
        for (var ahead = 0; ahead < 3; ahead++)
        {
            var month = written.AddMonths(ahead);
            if (DateOf(month.Year, month.Month, day) is { } found && found > written)
                return found;
        }
        return null;
    }

    // Monday is 0.
    private static int DayAt(Match m, Language language) => DayNamed(m.Groups["weekday"].Value, language);

    private static int DayNamed(string word, Language language)
    {
        var name = word.ToLowerInvariant();
        var at = Array.FindIndex(language.Days, d => d == name);
        return at >= 0 ? at : Array.FindIndex(Language.English.Days, d => d == name);
    }

    private static (DateOnly Day, string How)? Weekday(Match m, DateOnly written, Language language)
    {
        var at = DayAt(m, language);
        // Monday is 0 here, 1 in DayOfWeek, where Sunday is 0.
        var ahead = (((at + 1) % 7 - (int)written.DayOfWeek + 6) % 7) + 1;
        if (m.Groups["later"].Success)
            ahead += 7;
        else if (m.Groups["next"].Success)
            ahead += ahead + ((int)written.DayOfWeek + 6) % 7 < 7 ? 7 : 0;
        else if (!m.Groups["lead"].Success)
            return null;
        return (written.AddDays(ahead), $"“{m.Value.Trim()}”, from {Say(written)}");
    }

    private static DateOnly? Ahead(Match m, int day, int month, DateOnly written)
    {
        var year = m.Groups["year"].Success
            ? int.Parse(m.Groups["year"].Value, CultureInfo.InvariantCulture)
            : written.Year;
        if (DateOf(year, month, day) is not { } found)
            return null;
        return !m.Groups["year"].Success && found < written ? found.AddYears(1) : found;
    }

    private static DateOnly? DateOf(int year, int month, int day) =>
        year is >= 1990 and <= 2200 && month is >= 1 and <= 12 && day >= 1 && day <= DateTime.DaysInMonth(year, month)
            ? new DateOnly(year, month, day)
            : null;

    private static int Month(Language language, string word)
    {
        var plain = word.ToLowerInvariant().TrimEnd('.');
        foreach (
            var months in new[] { language.Months, Language.English.Months }.Concat(Language.All.Select(l => l.Months))
        )
        {
            var at = Array.FindIndex(
                months,
                x => x == plain || (plain.Length >= 3 && x.StartsWith(plain, StringComparison.Ordinal))
            );
            if (at >= 0)
                return at + 1;
        }
        return 0;
    }

    private static int? Value(Dictionary<string, int> of, string word) =>
        of.TryGetValue(Regex.Replace(word.ToLowerInvariant(), @"\s+", " "), out var value) ? value : null;

    private static int SkipBlank(Match m, int at)
    {
        while (at < m.Index + m.Length && char.IsWhiteSpace(m.Value[at - m.Index]))
            at++;
        return at;
    }

    private static string Say(DateOnly day) => day.ToString("d MMM", CultureInfo.InvariantCulture);

    // English words are always understood too: a German writes "week 12".
    private static Regex Pattern(Language l)
    {
        var en = Language.English;
        string Any(params ReadOnlySpan<string[]> words)
        {
            var all = new List<string>();
            foreach (var w in words)
                all.AddRange(w);
            return Language.AnyOf(all);
        }
        var months = Language.AnyOf(
            l.Months.Concat(en.Months)
                .SelectMany(m => new[] { m, m[..Math.Min(3, m.Length)], m[..Math.Min(4, m.Length)] })
                // Which language it is in is not always clear; a month beside a number is one in any.
                .Concat(Language.All.SelectMany(x => x.Months))
        );
        return new Regex(
            $@"(?<!\w)(?:(?<lead>{Any(l.By, en.By)})[\s:]+(?:(?:the|den|der|dem|de|el|am|del|det|het)\s+)?)?(?:(?<said>{Any(l.Days, en.Days)})[\s,.]+(?:(?:the|den|der|el|de)\s+)?(?=\d))?(?:"
                + $@"(?:(?<next>{Any(l.Next, en.Next)})\s+)?(?<weekday>{Any(l.Days, en.Days)})(?:s)?(?![\s,.]+(?:(?:the|den|der|el|de)\s+)?\d{{1,2}}(?:st|nd|rd|th|[./]|\s|º))(?:\s+(?<later>{Any(l.WeekAfter, en.WeekAfter)})(?!\w|\s*\d)|(?:[\s,]+\w{{1,3}}){{0,2}}[\s,]+(?:{Any(l.Week, en.Week)})\s*(?<ofweek>\d{{1,2}})(?!\d))?"
                + @"|(?<iso>(?<iy>20\d\d)-(?<im>\d\d)-(?<id>\d\d))"
                + $@"|(?:{Any(l.Week, en.Week)})\s*(?:no\.?|nr\.?|:)?\s*(?<weekno>\d{{1,2}})(?:\s*[/-]\s*(?<wy>20\d\d)|\s+(?<wy>20\d\d))?(?!\s*[\d.,]*\d)"
                + $@"|(?<d>\d{{1,2}})(?:st|nd|rd|th|\.|º)?\s+(?:of\s+|de\s+)?(?<month>{months})\.?(?:,?\s+(?:de\s+)?(?<year>20\d\d))?"
                + $@"|(?<month>{Any(en.Months)})\s+(?<d>\d{{1,2}})(?:st|nd|rd|th)?(?:,?\s+(?<year>20\d\d))?(?!\d)"
                + $@"|(?<part>{Any(l.EndOf, en.EndOf, l.MiddleOf, en.MiddleOf)})\s*(?<pmonth>{Any(l.Months, en.Months)})(?:\s+(?<py>20\d\d))?"
                + $@"|(?<relative>{Language.AnyOf(l.Relative.Keys)})"
                + $@"|(?:{Any(l.Within, en.Within)})\s+(?<count>\d{{1,2}})\s+(?<span>{Language.AnyOf(l.Spans.Keys)})"
                + @"|(?<a>\d{1,2})(?<sep>[./-])(?<b>\d{1,2})\k<sep>(?<y>20\d\d|\d\d)(?![\d./-]*\d)"
                + @"|(?<a>\d{1,2})(?<sep>\.)(?<b>\d{1,2})\.(?!\d)"
                + @"|(?<dom>\d{1,2})(?:st|nd|rd|th|e|:e|º)"
                + @")(?!\w)",
            RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
            TookTooLongException.OfPatterns
        );
    }
}
