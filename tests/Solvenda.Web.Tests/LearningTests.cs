using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Solvenda.Web.Requests;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What is settled once is read so ever after; and files from other doors.</summary>
public sealed class LearningTests(House house) : ReadingCalls(house)
{
    [Fact]
    public async Task What_is_settled_for_everybody_reads_the_next_letter_of_anybody_and_is_counted()
    {
        var nell = await House.AsAsync(Havergal);
        var view = await OpenAsync(
            nell,
            await ReceiveAsync(Mail("Please send 6 pcs frobnicator wheels.", "desk-3"), "desk.eml")
        );
        Assert.Null(Lines(view).Single().Item);
        view = await DoAsync(
            nell,
            view,
            "settle",
            new
            {
                version = Version(view),
                line = 1,
                itemCode = "SWV-GV-10",
                quantity = 6,
                unit = "C62",
                remember = true,
                forAll = true,
            }
        );
        Assert.Equal("SWV-GV-10", Lines(view).Single().Item);
        var next = await OpenAsync(
            nell,
            await ReceiveAsync(
                Mail("Please send 9 pcs frobnicator wheels.", "desk-4", "someone@else.example"),
                "desk.eml"
            )
        );
        Assert.Equal([("SWV-GV-10", 9m)], Lines(next).Select(l => (l.Item!, l.Quantity!.Value)));
        var learned = await (
            await nell.GetAsync(
                "/api/lists/buyer-codes?filter=frobnicator&columns=buyer,words,item,learnedFrom,helped",
                Cancel
            )
        ).JsonAsync();
        Assert.Equal(
            ["everybody", "frobnicator wheels", "SWV-GV-10", view.GetProperty("number").GetString()!, "1"],
            learned.GetProperty("rows")[0].GetProperty("cells").EnumerateArray().Select(c => c.GetString()!)
        );
    }

    [Fact]
    public async Task What_the_columns_of_a_sender_mean_is_said_once()
    {
        var nell = await House.AsAsync(Havergal);
        static string WithTable(string id, string table) =>
            $"From: Bosun <bosun@oystercatcher.example>\nSubject: order\nMessage-ID: <{id}@test.example>\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nOur order is attached.\n--b\nContent-Type: text/csv; name=o.csv\nContent-Disposition: attachment; filename=o.csv\n\n{table}\n--b--\n";
        var view = await OpenAsync(
            nell,
            await ReceiveAsync(
                WithTable("col-1", "Stuff;Heap;Bag\nball fender A3, blue;4;x\nlife-jacket 150 N, adult;2;x"),
                "col.eml"
            )
        );
        Assert.Equal(
            "columns",
            (await ColumnsAsync(nell, view, new Dictionary<int, string> { [0] = "words" }))
                .GetProperty("code")
                .GetString()
        );
        view = await ColumnsAsync(nell, view, new Dictionary<int, string> { [0] = "words", [1] = "quantity" });
        Assert.Equal([("FND-A3-BL", 4m), ("LJ-150-AD", 2m)], Lines(view).Select(l => (l.Item!, l.Quantity!.Value)));
        var next = await OpenAsync(
            nell,
            await ReceiveAsync(
                WithTable("col-2", "Stuff;Heap;Bag\nball fender A3, blue;7;x\nlife-jacket 150 N, adult;3;x"),
                "col.eml"
            )
        );
        Assert.Equal([("FND-A3-BL", 7m), ("LJ-150-AD", 3m)], Lines(next).Select(l => (l.Item!, l.Quantity!.Value)));
    }

