using System.Globalization;
using CsCheck;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Core.Tests.Documents;

public sealed class NumberPatternTests
{
    [Theory]
    [InlineData("Q{yy}-{00000}", "Q26-00187")]
    [InlineData("ord.{yyyy}.{000}", "ORD.2026.187")]
    [InlineData("{00}", null)]
    [InlineData("7Q{000}", null)]
    [InlineData("Q{yy}-", null)]
    [InlineData("Q{0}{0}", null)]
    [InlineData("Q{yy}{yy}{0}", null)]
    [InlineData("Q {000}", null)]
    [InlineData("Q{mm}{000}", null)]
    [InlineData("Q{000}-", null)]
    [InlineData("Q/{000}", null)]
    [InlineData("QUOTATION-OF-THE-HOUSE-{yyyy}-{00000}", null)]
    [InlineData("", null)]
    public void A_pattern_is_taken_or_told_what_is_wrong(string text, string? number)
    {
        var pattern = NumberPattern.Read(text, out var fault);
        Assert.Equal(number, pattern?.Format(2026, 187));
        Assert.Equal(number is null, fault.Length > 0);
    }

    [Theory]
    [InlineData("Q{yy}-{00000}", "S{yy}-{00000}", false)]
    [InlineData("Q{yy}-{00000}", "Q{yyyy}-{0}", false)]
    [InlineData("Q{yy}{0000}", "Q{000000}", true)]
    // Three digits may become five, and five begin with a year.
    [InlineData("Q{yy}{000}", "Q{0}", true)]
    [InlineData("Q2{yy}{0}", "Q{yyyy}{0}", true)]
    [InlineData("Q{0}A", "Q{0}", false)]
    [InlineData("Q{0}7", "Q{00}", true)]
    [InlineData("AB{0}", "A{yy}{0}", false)]
    public void Two_patterns_meet_where_some_number_is_of_both(string one, string other, bool meet)
    {
        var (a, b) = (NumberPattern.Of(one), NumberPattern.Of(other));
        Assert.Equal((meet, meet), (a.Meets(b), b.Meets(a)));
    }

    private static readonly int[] Years = [2000, 2025, 2026, 2099];
    private static readonly int[] Far = [1_234, 26_001, 260_001, 2_026_001];

    private static Gen<string> One(params string[] of) => Gen.Int[0, of.Length - 1].Select(i => of[i]);

    private static readonly Gen<NumberPattern> Patterns =
        from lead in One("A", "B", "A1", "A26", "AB")
        from year in One("", "{yy}", "{yyyy}")
        from between in One("", "-", "2", "0")
        from count in One("{0}", "{00}", "{0000}")
        from last in One("", "X", "5")
        select NumberPattern.Of(lead + year + between + count + last);

    [Fact]
    public void Whatever_two_patterns_both_give_they_meet()
    {
        // Every number of some years and counts, of both: what is found by hand is found by the rule.
        static HashSet<string> All(NumberPattern p) =>
            [.. from year in Years from count in Enumerable.Range(1, 120).Concat(Far) select p.Format(year, count)];
        Gen.Select(Patterns, Patterns)
            .Sample((a, b) => !All(a).Overlaps(All(b)) || a.Meets(b), iter: 2_000, threads: 1);
    }

    [Fact]
    public void A_series_never_gives_a_number_twice_whatever_pattern_follows() =>
        Gen.Select(Patterns, Patterns)
            .Sample(
                (a, b) =>
                {
                    if (!b.MayFollow(a))
                        return true;
                    // The count goes on within its year; a series without years has a count of its own.
                    var first = Enumerable.Range(1, 60).Select(n => a.Format(2026, n)).ToHashSet();
                    var from = a.HasYear == b.HasYear ? 61 : 1;
                    return Enumerable.Range(from, 300).All(n => !first.Contains(b.Format(2026, n)));
                },
                iter: 2_000,
                threads: 1
            );

    [Fact]
    public void Our_numbers_are_known_by_every_pattern_that_there_was()
    {
        var ours = new OurNumbers([("Q", NumberPattern.Of("OFF-{yyyy}.{000}")), ("S", NumberPattern.Of("AB{0000}"))]);
        Assert.Equal("OFF-2026.187", ours.Quote("re OFF-2026.187, please").Value);
        Assert.Equal("Q26-00187", ours.Quote("re Q26-00187").Value);
        Assert.False(ours.Quote("Q26-00187X or OFF-2026.1").Success);
        Assert.True(ours.NamesOrder("about AB0417") && ours.NamesOrder("about S26-00311"));
        Assert.False(ours.NamesOrder("CAB0417, AB041 and Q26-00187"));
        Assert.Equal(
            ["AB0417", "R26-00412"],
            ours.In("AB0417 and R26-00412, 40 of them").Select(m => m.Value.ToString(CultureInfo.InvariantCulture))
        );
    }
}
