using Solvenda.Core.Buyers;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Reading;

public sealed class ReadingTests
{
    private const string Usual = """
        Morning Sorcha,

        can you do us 2 coils of the 12mm white three strand and the usual of the 10mm navy braid, plus a dozen bow shackles 10mm – need a price first please, we’re being squeezed on this one. Would want it on the quay Thursday week at the latest.

        Eye splices on both ends of the navy, 4 lengths.

        Thanks
        Fionn

        > Here is the quote for the halyards, 3 x 45 m as discussed.
        """;

    private static readonly ItemFinder Items = new(World.Book.Items);

    private static Core.Reading.Reading Read(string text, params Alias[] aliases)
    {
        var context = new ReadingContext(
            Items,
            new Dictionary<BuyerId, string> { [World.Tressel.Id] = World.Tressel.Name },
            [new BuyerSign(World.Tressel.Id, "mail", "FIONN@TRESSELVANE.EXAMPLE")],
            [.. aliases],
            _ =>
                [new Bought(World.Tressel.Id, World.Braid.Id, "S26-00044", new DateOnly(2026, 2, 11), 150m, Unit.Metre)]
        );
        var plain = text.ReplaceLineEndings("\n");
        var quoted = plain.IndexOf("\n>", StringComparison.Ordinal);
        return Core.Reading.TextReader.Read(
            new Letter(
                "fionn@tresselvane.example",
                "Fionn Tressel",
                "rope",
                World.Day,
                plain,
                quoted < 0 ? plain.Length : quoted
            ),
            context
        );
    }

    private static string Say(ReadLine line) =>
        $"{Items.ById(line.Item.Value)?.Code} {line.Quantity.Value:0.##} {line.Unit.Value.Code} {(line.NeedsYou ? "?" : "sure")}";

    [Fact]
    public void The_usual_stays_open_and_the_rest_is_read()
    {
        var reading = Read(Usual);
        Assert.Equal(
            ["PS3-12-WH 2 CL sure", "BB2-10-NV 150 MTR ?", "SHK-BOW-10 12 C62 sure", "SVC-EYE 8 C62 sure"],
            reading.Lines.Select(Say)
        );
        Assert.Equal(
            (MessageKind.RequestForQuotation, new DateOnly(2026, 3, 12)),
            (reading.Kind, reading.Wanted.Value)
        );
        Assert.Equal([180m, 150m, 1m], reading.Lines[1].Proposals.Select(p => p.Quantity));
        Assert.True(reading.NeedsYou);
    }

    [Fact]
    public void Evidence_points_at_the_words_it_says()
    {
        var text = Usual.ReplaceLineEndings("\n");
        string At(Evidence e) => text.Substring(e.Start, e.Length);
        var reading = Read(Usual);
        Assert.Equal("2 coils", At(reading.Lines[0].Quantity.Evidence[0]));
        Assert.Equal("12mm white three strand", At(reading.Lines[0].Item.Evidence[0]));
        Assert.Equal("the usual", At(reading.Lines[1].Quantity.Evidence[0]));
        Assert.Equal("Thursday week", At(reading.Wanted.Evidence[0]));
    }

    [Fact]
    public void What_was_settled_once_is_read_so_the_next_time()
    {
        var learned = new Alias(
            1,
            World.Tressel.Id,
            ItemFinder.Normal("usual 10mm navy braid"),
            World.Braid.Id,
            180m,
            Unit.Metre
        );
        Assert.Equal("BB2-10-NV 180 MTR sure", Say(Read(Usual, learned).Lines[1]));
    }

    [Theory]
    [InlineData("20 pcs SHK-BOW-10 please", "SHK-BOW-10 20 C62 sure")]
    [InlineData("we need 3 boxes of bow shackles 10 mm", "SHK-BOW-10 3 BX sure")]
    [InlineData("60 m three-strand polyester rope 16 mm black", "PS3-16-BK 60 MTR sure")]
    [InlineData("please quote 2 x 45 m braid 10mm navy", "BB2-10-NV 90 MTR sure")]
    [InlineData("1,250.5 m PS3-12-WH", "PS3-12-WH 1250.5 MTR sure")]
    public void Plain_lines_are_read(string text, string expected) =>
        Assert.Equal(expected, Say(Assert.Single(Read(text).Lines)));

    [Fact]
    public void An_unclear_thousands_sign_and_a_near_tie_are_asked()
    {
        Assert.True(Assert.Single(Read("1,250 m PS3-12-WH").Lines).NeedsYou);
        var tie = Assert.Single(Read("100 m three-strand polyester rope").Lines);
        Assert.True(tie.NeedsYou);
        Assert.Equal(["PS3-12-WH", "PS3-16-BK"], tie.Proposals.Take(2).Select(p => p.Code).Order());
    }

    [Fact]
    public void Ten_millimetres_are_not_a_hundred() => Assert.Empty(Items.Search("braid 100 mm navy"));

    [Theory]
    [
        InlineData("by Thursday", "2026-03-05"),
        InlineData("next Monday", "2026-03-09"),
        InlineData("Monday week", "2026-03-16"),
        InlineData("on 17 March", "2026-03-17"),
        InlineData("by 1 February", "2027-02-01"),
        InlineData("2026-04-20", "2026-04-20")
    ]
    public void Dates_are_read_against_the_day_of_the_message(string text, string day) =>
        Assert.Equal(
            DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture),
            DateWords.Find(text, World.Day)!.Day
        );

    [Theory]
    [
        InlineData("thimble 12 x 20 @2.10 -5%", "thimble 12|20||2.10|5"),
        InlineData("SHK-BOW-10 12", "SHK-BOW-10|12|||"),
        InlineData("thimble 12", "thimble 12||||"),
        InlineData("PS3-12-WH 2 coil", "PS3-12-WH|2|CL||"),
        InlineData("braid navy 180,5 m", "braid navy|180.5|MTR||")
    ]
    public void A_line_is_typed_in_one_go(string text, string expected)
    {
        var q = QuickLine.Parse(text);
        Assert.Equal(
            expected,
            FormattableString.Invariant($"{q.Words}|{q.Quantity}|{q.Unit?.Code}|{q.Price}|{q.DiscountPercent}")
        );
    }
}
