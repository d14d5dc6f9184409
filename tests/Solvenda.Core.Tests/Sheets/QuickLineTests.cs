using System.Globalization;
using CsCheck;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

public sealed class QuickLineTests
{
    private static string Said(string text)
    {
        var line = QuickLine.Parse(text);
        string Say(decimal? n) => n?.ToString("0.####", CultureInfo.InvariantCulture) ?? "-";
        return $"{line.Words} | {Say(line.Quantity)} {line.Unit?.Code ?? "-"} | {Say(line.Price)} | {Say(line.DiscountPercent)}";
    }

    [Theory]
    [InlineData("thimble 12 x 20 @2.10 -5%", "thimble 12 | 20 - | 2.1 | 5")]
    [InlineData("SHK-BOW-10 12", "SHK-BOW-10 | 12 - | - | -")]
    [InlineData("thimble 12", "thimble 12 | - - | - | -")]
    [InlineData("navy rope 30 m", "navy rope | 30 MTR | - | -")]
    [InlineData("navy rope 2 coil", "navy rope | 2 CL | - | -")]
    [InlineData("rope x 2,5 m @ 1,95", "rope | 2.5 MTR | 1.95 | -")]
    [InlineData("rope -7,5 %", "rope | - - | - | 7.5")]
    [InlineData("rope \u22127%", "rope | - - | - | 7")]
    [InlineData("20", "20 | - - | - | -")]
    [InlineData("", " | - - | - | -")]
    [InlineData("   fender   ", "fender | - - | - | -")]
    [InlineData("chain 8 mm", "chain 8 mm | - - | - | -")]
    [InlineData("rope @", "rope @ | - - | - | -")]
    [InlineData("rope @free", "rope @free | - - | - | -")]
    public void A_line_is_read_from_its_end(string text, string said) => Assert.Equal(said, Said(text));

    [Theory]
    [InlineData("1.5", 1.5)]
    [InlineData("1,5", 1.5)]
    [InlineData("\u22123", -3)]
    [InlineData("1 000", 1000)]
    public void A_number_is_read_as_people_type_it(string text, double number) =>
        Assert.Equal((decimal)number, QuickLine.Number(text));

    [Theory]
    [InlineData(""), InlineData("-"), InlineData("1.2.3"), InlineData("ten"), InlineData("1e9"), InlineData("0x10")]
    public void What_is_no_number_is_none(string text) => Assert.Null(QuickLine.Number(text));

    [Fact]
    public void Whatever_was_typed_with_all_its_signs_comes_back_piece_by_piece() =>
        Gen.Select(
                One.Of("BB2-10-NV", "SHK-BOW-10", "navy braid"),
                Gen.Int[1, 9_999],
                Gen.Decimal[0.01m, 900m].Select(d => decimal.Round(d, 2)),
                Gen.Int[1, 90]
            )
            .Sample(
                (words, quantity, price, off) =>
                {
                    var line = QuickLine.Parse(
                        string.Create(CultureInfo.InvariantCulture, $"{words} x {quantity} @{price} -{off}%")
                    );
                    Assert.Equal(
                        (words, (decimal?)quantity, (decimal?)price, (decimal?)off),
                        (line.Words, line.Quantity, line.Price, line.DiscountPercent)
                    );
                },
                iter: 300
            );

    [Fact]
    public void No_text_makes_it_fail_and_words_are_never_lost() =>
        Gen.String[0, 60]
            .Sample(
                text =>
                {
                    var line = QuickLine.Parse(text);
                    Assert.True(line.Quantity is null or >= 0m);
                    Assert.Contains(line.Words, text.Trim(), StringComparison.Ordinal);
                },
                iter: 2_000
            );
}
