using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Solvenda.Core.Buyers;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Xunit;

namespace Solvenda.Core.Tests.Sheets;

/// <summary>Rows of a spreadsheet onto a sheet: what is right is in, what is wrong stays to be put right.</summary>
public sealed class PasteTests
{
    private static readonly Draft Empty = new(Head.Empty.With("language", "en", null), [], 1);

    // As a grid of cells with their places, the way a form hands it over.
    private static ImmutableArray<ImmutableArray<Cell>> Rows(string text)
    {
        var at = 0;
        var rows = ImmutableArray.CreateBuilder<ImmutableArray<Cell>>();
        foreach (var row in text.Split('\n'))
        {
            var cells = ImmutableArray.CreateBuilder<Cell>();
            foreach (var cell in row.Split('\t'))
            {
                cells.Add(new Cell(cell, at, cell.Length));
                at += cell.Length + 1;
            }
            rows.Add(cells.ToImmutable());
        }
        return rows.ToImmutable();
    }

    private static Pasted Read(string text) =>
        PastedRows.Read(Rows(text), World.Tressel.Id, Language.English, World.Day, World.BareReading);

    private static string[] Lines(string text) =>
        [
            .. SheetDoor
                .Paste(Empty, Read(text), null, World.Door())
                .Draft.Lines.Select(l =>
                    l.Kind == LineKind.Heading
                        ? $"# {l.Words}"
                        : string.Create(
                            CultureInfo.InvariantCulture,
                            $"{(l.Item is { } id ? World.Book.Find(id)!.Code : $"“{l.Words}”")} {l.Quantity:0.###} {l.Unit.Code}{(l.ByHand.Value == 0 ? "" : $" @{l.ByHand.Value:0.####}")}"
                        )
                ),
        ];

    [Fact]
    public void Columns_are_known_by_their_heads_in_whatever_order() =>
        Assert.Equal(
            ["SHK-BOW-10 1250.5 C62 @3.95", "BB2-10-NV 2 CL"],
            Lines(
                "Qty\tDescription\tItem code\tPrice\tUnit\n1.250,5\tshackle\tSHK-BOW-10\t3,95\tpcs\n2\tbraid\tBB2-10-NV\t\tcoil"
            )
        );

    [Fact]
    public void Without_heads_what_stands_in_them_tells() =>
        Assert.Equal(
            ["SHK-BOW-10 12 C62", "BB2-10-NV 100 MTR", "PS3-12-WH 40 MTR"],
            Lines("SHK-BOW-10\t12\tpcs\nBB2-10-NV\t100\tm\n\nPS3-12-WH\t40\tm")
        );

    [Fact]
    public void Rows_of_one_cell_are_read_as_if_typed() =>
        Assert.Equal(
            ["SHK-BOW-10 12 C62", "# For the pier", "BB2-10-NV 30 MTR", "“teak ladder” 2 C62 @240"],
            Lines("bow shackle x 12\n# For the pier\nnavy braid 30 m\nteak ladder x 2 @240")
        );

    [Fact]
    public void What_is_not_understood_stays_to_be_put_right_in_its_place()
    {
        const string text =
            "Code\tQty\tPrice\nSHK-BOW-10\t12\t4.00\nDeck\t\t\nSHK-BOW-1O\t8\t4.00\nBB2-10-NV\tmany\t\nBB2-10-NV\t1.250\t";
        Assert.Equal(
            ["SHK-BOW-10 12 C62 @4", "# Deck", "“SHK-BOW-1O” 8 C62 @4", "“BB2-10-NV many” 0 C62", "BB2-10-NV 1.25 MTR"],
            Lines(text)
        );
        Assert.Equal(2, Read(text).ToFix);
        // Nothing tells which sign it is.
        Assert.Equal(["BB2-10-NV 0 MTR"], Lines("Code\tQty\nBB2-10-NV\t1.250"));
    }

    [Fact]
    public void A_code_that_nobody_knows_stays_beside_its_words() =>
        Assert.Equal(
            ["SHK-BOW-10 2 C62", "“NO-SUCH-1 a thing” 3 C62"],
            Lines("Code\tDescription\tQty\nSHK-BOW-10\tshackle\t2\nNO-SUCH-1\ta thing\t3")
        );

    [Fact]
    public void Columns_that_nobody_knows_are_named() =>
        Assert.Equal(["Colour"], Read("Code\tQty\tColour\nSHK-BOW-10\t12\tblue\nBB2-10-NV\t3\tnavy").UnusedColumns);

    [Fact]
    public void Three_hundred_rows_with_slips_lose_nothing()
    {
        var text = new StringBuilder("Item code\tQty\tUnit\tPrice\n");
        for (var i = 1; i <= 300; i++)
            text.Append(
                FormattableString.Invariant(
                    (i % 7) switch
                    {
                        0 => $"WRONG-{i}\t{i}\tpcs\t4,10\n",
                        1 => $"\t\t\t\nSHK-BOW-10\t{i}\tpcs\t4,10\n",
                        2 => $"BB2-10-NV\t{i},5\tm\t2,42\n",
                        3 => $"SHK-BOW-10\t{i}\tbox\t\n",
                        _ => $"PS3-12-WH\t{i}\tm\t1,84\n",
                    }
                )
            );
        var edited = SheetDoor.Paste(Empty, Read(text.ToString().TrimEnd()), null, World.Door());
        Assert.Null(edited.Refused);
        Assert.Equal((300, 300), (edited.Draft.Lines.Length, edited.Changes.Length));
        Assert.Equal(42, edited.Draft.Lines.Count(l => l.Item is null));
        Assert.Equal(
            Enumerable.Range(1, 300).Select(i => i % 7 == 2 ? i + 0.5m : i),
            edited.Draft.Lines.Select(l => l.Quantity)
        );
        // Taken back in one step.
        Assert.Empty(SheetDoor.TakeBack(edited.Draft, edited.Changes, World.Door()).Draft.Lines);
    }

    [Fact]
    public void They_go_behind_a_line_in_their_order()
    {
        var draft = Empty with { Lines = [World.Line(World.Splice, 1m), World.Line(World.White, 1m)], NextKey = 50 };
        var after = SheetDoor.Paste(draft, Read("SHK-BOW-10\t12\nBB2-10-NV\t3"), World.Splice.Id.Value, World.Door());
        Assert.Equal(
            [World.Splice.Id, World.Shackle.Id, World.Braid.Id, World.White.Id],
            after.Draft.Lines.Select(l => l.Item!.Value)
        );
    }

    [Fact]
    public void More_than_a_sheet_holds_is_refused_together()
    {
        var edited = SheetDoor.Paste(
            Empty,
            Read(string.Join('\n', Enumerable.Repeat("SHK-BOW-10\t1", SheetDoor.MostLines + 1))),
            null,
            World.Door()
        );
        Assert.Equal("too_many_lines", edited.Refused?.Code);
        Assert.Empty(edited.Draft.Lines);
    }
}
