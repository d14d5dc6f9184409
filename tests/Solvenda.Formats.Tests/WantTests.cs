using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>What a message wants: only an order is an order, and a doubt is asked.</summary>
public sealed class WantTests
{
    [Theory]
    [InlineData("where is our order PO 4711? It was due on 2 March.", "Reminder")]
    [InlineData("we are still waiting for order S26-00418", "Reminder")]
    [InlineData("we would like to return 4 of the SHK-BOW-10 from order S26-00418, wrong size", "Return")]
    [InlineData("two of the SHK-BOW-10 arrived broken; how do we send them back?", "Return")]
    [InlineData("we no longer need PO 4711", "Cancellation")]
    [InlineData("for PO 4711 please drop two and add twelve", "Change")]
    [InlineData("3 of the shackles you sent were rusty, we are not happy", "Complaint")]
    [InlineData("wo bleibt unsere Bestellung 4711-2? Sie war für 2. März zugesagt.", "Reminder")]
    [InlineData("wir möchten 4 SHK-BOW-10 aus Auftrag S26-00418 zurückgeben", "Return")]
    [InlineData("vi vill avbeställa order 4711-2", "Cancellation")]
    [InlineData("kan vi sende SHK-BOW-12 tilbage? To var beskadigede.", "Return")]
    [InlineData("Can we send the three fenders of order 4711-2 back? They are too large.", "Return")]
    [InlineData("please send 3 FND-A3-BL and come back to us with a date", "Order")]
    [InlineData("wij willen 4 SHK-BOW-10 retourneren", "Return")]
    [InlineData("¿dónde está nuestro pedido 4711-2?", "Reminder")]
    [InlineData("Our autumn newsletter: 20 % off all paddles! Unsubscribe here.", "NotForUs")]
    [InlineData(
        "Invoice no. 88120\n\n12 hours of work at 45.00\nTotal 540.00 EUR\nwe invoice you for the crane",
        "NotForUs"
    )]
    public void Nothing_but_an_order_is_an_order(string body, string kind) =>
        Assert.Equal(kind, Shelf.Letter(body).Kind.ToString());

    [Fact]
    public void What_says_that_it_is_no_order_is_asked()
    {
        var reading = Shelf.Letter("this is not an order: what would 40 SHK-BOW-10 cost under PO 4711?");
        Assert.True(reading.Kind != MessageKind.Order || reading.NeedsYou);
        Assert.True(reading.KindSure < ReadLine.SureEnough);
    }

    [Fact]
    public void A_number_of_the_past_is_no_order_number()
    {
        var reading = Shelf.Letter("Please quote 40 SHK-BOW-10. Last time we ordered under PO 4711-2.");
        Assert.Equal((MessageKind.RequestForQuotation, null), (reading.Kind, reading.PoNumber.Value));
    }

    [Fact]
    public void Words_for_two_things_make_it_unsure()
    {
        var sure = Shelf.Letter("please cancel our order PO 4711");
        var torn = Shelf.Letter("please cancel our order PO 4711, we want to return it, and where is the rest?");
        Assert.True(torn.KindSure < sure.KindSure);
    }

    [Theory]
    [InlineData("29x THM-SS-12", "THM-SS-12 29 C62")]
    [InlineData("12 St. SHK-BOW-10 bitte", "SHK-BOW-10 12 C62")]
    [InlineData("25 pcs. SHK-BOW-10 please", "SHK-BOW-10 25 C62")]
    [InlineData("* CHN-SL-10 - 135 m", "CHN-SL-10 135 MTR")]
    [InlineData("NET-25-GR - 125 m2", "NET-25-GR 125 MTK")]
    [InlineData("14 SVC-EYE", "SVC-EYE 14 C62")]
    [InlineData("1) 14 SVC-EYE", "SVC-EYE 14 C62")]
    [InlineData("2. 40 m PS3-12-WH", "PS3-12-WH 40 MTR")]
    public void Lines_as_people_type_them(string body, string line) =>
        Assert.Equal([line], Shelf.Lines(Shelf.Letter(body)));

