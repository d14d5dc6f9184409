using System.Globalization;
using System.Text;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>
/// What a letter, its tables and its other parts say, brought together; and what of them was not used.
/// </summary>
public sealed class SourceTests
{
    private static Reading With(string body, params (string Name, string Text)[] attached)
    {
        var mail = new StringBuilder(
            $"From: Fionn <fionn@tresselvane.example>\nSubject: what we need\nDate: Mon, 02 Mar 2026 08:41:07 +0000\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=c\n\n--c\nContent-Type: text/plain; charset=utf-8\n\n{body}\n"
        );
        foreach (var (name, text) in attached)
            mail.Append(
                CultureInfo.InvariantCulture,
                $"--c\nContent-Type: application/octet-stream; name={name}\nContent-Disposition: attachment; filename={name}\n\n{text}\n"
            );
        return Shelf.One(Encoding.UTF8.GetBytes(mail.Append("--c--\n").ToString()), "x.eml");
    }

    private const string Heads = "Code;Description;Qty;Unit\n";

    [Fact]
    public void A_letter_and_its_table_that_disagree_are_both_named()
    {
        var reading = With(
            "PO 4711-2: please send 40 SHK-BOW-10 and the rest of the list.",
            ("po.csv", Heads + "SHK-BOW-10;Bow shackle;60;pcs\nTHM-SS-12;Thimble;5;pcs\n")
        );
        Assert.Equal(["SHK-BOW-10 60 C62 ?", "THM-SS-12 5 C62"], Shelf.Lines(reading));
        var torn = reading.Lines[0];
        Assert.Equal("po.csv says 60, the letter says 40", torn.Quantity.How);
        Assert.Equal([60m, 40m], torn.Proposals.Select(p => p.Quantity));
        Assert.Equal([0, 1], torn.Quantity.Evidence.Select(e => e.Part).Order());
    }

    [Fact]
    public void What_both_say_alike_counts_once_and_what_only_the_letter_says_is_asked()
    {
        var reading = With(
            "PO 4711-2: please send 60 SHK-BOW-10 as in the list, and 4 FND-A3-BL.",
            ("po.csv", Heads + "SHK-BOW-10;Bow shackle;60;pcs\n")
        );
        Assert.Equal(["SHK-BOW-10 60 C62", "FND-A3-BL 4 C62 ?"], Shelf.Lines(reading));
        Assert.Empty(reading.LeftOvers);
    }

    [Fact]
    public void The_same_order_attached_twice_is_one()
    {
        var reading = With(
            "Our PO 4711-2 is attached.",
            ("a.csv", Heads + "SHK-BOW-10;Bow shackle;60;pcs\nTHM-SS-12;Thimble;5;pcs\n"),
            ("b.csv", "Article no;Quantity\nSHK-BOW-10;60\nTHM-SS-12;6\n")
        );
        Assert.Equal(["SHK-BOW-10 60 C62", "THM-SS-12 5 C62 ?"], Shelf.Lines(reading));
        Assert.Contains(reading.Unused, u => u is { Words: "b.csv", Why: "says again what a.csv says" });
    }

    [Fact]
    public void Two_tables_of_different_things_are_one_order()
    {
        var reading = With(
            "Our PO 4711-2 is attached.",
            ("a.csv", Heads + "SHK-BOW-10;Bow shackle;60;pcs\n"),
            ("b.csv", Heads + "THM-SS-12;Thimble;5;pcs\n")
        );
        Assert.Equal(["SHK-BOW-10 60 C62", "THM-SS-12 5 C62"], Shelf.Lines(reading));
    }

    [Theory]
    [InlineData("PO 4711-2: 40 SHK-BOW-10. PO 4712-2: 12 THM-SS-12.")]
    [InlineData("Our order 4711-2 and our order 4712-9, please: 40 SHK-BOW-10.")]
    public void Two_orders_in_one_letter_are_asked(string body)
    {
        var reading = Shelf.Letter(body);
        Assert.InRange(reading.PoNumber.Sure, 0.01m, 0.5m);
        Assert.Contains("Two orders", reading.PoNumber.How, StringComparison.Ordinal);
        Assert.True(reading.NeedsYou);
    }

    [Fact]
    public void A_number_that_is_said_twice_is_one() =>
        Assert.True(Shelf.Letter("PO 4711-2: 40 SHK-BOW-10. Quote PO 4711-2 on all papers.").PoNumber.Sure > 0.8m);

