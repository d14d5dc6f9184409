using System.Globalization;
using System.Text.RegularExpressions;
using CsCheck;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Nothing that could be a quantity or a thing of ours vanishes without a word.</summary>
public sealed class LeftOverTests
{
    private static string[] Left(string body) => [.. Shelf.Letter(body).LeftOvers.Select(l => l.Words)];

    [Theory]
    [InlineData("for PO 8841 please: 40 bow shackles 10 mm. The 12 swivels go to the south site.", "12")]
    [InlineData("please send 40 SHK-BOW-10; and do not forget THM-SS-12 again.", "THM-SS-12")]
    [InlineData("we order 40 SHK-BOW-10, of which 15 in red paint", "15")]
    public void What_nothing_explains_is_left_over_or_a_line_that_is_asked(string body, string words)
    {
        var reading = Shelf.Letter(body);
        Assert.True(
            reading.LeftOvers.Any(l => l.Words.Contains(words, StringComparison.Ordinal))
                || reading.Lines.Any(l =>
                    l.Words.Contains(words, StringComparison.Ordinal)
                    || l.Quantity.Value?.ToString(CultureInfo.InvariantCulture) == words
                ),
            string.Join('|', reading.LeftOvers.Select(l => l.Words))
        );
        Assert.True(reading.NeedsYou);
    }

    [Theory]
    [InlineData("please send 40 SHK-BOW-10. The gate code is 4471.")]
    [InlineData("please send 40 SHK-BOW-10 by 12 March. Call me on +353 1 555 0100 or 01 555 0199.")]
    [InlineData("please send 40 SHK-BOW-10 to berth 12, and unload before 11:00.")]
    [InlineData("1) 40 SHK-BOW-10\n2) 12 THM-SS-12\n\nour order 4711-22, total 194.20 EUR")]
    [InlineData("40 SHK-BOW-10 at 4.15 EUR, 30 days net, less 5 %")]
    public void What_is_something_else_is_not(string body) => Assert.Empty(Left(body));

    [Fact]
    public void History_and_signatures_are_not_looked_through() =>
        Assert.Empty(
            Left(
                "please send 40 SHK-BOW-10\n\nKind regards\nFionn Tressel\nRope Walk 17\n\n> last time it was 36 THM-SS-12"
            )
        );

    [Fact]
    public void It_points_at_the_words_it_says()
    {
        const string body = "please send 40 SHK-BOW-10. Not 7777 any more.";
        var left = Assert.Single(Shelf.Letter(body).LeftOvers);
        Assert.StartsWith("7777", body.Substring(left.Where.Start, left.Where.Length), StringComparison.Ordinal);
    }

    private static Gen<string> OneOf(params string[] values) => Gen.Int[0, values.Length - 1].Select(i => values[i]);

    private static readonly Gen<string> Line = Gen.Select(
            Gen.Int[2, 9_999],
            OneOf("SHK-BOW-10", "boat hooks", "THM-SS-12", "m PS3-12-WH", "buckets, blue", "pcs FND-A3-BL"),
            OneOf("{0} {1}", "- {0} {1}", "{1}: {0}", "* {1} - {0}", "{0} x {1}", "and {0} {1}", "the {1}, {0}")
        )
        .Select(
            (quantity, thing, form) =>
                string.Format(
                    CultureInfo.InvariantCulture,
                    form,
                    quantity,
                    // A thing that stands before its number has no unit in between.
                    form.StartsWith("{0}", StringComparison.Ordinal) || form.StartsWith("- ", StringComparison.Ordinal)
                        ? thing
                        : thing
                            .Replace("m ", "", StringComparison.Ordinal)
                            .Replace("pcs ", "", StringComparison.Ordinal)
                )
        );

    private static readonly Gen<string> Chatter = OneOf(
        "",
        "Hope all is well.",
        "The gate code is 4471.",
        "Please unload before 11, phone first.",
        "It rains here.",
        "Ring 01 555 0199."
    );

    [Fact]
    public void No_line_with_a_quantity_vanishes_silently() =>
        Gen.Select(Line.Array[1, 6], Chatter, OneOf("please send\n", "we need:\n", "PO 8841-2\n", "can you quote\n"))
            .Sample(
                (lines, chatter, lead) =>
                {
                    var reading = Shelf.Letter($"Hello,\n\n{lead}{string.Join('\n', lines)}\n\n{chatter}\n");
                    var said = reading
                        .Lines.Select(l => l.Quantity.Value?.ToString("0.####", CultureInfo.InvariantCulture) ?? "")
                        .Concat(reading.LeftOvers.SelectMany(l => Regex.Matches(l.Words, @"\d+").Select(m => m.Value)))
                        .ToList();
                    foreach (var line in lines)
                    {
                        var quantity = Regex.Matches(line, @"(?<![\w-])\d+(?![\w-])").Select(m => m.Value).Single();
                        Assert.True(said.Contains(quantity), $"“{line}” vanished; there are {string.Join(", ", said)}");
                    }
                },
                iter: 2_000
            );
}
