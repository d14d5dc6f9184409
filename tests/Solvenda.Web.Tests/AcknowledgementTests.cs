using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// What goes back to a buyer by EDI says what became of each of their lines, and what was added to them.
/// </summary>
public sealed class AcknowledgementTests(House house) : MoneyCalls(house)
{
    private const string Order =
        "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000901*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*901*X*004010~ST*850*0001~BEG*00*SA*NG-ACK-1**20260305~CUR*BY*USD~FOB*CC**CIF Port of Gannet~ITD*01*3*****60~DTM*002*20270420~N1*ST*Northgannet Depot 7*92*NG-07~N3*77 Pier Road~N4*Gannet*ME*04002*US~PO1*1*40*EA***VP*SHK-BOW-10~PO1*2*24*EA***VP*THM-SS-12~CTT*2~SE*13*0001~GE*1*901~IEA*1*000000901~";

    private static string[] Of(string text, string tag) =>
        [.. text.Split('~').Select(t => t.Trim()).Where(t => t.StartsWith(tag + "*", StringComparison.Ordinal))];

    private async Task<(HttpClient Nell, string Number, JsonElement Sheet)> OrderedAsync(string po)
    {
        var nell = await House.AsAsync(Havergal);
        var text = Order.Replace("NG-ACK-1", po, StringComparison.Ordinal);
        text = text.Replace("000000901", Control(po), StringComparison.Ordinal);
        var request = (await ReceiveAsync(text, $"{po}.x12")).GetProperty("number").GetString()!;
        var seen = await (await nell.GetAsync($"/api/requests/{request}", Cancel)).JsonAsync();
        var turned = await nell.PostAsJsonAsync(
            $"/api/requests/{request}/turn",
            new { version = seen.GetProperty("version").GetInt64(), intoOrder = true },
            Cancel
        );
        var number = (await turned.JsonAsync()).GetProperty("number").GetString()!;
        return (nell, number, await SeenAsync(nell, $"/api/orders/{number}"));
    }

    private static string Control(string po) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{900 + po[^1]:000000000}");

    private async Task<string> AnswerAsync(HttpClient nell, string number, JsonElement sheet)
    {
        var confirmed = await nell.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(confirmed.StatusCode == HttpStatusCode.OK, await confirmed.Content.ReadAsStringAsync(Cancel));
        var file = Path.Combine(House.DataFolder, "outside", "edi", "out", $"855-{number}.x12");
        return await Answers.EventuallyAsync(() => File.Exists(file) ? File.ReadAllText(file) : null);
    }

