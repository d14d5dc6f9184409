using System.Text;
using Solvenda.Core.Reading;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Messages of eight buyers, read field by field; and the same messages as others would write them.</summary>
public sealed class SampleTests
{
    private static string Text(string sample) => Encoding.Latin1.GetString(Shelf.Sample(sample));

    private static byte[] Bytes(string text) => Encoding.Latin1.GetBytes(text);

    [Fact]
    public void A_letter_with_the_usual_in_it()
    {
        var reading = Shelf.One(Shelf.Sample("tressel-usual.eml"), "tressel-usual.eml");
        Assert.Equal(
            "RequestForQuotation | Tressel & Vane Rigging |  | 2026-03-12 |  |  |  | Fionn Tressel",
            Shelf.Head(reading)
        );
        Assert.Equal(
            ["PS3-12-WH 2 CL", "BB2-10-NV 150 MTR ?", "SHK-BOW-10 12 C62", "SVC-EYE 8 C62"],
            Shelf.Lines(reading)
        );
    }

    [Fact]
    public void A_letter_with_a_table_attached()
    {
        var reading = Shelf.One(Shelf.Sample("oystercatcher-season.eml"), "oystercatcher-season.eml");
        Assert.Equal(
            "RequestForQuotation | Oystercatcher Sailing School |  |  |  |  |  | Hanna Oyster, Bosun",
            Shelf.Head(reading)
        );
        Assert.Equal(
            ["BB2-10-NV 600 MTR", "HM12-08-GY 120.5 MTR", "LJ-150-AD 24 C62", "unknown 6 C62 ?"],
            Shelf.Lines(reading)
        );
        Assert.Equal(
            [new DateOnly(2026, 3, 16), new(2026, 3, 16), new(2026, 4, 1), new(2026, 4, 1)],
            reading.Lines.Select(l => l.Wanted.Value!.Value)
        );
        Assert.Equal("boat hook 2.4 m telescopic", reading.Lines[3].Words);
        Assert.Equal(["What would the braid come to at 1000 m instead?"], reading.Remarks.Select(r => r.Words));
    }

