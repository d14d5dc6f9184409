using System.Collections.Immutable;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>What each field of a line takes, and what it makes of it.</summary>
public sealed class LineFieldTests
{
    private static readonly Draft Start = new(
        Head.Empty.With("language", "en", null),
        [World.Line(World.Braid, 180m), World.Line(World.Shackle, 12m), World.Line(World.Splice, 2m)],
        100
    );

    private static Edited Set(long line, string field, string value) =>
        SheetDoor.Take(Start, [new SheetEdit(EditKind.Set, line, field, value)], World.Door());

    private static string Said(SheetLine line) =>
        FormattableString
            .Invariant(
                $"{line.Quantity:0.######} {line.Unit.Code} {LineFields.Say(line.ByHand)}{(line.Optional ? " if wanted" : "")}"
            )
            .Trim();

    [Theory]
    [InlineData(1, "quantity", "2 coil", "2 CL")]
    [InlineData(1, "quantity", "45,5", "45.5 MTR")]
    [InlineData(1, "quantity", "1250,5 m", "1250.5 MTR")]
    [InlineData(1, "quantity", "0", "0 MTR")]
    [InlineData(2, "quantity", "3 box", "3 BX")]
    [InlineData(2, "unit", "box", "12 BX")]
    [InlineData(2, "unit", "BX", "12 BX")]
    [InlineData(1, "net", "@2.10", "180 MTR 2.1000")]
    [InlineData(1, "net", "2.10005", "180 MTR 2.1001")]
    [InlineData(1, "net", "0", "180 MTR 0.0000")]
    [InlineData(1, "discount", "5", "180 MTR 5 % less")]
    [InlineData(1, "discount", "\u22125 %", "180 MTR 5 % less")]
    [InlineData(1, "discount", "-3", "180 MTR -3 % less")]
    [InlineData(1, "discount", "0", "180 MTR")]
    [InlineData(1, "discount", "", "180 MTR")]
    [InlineData(1, "margin", "22", "180 MTR 22 % margin")]
    [InlineData(1, "optional", "yes", "180 MTR  if wanted")]
    [InlineData(1, "optional", "no", "180 MTR")]
    public void What_is_typed_is_taken_as_it_was_meant(long line, string field, string value, string said)
    {
        var edited = Set(line, field, value);
        Assert.Null(edited.Refused);
        Assert.Equal(said, Said(edited.Draft.Lines[(int)line - 1]));
    }

    [Theory]
    [InlineData(1, "quantity", "some", "number")]
    [InlineData(1, "quantity", "3 box", "unit")]
    [InlineData(1, "unit", "furlong", "unit")]
    [InlineData(1, "unit", "box", "unit")]
    [InlineData(1, "optional", "perhaps", "field_unknown")]
    [InlineData(1, "item", "NO-SUCH", "item_unknown")]
    [InlineData(1, "colour", "blue", "field_unknown")]
    [InlineData(9, "quantity", "1", "line_gone")]
    public void What_cannot_be_is_refused_by_its_code_and_nothing_changes(
        long line,
        string field,
        string value,
        string code
    )
    {
        var edited = Set(line, field, value);
        Assert.Equal(code, edited.Refused?.Code);
        Assert.Same(Start, edited.Draft);
    }

    [Fact]
    public void Another_item_keeps_the_quantity_and_the_unit_where_it_is_sold_by_it()
    {
        var rope = Set(1, "item", "PS3-12-WH").Draft.Lines[0];
        Assert.Equal(
            (World.White.Id, 180m, Unit.Metre, World.White.Words),
            (rope.Item!.Value, rope.Quantity, rope.Unit, rope.Words)
        );
        // Shackles are not sold by the metre.
        var shackle = Set(1, "item", "SHK-BOW-10").Draft.Lines[0];
        Assert.Equal((180m, Unit.Piece), (shackle.Quantity, shackle.Unit));
    }

    [Fact]
    public void Making_a_line_with_a_price_by_hand_bigger_is_a_hand_on_it_and_making_it_smaller_is_none()
    {
        var dear = Start with
        {
            Lines = [World.Line(World.Braid, 100m, new ByHand(ByHandKind.DiscountPercent, 6m, World.Lead.Hand))],
        };
        SheetLine After(string quantity) =>
            SheetDoor.Take(dear, [new SheetEdit(EditKind.Set, 1, "quantity", quantity)], World.Door()).Draft.Lines[0];
        Assert.Equal([World.Seller.Hand], After("101").AlsoBy);
        Assert.Empty(After("99").AlsoBy);
        Assert.Empty(After("100").AlsoBy);
        // A coil is 200 m: fewer by the number, more by the metre.
        Assert.Equal([World.Seller.Hand], After("1 coil").AlsoBy);
        // Typed twice, it is one hand.
        var twice = SheetDoor.Take(
            dear,
            [new SheetEdit(EditKind.Set, 1, "quantity", "110"), new SheetEdit(EditKind.Set, 1, "quantity", "120")],
            World.Door()
        );
        Assert.Single(twice.Draft.Lines[0].AlsoBy);
    }

    [Fact]
    public void A_new_price_is_its_typers_alone_and_clearing_it_leaves_nobodys()
    {
        var typed = Start.Lines[0] with
        {
            ByHand = new ByHand(ByHandKind.NetPrice, 2m, World.Lead.Hand),
            AlsoBy = [World.Seller.Hand],
        };
        var draft = Start with { Lines = [typed] };
        var again = SheetDoor.Take(draft, [new SheetEdit(EditKind.Set, 1, "discount", "4")], World.Door()).Draft.Lines[
            0
        ];
        Assert.Equal((World.Seller.Hand, 0), (again.ByHand.By!, again.AlsoBy.Length));
        var cleared = SheetDoor.Take(draft, [new SheetEdit(EditKind.Set, 1, "net", "")], World.Door()).Draft.Lines[0];
        Assert.Equal((ByHandKind.None, 0), (cleared.ByHand.Kind, cleared.AlsoBy.Length));
    }

    [Fact]
    public void Words_and_notes_are_cut_rather_than_refused()
    {
        var edited = Set(1, "words", new string('x', SheetDoor.MostLetters + 50));
        Assert.Equal(SheetDoor.MostLetters, edited.Draft.Lines[0].Words.Length);
    }

    [Fact]
    public void A_hand_is_said_by_its_kind() =>
        Assert.Equal(
            ["", "5.5 % less", "12.50 less", "22 % margin", "2.1000"],
            new[]
            {
                ByHand.None,
                new ByHand(ByHandKind.DiscountPercent, 5.5m, null),
                new ByHand(ByHandKind.DiscountAmount, 12.5m, null),
                new ByHand(ByHandKind.Margin, 22m, null),
                new ByHand(ByHandKind.NetPrice, 2.1m, null),
            }.Select(LineFields.Say)
        );
}
