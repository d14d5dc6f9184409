using System.Collections.Immutable;
using CsCheck;
using Solvenda.Core.Documents;
using Solvenda.Core.Sheets;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>Where lines stand: added, moved, taken out and put back.</summary>
public sealed class PlaceTests
{
    private static Draft Of(int lines) =>
        new(
            Head.Empty.With("language", "en", null),
            [.. Enumerable.Range(1, lines).Select(i => World.Line(World.Braid, i) with { Key = i })],
            lines + 1
        );

    private static Edited Take(Draft draft, params SheetEdit[] edits) => SheetDoor.Take(draft, edits, World.Door());

    private static string Order(Draft draft) => string.Join(' ', draft.Lines.Select(l => l.Key));

    [Theory]
    [InlineData(1, 3L, "2 3 1 4")]
    [InlineData(4, null, "4 1 2 3")]
    [InlineData(4, 1L, "1 4 2 3")]
    [InlineData(2, 1L, "1 2 3 4")]
    [InlineData(1, 99L, "2 3 4 1")]
    public void A_line_goes_behind_another(long line, long? after, string order)
    {
        var moved = Take(Of(4), new SheetEdit(EditKind.Move, line, null, null, after));
        Assert.Equal(order, Order(moved.Draft));
        Assert.Equal(order == "1 2 3 4" ? 0 : 1, moved.Changes.Length);
    }

    [Fact]
    public void A_line_that_is_added_stands_behind_the_one_it_was_added_at_and_has_a_key_of_its_own()
    {
        var added = Take(Of(3), new SheetEdit(EditKind.Add, null, null, "SHK-BOW-10 12", 1));
        Assert.Equal("1 4 2 3", Order(added.Draft));
        Assert.Equal((World.Shackle.Id, 12m), (added.Draft.Lines[1].Item!.Value, added.Draft.Lines[1].Quantity));
        var removed = Take(added.Draft, new SheetEdit(EditKind.Remove, 4));
        var again = Take(removed.Draft, new SheetEdit(EditKind.Add, null, null, "SHK-BOW-10", null));
        Assert.Equal("1 2 3 5", Order(again.Draft));
    }

    [Fact]
    public void A_heading_is_a_line_that_sells_nothing()
    {
        var headed = Take(Of(2), new SheetEdit(EditKind.AddHeading, null, null, "For the fore deck", 1)).Draft;
        Assert.Equal((LineKind.Heading, "For the fore deck"), (headed.Lines[1].Kind, headed.Lines[1].Words));
        Assert.Equal(2, World.Sheet([.. headed.Lines]).Sold.Count());
    }

    [Fact]
    public void Wherever_lines_are_moved_none_is_lost_and_all_of_it_can_be_taken_back() =>
        Gen.Int[1, 6]
            .SelectMany(n => Gen.Select(Gen.Const(n), Gen.Select(Gen.Int[1, n], Gen.Int[0, n]).Array[1, 8]))
            .Sample(
                (lines, moves) =>
                {
                    var start = Of(lines);
                    var edits = moves
                        .Select(m => new SheetEdit(EditKind.Move, m.Item1, null, null, m.Item2 == 0 ? null : m.Item2))
                        .ToArray();
                    var moved = Take(start, edits);
                    Assert.Equal(start.Lines.Select(l => l.Key), moved.Draft.Lines.Select(l => l.Key).Order());
                    var back = SheetDoor.TakeBack(moved.Draft, moved.Changes, World.Door());
                    Assert.Equal((null, Order(start)), (back.Refused, Order(back.Draft)));
                }
            );

    [Fact]
    public void A_sheet_has_an_end_and_so_has_what_is_taken_at_once()
    {
        var full = Of(SheetDoor.MostLines);
        var one = Take(full, new SheetEdit(EditKind.Add, null, null, "SHK-BOW-10", null));
        Assert.Equal("too_many_lines", one.Refused?.Code);
        var many = Enumerable.Repeat(new SheetEdit(EditKind.Set, 1, "note", "x"), SheetDoor.MostEdits + 1).ToArray();
        Assert.Equal("too_many_lines", Take(Of(1), many).Refused?.Code);
        Assert.Null(Take(Of(1), many[1..]).Refused);
    }

    [Fact]
    public void A_line_that_was_changed_since_is_not_taken_out_by_taking_its_adding_back()
    {
        var added = Take(Of(1), new SheetEdit(EditKind.Add, null, null, "SHK-BOW-10 12", null));
        var changed = Take(added.Draft, new SheetEdit(EditKind.Set, 2, "quantity", "20"));
        var back = SheetDoor.TakeBack(changed.Draft, added.Changes, World.Door());
        Assert.Equal("line", back.Clash?.Field);
        Assert.Equal("1 2", Order(back.Draft));
    }
}
