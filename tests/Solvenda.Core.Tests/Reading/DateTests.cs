using System.Globalization;
using CsCheck;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

/// <summary>Dates as people write them; the letters are of Monday 2 March 2026.</summary>
public sealed class DateTests
{
    private static Language In(string code) => Language.All.Single(l => l.Code == code);

    private static string Found(string text, string language, DateOnly? written = null) =>
        DateWords
            .Find(text, written ?? World.Day, In(language))
            ?.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)
        ?? "none";

    [Theory]
    [InlineData("en", "by 12th of March", "2026-03-12")]
    [InlineData("en", "delivery March 12, 2027", "2027-03-12")]
    [InlineData("en", "needed within 3 weeks", "2026-03-23")]
    [InlineData("en", "by the end of April", "2026-04-30")]
    [InlineData("en", "mid May would do", "2026-05-15")]
    [InlineData("en", "in week 12", "2026-03-16")]
    [InlineData("en", "Wednesday of week 12", "2026-03-18")]
    [InlineData("en", "by tomorrow", "2026-03-03")]
    [InlineData("de", "bis zum 12. M\u00e4rz", "2026-03-12")]
    [InlineData("de", "Lieferung KW 12", "2026-03-16")]
    [InlineData("de", "bis Freitag", "2026-03-06")]
    [InlineData("de", "sp\u00e4testens 12.03.2026", "2026-03-12")]
    [InlineData("de", "Ende April", "2026-04-30")]
    [InlineData("de", "innerhalb von 2 Wochen", "2026-03-16")]
    [InlineData("sv", "senast fredag", "2026-03-06")]
    [InlineData("sv", "leverans vecka 12", "2026-03-16")]
    [InlineData("sv", "den 12 mars", "2026-03-12")]
    [InlineData("no", "innen 12. mars", "2026-03-12")]
    [InlineData("nl", "uiterlijk 12 maart", "2026-03-12")]
    [InlineData("nl", "levering week 12", "2026-03-16")]
    [InlineData("es", "para el 12 de marzo de 2027", "2027-03-12")]
    [InlineData("es", "antes del viernes", "2026-03-06")]
    [InlineData("no", "levering 08/01/2027", "2027-01-08")]
    [InlineData("no", "Bestilling 44/2026/258\n\nDeck varnish clear 1 l: 409 stk\n\nlevering 08/01/2027", "2027-01-08")]
    [InlineData("sv", "leverans 05/12/2026?", "2026-12-05")]
    [InlineData("no", "innen 09/12/2026", "2026-12-09")]
    public void In_the_languages_of_the_buyers(string language, string text, string day) =>
        Assert.Equal(day, Found(text, language));

    [Theory]
    [InlineData("by 13/04/2026", "2026-04-13")]
    [InlineData("by 04/13/2026", "2026-04-13")]
    [InlineData("by 2026-04-13", "2026-04-13")]
    [InlineData("by 13.4.26", "2026-04-13")]
    [InlineData("by 13.4.", "2026-04-13")]
    [InlineData("by 31 February", "none")]
    [InlineData("by 2026-13-01", "none")]
    [InlineData("part 12-10", "none")]
    [InlineData("order date: 12 March 2026", "none")]
    [InlineData("dated 2026-04-13", "none")]
    public void In_digits(string text, string day) => Assert.Equal(day, Found(text, "en"));

    // A short letter may be taken for English; what leads to its date is then no word that is known.
    [Theory]
    [InlineData("levering 08/01/2027", "2027-01-08", "the day or the month first?")]
    [InlineData("levering Thursday 20 March 2026", "2026-03-20", "is no Thursday")]
    public void What_is_not_clear_is_asked_and_never_passed_over(string text, string day, string asks)
    {
        var found = DateWords.Find(text, World.Day, In("en"))!;
        Assert.Equal(day, found.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
        Assert.True(found.Sure < Solvenda.Core.Reading.Reading.UnsureDate);
        Assert.Contains(asks, found.How, StringComparison.Ordinal);
    }

    [Fact]
    public void Which_comes_first_stays_open_unless_the_document_shows_it()
    {
        var open = DateWords.Find("by 04/05/2026", World.Day)!;
        Assert.True(open.Sure <= 0.5m);
        Assert.Contains("5 Apr", open.How, StringComparison.Ordinal);
        var shown = DateWords.All("sent 04/25/2026, by 04/05/2026", World.Day)[^1];
        Assert.Equal((new DateOnly(2026, 4, 5), 0.9m), (shown.Day, shown.Sure));
        var other = DateWords.All("sent 25/04/2026, by 04/05/2026", World.Day)[^1];
        Assert.Equal(new DateOnly(2026, 5, 4), other.Day);
    }

    [Fact]
    public void A_day_without_a_year_is_the_next_such_day()
    {
        Assert.Equal("2026-03-02", Found("by 2 March", "en"));
        Assert.Equal("2027-03-01", Found("by 1 March", "en"));
        Assert.Equal("2027-01-04", Found("in week 1", "en"));
    }

    [Fact]
    public void A_date_that_something_is_wanted_by_goes_before_one_that_stands_alone() =>
        Assert.Equal("2026-03-20", Found("we spoke on the phone, 12 March; needed by 20 March", "en"));

    [Fact]
    public void Weekdays_are_always_ahead_and_next_is_in_the_following_week() =>
        Gen.Int[0, 6]
            .Select(Gen.Int[0, 6])
            .Sample(
                (today, wanted) =>
                {
                    var written = World.Day.AddDays(today);
                    var name = Language.English.Days[wanted];
                    var by = DateWords.Find($"by {name}", written)!.Day;
                    var next = DateWords.Find($"next {name}", written)!.Day;
                    Assert.InRange(by.DayNumber - written.DayNumber, 1, 7);
                    Assert.Equal(wanted, ((int)by.DayOfWeek + 6) % 7);
                    Assert.Equal(
                        ISOWeek.GetWeekOfYear(written.ToDateTime(default)) + 1,
                        ISOWeek.GetWeekOfYear(next.ToDateTime(default))
                    );
                }
            );

    [Fact]
    public void Any_day_with_its_year_comes_back_in_every_language() =>
        Gen.Select(Gen.Int[0, 3_000], Gen.Int[0, Language.All.Length - 1])
            .Sample(
                (ahead, which) =>
                {
                    var (day, language) = (World.Day.AddDays(ahead), Language.All[which]);
                    var month = language.Months[day.Month - 1];
                    var text =
                        language.Code == "es"
                            ? $"{day.Day} de {month} de {day.Year}"
                            : $"{day.Day}. {month} {day.Year}";
                    Assert.Equal(day, DateWords.Find($"{language.By[0]} {text}", World.Day, language)?.Day);
                }
            );

    [Fact]
    public void Evidence_is_the_date_without_the_word_before_it()
    {
        const string text = "please deliver by 12 March at the quay";
        var found = DateWords.Find(text, World.Day)!;
        Assert.Equal("12 March", text.Substring(found.Start, found.Length));
    }

    [Fact]
    public void Nothing_that_looks_like_one_makes_it_fail() =>
        Gen.String[Gen.OneOf(Gen.Char['0', '9'], Gen.Const('.'), Gen.Const('/'), Gen.Const('-'), Gen.Const(' ')), 0, 40]
            .Sample(text =>
                Assert.All(DateWords.All("by " + text, World.Day), d => Assert.InRange(d.Day.Year, 1990, 2200))
            );
}
