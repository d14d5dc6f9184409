using CsCheck;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

/// <summary>Quantities in words, read out of a letter in the language of the buyer.</summary>
public sealed class NumberWordTests
{
    private static readonly ReadingContext Context = World.BareReading;

    private static decimal? Quantity(string text)
    {
        var lines = Core
            .Reading.TextReader.Read(new Letter("a@b.example", "", "order", World.Day, text, text.Length), Context)
            .Lines;
        return lines.Length == 1 ? lines[0].Quantity.Value : null;
    }

    [Theory]
    [InlineData("please send {0} SHK-BOW-10", "twelve", 12)]
    [InlineData("please send {0} SHK-BOW-10", "a dozen", 12)]
    [InlineData("please send {0} SHK-BOW-10", "two dozen", 24)]
    [InlineData("please send {0} SHK-BOW-10", "half a dozen", 6)]
    [InlineData("please send {0} SHK-BOW-10", "a hundred and twenty", 120)]
    [InlineData("please send {0} SHK-BOW-10", "two hundred and five", 205)]
    [InlineData("please send {0} SHK-BOW-10", "twenty-five", 25)]
    [InlineData("please send {0} SHK-BOW-10", "one thousand two hundred", 1_200)]
    [InlineData("bitte senden Sie uns {0} SHK-BOW-10", "zw\u00f6lf", 12)]
    [InlineData("bitte senden Sie uns {0} SHK-BOW-10", "zweiundzwanzig", 22)]
    [InlineData("bitte senden Sie uns {0} SHK-BOW-10", "hundertzwanzig", 120)]
    [InlineData("bitte senden Sie uns {0} SHK-BOW-10", "achtzig", 80)]
    [InlineData("bitte senden Sie uns {0} SHK-BOW-10", "ein Dutzend", 12)]
    [InlineData("vi vill best\u00e4lla {0} SHK-BOW-10", "tjugofem", 25)]
    [InlineData("wij bestellen graag {0} SHK-BOW-10", "vijfentwintig", 25)]
    [InlineData("por favor env\u00eden {0} SHK-BOW-10", "veinticinco", 25)]
    [InlineData("por favor env\u00eden {0} SHK-BOW-10", "treinta y cinco", 35)]
    public void In_words(string letter, string words, double number) =>
        Assert.Equal((decimal)number, Quantity(letter.Replace("{0}", words, StringComparison.Ordinal)));

    private static readonly string[] Ones =
        "zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen".Split(
            ' '
        );

    private static readonly string[] Tens = "- - twenty thirty forty fifty sixty seventy eighty ninety".Split(' ');

    private static string English(int n) =>
        n switch
        {
            < 20 => Ones[n],
            < 100 => Tens[n / 10] + (n % 10 == 0 ? "" : "-" + Ones[n % 10]),
            < 1_000 => Ones[n / 100] + " hundred" + (n % 100 == 0 ? "" : " and " + English(n % 100)),
            _ => English(n / 1_000)
                + " thousand"
                + (n % 1_000 == 0 ? "" : (n % 1_000 < 100 ? " and " : " ") + English(n % 1_000)),
        };

    [Fact]
    public void Every_number_that_is_built_as_english_builds_them_is_read() =>
        Gen.Int[2, 9_999].Sample(n => Assert.Equal(n, Quantity($"please send {English(n)} SHK-BOW-10")), iter: 300);

    private static readonly string[] Eins =
        "null ein zwei drei vier f\u00fcnf sechs sieben acht neun zehn elf zw\u00f6lf dreizehn vierzehn f\u00fcnfzehn sechzehn siebzehn achtzehn neunzehn".Split(
            ' '
        );

    private static readonly string[] Zehner =
        "- - zwanzig drei\u00dfig vierzig f\u00fcnfzig sechzig siebzig achtzig neunzig".Split(' ');

    private static string German(int n) =>
        n switch
        {
            < 20 => Eins[n],
            < 100 => (n % 10 == 0 ? "" : Eins[n % 10] + "und") + Zehner[n / 10],
            < 1_000 => Eins[n / 100] + "hundert" + (n % 100 == 0 ? "" : German(n % 100)),
            _ => German(n / 1_000) + "tausend" + (n % 1_000 == 0 ? "" : German(n % 1_000)),
        };

    [Fact]
    public void Every_number_that_is_built_as_german_builds_them_is_read() =>
        Gen.Int[2, 9_999]
            .Sample(n => Assert.Equal(n, Quantity($"bitte senden Sie uns {German(n)} SHK-BOW-10")), iter: 300);
}
