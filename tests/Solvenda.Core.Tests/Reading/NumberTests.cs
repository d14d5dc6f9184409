using CsCheck;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

/// <summary>Numbers as written: what a document shows about its signs, and what stays open.</summary>
public sealed class NumberTests
{
    private static string Say(WrittenNumber? number) =>
        number is null
            ? "none"
            : FormattableString.Invariant(
                $"{number.Value:0.######}{(number.Or is { } or ? $" or {or:0.######}" : "")}"
            );

    [Theory]
    [
        InlineData("1250", "1250"),
        InlineData("1 250,50", "1250.5"),
        InlineData("1.250,5", "1250.5"),
        InlineData("1,250.5", "1250.5"),
        InlineData("1'250.50", "1250.5"),
        InlineData("0,125", "0.125"),
        InlineData("12,5", "12.5"),
        InlineData("1.250.000", "1250000")
    ]
    [
        InlineData("1.250", "1250 or 1.25"),
        InlineData("-1,250", "-1250 or -1.25"),
        InlineData("12345,678", "12345.678"),
        InlineData("1 250,500", "1250.5"),
        InlineData("5-", "-5"),
        InlineData("1.2.3", "none"),
        InlineData("twelve", "none"),
        InlineData("", "none"),
        InlineData("1,250,5", "none")
    ]
    public void A_number_alone(string text, string expected) =>
        Assert.Equal(expected, Say(NumberForm.Unknown.Read(text)));

    [Theory]
    [
        InlineData("2,40 1.250", ',', "1250"),
        InlineData("2.40 1.250", '.', "1.25"),
        InlineData("1.250.000 1.250", ',', "1250"),
        InlineData("2,40 3.50 1.250", null, "1250 or 1.25"),
        InlineData("12 7 1.250", null, "1250 or 1.25")
    ]
    public void What_a_document_shows_settles_the_others(string numbers, char? sign, string last)
    {
        var all = numbers.Split(' ');
        var form = NumberForm.Of(all[..^1]);
        Assert.Equal((sign, last), (form.Sign, Say(form.Read(all[^1]))));
    }

    [Fact]
    public void Whichever_way_it_is_written_it_is_the_same_number() =>
        Gen.Select(Gen.Int[0, 9_999_999], Gen.Int[0, 99], Gen.Bool)
            .Sample(
                (whole, cents, comma) =>
                {
                    var culture = (System.Globalization.CultureInfo)
                        System.Globalization.CultureInfo.InvariantCulture.Clone();
                    (culture.NumberFormat.NumberDecimalSeparator, culture.NumberFormat.NumberGroupSeparator) = comma
                        ? (",", ".")
                        : (".", ",");
                    var value = whole + (cents / 100m);
                    Assert.Equal(
                        new WrittenNumber(value, null),
                        NumberForm.Unknown.Read(value.ToString("#,##0.00", culture))
                    );
                }
            );
}
