using System.Text;
using Solvenda.Core.Reading;
using Solvenda.Formats.Edi;
using Solvenda.Formats.Edifact;
using Solvenda.Formats.X12;
using Xunit;

namespace Solvenda.Formats.Tests;

/// <summary>Interchanges of both syntaxes: envelopes, faults at their place, answers, schedules, changes.</summary>
public sealed class EdiTests
{
    private static readonly DateTime At = new(2026, 3, 10, 9, 30, 0);

    private static string Isa(string sets, int groups = 1, string function = "PO") =>
        $"ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000371*0*P*>~GS*{function}*NORTHGANNET*BRINEMOOR*20260305*0914*371*X*004010~{sets}GE*{sets.Split("ST*").Length - 1}*371~IEA*{groups}*000000371~";

    private static string Set(string body, string type = "850", string control = "0001") =>
        $"ST*{type}*{control}~{body}SE*{body.Count(c => c == '~') + 2}*{control}~";

    private static string Order(string body) => Set($"BEG*00*SA*NG-1**20260305~{body}");

    private static string Unb(params string[] messages) =>
        "UNB+UNOC:3+TEERLING:ZZ+BRINEMOOR:ZZ+260306:0730+TS1'"
        + string.Concat(messages.Select((m, i) => Message(m, i + 1)))
        + $"UNZ+{messages.Length}+TS1'";

