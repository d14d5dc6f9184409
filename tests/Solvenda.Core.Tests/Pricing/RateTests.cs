using CsCheck;
using Solvenda.Core.Money;
using Xunit;

namespace Solvenda.Core.Tests.Pricing;

public sealed class RateTests
{
    private static readonly Currency Eur = Currency.Of("EUR");
    private static readonly Currency Sek = Currency.Of("SEK");
    private static readonly Currency Usd = Currency.Of("USD");
    private static readonly Currency Nok = Currency.Of("NOK");

    private static DateOnly Day(int day) => new(2026, 3, day);

    private static readonly DatedRate[] Book =
    [
        new(Sek, Day(1), 0.0900m),
        new(Sek, Day(10), 0.0880m),
        new(Usd, Day(5), 0.9236m),
    ];

    [Theory]
    [InlineData(1, 0.0900)]
    [InlineData(9, 0.0900)]
    [InlineData(10, 0.0880)]
    [InlineData(31, 0.0880)]
    public void The_newest_up_to_the_day_holds(int day, double rate) =>
        Assert.Equal((decimal)rate, Rates.On(Day(day), Eur, Book).Of(Sek));

    [Fact]
    public void Before_the_first_there_is_none_and_never_one_to_one()
    {
        var rates = Rates.On(Day(4), Eur, Book);
        Assert.Null(rates.Of(Usd));
        Assert.Null(rates.Of(Nok));
        Assert.Null(rates.Convert(100m, Usd, Eur));
        Assert.Null(rates.Convert(100m, Eur, Nok));
        Assert.Null(rates.Convert(100m, Sek, Usd));
    }

    [Fact]
    public void Home_is_one_whatever_the_book_says_of_it() =>
        Assert.Equal(1m, Rates.On(Day(31), Eur, [.. Book, new DatedRate(Eur, Day(1), 7m)]).Of(Eur));

    [Fact]
    public void A_currency_without_a_rate_is_still_itself() =>
        Assert.Equal(12.5m, Rates.On(Day(1), Eur, []).Convert(12.5m, Nok, Nok));

    [Fact]
    public void From_one_foreign_currency_to_another_goes_over_home_and_is_rounded_by_nobody()
    {
        var rates = Rates.On(Day(31), Eur, Book);
        Assert.Equal(1_000m * 0.0880m / 0.9236m, rates.Convert(1_000m, Sek, Usd));
    }

    [Fact]
    public void There_and_back_is_where_it_began() =>
        Gen.Select(Gen.Decimal[0.01m, 100_000m], Gen.Decimal[0.001m, 40m], Gen.Decimal[0.001m, 40m])
            .Sample(
                (value, a, b) =>
                {
                    var rates = Rates.Fixed(Eur, new Dictionary<Currency, decimal> { [Sek] = a, [Usd] = b });
                    var back = rates.Convert(rates.Convert(value, Sek, Usd)!.Value, Usd, Sek)!.Value;
                    Assert.InRange(Math.Abs(back - value), 0m, value / 1_000_000_000m);
                },
                iter: 500
            );

    [Fact]
    public void What_a_quote_froze_moves_with_no_later_rate()
    {
        var frozen = new Dictionary<Currency, decimal> { [Sek] = 0.09m };
        var rates = Rates.Fixed(Eur, frozen);
        frozen[Sek] = 0.5m;
        Assert.Equal(0.09m, rates.Of(Sek));
    }
}