    [Fact]
    public async Task What_was_settled_stays_when_a_table_is_read_anew()
    {
        var nell = await House.AsAsync(Havergal);
        const string mail =
            "From: Bosun <bosun@oystercatcher.example>\nSubject: list\nMessage-ID: <col-3@test.example>\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nThis is not an order yet. Not 7777 any more.\n--b\nContent-Type: text/csv; name=o.csv\nContent-Disposition: attachment; filename=o.csv\n\nGear;Pile\nball fender A3, blue;4\nlife-jacket 150 N, adult;2\n--b--\n";
        var view = await OpenAsync(nell, await ReceiveAsync(mail, "col3.eml"));
        static JsonElement Reading(JsonElement view) => view.GetProperty("reading");
        var over = Reading(view)
            .GetProperty("leftOvers")
            .EnumerateArray()
            .Single(l => l.GetProperty("words").GetString()!.StartsWith("7777", StringComparison.Ordinal));
        view = await DoAsync(
            nell,
            view,
            "dismiss",
            new
            {
                version = Version(view),
                part = 0,
                start = over.GetProperty("where").GetProperty("start").GetInt32(),
            }
        );
        view = await CorrectAsync(nell, view, "kind", "order");
        view = await ColumnsAsync(nell, view, new Dictionary<int, string> { [0] = "words", [1] = "quantity" });
        Assert.Equal("order", Reading(view).GetProperty("kind").GetString());
        Assert.Equal(1m, Reading(view).GetProperty("kindSure").GetDecimal());
        Assert.Equal(2, Reading(view).GetProperty("lines").GetArrayLength());
        Assert.Empty(Reading(view).GetProperty("leftOvers").EnumerateArray());
    }

    [Fact]
    public async Task What_they_ask_beside_the_goods_goes_along_onto_the_order()
    {
        var nell = await House.AsAsync(Havergal);
        var view = await OpenAsync(
            nell,
            await ReceiveAsync(
                Mail(
                    "Our order OSS-771: 24 pcs LJ-150-AD.\n\nPlease unload before 11, phone first.\nWhat is the life of the cartridge?",
                    "asked-1"
                ),
                "asked.eml"
            )
        );
        Assert.Equal(
            ["delivery", "question"],
            view.GetProperty("reading")
                .GetProperty("remarks")
                .EnumerateArray()
                .Select(r => r.GetProperty("kind").GetString())
        );
        Assert.Empty(view.GetProperty("reading").GetProperty("leftOvers").EnumerateArray());
        var order = await DoAsync(nell, view, "turn", new { version = Version(view), intoOrder = true });
        Assert.Equal("order", order.GetProperty("kind").GetString());
        var open = await (
            await nell.GetAsync($"/api/orders/{order.GetProperty("number").GetString()}", Cancel)
        ).JsonAsync();
        var asked = open.GetProperty("sheet")
            .GetProperty("findings")
            .EnumerateArray()
            .Where(f => f.GetProperty("check").GetString() == "asked")
            .Select(f => (f.GetProperty("outcome").GetString(), f.GetProperty("words").GetString()));
        Assert.Equal(
            [
                ("notice", "For the delivery: “Please unload before 11, phone first.”"),
                ("stop", "They ask: “What is the life of the cartridge?”"),
            ],
            asked
        );
    }

