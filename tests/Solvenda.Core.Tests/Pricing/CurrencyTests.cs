using CsCheck;
using Solvenda.Core.Money;
using Xunit;

namespace Solvenda.Core.Tests.Pricing;

public sealed class CurrencyTests
{
    [Theory]
    [InlineData("EUR", 2)]
    [InlineData(" sek ", 2)]
    [InlineData("JPY", 0)]
    [InlineData("KWD", 3)]
    public void A_currency_has_the_decimals_of_its_minor_unit(string code, int decimals) =>
        Assert.Equal(decimals, Currency.Of(code).Decimals);

    [Theory]
    [InlineData("XXQ")]
    [InlineData("EURO")]
    [InlineData("")]
    [InlineData(null)]
    public void What_is_none_is_refused_and_never_guessed(string? code)
    {
        Assert.False(Currency.TryOf(code, out _));
        Assert.Throws<ArgumentException>(() => Currency.Of(code ?? "?"));
    }

    [Fact]
    public void One_that_was_not_set_is_not_used() =>
        Assert.Throws<InvalidOperationException>(() => default(Currency).Code);

    [Theory]
    [InlineData("2.00005", "2.0001")]
    [InlineData("-2.00005", "-2.0001")]
    [InlineData("2.00004999", "2.0000")]
    public void A_price_has_four_decimals_half_away_from_zero(string value, string price) =>
        Assert.Equal(
            $"{price} EUR",
            UnitPrice
                .Round(decimal.Parse(value, System.Globalization.CultureInfo.InvariantCulture), World.Eur)
                .ToString()
        );

    [Fact]
    public void A_price_is_stored_as_whole_steps_and_comes_back() =>
        Gen.Long[-1_000_000_000_000, 1_000_000_000_000]
            .Sample(steps => Assert.Equal(steps, UnitPrice.FromSteps(steps, World.Eur).Steps));

    [Fact]
    public void Prices_compare_within_a_currency_and_never_across()
    {
        var (one, two) = (UnitPrice.Round(1m, World.Eur), UnitPrice.Round(2m, World.Eur));
        Assert.True(one < two && two > one && one <= two && two >= one);
        Assert.Throws<InvalidOperationException>(() => one < UnitPrice.Round(2m, Currency.Of("USD")));
    }
}
