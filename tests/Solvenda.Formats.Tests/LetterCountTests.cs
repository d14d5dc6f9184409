using System.Globalization;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>What of a letter counts goods, and which of its days is theirs.</summary>
public sealed class LetterCountTests
{
    [Theory]
    [InlineData("Please quote 40 SHK-BOW-10.", "SHK-BOW-10 40 C62")]
    [InlineData("please send Antifouling red 5 l: 12 pcs", "CTG-AF-RD-5 12 C62")]
    [InlineData("please send Life-jacket 150 N adult: 35 pcs", "LJ-150-AD 35 C62")]
    [InlineData("PO 4711-2:\nHand flares pack of 4: 3 pcs", "FLR-HH-4 3 C62")]
    [InlineData("PO 4711-2:\n12 rullar PS3-12-WH\n3 kartonger SHK-BOW-10", "PS3-12-WH 12 CL|SHK-BOW-10 3 BX")]
    [InlineData("PO 4711-2: please send 12 ring bolts", "unknown 12 C62 ?")]
    [InlineData("PO 4711-2: please send rope PS3-12-WH for 1.000 meter", "PS3-12-WH 1000 MTR ?")]
    [InlineData("Please send a ball fender FND-A3-BL and an SVC-EYE", "FND-A3-BL 1 C62|SVC-EYE 1 C62")]
    [InlineData(
        "Bitte liefern Sie einen Schäkel SHK-BOW-10 und eine Schwimmweste LJ-150-AD",
        "SHK-BOW-10 1 C62|LJ-150-AD 1 C62"
    )]
    [InlineData("Graag een harpsluiting SHK-BOW-10 en twee LJ-150-AD", "SHK-BOW-10 1 C62|LJ-150-AD 2 C62")]
    [InlineData(
        "PO 4711-2:\n- life-jacket 150 N adult: 35\n- SHK-BOW-10 bow shackle 10 mm - 313 pcs",
        "LJ-150-AD 35 C62|SHK-BOW-10 313 C62"
    )]
    [InlineData(
        "We ordered 30 SHK-BOW-10 in May, please send 40 more SHK-BOW-10.",
        "SHK-BOW-10 30 C62 ?|SHK-BOW-10 40 C62"
    )]
    public void What_counts_and_what_only_belongs_to_a_name_or_to_before(string body, string lines) =>
        Assert.Equal(lines.Split('|'), Shelf.Lines(Shelf.Letter(body)));

    [Theory]
    [InlineData(
        "Please quote 40 SHK-BOW-10. We need your offer by 12 March, delivery by 20 April.",
        "2026-04-20",
        true
    )]
    [InlineData("Bitte um Angebot bis 12. März für 40 SHK-BOW-10, Lieferung bis 20. April", "2026-04-20", true)]
    [InlineData("Please let us have your price for 40 SHK-BOW-10 until 12 March.", "2026-03-12", false)]
    [InlineData("PO 4711-2: 40 SHK-BOW-10 by the 20th", "2026-03-20", true)]
    [InlineData("PO 4711-2: 40 SHK-BOW-10 by the 1st, please", "2026-04-01", true)]
    public void The_day_of_the_goods_is_not_that_of_the_offer(string body, string day, bool sure)
    {
        var wanted = Shelf.Letter(body).Wanted;
        Assert.Equal(DateOnly.Parse(day, CultureInfo.InvariantCulture), wanted.Value);
        Assert.Equal(sure, wanted.Sure >= Reading.UnsureDate);
    }
}
