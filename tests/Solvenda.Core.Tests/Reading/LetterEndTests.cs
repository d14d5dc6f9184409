using CsCheck;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

/// <summary>Where what is new in a letter ends: quoted history and signatures are not read as orders.</summary>
public sealed class LetterEndTests
{
    private static string Fresh(string text)
    {
        var plain = text.ReplaceLineEndings("\n");
        return plain[..Letters.FreshLength(plain)];
    }

    [Theory]
    [InlineData("12 shackles please\n> 40 shackles\n", "12 shackles please\n")]
    [InlineData("12 shackles please\n-- \nRope Works\n+353 1 555 0100", "12 shackles please\n")]
    [InlineData("12 please\nOn 3 March 2026 Sorcha wrote:\n40 shackles", "12 please\n")]
    [InlineData(
        "12 bitte\nAm 3. M\u00e4rz 2026 schrieb Sorcha Quill:\n40 Sch\u00e4kel",
        "12 bitte\nAm 3. M\u00e4rz 2026 schrieb Sorcha Quill:\n40 Sch\u00e4kel"
    )]
    [InlineData("12 bitte\nSorcha Quill schrieb:\n40 Sch\u00e4kel", "12 bitte\n")]
    [InlineData("12 tack\nSorcha skrev:\n40 schacklar", "12 tack\n")]
    [InlineData("12 graag\nSorcha schreef:\n40 sluitingen", "12 graag\n")]
    [InlineData("12 por favor\nSorcha escribi\u00f3:\n40 grilletes", "12 por favor\n")]
    [InlineData("See below\n----- Original message -----\n40 shackles", "See below\n")]
    [InlineData("See below\nFrom: Fionn <f@tresselvane.example>\n40 shackles", "See below\n")]
    public void Quoted_history_is_not_new(string text, string fresh) => Assert.Equal(fresh, Fresh(text));

    [Theory]
    [InlineData(
        "12 shackles please\nKind regards\nFionn Tressel\n+353 1 555 0100\n",
        "12 shackles please\nKind regards\n"
    )]
    [InlineData(
        "12 Sch\u00e4kel\nMit freundlichen Gr\u00fc\u00dfen\nGreta Lindholm\n",
        "12 Sch\u00e4kel\nMit freundlichen Gr\u00fc\u00dfen\n"
    )]
    [InlineData("12 schacklar\nMvh\nGreta Lindholm\n", "12 schacklar\nMvh\n")]
    public void A_signature_is_not_new(string text, string fresh) => Assert.Equal(fresh, Fresh(text));

    [Fact]
    public void Thanks_at_the_beginning_close_nothing() =>
        Assert.Equal("Thanks,\nplease send 12 shackles", Fresh("Thanks,\nplease send 12 shackles"));

    [Fact]
    public void A_postscript_is_still_the_letter() =>
        Assert.Contains(
            "PS and 4 splices",
            Fresh("12 shackles please\nKind regards\nFionn\nPS and 4 splices"),
            StringComparison.Ordinal
        );

    [Fact]
    public void What_goes_on_for_long_below_the_closing_words_is_no_signature()
    {
        var list = string.Join('\n', Enumerable.Range(1, 60).Select(i => $"{i} shackles of the size {i} for the yard"));
        Assert.EndsWith("for the yard", Fresh($"As below\nThanks\n{list}"), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("12 please\nKind regards\nFionn Tressel\n", "Fionn Tressel")]
    [InlineData("12 please\nThanks,\n\nAnna de la Cruz\n", "Anna de la Cruz")]
    [InlineData("12 please\nKind regards\nsent by the machine\n", "")]
    [InlineData("12 please\nFionn Tressel\n", "")]
    public void Who_signed_stands_below_the_words_that_close_it(string text, string name)
    {
        var (start, found) = Letters.SignedBy(text, Letters.FreshLength(text));
        Assert.Equal(name, found);
        if (name.Length > 0)
            Assert.Equal(name, text.Substring(start, name.Length));
    }

    [Fact]
    public void What_is_new_is_a_beginning_of_the_text_whatever_the_text() =>
        Gen.String[Gen.OneOf(Gen.Char[' ', '~'], Gen.Const('\n'), Gen.Const('>')), 0, 200]
            .Sample(text => Assert.InRange(Letters.FreshLength(text), 0, text.Length));

    [Fact]
    public void A_letter_without_an_end_is_all_new()
    {
        var text = string.Join('\n', Enumerable.Repeat("12 shackles\nThanks\nFionn", 30));
        Assert.InRange(Letters.FreshLength(text), 1, text.Length);
    }
}
