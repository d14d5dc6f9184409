using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Terms;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

public sealed class DoorTests
{
    private static readonly Draft Start = new(
        Head.Empty.With("language", "en", null),
        [World.Line(World.Braid, 180m), World.Line(World.Shackle, 12m)],
        100
    );

    private static SheetEdit Set(long? line, string field, string value) => new(EditKind.Set, line, field, value);

    private static Edited Take(params SheetEdit[] edits) => SheetDoor.Take(Start, edits, World.Door());

    private static string? Code(string field, string value, long? line = 1) =>
        Take(Set(line, field, value)).Refused?.Code;

    [Theory]
    [InlineData("discount", "101")]
    [InlineData("discount", "-900.1")]
    [InlineData("discount", "many")]
    [InlineData("margin", "95.1")]
    [InlineData("margin", "-101")]
    [InlineData("net", "-1")]
    [InlineData("net", "100000001")]
    [InlineData("quantity", "-1")]
    [InlineData("quantity", "10000001")]
    public void What_no_sheet_can_hold_is_refused_and_what_stood_there_is_kept(string field, string value)
    {
        var edited = Take(Set(1, "note", "kept"), Set(1, field, value));
        Assert.Equal("number", edited.Refused!.Code);
        Assert.EndsWith("what stood there was kept.", edited.Refused.Words, StringComparison.Ordinal);
        Assert.Same(Start, edited.Draft);
        Assert.Empty(edited.Changes);
    }

    [Theory]
    [InlineData("deliverTo", "Somewhere else", "address_unknown")]
    [InlineData("deliverToCountry", "FR", "country")]
    [InlineData("shipFrom", "The moon", "warehouse")]
    [InlineData("shippingRule", "by pigeon", "shipping_rule")]
    [InlineData("language", "xx", "language")]
    [InlineData("language", "", "field_needed")]
    [InlineData("incoterm", "DDP", "incoterm")]
    [InlineData("incoterm", "XYZ", "incoterm")]
    [InlineData("sheetDiscount", "101", "number")]
    [InlineData("freight", "-1", "number")]
    [InlineData("poNumber", "4711", "field_unknown")]
    [InlineData("wanted", "someday", "date")]
    public void A_term_is_one_that_exists(string term, string value, string code) =>
        Assert.Equal(code, Code(term, value, null));

    [Fact]
    public void Whatever_comes_through_the_door_stays_within_its_bounds() =>
        Gen.Select(
                One.Of("net", "discount", "margin", "quantity"),
                Gen.Decimal[-1_000_000_000m, 1_000_000_000m],
                Gen.Int[-4, 4]
            )
            .Sample(
                (field, number, scale) =>
                {
                    var value = decimal.Round(number * (decimal)Math.Pow(10, scale), 4);
                    var edited = Take(Set(1, field, value.ToString(System.Globalization.CultureInfo.InvariantCulture)));
                    var line = edited.Draft.Lines[0];
                    Assert.InRange(line.Quantity, 0m, LineFields.MostQuantity);
                    var (least, most) = line.ByHand.Kind switch
                    {
                        ByHandKind.DiscountPercent => (-LineFields.MostSurcharge, 100m),
                        ByHandKind.Margin => (-100m, LineFields.MostMargin),
                        _ => (0m, LineFields.MostPrice),
                    };
                    Assert.InRange(line.ByHand.Value, least, most);
                    if (edited.Refused is not null)
                        Assert.Same(Start, edited.Draft);
                }
            );

    [Fact]
    public void A_price_ten_times_over_is_a_slip()
    {
        Refused("24.21", true);
        Refused("22.26", false);
        static void Refused(string net, bool slips)
        {
            var sheet = World.Sheet([.. Take(Set(1, "net", net)).Draft.Lines]);
            Assert.Equal(slips, SheetDoor.Slip(sheet) is not null);
        }
    }

