using Solvenda.Formats.X12;
using Xunit;

namespace Solvenda.Formats.Tests;

public sealed class X12Tests
{
    private const string Order =
        "ISA|00|          |00|          |01|NORTHGANNET    |ZZ|BRINEMOOR      |260305|0914|U|00401|000000371|0|P|>!" +
        "GS|PO|NORTHGANNET|BRINEMOOR|20260305|0914|371|X|004010!ST|850|0001!BEG|00|SA|NG-1||20260305!CUR|BY|USD!SAC|C|D240|||25000!" +
        "PO1|1|4000|FT|63.20|HP|BP|NGD-3S12W|VP|PS3-12-WH!CTT|1|4000!SE|7|0001!GE|1|371!IEA|1|000000371!";

    [Fact]
    public void Delimiters_come_from_the_isa_and_a_price_per_hundred_is_one()
    {
        var (interchange, problem) = Interchange.Parse(Order);
        Assert.Null(problem);
        var (document, unread) = PurchaseOrder.Read(interchange!);
        Assert.Null(unread);
        var line = Assert.Single(document!.Lines);
        Assert.Equal((4000m, "FT", 63.20m, 100m, "PS3-12-WH"), (line.Quantity!.Value, line.Unit, line.Price!.Value, line.PriceBase, line.SellersCode!.Value));
        Assert.Equal(("freight", 250m), Assert.Single(document.Charges));
        Assert.Equal("USD", document.Currency!.Value);
    }

    [Fact]
    public void A_cut_interchange_says_where_it_breaks_off()
    {
        for (var length = 0; length < Order.Length; length += 7)
            Assert.NotNull(Interchange.Parse(Order[..length]).Problem);
    }
}
