using Solvenda.Core.Approvals.Figures;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>What is not in the catalogue: words with a price that somebody typed.</summary>
public sealed class FreeLineTests
{
    private static readonly Draft Empty = new(Head.Empty.With("language", "en", null), [], 1);

    private static SheetLine Added(string text, string? code = null) =>
        Assert.Single(
            SheetDoor.Take(Empty, [new SheetEdit(EditKind.Add, Field: code, Value: text)], World.Door()).Draft.Lines
        );

    private static Edited Take(SheetLine line, string field, string value) =>
        SheetDoor.Take(
            Empty with
            {
                Lines = [line],
                NextKey = 9,
            },
            [new SheetEdit(EditKind.Set, line.Key, field, value)],
            World.Door()
        );

    [Fact]
    public void Words_with_a_price_are_sold_at_it_and_taxed_like_most_goods()
    {
        var priced = World.Sheet(Added("teak boarding ladder 5 step x 2 @240 -5% by 20 March // for the pier"));
        var line = priced.Lines[0];
        Assert.True(line is { HasPrice: true, Item: null, Line.IsFree: true });
        Assert.Equal(("teak boarding ladder 5 step", "for the pier"), (line.Line.Words, line.Line.Note));
        Assert.Equal(new DateOnly(2026, 3, 20), line.Line.Wanted);
        Assert.Equal((228m, 456m), (line.Figures.NetPrice, line.Figures.Net.Value));
        Assert.Equal((456m, 104.88m), (priced.Tally.Goods.Value, priced.Tally.TotalTax.Value));
        Assert.Equal("not in the catalogue, typed by Sorcha Quill", Assert.Single(line.Build.Steps).Words);
    }

    [Theory]
    [InlineData("ladder x 79228162514264337593543950335 dz @240", "quantity")]
    [InlineData("79228162514264337593543950335 dz SHK-BOW-10", "quantity")]
    [InlineData("ladder @79228162514264337593543950335 +900%", "net")]
    [InlineData("ladder @240 +79228162514264337593543950335%", "discount")]
    [InlineData("ladder @240 -101%", "discount")]
    public void What_no_sheet_can_hold_is_refused_by_its_field(string text, string field) =>
        Assert.Equal(
            ("number", field),
            SheetDoor.Take(Empty, [new SheetEdit(EditKind.Add, Value: text)], World.Door()).Refused is { } refused
                ? (refused.Code, refused.Field)
                : default
        );

    [Fact]
    public void Words_without_a_price_have_none_and_stop()
    {
        var priced = World.Sheet(Added("teak boarding ladder x 2"));
        Assert.False(priced.Lines[0].HasPrice);
        Assert.Equal(0m, priced.Tally.Goods.Value);
    }

    [Fact]
    public void A_cost_is_typed_shows_a_margin_and_is_nobodys_word_but_theirs()
    {
        var line = Assert.Single(Take(Added("ladder x 2 @240"), "cost", "180").Draft.Lines);
        var priced = World.Sheet(line);
        Assert.Equal((25m, 120m), (priced.Lines[0].Figures.MarginPercent, priced.Tally.Margin.Value));
        // What is sold on such a word is judged as if nobody knew its cost.
        Assert.Equal(480m, new WithoutCost().Of(priced));
        Assert.Equal(480m, new WithoutCost().Of(World.Sheet(line with { Cost = null })));
    }

    [Theory]
    [InlineData("-1")]
    [InlineData("much")]
    [InlineData("100000001")]
    public void A_cost_is_a_number_from_nothing_up(string text) =>
        Assert.Equal("number", Take(Added("ladder @240"), "cost", text).Refused!.Code);

    [Fact]
    public void It_becomes_an_item_of_ours_with_its_quantity_and_its_price()
    {
        var costed = Take(Added("ladder x 2 @240"), "cost", "180").Draft.Lines[0];
        var line = Assert.Single(Take(costed, "item", "SHK-BOW-10").Draft.Lines);
        Assert.Equal(
            (World.Shackle.Id, 2m, 240m, null),
            ((ItemId)line.Item!, line.Quantity, line.ByHand.Value, line.Cost)
        );
    }

    [Fact]
    public void Taking_back_brings_cost_day_and_price_back_as_they_were()
    {
        var line = Take(Added("ladder x 2 @240 by 20 March"), "cost", "180").Draft.Lines[0];
        var draft = Empty with { Lines = [line], NextKey = 9 };
        var gone = SheetDoor.Take(draft, [new SheetEdit(EditKind.Remove, line.Key)], World.Door());
        var back = SheetDoor.TakeBack(gone.Draft, gone.Changes, World.Door());
        Assert.Equal(line, Assert.Single(back.Draft.Lines));
        var cleared = Take(line, "wanted", "");
        Assert.Equal(line, Assert.Single(SheetDoor.TakeBack(cleared.Draft, cleared.Changes, World.Door()).Draft.Lines));
    }

    [Theory]
    [InlineData("12 Dec", "2026-12-12")]
    [InlineData("Friday", "2026-03-06")]
    [InlineData("2026-05-01", "2026-05-01")]
    [InlineData("soon", null)]
    [InlineData("2036-05-01", null)]
    public void A_day_of_its_own_is_typed_as_people_say_it(string text, string? day)
    {
        var edited = Take(World.Line(World.Shackle, 3m), "wanted", text);
        Assert.Equal(day is null, edited.Refused is not null);
        if (day is not null)
            Assert.Equal(DateOnly.Parse(day, null), edited.Draft.Lines[0].Wanted);
    }

    [Fact]
    public void An_item_with_a_price_and_a_discount_is_sold_at_what_is_left()
    {
        var line = Added("SHK-BOW-10 x 4 @70 -5%", "SHK-BOW-10");
        Assert.Equal((ByHandKind.NetPrice, 66.5m), (line.ByHand.Kind, line.ByHand.Value));
        Assert.False(line.IsFree);
    }
}