    [Fact]
    public void A_price_remembers_the_hand_that_typed_it()
    {
        var line = Take(Set(1, "discount", "5")).Draft.Lines[0];
        Assert.Equal(World.Seller.Hand, line.ByHand.By);
        // Somebody else makes it bigger: both answer. Smaller: only the first.
        var bigger = SheetDoor.Take(Start with { Lines = [line] }, [Set(1, "quantity", "200")], World.Door(World.Lead));
        Assert.Equal([World.Lead.Hand], bigger.Draft.Lines[0].AlsoBy);
        var smaller = SheetDoor.Take(Start with { Lines = [line] }, [Set(1, "quantity", "20")], World.Door(World.Lead));
        Assert.Empty(smaller.Draft.Lines[0].AlsoBy);
        Assert.Null(Take(Set(1, "discount", "5"), Set(1, "discount", "")).Draft.Lines[0].ByHand.By);
    }

    [Fact]
    public void Quick_entry_meets_the_same_bounds()
    {
        var added = Take(new SheetEdit(EditKind.Add, Value: "SHK-BOW-10 x 12 @3.90"));
        var line = added.Draft.Lines[^1];
        Assert.Equal((World.Shackle.Id, 12m, ByHandKind.NetPrice), (line.Item, line.Quantity, line.ByHand.Kind));
        Assert.Equal("number", Take(new SheetEdit(EditKind.Add, Value: "SHK-BOW-10 x 12 -101%")).Refused?.Code);
        Assert.Equal("item_unknown", Take(new SheetEdit(EditKind.Add, Field: "NO-SUCH", Value: "x")).Refused?.Code);
    }

    [Fact]
    public void A_new_language_rewords_what_nobody_worded()
    {
        var edited = Take(Set(2, "words", "our own words"), Set(null, "language", "de"));
        Assert.Equal("our own words", edited.Draft.Lines[1].Words);
        Assert.Equal(World.Braid.WordsIn("de"), edited.Draft.Lines[0].Words);
    }

    // Those that were there, and those that are added.
    private static readonly Gen<long> AnyLine = One.Of(1L, 2L, 3L, 100L, 101L, 102L);

    private static readonly Gen<SheetEdit> AnyEdit = Gen.OneOf(
        Gen.Select(Gen.Long[1, 3], One.Of("quantity", "net", "discount", "margin"), Gen.Int[0, 90])
            .Select(
                (line, field, n) => Set(line, field, n.ToString(System.Globalization.CultureInfo.InvariantCulture))
            ),
        Gen.Select(Gen.Long[1, 3], One.Of("note", "words", "optional"), One.Of("", "true", "no"))
            .Select((line, field, text) => Set(line, field, text)),
        Gen.Select(One.Of("paymentDays", "note", "incotermPlace"), One.Of("", "14", "60"))
            .Select((field, text) => Set(null, field, text)),
        Gen.Long[1, 3].Select(l => new SheetEdit(EditKind.Remove, l)),
        Gen.Select(Gen.Long[1, 3], Gen.Long[0, 3])
            .Select((l, a) => new SheetEdit(EditKind.Move, l, After: a == 0 ? null : a)),
        Gen.Select(One.Of("SHK-BOW-10 x 3", "something -5%"), Gen.Long[0, 3])
            .Select((text, a) => new SheetEdit(EditKind.Add, Value: text, After: a == 0 ? null : a)),
        Gen.Const(new SheetEdit(EditKind.AddHeading, Value: "heading")),
        Gen.Select(AnyLine, One.Of("inner", "job", "orderedBy"), One.Of("", "Isla"))
            .Select((line, field, text) => Set(line, field, text)),
        Gen.Select(AnyLine, One.Of("", "1.50 // from the fair")).Select((line, text) => Set(line, "cost", text)),
        Gen.Select(AnyLine, One.Of("", "Antwerp")).Select((line, text) => Set(line, "shipFrom", text)),
        Gen.Select(AnyLine, One.Of("", "LOFT")).Select((line, text) => Set(line, "deliverTo", text)),
        Gen.Select(AnyLine, One.Of("", "2026-03-20")).Select((line, text) => Set(line, "wanted", text)),
        Gen.Select(AnyLine, One.Of("SVC-EYE", "BB2-10-NV", "SHK-BOW-10"))
            .Select((line, code) => Set(line, "item", code)),
        Gen.Select(AnyLine, One.Of("coil", "m", "box")).Select((line, unit) => Set(line, "unit", unit)),
        AnyLine.Select(l => new SheetEdit(EditKind.Alternative, l)),
        AnyLine.Select(l => new SheetEdit(EditKind.Remove, l)),
        Gen.Select(AnyLine, AnyLine)
            .Select((a, b) => new SheetEdit(EditKind.Gather, Value: "together", Field: a == b ? $"{a}" : $"{a},{b}")),
        One.Of("? SHK-BOW-10 x 3", "or BB2-10-NV x 5 -2%", "ladder x 2 @240")
            .Select(text => new SheetEdit(EditKind.Add, Value: text)),
        Gen.Const(new SheetEdit(EditKind.AddCharge, Value: "certificate @45")),
        Gen.Const(new SheetEdit(EditKind.AddComment, Value: "all galvanised"))
    );

