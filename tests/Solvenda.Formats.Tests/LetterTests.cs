using System.Globalization;
using System.Text;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Free text in six languages, and what must stay open in it.</summary>
public sealed class LetterTests
{
    [Theory]
    [InlineData("Our order OSS-771: 24 pcs LJ-150-AD.", "LJ-150-AD 24 C62")]
    [InlineData("PO 881: 10 m PS3-12-WH", "PS3-12-WH 10 MTR")]
    [InlineData("PO 881: 10 m of polyester rope 12 mm white", "PS3-12-WH 10 MTR")]
    public void An_order_number_only_leads_up_to_what_is_ordered(string body, string line) =>
        Assert.Equal([line], Shelf.Lines(Shelf.Letter(body)));

    [Theory]
    [InlineData(
        "en",
        "Hello,\n\nplease send us 3 boxes of bow shackles 10 mm and 60m of three-strand rope 16 mm, black. Delivery by 20 March.\n\nOur PO is KY-4471.\n\nKind regards\nMaud",
        "Order",
        "KY-4471",
        "2026-03-20",
        "SHK-BOW-10 3 BX|PS3-16-BK 60 MTR"
    )]
    [InlineData(
        "de",
        "Guten Tag,\n\nwir bestellen hiermit:\n\n- 4 Rollen Tauwerk dreischäftig 12 mm weiß\n- 2 Dutzend Schäkel verzinkt 10 mm\n- 120,5 m Kette 10 mm kurzgliedrig verzinkt\n\nBestellnummer: 4500-771. Lieferung bis 27. März 2026.\n\nMit freundlichen Grüßen\nJorun Adler",
        "Order",
        "4500-771",
        "2026-03-27",
        "PS3-12-WH 4 CL|SHK-BOW-10 24 C62|CHN-SL-10 120.5 MTR"
    )]
    [InlineData(
        "nl",
        "Goedemorgen,\n\ngraag een offerte voor 5 dozen harpsluitingen 10 mm verzinkt en 400 meter touw 16 mm zwart.\nLevering uiterlijk vrijdag.\n\nMet vriendelijke groet\nJoris",
        "RequestForQuotation",
        null,
        "2026-03-06",
        "SHK-BOW-10 5 BX|PS3-16-BK 400 MTR"
    )]
    [InlineData(
        "sv",
        "Hej,\n\nkan ni lämna pris på 200 m flätad lina 10 mm marinblå och 20 st kausar rostfria 12 mm?\nLeverans vecka 14.\n\nMed vänlig hälsning\nYlva",
        "RequestForQuotation",
        null,
        "2026-03-30",
        "BB2-10-NV 200 MTR|THM-SS-12 20 C62"
    )]
    [InlineData(
        "no",
        "Hei,\n\nvi bestiller 1 800 m2 notlin 25 mm grønt og 60 stk svivler galvanisert 10 mm. Levering senest 25. mars.\n\nVår referanse: Sunniva Holm\n\nMed vennlig hilsen\nSunniva",
        "Order",
        null,
        "2026-03-25",
        "NET-25-GR 1800 MTK|SWV-GV-10 60 C62"
    )]
    [InlineData(
        "es",
        "Hola,\n\nnecesitamos presupuesto para 12 chalecos salvavidas adulto y 3 cajas de grilletes lira galvanizados 12 mm. Entrega para el 15 de abril.\n\nUn saludo\nMarta",
        "RequestForQuotation",
        null,
        "2026-04-15",
        "LJ-150-AD 12 C62|SHK-BOW-12 3 BX"
    )]
    public void A_letter_in_each_language(
        string language,
        string body,
        string kind,
        string? po,
        string wanted,
        string lines
    )
    {
        var reading = Shelf.Letter(body);
        Assert.Equal(
            (language, kind, po, wanted, lines),
            (
                reading.Language,
                reading.Kind.ToString(),
                reading.PoNumber.Value,
                reading.Wanted.Value?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture),
                string.Join('|', Shelf.Lines(reading))
            )
        );
    }

    [Theory]
    [InlineData("please quote 1,250 m PS3-12-WH", "1250 1.25")]
    [InlineData("please quote 1.250 m PS3-12-WH", "1250 1.25")]
    [InlineData("please quote 1,250 m PS3-12-WH and 2,5 m of chain 10 mm", "")]
    [InlineData("please quote 1.250 m PS3-12-WH, last time it was 1,84 EUR", "")]
    public void A_sign_that_the_document_does_not_settle_is_asked(string body, string proposals)
    {
        var line = Shelf.Letter(body).Lines[0];
        Assert.Equal(
            (proposals.Length > 0, proposals),
            (
                line.NeedsYou,
                string.Join(
                    ' ',
                    line.Proposals.Select(p =>
                        p.Quantity.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture)
                    )
                )
            )
        );
    }

    [Fact]
    public void The_document_settles_a_sign_to_what_it_shows()
    {
        Assert.Equal(
            "PS3-12-WH 1.25 MTR",
            Shelf.Say(Shelf.Letter("please quote 1,250 m PS3-12-WH and 2,5 m of chain 10 mm").Lines[0])
        );
        Assert.Equal(
            "PS3-12-WH 1250 MTR",
            Shelf.Say(Shelf.Letter("please quote 1.250 m PS3-12-WH, last time it was 1,84 EUR").Lines[0])
        );
    }

    [Fact]
    public void A_near_tie_is_shown_and_not_settled()
    {
        var line = Assert.Single(Shelf.Letter("Please quote 6 pcs ball fender A3").Lines);
        Assert.True(line.NeedsYou);
        Assert.Equal(["FND-A3-BL", "FND-A3-WH"], line.Proposals.Take(2).Select(p => p.Code).Order());
        Assert.Equal(
            "FND-A3-BL 6 C62",
            Shelf.Say(Assert.Single(Shelf.Letter("Please quote 6 pcs ball fender A3, blue").Lines))
        );
    }

    [Theory]
    [
        InlineData("Please supply 2 x 45 m BB2-10-NV", "BB2-10-NV 90 MTR"),
        InlineData("We need 3 dozen bow shackles 10 mm", "SHK-BOW-10 36 C62"),
        InlineData("send 100 ft of PS3-12-WH", "PS3-12-WH 100 FOT"),
        InlineData("send a coil of braid 12mm navy", "BB2-12-NV 1 CL")
    ]
    [
        InlineData("2 mooring sets 10 mm with chain 5 m", "SET-MOOR-10 2 C62"),
        InlineData("HMPE 8 grey 600 m", "HM12-08-GY 600 MTR")
    ]
    [
        InlineData("Bow shackles 10 mm: 40 pcs", "SHK-BOW-10 40 C62"),
        InlineData("order 20 off shakle bow galvanised 10mm", "SHK-BOW-10 20 C62"),
        InlineData("12 pcs GTIN 2999000101429", "THM-SS-12 12 C62"),
        InlineData("order 10 m of 1 cm braid navy", "BB2-10-NV 10 MTR")
    ]
    [
        InlineData("send 2x 10mm bow shackles galv", "SHK-BOW-10 2 C62"),
        InlineData("order 40 pcs bow shackle 1 cm galvanised", "SHK-BOW-10 40 C62")
    ]
    [
        InlineData("4 pcs FND-A3-BL at 68.50 EUR", "FND-A3-BL 4 C62 @68.5"),
        InlineData("400 m PS3-16-BK @ 265.00 per 100 m", "PS3-16-BK 400 MTR @265/100")
    ]
    public void How_much_of_what(string body, string expected) =>
        Assert.Equal(expected, Shelf.Say(Assert.Single(Shelf.Letter(body).Lines)));

    [Theory]
    [
        InlineData("please send a hundred and twenty thimbles stainless 12 mm", "THM-SS-12 120 C62"),
        InlineData("please send forty-five bow shackles 10 mm", "SHK-BOW-10 45 C62"),
        InlineData("please send two thousand five hundred metres of PS3-12-WH", "PS3-12-WH 2500 MTR")
    ]
    [
        InlineData("Wir bestellen zweiundzwanzig Schäkel verzinkt 10 mm, bitte liefern", "SHK-BOW-10 22 C62"),
        InlineData("Wir bestellen hundertzwanzig Stück Schäkel verzinkt 10 mm, bitte liefern", "SHK-BOW-10 120 C62")
    ]
    [
        InlineData("Wij bestellen tweeëndertig harpsluitingen 10 mm verzinkt, graag leveren", "SHK-BOW-10 32 C62"),
        InlineData("Vi beställer etthundratjugo kausar rostfria 12 mm, tack", "THM-SS-12 120 C62")
    ]
    [
        InlineData("Vi bestiller hundre og tjue svivler galvanisert 10 mm, takk", "SWV-GV-10 120 C62"),
        InlineData("Necesitamos ciento veinte grilletes lira galvanizados 10 mm, gracias", "SHK-BOW-10 120 C62"),
        InlineData("Necesitamos treinta y cinco grilletes lira galvanizados 10 mm, gracias", "SHK-BOW-10 35 C62")
    ]
    public void Numbers_in_words_as_each_language_builds_them(string body, string expected) =>
        Assert.Equal(expected, Shelf.Say(Assert.Single(Shelf.Letter(body).Lines)));

    [Theory]
    [
        InlineData("please quote 8 to 10 pcs FND-A3-BL", "8 10"),
        InlineData("please quote 8-10 pcs FND-A3-BL", "8 10"),
        InlineData("Bitte bieten Sie 8 bis 10 Stück FND-A3-BL an", "8 10"),
        InlineData("Gärna pris på 8 till 10 st FND-A3-BL", "8 10")
    ]
    public void A_range_is_asked_and_neither_end_of_it_taken(string body, string proposals)
    {
        var line = Assert.Single(Shelf.Letter(body).Lines);
        Assert.True(line.NeedsYou);
        Assert.Equal(
            proposals,
            string.Join(
                ' ',
                line.Proposals.Select(p =>
                    p.Quantity.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture)
                )
            )
        );
    }

    [Fact]
    public void A_thing_before_its_quantity_and_the_same_in_another_colour()
    {
        var reading = Shelf.Letter(
            "Hi,\n\nBraid on braid, 10mm, navy - 300m\nSame in 12mm - 150 metres\nDo you have life jackets for adults, 150N? We need 14 of them.\n\nThanks"
        );
        Assert.Equal(["BB2-10-NV 300 MTR", "BB2-12-NV 150 MTR", "LJ-150-AD 14 C62"], Shelf.Lines(reading));
        Assert.All(reading.Lines.Skip(1), l => Assert.InRange(l.Item.Sure, 0m, 0.8m));
    }

    [Theory]
    [
        InlineData("4 pcs FND-A3-BL by Friday of week 14", "2026-04-03"),
        InlineData("Hej, vi beställer 4 st FND-A3-BL, leverans senast fredag i vecka 14, tack", "2026-04-03"),
        InlineData("Wir bestellen 4 Stk FND-A3-BL, Lieferung bis Freitag KW 14", "2026-04-03"),
        InlineData("4 pcs FND-A3-BL by Friday week", "2026-03-13")
    ]
    public void A_day_of_a_week_is_that_day(string body, string wanted) =>
        Assert.Equal(
            wanted,
            Shelf.Letter(body).Wanted.Value?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
        );

    [Theory]
    [
        InlineData("Order 77\nDate: 20 March 2026\n4 pcs FND-A3-BL", null),
        InlineData("Order 77 dated 20 March 2026\n4 pcs FND-A3-BL", null),
        InlineData("Order 77, delivery date: 20 March 2026\n4 pcs FND-A3-BL", "2026-03-20"),
        InlineData("Order 77\n4 pcs FND-A3-BL, 20 March 2026", "2026-03-20"),
        InlineData("Order 77\n4 pcs FND-A3-BL as in 20 January 2026", null)
    ]
    public void The_day_of_the_letter_is_not_when_it_is_wanted(string body, string? wanted) =>
        Assert.Equal(
            wanted,
            Shelf.Letter(body).Wanted.Value?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
        );

    [Fact]
    public void Heads_and_totals_of_a_table_are_not_what_the_letter_says()
    {
        var reading = Shelf.Letter(
            "BESTELLUNG Nr. 4500123999\nLieferung bis 11.12.2026\n\nPos  Artikel      Bezeichnung             Menge  ME   Preis/Einheit   Gesamt\n10   PS3-12-WH    Polyesterseil 12mm      1.200  m        1,84       2.208,00\n20   SHK-BOW-10   Schäkel 10mm               25  Stk      4,15         103,75\n\nGesamtsumme EUR 2.311,75\n"
        );
        Assert.Equal(
            (MessageKind.Order, "4500123999", 2311.75m),
            (reading.Kind, reading.PoNumber.Value, reading.Goods.Value)
        );
        Assert.Equal(["PS3-12-WH 1200 MTR @1.84", "SHK-BOW-10 25 C62 @4.15"], Shelf.Lines(reading));
    }

    [Fact]
    public void Codes_of_ours_count_in_whatever_language() =>
        Assert.Equal(
            ["PS3-12-WH 200 MTR", "FND-A3-BL 12 C62"],
            Shelf.Lines(Shelf.Letter("Bonjour, merci de livrer 200 m de PS3-12-WH et 12 FND-A3-BL"))
        );

    [Fact]
    public void Who_signed_is_the_contact_and_when_is_no_part_of_where()
    {
        var reading = Shelf.Letter(
            "Please send 4 pcs FND-A3-BL to the outer slip by 20 March.\nDeliver to: The Outer Slip by 20 March\n\nRegards\nMaud Ferrier\nKestrel Yard"
        );
        Assert.Equal("The Outer Slip", reading.DeliverTo.Value);
        const string text = "We need 4.\n\nRegards\nMaud de Ferrier\nKestrel Yard";
        Assert.Equal(
            (text.IndexOf("Maud", StringComparison.Ordinal), "Maud de Ferrier"),
            Letters.SignedBy(text, Letters.FreshLength(text))
        );
        Assert.Equal("", Letters.SignedBy("We need 4.\n\nRegards\n", 22).Name);
    }

    [Theory]
    [
        InlineData("Call me in 2 minutes, or on 020 555 0100.", 0),
        InlineData("We will be 12 people at 14:30 on 3 April.", 0),
        InlineData("As per PO 4500-771 we need nothing this week.", 0),
        InlineData("Please send 6 pcs of the bronze widget frobnicator", 1)
    ]
    public void Numbers_that_count_nothing_are_no_lines_and_things_that_we_do_not_know_are_asked(string body, int lines)
    {
        var reading = Shelf.Letter(body);
        Assert.Equal(
            (lines, ""),
            (
                reading.Lines.Length,
                lines == 0 ? string.Join('|', reading.Lines.Select(l => Shelf.Say(l) + l.Words)) : ""
            )
        );
        Assert.All(reading.Lines, l => Assert.True(l.NeedsYou));
    }

    [Theory]
    [
        InlineData("Please cancel our order PO 4711, we have sold the boat.", "Cancellation"),
        InlineData("Change to our order PO 4711: 6 pcs FND-A3-BL instead of 4.", "Change"),
        InlineData("We accept your quote Q26-00044, please go ahead.", "AnswerToQuote")
    ]
    [
        InlineData("On our PO KY-4471 please change line 2 to 120 m and cancel the shackles.", "Change"),
        InlineData("Zu Q26-00044: Bestellnummer BS-881, danke.", "AnswerToQuote"),
        InlineData("Wir nehmen Ihr Angebot Q26-00044 an.", "AnswerToQuote")
    ]
    [
        InlineData("Does the blue one fade?", "Question"),
        InlineData("I am out of office until Monday.", "NotForUs"),
        InlineData("Stornierung: bitte stornieren Sie unsere Bestellung 4711-2.", "Cancellation"),
        InlineData("Wij gaan akkoord met uw offerte Q26-00044.", "AnswerToQuote")
    ]
    public void What_a_letter_is_about(string body, string kind) =>
        Assert.Equal(kind, Shelf.Letter(body).Kind.ToString());

    [Fact]
    public void Who_is_found_by_what_they_carry_and_two_are_shown_as_two()
    {
        Assert.Equal(
            Shelf.Buyer("Teerling Scheepsbenodigdheden"),
            Shelf.Letter("20 pcs FND-A3-BL\n\nBTW NL999999990B01", from: "someone@mail.example").Buyer.Value
        );
        Assert.Equal(0m, Shelf.Letter("20 pcs FND-A3-BL", from: "someone@mail.example").Buyer.Sure);
        var torn = Shelf.Letter("20 pcs FND-A3-BL, for inkoop@teerling.example", from: "fionn@tresselvane.example");
        Assert.True(torn.NeedsYou);
        Assert.Equal(
            ["Teerling Scheepsbenodigdheden", "Tressel & Vane Rigging"],
            torn.BuyerCandidates.Select(c => c.Name).Order()
        );
    }

    [Theory]
    [
        InlineData("03/04/2026", false),
        InlineData("23/04/2026", true),
        InlineData("04/23/2026", true),
        InlineData("03.04.2026", true),
        InlineData("2026-04-03", true)
    ]
    public void Two_numbers_that_could_both_be_the_month_stay_open(string date, bool clear)
    {
        var reading = Shelf.Letter($"please send 6 pcs FND-A3-BL by {date}");
        Assert.Equal((!clear, clear), (reading.NeedsYou, reading.Wanted.Sure >= Reading.UnsureDate));
    }

    [Theory]
    [
        InlineData("en", "within 3 weeks", "2026-03-23"),
        InlineData("en", "end of March", "2026-03-31"),
        InlineData("en", "delivery week 20", "2026-05-11"),
        InlineData("de", "bis KW 15", "2026-04-06"),
        InlineData("de", "am Donnerstag in einer Woche", "2026-03-12"),
        InlineData("nl", "voor 1 april", "2026-04-01")
    ]
    [
        InlineData("sv", "senast den 3 mars", "2026-03-03"),
        InlineData("no", "innen fredag", "2026-03-06"),
        InlineData("es", "para el 2 de mayo de 2026", "2026-05-02"),
        InlineData("es", "antes del viernes", "2026-03-06"),
        InlineData("de", "nächste Woche", null),
        InlineData("en", "by tomorrow", "2026-03-03"),
        InlineData("en", "I call tomorrow", null)
    ]
    public void When(string language, string text, string? day) =>
        Assert.Equal(
            day,
            DateWords
                .Find(text, new DateOnly(2026, 3, 2), Language.All.First(l => l.Code == language))
                ?.Day.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
        );
}