    [Fact]
    public void Rows_and_columns_that_were_not_used_say_why_and_one_that_may_count_is_left_over()
    {
        var reading = With(
            "Our PO 4711-2 is attached.",
            (
                "po.csv",
                "Code;Description;Qty;Unit;Colour of tag\nFor the workshop;;;;\nSHK-BOW-10;Bow shackle;60;pcs;red\n;;12;;\nTHM-SS-12;Thimble;;;\nTotal;;60;;\n"
            )
        );
        Assert.Equal(["SHK-BOW-10 60 C62"], Shelf.Lines(reading));
        Assert.Equal(["12", "THM-SS-12 Thimble"], reading.LeftOvers.Select(l => l.Words));
        Assert.Equal(
            ["Colour of tag: no meaning is known for this column", "For the workshop: a row without a quantity"],
            reading.Unused.Select(u => $"{u.Words}: {u.Why}")
        );
    }

    [Theory]
    [InlineData(65, true)]
    [InlineData(66, false)]
    public void A_total_of_quantities_is_the_lines(int total, bool agrees)
    {
        var reading = With(
            "Our PO 4711-2 is attached.",
            ("po.csv", $"{Heads}SHK-BOW-10;Bow shackle;60;pcs\nTHM-SS-12;Thimble;5;pcs\nTotal;;{total};\n")
        );
        Assert.Equal(agrees, reading.LeftOvers.IsEmpty);
        Assert.Equal(2, reading.Lines.Length);
    }

    [Fact]
    public void A_total_is_of_the_column_that_it_stands_in()
    {
        var reading = With(
            "Our PO 4711-2 is attached.",
            ("po.csv", "Code;Qty;Amount\nSHK-BOW-10;60;249.00\nTHM-SS-12;5;10.00\nTotal;65;259.00\nTotal;66;\n")
        );
        Assert.Equal(259.00m, reading.Goods.Value);
        Assert.Equal(["They count 66 in all; these lines make 65."], reading.LeftOvers.Select(l => l.Why));
    }

    [Fact]
    public void Two_columns_that_say_how_much_are_asked()
    {
        var reading = With(
            "Our PO 4711-2 is attached.",
            ("po.csv", "Code;Qty;Qty ordered\nSHK-BOW-10;60;60\nTHM-SS-12;5;7\n")
        );
        Assert.Equal(["One column says 5, another 7; the first was read."], reading.LeftOvers.Select(l => l.Why));
    }

    [Fact]
    public void What_stands_above_a_table_is_about_the_whole()
    {
        var reading = With(
            "See the file.",
            (
                "po.csv",
                "Purchase order;4711-2;;\nDelivery date: 12 April 2026;;;\nDeliver to: Rope Walk 17, Skerry;;;\n;;;\n"
                    + Heads
                    + "SHK-BOW-10;Bow shackle;60;pcs\n"
            )
        );
        Assert.Equal("4711-2", reading.PoNumber.Value);
        Assert.Equal(new DateOnly(2026, 4, 12), reading.Wanted.Value);
        Assert.StartsWith("Rope Walk 17", reading.DeliverTo.Value, StringComparison.Ordinal);
        Assert.Equal(MessageKind.Order, reading.Kind);
    }

    [Theory]
    [InlineData("40 SHK-BOW-10 at 4.15 EUR. Total 166.00 EUR.", true)]
    [InlineData("40 SHK-BOW-10 at 4.15 EUR. Total 186.00 EUR.", false)]
    // Without prices there is nothing to compare.
    [InlineData("40 SHK-BOW-10. Total 186.00 EUR.", true)]
    public void A_total_in_words_is_what_their_prices_make(string body, bool agrees)
    {
        var reading = Shelf.Letter("PO 4711-2: " + body);
        Assert.Equal(agrees, reading.LeftOvers.IsEmpty);
        if (!agrees)
            Assert.Equal("They count 186.00; these lines make 166.00.", reading.LeftOvers[0].Why);
    }

    [Fact]
    public void A_text_beside_the_letter_that_says_more_is_the_order_and_the_letter_is_compared()
    {
        var reading = With(
            "PO 4711-2 is attached, 40 SHK-BOW-10 of it are urgent; and 2 SVC-EYE as always.",
            ("po.txt", "Purchase order 4711-2\n\n- 40 pcs SHK-BOW-10\n- 12 pcs THM-SS-12\n- 5 pcs FND-A3-BL\n")
        );
        Assert.Equal(
            ["SHK-BOW-10 40 C62", "THM-SS-12 12 C62", "FND-A3-BL 5 C62", "SVC-EYE 2 C62 ?"],
            Shelf.Lines(reading)
        );
        Assert.Equal("stands only in the letter", reading.Lines[3].Quantity.How);
    }
}