    [Theory, InlineData("iso-8859-1"), InlineData("utf-8"), InlineData("windows-1252")]
    public void A_Swedish_order(string charset)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var raw = Encoding
            .GetEncoding(charset)
            .GetBytes(
                Text("nordvass-sv.eml")
                    .Replace("charset=iso-8859-1", $"charset={charset}", StringComparison.Ordinal)
                    .Replace("From: Ink\u00f6p", "From: Inkop", StringComparison.Ordinal)
            );
        var reading = Shelf.One(raw, "nordvass-sv.eml");
        Assert.Equal(
            "Order | Nordvass Båtvarv | 4500-1187 | 2026-03-16 | SEK | DAP | Södra kajen 7, Nordvass | Ylva Nord",
            Shelf.Head(reading)
        );
        Assert.Equal(
            ["PS3-16-BK 5 CL @5640", "SHK-BOW-10 40 C62 @47.6", "BB2-10-NV 1250.5 MTR @27.5"],
            Shelf.Lines(reading)
        );
        Assert.Equal("sv", reading.Language);
    }

    public static TheoryData<string, string> Separators =>
        new()
        {
            { "*", "~" },
            { "|", "!" },
            { "\u001d", "\u001c" },
            { "+", "\n" },
        };

    [Theory, MemberData(nameof(Separators))]
    public void An_850_with_any_delimiters(string element, string terminator)
    {
        var text = Text("northgannet-850.x12")
            .ReplaceLineEndings("")
            .Replace("*", element, StringComparison.Ordinal)
            .Replace("~", terminator, StringComparison.Ordinal);
        var reading = Shelf.One(Bytes(text), "order.x12");
        Assert.Equal(
            "Order | Northgannet Marine Depot | NG-88120 | 2026-04-20 | USD | CIF Port of Gannet | Northgannet Depot 7, 77 Pier Road, Gannet ME 04002, US | Dale Ferris",
            Shelf.Head(reading)
        );
        Assert.Equal(
            [
                "PS3-12-WH 4000 FOT @63.2/100",
                "SHK-BOW-10 40 BX @108.5",
                "SET-MOOR-10 12 C62 @405",
                "unknown 24 C62 @9.75 ?",
            ],
            Shelf.Lines(reading)
        );
        Assert.Equal((60, "US"), (reading.PaymentDays.Value, reading.DeliverToCountry));
        Assert.Equal(("freight", 250m), Assert.Single(reading.Charges));
        Assert.Equal(("NGD-XX-771", "CLEAT HORN 8IN BRONZE"), (reading.Lines[3].Code, reading.Lines[3].Words));
    }

    [Theory]
    [
        InlineData(":+.? '", "UNOC", false),
        InlineData(":+.? '", "UNOC", true),
        InlineData("*|,\\ ~", "UNOC", false),
        InlineData(":+,? '", "UNOY", true),
        InlineData("\u001f\u001d.\u00a6 \u001c", "UNOB", true)
    ]
    public void An_order_with_any_service_characters(string una, string syntax, bool lines)
    {
        var text = Text("teerling-orders.edi")
            .Replace("UNA:+.? '", "", StringComparison.Ordinal)
            .ReplaceLineEndings("");
        var (component, element, mark, release, end) = (una[0], una[1], una[2], una[3], una[5]);
        var released = new StringBuilder();
        for (var i = 0; i < text.Length; i++)
        {
            // A released sign stays as it is, released where it is one of the new ones.
            if (text[i] == '?')
            {
                var plain = text[++i];
                released.Append(
                    plain == component || plain == element || plain == end || plain == release
                        ? $"{release}{plain}"
                        : plain.ToString()
                );
                continue;
            }
            released.Append(
                text[i] switch
                {
                    ':' => component,
                    '+' => element,
                    '\'' => end,
                    '.' when i > 0 && i + 1 < text.Length && char.IsDigit(text[i - 1]) && char.IsDigit(text[i + 1]) =>
                        mark,
                    var c => c,
                }
            );
            if (text[i] == '\'' && lines)
                released.Append("\r\n");
        }
        var reading = Shelf.One(
            Encoding.UTF8.GetBytes($"UNA{una}{released}".Replace("UNOC", syntax, StringComparison.Ordinal)),
            "x.edi"
        );
        Assert.Equal(
            "Order | Teerling Scheepsbenodigdheden | 4711/26 | 2026-03-16 | EUR |  | Teerling filiaal Oosterwerf, Werfpad 18, 4321 ZX Oosterwerf, NL | ",
            Shelf.Head(reading)
        );
        Assert.Equal(["SHK-BOW-10 12 BX @92.5", "PS3-16-BK 400 MTR @265/100", "unknown 3 BX ?"], Shelf.Lines(reading));
        Assert.Equal("Lossen voor 11:00 + bel eerst: 020 555 0100", reading.Note);
        Assert.Equal(
            ("TSB-9902", "Kous RVS 12 mm, 25 stuks", "THM-SS-12"),
            (reading.Lines[2].Code, reading.Lines[2].Words, reading.Lines[2].Proposals[0].Code)
        );
    }

    [Fact]
    public void Two_orders_in_one_interchange()
    {
        var readings = Shelf
            .Read(Shelf.Sample("havnlys-orders.edi"), "havnlys-orders.edi")
            .Select(r => r.Reading!)
            .ToList();
        Assert.Equal(
            [
                "Order | Havnlys Laks | HL-2026-311 | 2026-03-25 | NOK | DAP Havnlys merd 4 | Merd 4, Havnlys | ",
                "Order | Havnlys Laks | HL-2026-312 | 2026-03-25 | NOK | DAP Havnlys merd 4 | Merd 4, Havnlys | ",
            ],
            readings.Select(Shelf.Head)
        );
        Assert.Equal(
            ["NET-25-GR 1800 MTK", "CHN-SL-10 260 MTR", "SWV-GV-10 60 C62", "CTG-AF-RD-5 30 C62"],
            readings.SelectMany(Shelf.Lines)
        );
    }

    [Theory, InlineData("cbc", "cac"), InlineData("ns1", "ns2"), InlineData("x", "y")]
    public void A_UBL_order_with_any_prefixes(string basic, string aggregate)
    {
        var text = Encoding
            .UTF8.GetString(Shelf.Sample("aeolis-order.xml"))
            .Replace("cbc:", basic + ":", StringComparison.Ordinal)
            .Replace("cac:", aggregate + ":", StringComparison.Ordinal)
            .Replace("xmlns:cbc", "xmlns:" + basic, StringComparison.Ordinal)
            .Replace("xmlns:cac", "xmlns:" + aggregate, StringComparison.Ordinal);
        var reading = Shelf.One(Encoding.UTF8.GetBytes(text), "order.xml");
        Assert.Equal(
            "Order | Aeolis Offshore Service | AE-0907731 | 2026-03-27 | EUR |  | Schleuse 2, 25999 Wattkoog, DE | Jorun Adler",
            Shelf.Head(reading)
        );
        Assert.Equal(["CTG-AF-RD-5 18 C62 @134.9", "HM12-08-GY 350 MTR @498/100"], Shelf.Lines(reading));
        Assert.Equal(
            ("Q26-00044", "Zertifikate 3.1 bitte mit der Lieferung.", "DE", 2428.20m),
            (reading.QuoteNumber.Value, reading.Note, reading.DeliverToCountry, reading.Lines[0].Amount)
        );
        Assert.Empty(reading.Warnings);
    }

    [Fact]
    public void Orders_and_a_question_of_a_channel()
    {
        var readings = Shelf
            .Read(Shelf.Sample("harbourmart-orders.json"), "harbourmart-orders.json")
            .Select(r => r.Reading!)
            .ToList();
        Assert.Equal(
            [
                "Order | Harbourmart | HM-7719-204 |  | EUR |  | Ottoline Reyes, 3 Slip Lane, D99 XY01 Carrick Sound, IE | Ottoline Reyes",
                "Order | Harbourmart | HM-7719-206 |  | EUR |  | Casimir Boone, 12 Rope Walk, D99 AB12 Skerrow, IE | Casimir Boone",
                "Question | Harbourmart |  |  |  |  |  | pia.w@mail.example",
            ],
            readings.Select(Shelf.Head)
        );
        Assert.Equal(
            ["FND-A3-BL 2 C62 @82", "SVC-CUT 1 C62 @0", "FLR-HH-4 1 C62 @92.13"],
            readings.SelectMany(Shelf.Lines)
        );
        Assert.All(readings.SelectMany(r => r.Lines), l => Assert.True(l.WithTax));
        Assert.Equal(("freight", 9.90m), Assert.Single(readings[0].Charges));
        Assert.StartsWith(
            "It is a gift, no invoice in the box please; paid, HMP-99120",
            readings[0].Note,
            StringComparison.Ordinal
        );
        Assert.Equal(13.91m, readings[0].Fee);
        Assert.Equal("Does the blue fade? And does it come inflated?", readings[2].Note);
    }

    [Fact]
    public void Evidence_stands_where_it_says_in_every_form()
    {
        foreach (var sample in Directory.GetFiles(Path.Combine(AppContext.BaseDirectory, "Samples")))
        {
            var file = FileReader.Open(File.ReadAllBytes(sample), Path.GetFileName(sample), Shelf.Today);
            foreach (var message in file.Messages)
            {
                var reading = MessageReader.Read(message, Shelf.Today, Shelf.Context()).Reading!;
                string At(Evidence e) => message.Parts[e.Part].Text.Substring(e.Start, e.Length);
                foreach (var e in reading.PoNumber.Evidence)
                    Assert.Contains(
                        reading.PoNumber.Value![..4],
                        At(e).Replace("?", "", StringComparison.Ordinal),
                        StringComparison.Ordinal
                    );
                foreach (var line in reading.Lines)
                {
                    Assert.NotEmpty(line.Evidence);
                    Assert.All(line.Evidence, e => Assert.True(At(e).Length > 0));
                    if (
                        line.Quantity is { Value: { } quantity, Evidence: [var where, ..] }
                        && message.Document is not null
                    )
                        Assert.Contains(
                            quantity.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture),
                            At(where),
                            StringComparison.Ordinal
                        );
                }
            }
        }
    }
}
