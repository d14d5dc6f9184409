using System.Globalization;
using CsCheck;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Units;
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
    [InlineData("@2.10 -5% x 20 thimble 12", "thimble 12 | 20 - | 2.1 | 5")]
    [InlineData("20 x thimble 12 -5%", "thimble 12 | 20 - | - | 5")]
    [InlineData("20x SHK-BOW-10", "SHK-BOW-10 | 20 - | - | -")]
    [InlineData("SHK-BOW-10 12", "SHK-BOW-10 | 12 - | - | -")]
    [InlineData("12 SHK-BOW-10 @4", "SHK-BOW-10 | 12 - | 4 | -")]
    [InlineData("2999000101351 3", "2999000101351 | 3 - | - | -")]
    [InlineData("thimble 12", "thimble 12 | - - | - | -")]
    [InlineData("hand flares 4 @70 -5%", "hand flares 4 | - - | 70 | 5")]
    [InlineData("navy rope 30 m", "navy rope | 30 MTR | - | -")]
    [InlineData("2.5m PS3-12-WH", "PS3-12-WH | 2.5 MTR | - | -")]
    [InlineData("navy rope 2 coil", "navy rope | 2 CL | - | -")]
    [InlineData("3 rullar navy rope", "navy rope | 3 CL | - | -")]
    [InlineData("bow shackle 2 dz", "bow shackle | 24 - | - | -")]
    [InlineData("rope x 2,5 m @ 1,95", "rope | 2.5 MTR | 1.95 | -")]
    [InlineData("rope x 1,250 m @ 1.250,5", "rope | 1250 MTR | 1250.5 | -")]
    [InlineData("rope -7,5 %", "rope | - - | - | 7.5")]
    [InlineData("rope \u22127%", "rope | - - | - | 7")]
    [InlineData("rope 7 % off", "rope | - - | - | 7")]
    [InlineData("rope less 7%", "rope | - - | - | 7")]
    [InlineData("rope +4%", "rope | - - | - | -4")]
    [InlineData("20", "20 | - - | - | -")]
    [InlineData("", " | - - | - | -")]
    [InlineData("   fender   ", "fender | - - | - | -")]
    [InlineData("chain 8 mm", "chain 8 mm | - - | - | -")]
    [InlineData("rope @", "rope @ | - - | - | -")]
    [InlineData("rope @free", "rope @free | - - | - | -")]
    [InlineData("teak boarding ladder 5 step x 1 @240", "teak boarding ladder 5 step | 1 - | 240 | -")]
    public void A_line_is_read_piece_by_piece_in_whatever_order(string text, string said) =>
        Assert.Equal(said, Said(text));

    [Theory]
    [InlineData("SHK-BOW-10 12 by 12 Dec // with eyes", "2026-12-12", "with eyes", "SHK-BOW-10")]
    [InlineData("by Friday 12 x SHK-BOW-10", "2026-03-13", "", "SHK-BOW-10")]
    [InlineData("SHK-BOW-10 2026-04-01 x 3", "2026-04-01", "", "SHK-BOW-10")]
    [InlineData("chain 8/10 x 3", null, "", "chain 8/10")]
    public void A_day_and_a_note_are_taken_out_of_the_words(string text, string? day, string note, string words)
    {
        var line = QuickLine.Parse(text, new DateOnly(2026, 3, 10));
        Assert.Equal(
            (day, note, words),
            (line.Wanted?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), line.Note, line.Words)
        );
    }

    [Fact]
    public void A_price_with_a_discount_is_what_is_left_of_it() =>
        Assert.Equal(66.5m, QuickLine.Parse("hand flares x 4 @70 -5%").NetPrice);

    [Fact]
    public void Every_letter_belongs_to_a_piece()
    {
        const string text = "12 throwing line 25 m in bag @41 by 2 May // orange";
        var line = QuickLine.Parse(text, new DateOnly(2026, 3, 10));
        Assert.Equal(
            ["12 throwing line 25 m in bag", "@41", "by 2 May", "// orange"],
            line.Pieces.Select(p => text.Substring(p.Start, p.Length))
        );
        // What could count: with a unit, or at an end.
        Assert.Equal([25m, 12m], line.Open.Select(o => o.Quantity));
        var counted = line.Counting(line.Open[1]);
        Assert.Equal((12m, "throwing line 25 m in bag"), (counted.Quantity, counted.Words));
    }

    [Theory]
    [InlineData("1.5", 1.5)]
    [InlineData("1,5", 1.5)]
    [InlineData("\u22123", -3)]
    [InlineData("1 000", 1000)]
    [InlineData("1,250", 1250)]
    [InlineData("1,250.5", 1250.5)]
    [InlineData("1.250,5", 1250.5)]
    [InlineData("1.250.000", 1250000)]
    [InlineData("0,125", 0.125)]
    [InlineData("1.250", 1.25)]
    public void A_number_is_read_as_people_type_it(string text, double number) =>
        Assert.Equal((decimal)number, Numbers.Read(text));

    [Theory]
    [InlineData(""), InlineData("-"), InlineData("1.2.3"), InlineData("ten"), InlineData("1e9"), InlineData("0x10")]
    public void What_is_no_number_is_none(string text) => Assert.Null(Numbers.Read(text));

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
    public void No_text_makes_it_fail_and_no_word_is_lost() =>
        Gen.OneOf(
                Gen.String[0, 60],
                One.Of("rope", "12", "@", "-5%", "x 3", "2 m", "by 2 May", "//", "4,5", "@7", "SHK-BOW-10")
                    .Array[0, 8]
                    .Select(a => string.Join(' ', a))
            )
            .Sample(
                text =>
                {
                    var line = QuickLine.Parse(text, new DateOnly(2026, 3, 10));
                    Assert.True(line.Quantity is null or >= 0m);
                    // The pieces stand one behind the other, and hold everything but blanks.
                    var at = 0;
                    foreach (var piece in line.Pieces)
                    {
                        Assert.True(piece.Start >= at && piece.Length > 0);
                        Assert.True(string.IsNullOrWhiteSpace(text[at..piece.Start]));
                        at = piece.Start + piece.Length;
                    }
                    Assert.True(line.Pieces.IsEmpty || string.IsNullOrWhiteSpace(text[at..]));
                },
                iter: 4_000
            );

    [Fact]
    public void What_is_said_in_plain_words_is_understood_the_same_again() =>
        Gen.Select(
                One.Of("BB2-10-NV", "SHK-BOW-10", "navy braid"),
                Gen.Int[1, 9_999],
                One.Of("", "MTR", "CL", "BX", "C62"),
                Gen.Int[0, 90_000].Select(n => n / 100m),
                Gen.Int[-50, 90]
            )
            .Sample(
                (words, quantity, unit, price, off) =>
                {
                    var line = new QuickLine(
                        words,
                        quantity,
                        unit.Length == 0 ? null : Unit.Of(unit),
                        price == 0 ? null : price,
                        off == 0 ? null : off
                    )
                    {
                        Wanted = new DateOnly(2026, 5, 2),
                        Note = "with eyes",
                    };
                    var again = QuickLine.Parse(line.Said(null), new DateOnly(2026, 3, 10));
                    Assert.Equal(
                        (
                            line.Words,
                            line.Quantity,
                            line.Unit,
                            line.Price,
                            line.DiscountPercent,
                            line.Wanted,
                            line.Note
                        ),
                        (
                            again.Words,
                            again.Quantity,
                            again.Unit,
                            again.Price,
                            again.DiscountPercent,
                            again.Wanted,
                            again.Note
                        )
                    );
                },
                iter: 500
            );
}
