using System.Text;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Figures of interchanges: what they add up to, what is taken off, and what was not read.</summary>
public sealed class EdiFigureTests
{
    private static string X12(string body) =>
        $"ISA*00*          *00*          *ZZ*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000417*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*1*X*004010~ST*850*0001~BEG*00*SA*NG-1**20260305~{body}SE*{body.Count(c => c == '~') + 3}*0001~GE*1*1~IEA*1*000000417~";

    private static string Edifact(string body) =>
        $"UNB+UNOC:3+TEERLING:ZZ+BRINEMOOR:ZZ+260306:0730+TS1'UNH+1+ORDERS:D:96A:UN'BGM+220+HA-1+9'DTM+137:20260305:102'{body}UNT+{body.Count(c => c == '\'') + 4}+1'UNZ+1+TS1'";

    private static Reading One(string text) => Shelf.One(Encoding.Latin1.GetBytes(text));

    [Fact]
    public void Sums_that_contradict_say_which()
    {
        var reading = One(
            X12(
                "PO1*1*4*EA*68.50*PE*VP*FND-A3-BL~AMT*1*284.00~PO1*2*2*EA*10*PE*VP*FND-A3-WH~AMT*1*20~CTT*3*6~AMT*TT*300~"
            )
        );
        Assert.True(reading.Lines[0].NeedsYou);
        Assert.False(reading.Lines[1].NeedsYou);
        Assert.Equal(["Line 1: 4 at 68.50 makes 274.00; 284.00 is stated."], reading.Warnings);
        Assert.Equal(
            ["CTT counts 3 lines; there are 2.", "They count 300.00; these lines make 304.00."],
            reading.LeftOvers.Select(l => l.Why)
        );
    }

    [Fact]
    public void Parts_of_a_line_that_do_not_make_it_are_asked_and_the_rest_is_read()
    {
        var x12 = One(
            X12(
                "PO1*1*10*EA*68.50*PE*VP*FND-A3-BL~SCH*4*EA***002*20260401~SCH*5*EA***002*20260501~PO1*2*2*EA*10*PE*VP*FND-A3-WH~CTT*2~"
            )
        );
        Assert.Equal(["Line 1 says 10; its parts add up to 9."], x12.LeftOvers.Select(l => l.Why));
        Assert.Equal(3, x12.Lines.Length);
        var edifact = One(
            Edifact(
                "LIN+1++FND-A3-BL:SA'QTY+21:10:PCE'SCC+1'QTY+21:4:PCE'DTM+2:20260401:102'SCC+1'QTY+21:5:PCE'DTM+2:20260501:102'UNS+S'CNT+2:1'"
            )
        );
        Assert.Equal(["Line 1 says 10; its parts add up to 9."], edifact.LeftOvers.Select(l => l.Why));
        Assert.True(edifact.NeedsYou);
    }

    [Theory]
    // Taken off the line: 10 at 20.00 less 5.00 %, less 12.50.
    [InlineData("PO1*1*10*EA*20.00*PE*VP*FND-A3-BL~SAC*A*C310***1250~CTT*1~", 18.75)]
    [InlineData("PO1*1*10*EA*20.00*PE*VP*FND-A3-BL~SAC*A*C310*****5~CTT*1~", 19.00)]
    [InlineData("PO1*1*10*EA*20.00*PE*VP*FND-A3-BL~SAC*C*D500***500~CTT*1~", 20.50)]
    public void What_is_taken_off_a_line_is_part_of_its_price(string body, double price)
    {
        var reading = One(X12(body));
        Assert.Equal((decimal)price, Assert.Single(reading.Lines).Price);
        Assert.Empty(reading.LeftOvers);
    }

    [Theory]
    [InlineData("PRI+AAB:20.00'ALC+A'PCD+3:5'", 19.00)]
    [InlineData("PRI+AAB:20.00'ALC+A'MOA+204:12.50'", 18.75)]
    // The net price has it in it already.
    [InlineData("PRI+AAA:19.00'PRI+AAB:20.00'ALC+A'PCD+3:5'", 19.00)]
    public void An_allowance_of_a_line_counts_once(string price, double net)
    {
        var reading = One(Edifact($"LIN+1++FND-A3-BL:SA'QTY+21:10:PCE'{price}UNS+S'CNT+2:1'"));
        Assert.Equal((decimal)net, Assert.Single(reading.Lines).Price);
        Assert.Empty(reading.LeftOvers);
    }

    [Fact]
    public void A_segment_that_matters_and_was_not_read_is_left_over_another_only_listed()
    {
        var reading = One(X12("REF*IA*4711~PO1*1*10*EA*20.00*PE*VP*FND-A3-BL~SLN*1**I*2*EA~PKG*F*68*VI**loose~CTT*1~"));
        Assert.Equal(["SLN*1**I*2*EA"], reading.LeftOvers.Select(l => l.Words));
        Assert.Equal(["REF*IA*4711", "PKG*F*68*VI**loose"], reading.Unused.Select(u => u.Words));
        Assert.True(reading.NeedsYou);
    }

    [Theory]
    [InlineData("UNA:+,? '", "1,5", 1.5, false)]
    [InlineData("UNA:+.? '", "1.5", 1.5, false)]
    // Another sign than the interchange names.
    [InlineData("UNA:+.? '", "1,5", 1.5, true)]
    [InlineData("UNA:+,? '", "1.500", 1.5, true)]
    public void The_decimal_sign_is_the_one_of_the_interchange_else_it_is_asked(
        string una,
        string quantity,
        double read,
        bool asked
    )
    {
        var reading = One(una + Edifact($"LIN+1++PS3-12-WH:SA'QTY+21:{quantity}:MTR'UNS+S'CNT+2:1'"));
        Assert.Equal((decimal)read, Assert.Single(reading.Lines).Quantity.Value);
        Assert.Equal(asked, reading.LeftOvers.Any(l => l.Why.Contains("decimal sign", StringComparison.Ordinal)));
    }
}
