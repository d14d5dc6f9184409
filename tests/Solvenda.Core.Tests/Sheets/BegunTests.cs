using System.Collections.Immutable;
using System.Globalization;
using CsCheck;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Tests.Ordering;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>What went of an order, or is billed, stands while the rest is changed.</summary>
public sealed class BegunTests
{
    private const long Braid = 1;
    private const long Shackle = 2;

    private static readonly Draft Start = new(
        Head.Empty.With("language", "en", null),
        [
            World.Line(World.Braid, 180m) with
            {
                Charges = [4m],
                Asked = new AskedFor("braid", null, 180m, null, null, 1m),
            },
            World.Line(World.Shackle, 12m),
            World.Line(World.White, 5m),
        ],
        100
    );

    private static DoorFacts Facts(decimal braid, bool billed, decimal shackle = 12m) =>
        World.Door(kind: DocumentKind.Order) with
        {
            Begun = new Begun(
                ImmutableDictionary<long, BegunLine>
                    .Empty.Add(Braid, new BegunLine(braid, billed))
                    .Add(Shackle, new BegunLine(shackle, billed)),
                billed
            ),
        };

    private static SheetEdit Set(long? line, string field, string value) => new(EditKind.Set, line, field, value);

    private static Edited Take(DoorFacts facts, params SheetEdit[] edits) => SheetDoor.Take(Start, edits, facts);

    [Theory]
    [InlineData("quantity", "60", true)]
    [InlineData("quantity", "400", true)]
    [InlineData("quantity", "59.9", false)]
    [InlineData("quantity", "0", false)]
    [InlineData("quantity", "1 coil", false)]
    [InlineData("unit", "coil", false)]
    [InlineData("wanted", "12 mar", true)]
    [InlineData("words", "as they call it", true)]
    public void A_line_is_more_or_less_as_long_as_what_went_stays(string field, string value, bool taken)
    {
        var edited = Take(Facts(60m, billed: true), Set(Braid, field, value));
        Assert.Equal(taken ? null : "order_begun", edited.Refused?.Code);
        Assert.Empty(edited.Rests);
        if (!taken)
            Assert.Same(Start, edited.Draft);
    }

    [Theory]
    [InlineData("discount", "5", true)]
    [InlineData("net", "2", true)]
    [InlineData("margin", "20", true)]
    [InlineData("item", "PS3-12-WH", false)]
    public void The_rest_is_a_line_of_its_own_where_it_becomes_something_else(string field, string value, bool ofPrice)
    {
        var facts = Facts(60m, billed: true);
        var edited = Take(facts, Set(Braid, field, value));
        Assert.Null(edited.Refused);
        Assert.Equal(100, edited.Rests[Braid]);
        var (went, rest) = (edited.Draft.Lines[0], edited.Draft.Lines[1]);
        Assert.Equal(Start.Lines[0] with { Quantity = 60m }, went);
        Assert.Equal((100, 120m), (rest.Key, rest.Quantity));
        // What is charged on the line, and what they asked for, stays with what went.
        Assert.Empty(rest.Charges);
        Assert.Equal(AskedFor.Nothing, rest.Asked);
        Assert.Equal(ofPrice, rest.Item == went.Item);
        Assert.Equal(ofPrice, rest.ByHand != went.ByHand);
        // Taken back, it is one line again.
        var back = SheetDoor.TakeBack(edited.Draft, edited.Changes, facts);
        Assert.Equal(Start.Lines, back.Draft.Lines);
        // Before a bill has any of it a price is that of all of it, and another item only of the rest.
        var unbilled = Take(Facts(60m, billed: false), Set(Braid, field, value));
        Assert.Equal(ofPrice ? 3 : 4, unbilled.Draft.Lines.Length);
    }