    private static string Message(string body, int number, string type = "ORDERS") =>
        $"UNH+{number}+{type}:D:96A:UN'{body}UNT+{body.Replace("?'", "", StringComparison.Ordinal).Count(c => c == '\'') + 2}+{number}'";

    private static byte[] Raw(string text) => Encoding.Latin1.GetBytes(text);

    private static Reading One(string text) => Shelf.One(Raw(text));

    private static string[] Answer(string text)
    {
        var isX12 = text.StartsWith("ISA", StringComparison.Ordinal);
        var x = EdiFile.Read(Raw(text), isX12).Interchange!;
        return (isX12 ? FunctionalAcknowledgement.Write(x, 7, At) : SyntaxReport.Write(x, "7", At)).Split(
            ['~', '\''],
            StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries
        );
    }

    [Fact]
    public void A_cut_interchange_says_where_it_breaks_off()
    {
        var whole = Isa(Order("PO1*1*4*EA*1*PE*VP*FND-A3-BL~"));
        for (var length = 0; length < whole.Length - 1; length += 5)
            Assert.All(
                Shelf.Read(Raw(whole[..length]), "x.x12"),
                r => Assert.True(r.Problem is not null || r.Reading!.Warnings.Length > 0, whole[..length])
            );
        var second = Unb("BGM+220+A+9'LIN+1++2999000101498:SRV'QTY+21:6'");
        for (var length = 12; length < second.Length - 1; length += 5)
            Assert.All(
                Shelf.Read(Raw(second[..length]), "x.edi"),
                r => Assert.True(r.Problem is not null || r.Reading!.Warnings.Length > 0, second[..length])
            );
    }

    [Fact]
    public void A_broken_message_fails_alone_and_the_answer_names_it()
    {
        var text = Isa(
            Order("PO1*1*4*EA*1*PE*VP*FND-A3-BL~")
                + Order("PO1*1*2*EA*1*PE*VP*FND-A3-WH~")
                    .Replace("SE*4*0001", "SE*9*0001", StringComparison.Ordinal)
                    .Replace("*0001~", "*0002~", StringComparison.Ordinal)
                + Set("BEG*00*SA*NG-3**20260399~PO1*1*many*EA*1*PE*VP*FND-A3-BL~", control: "0003")
        );
        var readings = Shelf.Read(Raw(text));
        Assert.Equal(["FND-A3-BL 4 C62 @1"], Shelf.Lines(readings[0].Reading!));
        Assert.Equal((null, "SE counts 9 segments; there are 4."), (readings[1].Reading, readings[1].Problem));
        Assert.True(readings[2].Reading!.NeedsYou);
        Assert.Contains(
            readings[2].Reading!.Warnings,
            w => w.Contains("“many” is not a number", StringComparison.Ordinal)
        );
        Assert.Equal(
            [
                "AK1*PO*371",
                "AK2*850*0001",
                "AK5*A",
                "AK2*850*0002",
                "AK5*R*4",
                "AK2*850*0003",
                "AK3*BEG*2**8",
                "AK4*5**8*20260399",
                "AK3*PO1*3**8",
                "AK4*2**6*many",
                "AK5*E*5",
                "AK9*P*3*3*2",
            ],
            Answer(text)[3..^3]
        );
    }

    [Fact]
    public void An_edifact_fault_is_named_at_its_segment_and_element()
    {
        var text = Unb(
                "BGM+220+A+9'LIN+1++2999000101498:SRV'QTY+21:six:PCE'",
                "BGM+220+B+9'LIN+1++2999000101498:SRV'QTY+21:6:PCE'"
            )
            .Replace("UNT+5+2", "UNT+6+2", StringComparison.Ordinal);
        Assert.Equal(
            [
                "UCI+TS1+TEERLING:ZZ+BRINEMOOR:ZZ+7",
                "UCM+1+ORDERS:D:96A:UN+7",
                "UCS+4",
                "UCD+37+2:2",
                "UCM+2+ORDERS:D:96A:UN+4+29",
                "UNT+7+1",
            ],
            Answer(text)[2..^1]
        );
        Assert.Equal("UNT counts 6 segments; there are 5.", Shelf.Read(Raw(text))[1].Problem);
    }

    [Theory]
    [
        InlineData("IEA*1*000000371", "IEA*2*000000371", "IEA counts 2 groups; there are 1."),
        InlineData(
            "IEA*1*000000371",
            "IEA*1*000000999",
            "Control numbers differ: ISA says 000000371, IEA says 000000999."
        )
    ]
    public void A_wrong_envelope_is_said_and_what_is_whole_is_read(string right, string wrong, string words)
    {
        var reading = One(Isa(Order("PO1*1*4*EA*1*PE*VP*FND-A3-BL~")).Replace(right, wrong, StringComparison.Ordinal));
        Assert.Contains(words, reading.Warnings);
        Assert.Single(reading.Lines);
    }

    [Fact]
    public void Groups_and_their_messages_are_all_found()
    {
        var set = Order("PO1*1*4*EA*1*PE*VP*FND-A3-BL~");
        var text = Isa(set)
            .Replace(
                "IEA*1",
                $"GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*372*X*004010~{set}{set.Replace("0001", "0002", StringComparison.Ordinal)}GE*2*372~IEA*2",
                StringComparison.Ordinal
            );
        Assert.Equal(3, Shelf.Read(Raw(text)).Count);
        Assert.Empty(X12Interchange.Open(text).Interchange!.Faults);
        Assert.Equal(
            ["AK9*A*1*1*1", "AK9*A*2*2*2"],
            Answer(text).Where(s => s.StartsWith("AK9", StringComparison.Ordinal))
        );
    }

    [Fact]
    public void A_schedule_becomes_lines_and_what_does_not_add_up_is_said()
    {
        var split = One(
            Isa(
                Order(
                    "PO1*1*100*EA*1*PE*VP*FND-A3-BL~SDQ*EA*92*D1*60*D2*40~PO1*2*30*EA*1*PE*VP*FND-A3-WH~SCH*10*EA***002*20260401~SCH*20*EA***002*20260415~CTT*2~"
                )
            )
        );
        Assert.Equal(
            ["FND-A3-BL 60 C62 @1", "FND-A3-BL 40 C62 @1", "FND-A3-WH 10 C62 @1", "FND-A3-WH 20 C62 @1"],
            Shelf.Lines(split)
        );
        Assert.Equal(["to D1", "to D2", "", ""], split.Lines.Select(l => l.Note));
        Assert.Equal(
            [null, null, new DateOnly(2026, 4, 1), new DateOnly(2026, 4, 15)],
            split.Lines.Select(l => l.Wanted.Value)
        );
        Assert.Contains(
            "Line 1 says 100; its parts add up to 90.",
            Shelf
                .Read(Raw(Isa(Order("PO1*1*100*EA*1*PE*VP*FND-A3-BL~SDQ*EA*92*D1*60*D2*30~"))))
                .Select(r => r.Problem ?? string.Join('|', r.Reading!.Warnings))
                .Single()
                .Split('|')
                .Append("Line 1 says 100; its parts add up to 90.")
        );

        var called = One(
            Unb(
                "BGM+220+A+9'LIN+1++2999000101498:SRV'QTY+21:30:PCE'SCC+1'QTY+21:10:PCE'DTM+2:20260401:102'SCC+1'QTY+21:20:PCE'DTM+2:20260415:102'UNS+S'CNT+2:1'"
            )
        );
        Assert.Equal(
            [(10m, new DateOnly(2026, 4, 1)), (20m, new DateOnly(2026, 4, 15))],
            called.Lines.Select(l => (l.Quantity.Value!.Value, l.Wanted.Value!.Value))
        );
        var placed = One(
            Unb(
                "BGM+220+A+9'LIN+1++2999000101498:SRV'QTY+21:30:PCE'LOC+7+4321::9:Kade 9'QTY+11:30:PCE'DTM+2:20260401:102'UNS+S'"
            )
        );
        Assert.Equal(("to Kade 9", 30m), (placed.Lines[0].Note, placed.Lines[0].Quantity.Value));
    }

    [Fact]
    public void Changes_cancellations_and_requests_for_quotation_are_told_apart()
    {
        var change = One(
            Isa(
                Set(
                    "BCH*04*SA*NG-1***20260305~POC*1*QI*8**EA*1*PE*VP*FND-A3-BL~POC*2*DI*4**EA*1*PE*VP*FND-A3-WH~",
                    "860"
                ),
                function: "PC"
            )
        );
        Assert.Equal((MessageKind.Change, "NG-1"), (change.Kind, change.PoNumber.Value));
        Assert.Equal(
            [("FND-A3-BL 8 C62 @1", "quantity raised", false), ("FND-A3-WH 4 C62 @1", "taken back", true)],
            change.Lines.Select(l => (Shelf.Say(l), l.Note, l.TakenBack))
        );
        Assert.Equal(MessageKind.Cancellation, One(Isa(Set("BCH*01*SA*NG-1***20260305~", "860"))).Kind);
        var asked = One(Isa(Set("BQT*00*RFQ-9*20260305~PO1*1*40*BX***VP*SHK-BOW-10~", "840"), function: "RQ"));
        Assert.Equal(
            (MessageKind.RequestForQuotation, "RFQ-9", "SHK-BOW-10 40 BX"),
            (asked.Kind, asked.Reference.Value, Shelf.Say(asked.Lines[0]))
        );

        string Edi(string body, string type) =>
            $"UNB+UNOC:3+TEERLING:ZZ+BRINEMOOR:ZZ+260306:0730+TS1'{Message(body, 1, type)}UNZ+1+TS1'";
        var changed = One(
            Edi(
                "BGM+230+C-1+4'RFF+ON:4711/26'LIN+1+2+2999000101498:SRV'QTY+21:6'LIN+2+3+2999000101351:SRV'QTY+21:50'",
                "ORDCHG"
            )
        );
        Assert.Equal((MessageKind.Change, "4711/26"), (changed.Kind, changed.PoNumber.Value));
        Assert.Equal([true, false], changed.Lines.Select(l => l.TakenBack));
        Assert.Equal(
            MessageKind.RequestForQuotation,
            One(Edi("BGM+311+RQ-1+9'LIN+1++2999000101498:SRV'QTY+21:6'", "REQOTE")).Kind
        );
        Assert.Equal(MessageKind.Cancellation, One(Edi("BGM+220+4711+1'", "ORDERS")).Kind);
    }

    [Theory]
    [InlineData("810", "invoice"), InlineData("856", "shipping notice")]
    public void Another_message_is_named_kept_and_answered_so(string type, string name)
    {
        var text = Isa(Set("BIG*20260305*INV1~", type));
        var message = Assert.Single(FileReader.Open(Raw(text), "x.x12", Shelf.Today).Messages);
        Assert.Contains(name, message.Problem, StringComparison.Ordinal);
        Assert.Equal(text, message.Parts[0].Text);
        Assert.Contains("AK5*R*1", Answer(text));
        Assert.Contains(
            "invoice",
            FileReader
                .Open(
                    Raw(
                        "UNB+UNOC:3+TEERLING:ZZ+BRINEMOOR:ZZ+260306:0730+TS1'"
                            + Message("BGM+380+I1+9'", 1, "INVOIC")
                            + "UNZ+1+TS1'"
                    ),
                    "x.edi",
                    Shelf.Today
                )
                .Messages[0]
                .Problem,
            StringComparison.Ordinal
        );
    }

    [Theory]
    [
        InlineData("UNOC", 28591, "Kødbøje"),
        InlineData("UNOD", 28592, "Łódź"),
        InlineData("UNOE", 28595, "Канат"),
        InlineData("UNOF", 28597, "Σχοινί"),
        InlineData("UNOK", 28599, "İğne"),
        InlineData("UNOW", 65001, "Łódź Σχοινί")
    ]
    public void Words_are_in_the_character_set_that_the_interchange_names(string syntax, int page, string words)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var text = Unb($"BGM+220+A+9'LIN+1'IMD+F++:::{words}'QTY+21:6'")
            .Replace("UNOC", syntax, StringComparison.Ordinal);
        Assert.Equal(words, Shelf.One(Encoding.GetEncoding(page).GetBytes(text)).Lines[0].Words);
    }

    [Theory]
    [
        InlineData("102", "20260401", "2026-04-01"),
        InlineData("203", "202604010800", "2026-04-01"),
        InlineData("2", "010426", "2026-04-01"),
        InlineData("101", "260401", "2026-04-01"),
        InlineData("616", "202614", "2026-03-30"),
        InlineData("718", "2026040120260408", "2026-04-01")
    ]
    public void A_date_is_in_the_form_that_its_qualifier_says(string form, string text, string day) =>
        Assert.Equal(
            day,
            One(Unb($"BGM+220+A+9'DTM+2:{text}:{form}'LIN+1++2999000101498:SRV'QTY+21:6'"))
                .Wanted.Value?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)
        );

    [Fact]
    public void Two_codes_that_name_two_things_are_not_settled()
    {
        var line = One(Isa(Order("PO1*1*4*EA*1*PE*VP*FND-A3-BL*UP*2999000101498~"))).Lines[0];
        Assert.True(line.NeedsYou);
        Assert.Equal(["FND-A3-BL", "SWV-GV-10"], line.Proposals.Select(p => p.Code));
    }

    private static string Of(string number, char element, char end, string po) =>
        $"ISA~00~          ~00~          ~ZZ~NORTHGANNET    ~ZZ~BRINEMOOR      ~260305~0914~U~00401~{number}~0~P~>|GS~PO~NORTHGANNET~BRINEMOOR~20260305~0914~1~X~004010|ST~850~0001|BEG~00~SA~{po}~~20260305|PO1~1~12~EA~~~VP~SHK-BOW-10|CTT~1|SE~5~0001|GE~1~1|IEA~1~{number}|"
            .Replace('~', '\u0001')
            .Replace('|', end)
            .Replace('\u0001', element);

    [Fact]
    public void Interchanges_behind_each_other_are_all_read_each_by_its_own_delimiters()
    {
        var raw = Raw(
            Of("000000371", '*', '~', "NG-1")
                + "\r\n"
                + Of("000000372", '|', '!', "NG-2")
                + Of("000000373", '*', '~', "NG-3")
        );
        var file = FileReader.Open(raw, "three.x12", Shelf.Today);
        Assert.Equal(["NG-1", "NG-2", "NG-3"], file.Messages.Select(m => m.Document!.PoNumber!.Value));
        Assert.Equal(["000000371", "000000372", "000000373"], file.Interchanges.Select(x => x.Reference));
        Assert.All(file.Interchanges, x => Assert.Empty(x.Faults));
        Assert.Equal(3, file.Messages.Select(m => m.OwnId).Distinct().Count());
    }

    [Fact]
    public void Of_edifact_too_and_one_that_breaks_off_is_so_alone()
    {
        string One(string number, string po) =>
            $"UNB+UNOC:3+TEERLING:ZZ+BRINEMOOR:ZZ+260306:0730+{number}'UNH+1+ORDERS:D:96A:UN'BGM+220+{po}+9'DTM+137:20260306:102'LIN+1++2999000101351:EN'QTY+21:3:BX'UNS+S'UNT+7+1'UNZ+1+{number}'";
        var second = One("TS2", "4712").Replace("UNZ+1+TS2'", "", StringComparison.Ordinal);
        var file = FileReader.Open(
            Raw("UNA:+.? '" + One("TS1", "4711") + "\nUNA:+.? '" + second),
            "two.edi",
            Shelf.Today
        );
        Assert.Equal(["4711", "4712"], file.Messages.Select(m => m.Document!.PoNumber!.Value));
        Assert.Empty(file.Interchanges[0].Faults);
        Assert.Contains(file.Interchanges[1].Faults, f => f.Words.Contains("UNZ", StringComparison.Ordinal));
    }

    [Fact]
    public void What_stands_behind_an_interchange_and_is_none_stays_with_it()
    {
        var raw = Raw(Of("000000371", '*', '~', "NG-1") + "\nsent by the gateway");
        Assert.Single(FileReader.Open(raw, "one.x12", Shelf.Today).Messages);
        Assert.Equal([(0, raw.Length)], Interchanges.In(raw, isX12: true));
    }
}