    [Fact]
    public void Every_edit_can_be_taken_back_and_leaves_the_sheet_as_it_was() =>
        AnyEdit
            .Array[1, 6]
            .Sample(edits =>
            {
                var edited = Take(edits);
                if (edited.Refused is not null)
                    return;
                var back = SheetDoor.TakeBack(edited.Draft, edited.Changes, World.Door());
                Assert.Null(back.Refused);
                Assert.Null(back.Clash);
                Assert.Equal(Told(Start), Told(back.Draft));
            });

    [Fact]
    public void Edits_made_one_by_one_are_taken_back_one_by_one() =>
        AnyEdit
            .Array[1, 12]
            .Sample(edits =>
            {
                var steps =
                    new Stack<(string Told, System.Collections.Immutable.ImmutableArray<FieldChange> Changes)>();
                var draft = Start;
                foreach (var edit in edits)
                {
                    var edited = SheetDoor.Take(draft, [edit], World.Door());
                    if (edited.Refused is not null || edited.Changes.IsEmpty)
                        continue;
                    steps.Push((Told(draft), edited.Changes));
                    draft = edited.Draft;
                }
                while (steps.TryPop(out var step))
                {
                    var back = SheetDoor.TakeBack(draft, step.Changes, World.Door());
                    Assert.Null(back.Refused);
                    Assert.Null(back.Clash);
                    Assert.Equal(step.Told, Told(back.Draft));
                    draft = back.Draft;
                }
            });

    [Fact]
    public void Taking_back_never_undoes_what_somebody_else_did_since()
    {
        var mine = Take(Set(1, "quantity", "200"));
        var theirs = SheetDoor.Take(
            mine.Draft,
            [Set(1, "quantity", "300"), Set(2, "quantity", "5")],
            World.Door(World.Lead)
        );
        var back = SheetDoor.TakeBack(theirs.Draft, mine.Changes, World.Door());
        Assert.NotNull(back.Clash);
        Assert.Same(theirs.Draft, back.Draft);
        var other = SheetDoor.Take(mine.Draft, [Set(2, "quantity", "5")], World.Door(World.Lead));
        var fine = SheetDoor.TakeBack(other.Draft, mine.Changes, World.Door());
        Assert.Equal((180m, 5m), (fine.Draft.Lines[0].Quantity, fine.Draft.Lines[1].Quantity));
    }

    [Fact]
    public void A_line_taken_off_comes_back_whole()
    {
        var typed = Take(Set(1, "net", "2.10"), Set(1, "note", "in one length"));
        var gone = SheetDoor.Take(typed.Draft, [new SheetEdit(EditKind.Remove, 1)], World.Door());
        var back = SheetDoor.TakeBack(gone.Draft, gone.Changes, World.Door(World.Lead));
        Assert.Equal(Told(typed.Draft), Told(back.Draft));
    }

    // What a sheet says, without whose hand it was: that moves to whoever takes it back.
    private static string Told(Draft draft) =>
        string.Join(
            '\n',
            draft.Lines.Select(l =>
                $"{l.Key} {l.Kind} {l.Item} {l.Words} {l.Quantity:0.######} {l.Unit} {l.ByHand.Kind} {l.ByHand.Value:0.####} {l.Optional} {l.Note} {l.OneOf} {l.Inner} {l.Job} {l.OrderedBy} {l.ShipFrom} {l.DeliverTo} {l.Cost:0.####} {l.CostWhy} {l.Wanted}"
            )
        ) + string.Join(' ', draft.Head.All.Select(t => $"{t.Key}={t.Value.Text}"));
}