    // A short letter whose language is not to be told: no line is swallowed by the one before it.
    [Theory]
    [InlineData("Rope please\n\n5 st THM-SS-12 en 16 st SHK-BOW-10\n")]
    [InlineData("Rope please\n\n5 stk THM-SS-12 og 16 stk. SHK-BOW-10\n")]
    [InlineData("Rope please\n\n5 THM-SS-12 og 16 SHK-BOW-10\n")]
    public void Two_of_our_codes_are_two_lines_whatever_joins_them(string body) =>
        Assert.Equal(
            ["THM-SS-12 5", "SHK-BOW-10 16"],
            Shelf.Lines(Shelf.Letter(body)).Select(l => l[..l.LastIndexOf(' ')])
        );

    [Theory]
    [InlineData(
        "for PO 8841 please: 120 m2 of the 25 mm netting green, 40 bow shackles 10 mm galvanised and 6 A3 ball fenders in blue"
    )]
    [InlineData("PO 8841: 120 m2 netting 25 mm green, 40 bow shackles 10 mm galvanised, 6 ball fenders A3 blue")]
    public void What_leads_up_to_the_lines_is_no_line(string body) =>
        Assert.Equal(["NET-25-GR 120 MTK", "SHK-BOW-10 40 C62", "FND-A3-BL 6 C62"], Shelf.Lines(Shelf.Letter(body)));

    [Fact]
    public void A_thing_that_we_do_not_sell_is_a_line_that_is_asked()
    {
        var reading = Shelf.Letter("please send 40 SHK-BOW-10, 2 boat hooks and 3 buckets");
        Assert.Equal(
            [("40", false), ("2", true), ("3", true)],
            reading.Lines.Select(l => (FormattableString.Invariant($"{l.Quantity.Value:0}"), l.NeedsYou))
        );
        Assert.Equal(["boat hooks", "buckets"], reading.Lines.Skip(1).Select(l => l.Words));
    }

    [Theory]
    [InlineData("-------- Original Message --------\nFrom: Fionn Tressel <fionn@tresselvane.example>\nSubject: rope")]
    [InlineData("---------- Forwarded message ----------\nFrom: Fionn Tressel <fionn@tresselvane.example>")]
    [InlineData("Von: Fionn Tressel <fionn@tresselvane.example>\nGesendet: heute")]
    [InlineData("Från: Fionn Tressel [mailto:fionn@tresselvane.example]")]
    public void Forwarded_by_a_colleague_it_is_of_whom_wrote_it_first(string head)
    {
        var reading = Shelf.Letter(
            $"for you\n\n{head}\n\nHello,\nplease send 40 SHK-BOW-10 under PO 4711-2\n\nKind regards\nFionn",
            from: "bastian@brinemoor.example",
            subject: "Fwd: rope",
            context: Shelf.Context() with
            {
                OurDomains = ["brinemoor.example"],
            }
        );
        Assert.Equal(Shelf.Buyer("Tressel & Vane Rigging"), reading.Buyer.Value);
        Assert.True(reading.Buyer.Sure > 0.9m);
        Assert.Equal(["SHK-BOW-10 40 C62"], Shelf.Lines(reading));
        Assert.Equal("4711-2", reading.PoNumber.Value);
    }

    [Fact]
    public void A_reply_that_quotes_us_is_still_its_own_words_only() =>
        Assert.Empty(
            Shelf
                .Letter(
                    "thanks, will look at it\n\n-------- Original Message --------\nFrom: Orders <orders@brinemoor.example>\n\n40 SHK-BOW-10 at 4.15",
                    subject: "Re: your quote"
                )
                .Lines
        );

    [Theory]
    [InlineData("by Friday 20 March", "2026-03-20")]
    [InlineData("senast 2 januari", "2027-01-02")]
    [InlineData("uiterlijk 15 mei 2026", "2026-05-15")]
    public void Months_are_known_in_whatever_language_the_rest_is(string when, string day) =>
        Assert.Equal(
            day,
            Shelf
                .Letter($"please send 40 SHK-BOW-10 {when}")
                .Wanted.Value?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
        );