    [Fact]
    public async Task Attachments_are_handed_out_inert()
    {
        var nell = await House.AsAsync(Havergal);
        const string mail =
            "From: Bosun <bosun@oystercatcher.example>\nSubject: order\nMessage-ID: <att-1@test.example>\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\n24 pcs LJ-150-AD please\n--b\nContent-Type: text/html; name=x.html\nContent-Disposition: attachment; filename=x.html\n\n<script>alert(1)</script>\n--b\nContent-Type: image/png; name=p.png\nContent-Disposition: attachment; filename=p.png\nContent-Transfer-Encoding: base64\n\niVBORw0KGgo=\n--b--\n";
        var number = (await ReceiveAsync(mail, "att.eml")).GetProperty("number").GetString();
        var html = await nell.GetAsync($"/api/requests/{number}/attachments/0", Cancel);
        Assert.Equal(
            ("application/octet-stream", "attachment", "nosniff"),
            (
                html.Content.Headers.ContentType!.MediaType,
                html.Content.Headers.ContentDisposition!.DispositionType,
                html.Headers.GetValues("X-Content-Type-Options").Single()
            )
        );
        Assert.Equal(
            "image/png",
            (await nell.GetAsync($"/api/requests/{number}/attachments/1", Cancel))
                .Content
                .Headers
                .ContentType!
                .MediaType
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await nell.GetAsync($"/api/requests/{number}/attachments/9", Cancel)).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await House.CreateClient().GetAsync($"/api/requests/{number}/attachments/0", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task An_order_of_a_channel_becomes_one_with_its_price_not_held_against_ours()
    {
        var nell = await House.AsAsync(Havergal);
        var request = await ReceiveAsync(
            "{\"channel\":\"harbourmart\",\"orders\":[{\"id\":\"HM-T-1\",\"currency\":\"EUR\",\"buyer\":{\"name\":\"A B\"},\"deliverTo\":{\"name\":\"A B\",\"street\":\"1 Quay\",\"city\":\"Skerrow\",\"country\":\"IE\"},\"lines\":[{\"line\":1,\"sku\":\"FND-A3-BL\",\"quantity\":2,\"unitPrice\":\"82.00\",\"taxIncluded\":true}],\"shipping\":\"9.90\",\"total\":\"173.90\"}]}",
            "hm.json"
        );
        var view = await OpenAsync(nell, request);
        var turned = await DoAsync(nell, view, "turn", new { version = Version(view), intoOrder = true });
        var sheet = (
            await (await nell.GetAsync($"/api/orders/{turned.GetProperty("number").GetString()}", Cancel)).JsonAsync()
        ).GetProperty("sheet");
        Assert.Equal(("A B, 1 Quay, Skerrow, IE", "IE"), (sheet.Term("deliverTo"), sheet.Term("deliverToCountry")));
        Assert.DoesNotContain(
            sheet.GetProperty("findings").EnumerateArray(),
            f => f.GetProperty("check").GetString() == "po-price"
        );
    }

    [Fact]
    public async Task The_command_reads_files_and_stores_nothing()
    {
        var nell = await House.AsAsync(Havergal);
        async Task<int> CountAsync() =>
            (await (await nell.GetAsync("/api/lists/requests?filter=open:any", Cancel)).JsonAsync())
                .GetProperty("total")
                .GetInt32();
        await House.TakenInAsync();
        var before = await CountAsync();
        var file = Path.Combine(Directory.CreateTempSubdirectory().FullName, "order.x12");
        await File.WriteAllTextAsync(
            file,
            "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000371*0*P*>~GS*PO*N*B*20260305*0914*1*X*004010~ST*850*0001~BEG*00*SA*NG-1**20260305~PO1*1*4*EA*1*PE*VP*FND-A3-BL~SE*4*0001~GE*1*1~IEA*1*000000371~",
            Cancel
        );
        using var answer = new StringWriter();
        using var errors = new StringWriter();
        Assert.Equal(
            0,
            await ReadCommand.RunAsync([file, "--data", House.DataFolder, "--buyer", "B-0003"], answer, errors)
        );
        var reading = JsonDocument
            .Parse(answer.ToString())
            .RootElement[0]
            .GetProperty("messages")[0]
            .GetProperty("reading");
        Assert.Equal(
            ("Kestrel Yard Boatbuilders", "said by you"),
            (
                reading.GetProperty("buyer").GetProperty("value").GetString(),
                reading.GetProperty("buyer").GetProperty("how").GetString()
            )
        );
        var evidence = reading.GetProperty("lines")[0].GetProperty("quantityEvidence")[0];
        Assert.Equal(
            ("PO1", 5, 2, "4"),
            (
                evidence.GetProperty("tag").GetString(),
                evidence.GetProperty("segment").GetInt32(),
                evidence.GetProperty("element").GetInt32(),
                evidence.GetProperty("text").GetString()
            )
        );
        Assert.Equal(before, await CountAsync());
        foreach (
            var wrong in new string[][]
            {
                [],
                [file, "--data", "/nowhere"],
                [file, "--data", House.DataFolder, "--buyer", "nobody"],
                ["--what"],
            }
        )
            Assert.Equal(2, await ReadCommand.RunAsync(wrong, answer, errors));
    }

    [Fact]
    public async Task The_count_of_how_often_words_helped_is_not_typed()
    {
        var paz = await House.AsAsync(2);
        var row = (await (await paz.GetAsync("/api/lists/buyer-codes?take=1", Cancel)).JsonAsync())
            .GetProperty("rows")[0]
            .GetProperty("id")
            .GetInt64();
        using var change = new HttpRequestMessage(HttpMethod.Put, $"/api/records/buyer-codes/{row}")
        {
            Content = JsonContent.Create(new { values = new { helped = "999" } }),
        };
        change.Headers.TryAddWithoutValidation("If-Match", "\"1\"");
        Assert.Equal(HttpStatusCode.Forbidden, (await paz.SendAsync(change, Cancel)).StatusCode);
    }
}