    [Fact]
    public async Task As_ordered_every_line_is_accepted_under_their_number()
    {
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-1");
        var answer = await AnswerAsync(nell, number, sheet);
        var lines = Of(answer, "PO1");
        Assert.Equal(["PO1*1*40*EA", "PO1*2*24*EA"], lines.Select(l => string.Join('*', l.Split('*')[..4])));
        Assert.All(Of(answer, "ACK"), a => Assert.StartsWith("ACK*IA*", a, StringComparison.Ordinal));
        Assert.StartsWith("BAK*00*AD*NG-ACK-1*", Of(answer, "BAK").Single(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_line_with_another_quantity_says_so_and_one_added_stands_behind_theirs()
    {
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-2");
        var first = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(nell, sheet, "quantity", "36", first);
        sheet = await nell.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-12 x 4" });
        var answer = await AnswerAsync(nell, number, sheet);
        var lines = Of(answer, "PO1").Select(l => l.Split('*')).ToList();
        Assert.Equal(["1 36", "2 24"], lines.Take(2).Select(l => $"{l[1]} {l[2]}"));
        Assert.Equal(("4", "SHK-BOW-12"), (lines[2][2], lines[2][^1]));
        Assert.Equal(["IQ 36", "IA 24", "IA 4"], Of(answer, "ACK").Select(a => $"{a.Split('*')[1]} {a.Split('*')[2]}"));
        // Something differs from what they wrote: acknowledged with change.
        Assert.Contains("*AC*", Of(answer, "BAK").Single(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_went_is_billed_in_their_form_too()
    {
        foreach (var item in new[] { "SHK-BOW-10", "THM-SS-12" })
            await CountedAsync(item, 5_000, 0);
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-7");
        await AnswerAsync(nell, number, sheet);
        using var machine = House.Machine();
        var path = $"/api/v1/orders/{number}/invoices";
        var made = await machine.PostAsJsonAsync(path, new { withGoods = true }, Cancel);
        Assert.True(made.StatusCode == HttpStatusCode.Created, await made.Content.ReadAsStringAsync(Cancel));
        var state = await made.JsonAsync();
        var invoice = state.GetProperty("number").GetString();
        var file = Path.Combine(House.DataFolder, "outside", "edi", "out", $"810-{invoice}.x12");
        var text = await Answers.EventuallyAsync(() => File.Exists(file) ? File.ReadAllText(file) : null);
        Assert.Contains($"*{invoice}**NG-ACK-7*", Of(text, "BIG").Single(), StringComparison.Ordinal);
        Assert.Equal(2, Of(text, "IT1").Length);
        var total = (long)(state.GetProperty("totalWithTax").GetDecimal() * 100m);
        Assert.Equal(FormattableString.Invariant($"TDS*{total}"), Of(text, "TDS").Single());
    }

    [Fact]
    public async Task A_line_left_out_leaves_the_others_under_their_own_numbers()
    {
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-3");
        var first = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await nell.EditAsync(sheet, new { kind = "remove", line = first });
        var answer = await AnswerAsync(nell, number, sheet);
        // What nobody confirms is refused by name.
        Assert.Equal(["2", "1"], Of(answer, "PO1").Select(l => l.Split('*')[1]));
        Assert.Equal(["IA", "IR"], Of(answer, "ACK").Select(a => a.Split('*')[1]));
        Assert.Contains("*AC*", Of(answer, "BAK").Single(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_changed_later_goes_as_an_865_line_by_line()
    {
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-4");
        await AnswerAsync(nell, number, sheet);
        sheet = (await PostAsync(nell, $"/api/orders/{number}/change")).Sheet();
        long Key(int at) => sheet.GetProperty("lines")[at].GetProperty("key").GetInt64();
        sheet = await SetAsync(nell, sheet, "quantity", "36", Key(0));
        sheet = await nell.EditAsync(sheet, new { kind = "remove", line = Key(1) });
        sheet = await nell.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-12 x 4" });
        var answer = await FileAsync(nell, number, sheet, $"865-{number}-1.x12");
        var (interchange, problem) = Formats.X12.X12Interchange.Open(answer);
        Assert.Null(problem);
        var message = Assert.Single(interchange!.Messages);
        Assert.Equal("865", message.Type);
        Assert.Empty(interchange.Faults.Concat(message.Faults));
        Assert.StartsWith("BCA*04*AC*NG-ACK-4**1*20260305", Of(answer, "BCA").Single(), StringComparison.Ordinal);
        Assert.Equal(
            ["1 CA 36 36", "AI 4 4", "2 DI 24 0"],
            Of(answer, "POC")
                .Select(l => l.Split('*'))
                .Select(l => l[2] == "AI" ? $"{l[2]} {l[3]} {l[4]}" : $"{l[1]} {l[2]} {l[3]} {l[4]}")
        );
        Assert.Contains("GS*CA*", answer, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_a_channel_brought_is_answered_as_the_channel_takes_it()
    {
        const string Text =
            """{"channel":"harbourmart","orders":[{"id":"HM-ANS-1","placedAt":"2026-03-10T21:03:02Z","currency":"EUR","buyer":{"name":"A. Wren","email":"wren@mail.example"},"deliverTo":{"name":"A. Wren","street":"1 Quay","city":"Skerrow","postcode":"D99 AB12","country":"IE"},"lines":[{"line":1,"sku":"SHK-BOW-10","quantity":4,"unitPrice":"5.10","taxIncluded":true}],"shipping":"9.90","total":"30.30","payment":{"state":"paid","reference":"HMP-1"}}]}""";
        var nell = await House.AsAsync(Havergal);
        var (number, sheet) = await OrderOfAsync(nell, Text, "hm.json");
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Name == "Harbourmart")
                .ExecuteUpdateAsync(
                    b => b.SetProperty(x => x.CreditLimitMinor, 900_000_000).SetProperty(x => x.GraceDays, 3_000),
                    Cancel
                )
        );
        foreach (var stop in sheet.GetProperty("findings").EnumerateArray())
            if (stop.GetProperty("outcome").GetString() == "stop" && stop.GetProperty("mayWaive").GetBoolean())
                await PostAsync(
                    nell,
                    $"/api/orders/{number}/waive",
                    new
                    {
                        check = stop.GetProperty("check").GetString(),
                        line = stop.GetProperty("line").ValueKind == JsonValueKind.Null
                            ? (long?)null
                            : stop.GetProperty("line").GetInt64(),
                        field = stop.GetProperty("field").GetString(),
                        reason = "a test",
                    }
                );
        sheet = await SeenAsync(nell, $"/api/orders/{number}");
        var confirmed = await nell.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(confirmed.StatusCode == HttpStatusCode.OK, await confirmed.Content.ReadAsStringAsync(Cancel));
        var file = Path.Combine(House.DataFolder, "outside", "channel", "out", $"order-{number}.json");
        var answer = JsonDocument
            .Parse(await Answers.EventuallyAsync(() => File.Exists(file) ? File.ReadAllText(file) : null))
            .RootElement;
        Assert.Equal(
            ("HM-ANS-1", number),
            (answer.GetProperty("id").GetString(), answer.GetProperty("ours").GetString())
        );
        Assert.Equal("SHK-BOW-10", answer.GetProperty("lines")[0].GetProperty("sku").GetString());
        // What is cancelled is said in its form too.
        var gone = await nell.ActAsync(
            $"/api/orders/{number}/cancel",
            await SeenAsync(nell, $"/api/orders/{number}"),
            new { reason = "the cart was a mistake" }
        );
        Assert.True(gone.StatusCode == HttpStatusCode.OK, await gone.Content.ReadAsStringAsync(Cancel));
        var notice = Path.Combine(Path.GetDirectoryName(file)!, $"cancelled-{number}.json");
        var said = JsonDocument
            .Parse(await Answers.EventuallyAsync(() => File.Exists(notice) ? File.ReadAllText(notice) : null))
            .RootElement;
        Assert.Equal(
            ("HM-ANS-1", "cancelled"),
            (said.GetProperty("id").GetString(), said.GetProperty("status").GetString())
        );
    }

    private async Task<(HttpClient Nell, string Number, JsonElement Sheet)> TakenAsync(string text, string name)
    {
        var nell = await House.AsAsync(Havergal);
        var (number, sheet) = await OrderOfAsync(nell, text, name);
        return (nell, number, await SetAsync(nell, sheet, "documentsBy", "edi"));
    }

    private async Task<string> FileAsync(HttpClient nell, string number, JsonElement sheet, string name)
    {
        var confirmed = await nell.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(confirmed.StatusCode == HttpStatusCode.OK, await confirmed.Content.ReadAsStringAsync(Cancel));
        var file = Path.Combine(House.DataFolder, "outside", "edi", "out", name);
        return await Answers.EventuallyAsync(() => File.Exists(file) ? File.ReadAllText(file) : null);
    }

    [Fact]
    public async Task An_EDIFACT_order_is_answered_by_an_ORDRSP_that_our_own_reader_opens_without_a_fault()
    {
        const string Text =
            "UNB+UNOC:3+NORTHGANNET:ZZ+BRINEMOOR:ZZ+260305:0914+77901'UNH+1+ORDERS:D:96A:UN'BGM+220+NG-RSP-1+9'DTM+137:20260305:102'NAD+BY+NG-HQ::92++Northgannet Marine Depot'NAD+SU+BRINEMOOR::92'CUX+2:USD:9'LIN+1++SHK-BOW-10:SA'QTY+21:40:PCE'PRI+AAA:9.99'LIN+2++THM-SS-12:SA'QTY+21:24:PCE'UNS+S'CNT+2:2'UNT+14+1'UNZ+1+77901'";
        var (nell, number, sheet) = await TakenAsync(Text, "rsp.edi");
        var answer = await FileAsync(nell, number, sheet, $"ORDRSP-{number}.edi");
        var (interchange, problem) = Formats.Edifact.EdifactInterchange.Open(answer);
        Assert.Null(problem);
        Assert.Equal(("BRINEMOOR", "NORTHGANNET"), (interchange!.Sender, interchange.Receiver));
        var message = Assert.Single(interchange.Messages);
        Assert.Empty(interchange.Faults.Concat(message.Faults));
        string[] All(string tag) => [.. message.Segments.Where(s => s.Is(tag)).Select(s => s.Text.Trim())];
        Assert.Equal($"BGM+231+{number}+4", All("BGM").Single());
        Assert.Equal("RFF+ON:NG-RSP-1", All("RFF").Single());
        Assert.Contains("NAD+BY+NG-HQ::92++Northgannet Marine Depot", All("NAD"));
        // Their price was another: changed. The other line is as they ordered it.
        Assert.StartsWith("LIN+1+3", All("LIN")[0], StringComparison.Ordinal);
        Assert.StartsWith("LIN+2+5", All("LIN")[1], StringComparison.Ordinal);
        Assert.Equal(["QTY+113:40:C62", "QTY+113:24:C62"], All("QTY"));
        Assert.Equal(2, All("DTM").Count(d => d.StartsWith("DTM+69:", StringComparison.Ordinal)));
    }

    [Fact]
    public async Task A_UBL_order_is_answered_by_an_OrderResponse_under_its_own_line_numbers()
    {
        const string Text = """
            <?xml version="1.0" encoding="UTF-8"?>
            <Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2" xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2" xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">
              <cbc:ID>NG-UBL-1</cbc:ID><cbc:IssueDate>2026-03-05</cbc:IssueDate><cbc:DocumentCurrencyCode>USD</cbc:DocumentCurrencyCode>
              <cac:BuyerCustomerParty><cac:Party><cbc:EndpointID schemeID="0088">NG-HQ</cbc:EndpointID><cac:PartyName><cbc:Name>Northgannet Marine Depot</cbc:Name></cac:PartyName></cac:Party></cac:BuyerCustomerParty>
              <cac:OrderLine><cac:LineItem><cbc:ID>10</cbc:ID><cbc:Quantity unitCode="C62">40</cbc:Quantity><cac:Item><cbc:Name>Bow shackle</cbc:Name><cac:SellersItemIdentification><cbc:ID>SHK-BOW-10</cbc:ID></cac:SellersItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>
              <cac:OrderLine><cac:LineItem><cbc:ID>20</cbc:ID><cbc:Quantity unitCode="C62">24</cbc:Quantity><cac:Item><cbc:Name>Thimble</cbc:Name><cac:SellersItemIdentification><cbc:ID>THM-SS-12</cbc:ID></cac:SellersItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>
            </Order>
            """;
        var (nell, number, sheet) = await TakenAsync(Text, "order.xml");
        sheet = await SetAsync(nell, sheet, "quantity", "30", 2);
        var answer = await FileAsync(nell, number, sheet, $"OrderResponse-{number}.xml");
        var root = System.Xml.Linq.XDocument.Parse(answer).Root!;
        Assert.Equal("urn:oasis:names:specification:ubl:schema:xsd:OrderResponse-2", root.Name.NamespaceName);
        string[] Values(string name) =>
            [.. root.Descendants().Where(e => e.Name.LocalName == name).Select(e => e.Value)];
        Assert.Equal("CA", Values("OrderResponseCode").Single());
        Assert.Equal(["5", "3"], Values("LineStatusCode"));
        Assert.Equal(["40", "30"], Values("Quantity"));
        Assert.Equal(
            ["10", "20"],
            root.Descendants().Where(e => e.Name.LocalName == "LineItem").Select(e => e.Elements().First().Value)
        );
        Assert.Contains("NG-UBL-1", Values("ID"));
        Assert.Equal(2, Values("StartDate").Length);
    }
}