    [Fact]
    public void Of_what_went_whole_nothing_is_changed_and_what_is_taken_out_is_the_rest()
    {
        var facts = Facts(60m, billed: true);
        foreach (var field in new[] { "discount", "quantity" })
            Assert.Equal("order_begun", Take(facts, Set(Shackle, field, "3")).Refused?.Code);
        Assert.Equal("order_begun", Take(facts, new SheetEdit(EditKind.Remove, Shackle)).Refused?.Code);
        var less = Take(
            facts,
            new SheetEdit(EditKind.Remove, Braid),
            new SheetEdit(EditKind.Remove, World.White.Id.Value)
        );
        Assert.Equal([60m, 12m], less.Draft.Lines.Select(l => l.Quantity));
        Assert.Equal(Start.Lines, SheetDoor.TakeBack(less.Draft, less.Changes, facts).Draft.Lines);
        // Days shared out leave no less on the line than went.
        Assert.Equal("order_begun", Take(facts, Set(Braid, "wanted", "59 on 10 mar; 121 on 17 mar")).Refused?.Code);
        Assert.Equal(4, Take(facts, Set(Braid, "wanted", "60 on 10 mar; 120 on 17 mar")).Draft.Lines.Length);
    }

    [Theory]
    [InlineData("sheetDiscount", "5", false, true)]
    [InlineData("freight", "12", false, true)]
    [InlineData("insurance", "12", false, true)]
    [InlineData("kind", "sample", true, true)]
    [InlineData("wanted", "12 mar", false, false)]
    [InlineData("paymentDays", "14", false, false)]
    public void Terms_stand_once_goods_or_a_bill_hang_on_them(string term, string value, bool once, bool billed)
    {
        Assert.Equal(once ? "order_begun" : null, Take(Facts(60m, false), Set(null, term, value)).Refused?.Code);
        Assert.Equal(billed ? "order_begun" : null, Take(Facts(60m, true), Set(null, term, value)).Refused?.Code);
    }

    [Fact]
    public void Whatever_is_typed_what_went_stays_as_it_went() =>
        Gen.Select(
                Gen.Select(
                    One.Of("quantity", "discount", "net", "item", "optional", "wanted", "remove"),
                    One.Of(Braid, Shackle, World.White.Id.Value),
                    Gen.Int[0, 300]
                ).Array[1, 12],
                Gen.Int[1, 179],
                Gen.Bool
            )
            .Sample(
                (typed, went, billed) =>
                {
                    var facts = Facts(went, billed);
                    var draft = Start;
                    foreach (var (field, line, number) in typed)
                    {
                        var text = number.ToString(CultureInfo.InvariantCulture);
                        var value = field switch
                        {
                            "item" => number % 2 == 0 ? "PS3-12-WH" : "SHK-BOW-10",
                            "optional" => number % 2 == 0 ? "yes" : "no",
                            "wanted" => $"{text} on 10 mar; 1 on 17 mar",
                            _ => text,
                        };
                        var edit = field == "remove" ? new SheetEdit(EditKind.Remove, line) : Set(line, field, value);
                        var edited = SheetDoor.Take(draft, [edit], facts);
                        if (edited.Refused is null)
                            Assert.Equal(
                                draft.Lines.Select(l => l.Key),
                                SheetDoor.TakeBack(edited.Draft, edited.Changes, facts).Draft.Lines.Select(l => l.Key)
                            );
                        draft = edited.Draft;
                    }
                    foreach (var was in Start.Lines.Where(l => facts.Begun!.Lines.ContainsKey(l.Key)))
                    {
                        var now = draft.Lines.Single(l => l.Key == was.Key);
                        Assert.True(now.Quantity >= facts.Begun!.Lines[was.Key].Quantity);
                        Assert.Equal((was.Item, was.Unit, was.Optional), (now.Item, now.Unit, now.Optional));
                        if (billed)
                            Assert.Equal(was.ByHand, now.ByHand);
                    }
                }
            );

    [Fact]
    public void What_went_is_judged_no_more()
    {
        var line = World.Line(World.Shackle, 12m, new ByHand(ByHandKind.NetPrice, 2m, World.Seller.Hand));
        var facts = CheckTests.Facts() with { Sheet = World.Sheet(line) };
        Assert.Contains(CheckList.Run(facts), f => f.Line == line.Key);
        Assert.DoesNotContain(
            CheckList.Run(facts with { Gone = new HashSet<long> { line.Key } }),
            f => f.Line == line.Key
        );
    }
}
