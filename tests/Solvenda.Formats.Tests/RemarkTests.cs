using Solvenda.Core.Documents;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>What is asked beside the goods goes along with its evidence.</summary>
public sealed class RemarkTests
{
    [Theory]
    [InlineData("Please unload before 11, phone first.", RemarkKind.Delivery)]
    [InlineData("It is a gift, no invoice in the box.", RemarkKind.Printed)]
    [InlineData("We need a certificate 3.1 with the shackles.", RemarkKind.Certificate)]
    [InlineData("What is your lead time for the black one?", RemarkKind.Question)]
    [InlineData("Bitte vorher anrufen.", RemarkKind.Delivery)]
    [InlineData("Geen factuur in de doos.", RemarkKind.Printed)]
    public void Each_is_of_its_kind_and_a_whole_sentence(string sentence, RemarkKind kind)
    {
        var body = $"PO 4711-2: 40 SHK-BOW-10 by 12 April.\n{sentence}\n";
        var reading = Shelf.Letter(body);
        var remark = Assert.Single(reading.Remarks);
        Assert.Equal((kind, sentence), (remark.Kind, remark.Words));
        Assert.Equal(sentence, body.Substring(remark.Where.Start, remark.Where.Length));
        Assert.Equal(["SHK-BOW-10 40 C62"], Shelf.Lines(reading));
    }

    [Theory]
    [InlineData("Can you quote 40 SHK-BOW-10?")]
    [InlineData("What would 40 SHK-BOW-10 cost us?")]
    [InlineData("Hope you are well. 40 SHK-BOW-10 please.")]
    public void What_is_wanted_itself_is_none(string body) => Assert.Empty(Shelf.Letter(body).Remarks);

    [Fact]
    public void A_remark_hides_no_quantity()
    {
        var reading = Shelf.Letter("PO 4711-2: 40 SHK-BOW-10. Can we have 3 buckets too, and unload before 11?");
        Assert.Contains(reading.LeftOvers, l => l.Words.StartsWith("3 buckets", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("PO 4711-2: 40 SHK-BOW-10 and some thimbles.", "some thimbles")]
    [InlineData("PO 4711-2: 40 SHK-BOW-10. A few swivels too please.", "A few swivels too please")]
    [InlineData("Wir bestellen 40 SHK-BOW-10 und einige Schäkel dazu.", "einige Schäkel dazu")]
    public void A_thing_without_a_number_is_left_over(string body, string words) =>
        Assert.Contains(words, Shelf.Letter(body).LeftOvers.Select(l => l.Words));

    [Theory]
    [InlineData("Wir bestellen ein paar Schäkel SHK-BOW-10.")]
    [InlineData("Please send a couple of SHK-BOW-10.")]
    public void A_couple_is_two_or_a_few(string body) =>
        Assert.Equal("two, or a few?", Assert.Single(Shelf.Letter(body).Lines).Quantity.How);
}
