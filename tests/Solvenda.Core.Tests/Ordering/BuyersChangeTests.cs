using Solvenda.Core.Catalogue;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Core.Units;
using Xunit;

namespace Solvenda.Core.Tests.Ordering;

/// <summary>Which line of ours each of theirs is about, and the order as they want it.</summary>
public sealed class BuyersChangeTests
{
    private static readonly DoorFacts Facts = World.Door(kind: DocumentKind.Order);
    private static readonly DateOnly Friday = World.Day.AddDays(11);

    // Two lines of shackles, one of braid.
    private static readonly Draft Order = new(
        Head.Empty,
        [
            World.Line(World.Braid, 180m) with
            {
                Key = 1,
            },
            World.Line(World.Shackle, 12m) with
            {
                Key = 2,
            },
            World.Line(World.Shackle, 50m) with
            {
                Key = 3,
            },
        ],
        4
    );

    private static WantedLine Wants(
        int no,
        Item? item,
        decimal? quantity,
        Unit? unit = null,
        bool back = false,
        decimal? price = null,
        DateOnly? day = null
    ) =>
        new(
            no,
            new AskedLine(
                new AskedFor(item?.Words ?? "pirate flag", item is null ? "FLAG-9" : null, quantity, unit, price, 1m),
                item?.Code,
                quantity ?? 0m,
                unit ?? item?.StockUnit ?? Unit.Piece,
                "",
                day
            ),
            back
        );

    private static LineWish[] Of(params WantedLine[] wanted) => [.. BuyersChange.Of(Order, wanted, Facts)];

    private static Draft Taken(int[] which, params WantedLine[] wanted)
    {
        var edited = BuyersChange.Take(Order, Of(wanted), which.ToHashSet(), null, Facts);
        Assert.Null(edited.Refused);
        return edited.Draft;
    }

    [Fact]
    public void What_they_do_not_speak_of_stays_and_new_ones_stand_behind()
    {
        var wishes = Of(Wants(1, World.Splice, 3m), Wants(2, World.Braid, 200m));
        Assert.Equal(
            [(1L, WishKind.Changed), (2L, WishKind.Same), (3L, WishKind.Same), (null, WishKind.New)],
            wishes.Select(w => (w.Line?.Key, w.Kind))
        );
        Assert.Null(wishes[1].Wanted);
    }

    [Fact]
    public void Of_two_lines_of_one_item_the_one_with_as_many_is_meant()
    {
        Assert.Equal(3L, Of(Wants(1, World.Shackle, 50m, back: true)).Single(w => w.Kind == WishKind.Gone).Line!.Key);
        // Where none has as many, the first; the second wish gets the other.
        var both = Of(Wants(1, World.Shackle, 13m), Wants(2, World.Shackle, 55m));
        Assert.Equal([13m, 55m], both.Where(w => w.Kind == WishKind.Changed).Select(w => w.Then!.Quantity));
    }

    [Theory]
    [InlineData(180, null, false, WishKind.Same)]
    [InlineData(181, null, false, WishKind.Changed)]
    // Without a quantity only the day or the price moves.
    [InlineData(null, null, false, WishKind.Same)]
    [InlineData(null, null, true, WishKind.Changed)]
    [InlineData(180, 2.0, false, WishKind.Changed)]
    public void A_line_is_changed_where_quantity_day_or_price_is_another(
        int? quantity,
        double? price,
        bool day,
        WishKind kind
    )
    {
        var wish = Of(Wants(1, World.Braid, quantity, price: (decimal?)price, day: day ? Friday : null))[0];
        Assert.Equal(kind, wish.Kind);
        Assert.Equal(quantity ?? 180m, wish.Then!.Quantity);
    }

    [Fact]
    public void A_measure_of_theirs_becomes_ours()
    {
        var wish = Of(Wants(1, World.Braid, 1_000m, Unit.Of("FOT")))[0];
        Assert.Equal((304.8m, Unit.Metre), (wish.Then!.Quantity, wish.Then.Unit));
        Assert.Equal((1m, Unit.Coil), (Of(Wants(1, World.Braid, 1m, Unit.Coil))[0].Then!.Quantity, Unit.Coil));
    }

    [Fact]
    public void Only_what_is_taken_is_put_onto_the_order_and_their_words_come_along()
    {
        WantedLine[] all =
        [
            Wants(1, World.Braid, 240m, price: 2.10m, day: Friday),
            Wants(2, World.Shackle, 12m, back: true),
            Wants(3, World.Splice, 4m),
        ];
        var part = Taken([1], all);
        Assert.Equal([240m, 12m, 50m], part.Lines.Select(l => l.Quantity));
        Assert.Equal((2.10m, Friday), (part.Lines[0].Asked.Price, part.Lines[0].Wanted));
        // Their price is held against ours by a check, never taken by itself.
        Assert.Equal(ByHandKind.None, part.Lines[0].ByHand.Kind);
        var whole = Taken([1, 2, 3], all);
        Assert.Equal([1L, 3L, 4L], whole.Lines.Select(l => l.Key));
        Assert.Equal(World.Splice.Id, whole.Lines[^1].Item);
        Assert.Equal(Order.Lines, Taken([], all).Lines);
    }

    [Theory]
    [InlineData(null, WishKind.Gone, 0)]
    [InlineData(180, WishKind.Gone, 0)]
    [InlineData(500, WishKind.Gone, 0)]
    [InlineData(30, WishKind.Changed, 150)]
    public void So_much_taken_back_leaves_the_rest(int? back, WishKind kind, int rest)
    {
        var wish = Of(Wants(1, World.Braid, back) with { IsSoMuchLess = true })[0];
        Assert.Equal((kind, (decimal)rest), (wish.Kind, wish.Then?.Quantity ?? 0m));
        Assert.Equal(
            rest == 0 ? 2 : 3,
            Taken([1], Wants(1, World.Braid, back) with { IsSoMuchLess = true }).Lines.Length
        );
    }

    [Fact]
    public void What_was_never_ordered_is_taken_back_by_doing_nothing()
    {
        var wish = Of(Wants(1, null, 3m, back: true))[^1];
        Assert.Equal((WishKind.Gone, (SheetLine?)null), (wish.Kind, wish.Line));
        Assert.Equal(Order.Lines, Taken([1], Wants(1, null, 3m, back: true)).Lines);
    }

    [Fact]
    public void A_day_for_the_whole_goes_onto_the_head()
    {
        var edited = BuyersChange.Take(Order, Of(), new HashSet<int>(), Friday, Facts);
        Assert.Equal(Friday, HeadTerms.Wanted.Day(edited.Draft.Head));
        var refused = BuyersChange.Take(Order, Of(), new HashSet<int>(), World.Day.AddYears(9), Facts);
        Assert.NotNull(refused.Refused);
        Assert.Same(Order, refused.Draft);
    }
}