    [Fact]
    public void Paragraphs_and_breaks_in_the_cells_of_a_table_are_in_the_cell()
    {
        const string html =
            "<table><tr><td><p>Item</p></td><td><p>Qty</p></td><td><p>Unit</p></td></tr><tr><td><p>SHK-BOW-10</p><p>galvanised</p></td><td><div>40</div></td><td>pcs<br></td></tr><tr><td><p>THM-SS-12</p></td><td><p>7</p></td><td><p>pcs</p></td></tr></table>";
        var raw = System.Text.Encoding.UTF8.GetBytes(
            $"From: Somebody <fionn@tresselvane.example>\nSubject: our order 4711-2\nDate: Mon, 02 Mar 2026 08:41:07 +0000\nMIME-Version: 1.0\nContent-Type: text/html; charset=utf-8\n\n<p>Please send</p>{html}<p>Thanks</p>"
        );
        Assert.Equal(["SHK-BOW-10 40 C62", "THM-SS-12 7 C62"], Shelf.Lines(Shelf.One(raw, "x.eml")));
    }

    [Fact]
    public void A_mail_that_names_no_sender_is_read_all_the_same() =>
        Assert.Equal(
            ["SHK-BOW-10 40 C62"],
            Shelf.Lines(
                Shelf.One(
                    System.Text.Encoding.UTF8.GetBytes(
                        "Subject: order\nDate: Mon, 02 Mar 2026 08:41:07 +0000\n\nplease send 40 SHK-BOW-10"
                    ),
                    "x.eml"
                )
            )
        );

    [Fact]
    public void Boxes_in_dutch_are_no_dozens()
    {
        var csv = System.Text.Encoding.UTF8.GetBytes(
            "From: Joris <inkoop@teerling.example>\nSubject: bestelling 4711-2\nDate: Mon, 02 Mar 2026 08:41:07 +0000\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=c\n\n--c\nContent-Type: text/plain; charset=utf-8\n\nGoedemorgen, graag de bijgevoegde artikelen. Met vriendelijke groet\n--c\nContent-Type: text/csv; name=l.csv\nContent-Disposition: attachment; filename=l.csv\n\nArtikel;Omschrijving;Aantal;Eenheid\nSHK-BOW-10;Harpsluiting;17;dozen\n--c--\n"
        );
        Assert.Equal(["SHK-BOW-10 17 BX"], Shelf.Lines(Shelf.One(csv, "x.eml")));
    }

    [Theory]
    [InlineData("order.txt", "40 SHK-BOW-10\n12 THM-SS-12\n")]
    [InlineData("order.html", "<html><body><p>40 SHK-BOW-10</p><p>12 THM-SS-12</p></body></html>")]
    [InlineData(
        "order.htm",
        "<!DOCTYPE html><table><tr><th>Item</th><th>Qty</th></tr><tr><td>SHK-BOW-10</td><td>40</td></tr><tr><td>THM-SS-12</td><td>12</td></tr></table>"
    )]
    public void Words_that_are_attached_are_read_where_the_letter_has_none(string name, string content)
    {
        var raw = System.Text.Encoding.UTF8.GetBytes(
            $"From: Fionn <fionn@tresselvane.example>\nSubject: our order 4711-2\nDate: Mon, 02 Mar 2026 08:41:07 +0000\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=c\n\n--c\nContent-Type: text/plain; charset=utf-8\n\nPlease send what is in the file.\n--c\nContent-Type: application/octet-stream; name={name}\nContent-Disposition: attachment; filename={name}\n\n{content}\n--c--\n"
        );
        Assert.Equal(["SHK-BOW-10 40 C62", "THM-SS-12 12 C62"], Shelf.Lines(Shelf.One(raw, "x.eml")));
    }
}
