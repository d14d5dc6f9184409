using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Solvenda.Web.Requests;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What comes in becomes requests that can be settled, in every form, through the real host.</summary>
public sealed class ReadingDeskTests(House house) : IClassFixture<House>
{
    private const long Havergal = 3;
    private const long Castellane = 8;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private async Task<JsonElement> ReceiveAsync(byte[] raw, string name) =>
        await (
            await house.Machine().PostAsync($"/api/v1/inbound?filename={name}", new ByteArrayContent(raw), Cancel)
        ).JsonAsync();

    private Task<JsonElement> ReceiveAsync(string text, string name) =>
        ReceiveAsync(Encoding.UTF8.GetBytes(text), name);

    private static string Mail(string body, string id, string from = "bosun@oystercatcher.example") =>
        $"From: Bosun <{from}>\nSubject: an order\nMessage-ID: <{id}@test.example>\nDate: Mon, 02 Mar 2026 08:41:07 +0000\n\n{body}\n";

    private static async Task<JsonElement> OpenAsync(HttpClient client, JsonElement request) =>
        await (await client.GetAsync($"/api/requests/{request.GetProperty("number").GetString()}", Cancel)).JsonAsync();

    private static async Task<JsonElement> DoAsync(HttpClient client, JsonElement request, string what, object body) =>
        await (
            await client.PostAsJsonAsync(
                $"/api/requests/{request.GetProperty("number").GetString()}/{what}",
                body,
                Cancel
            )
        ).JsonAsync();

    private static long Version(JsonElement request) => request.GetProperty("version").GetInt64();

    private static IEnumerable<(string? Item, decimal? Quantity, string Words)> Lines(JsonElement request) =>
        request
            .GetProperty("reading")
            .GetProperty("lines")
            .EnumerateArray()
            .Select(l =>
                (
                    l.GetProperty("itemCode").GetString(),
                    l.GetProperty("quantity").ValueKind == JsonValueKind.Null
                        ? (decimal?)null
                        : l.GetProperty("quantity").GetDecimal(),
                    l.GetProperty("words").GetString()!
                )
            );

    [Fact]
    public async Task Several_messages_of_one_file_are_requests_that_know_each_other_and_one_that_is_broken_fails_alone()
    {
        static string Message(int n, string qty) =>
            $"UNH+{n}+ORDERS:D:96A:UN'BGM+220+T-{n}+9'NAD+BY+2999000000111::9'LIN+1++2999000101498:SRV'QTY+21:{qty}:PCE'UNT+6+{n}'";
        var text =
            "UNB+UNOC:3+TEERLING:ZZ+BRINEMOOR:ZZ+260306:0730+T77'"
            + Message(1, "6")
            + Message(2, "7").Replace("UNT+6+2", "UNT+9+2", StringComparison.Ordinal)
            + Message(3, "8")
            + "UNZ+3+T77'";
        var first = await ReceiveAsync(text, "t77.edi");
        var nell = await house.AsAsync(Havergal);
        var view = await OpenAsync(nell, first);
        var siblings = view.GetProperty("siblings")
            .EnumerateArray()
            .Select(s => s.GetProperty("number").GetString()!)
            .ToList();
        Assert.Equal(2, siblings.Count);
        Assert.Equal([("SWV-GV-10", 6m)], Lines(view).Select(l => (l.Item!, l.Quantity!.Value)));
        var broken = await (await nell.GetAsync($"/api/requests/{siblings[0]}", Cancel)).JsonAsync();
        Assert.Contains(
            "UNT counts 9 segments; there are 6.",
            broken.GetProperty("reason").GetString(),
            StringComparison.Ordinal
        );
        Assert.Contains(
            first.GetProperty("number").GetString(),
            broken.GetProperty("siblings").EnumerateArray().Select(s => s.GetProperty("number").GetString())
        );
        var third = await (await nell.GetAsync($"/api/requests/{siblings[1]}", Cancel)).JsonAsync();
        Assert.Equal([("SWV-GV-10", 8m)], Lines(third).Select(l => (l.Item!, l.Quantity!.Value)));
        // Its own segments only, and the head of the envelope.
        Assert.DoesNotContain(
            "T-1",
            third.GetProperty("parts")[0].GetProperty("part").GetProperty("text").GetString(),
            StringComparison.Ordinal
        );
        // The same file again makes nothing new; the interchange was answered once.
        Assert.Equal(
            first.GetProperty("number").GetString(),
            (await ReceiveAsync(text, "again.edi")).GetProperty("number").GetString()
        );
        var answer = await Answers.EventuallyAsync(() =>
            Directory
                .GetFiles(
                    Path.Combine(house.DataFolder, "outside", "edi", "out"),
                    $"CONTRL-{first.GetProperty("number").GetString()}*"
                )
                .SingleOrDefault()
        );
        Assert.Contains(
            "UCM+2+ORDERS:D:96A:UN+4+29",
            await File.ReadAllTextAsync(answer, Cancel),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Lines_are_split_joined_added_from_the_original_and_left_out()
    {
        var nell = await house.AsAsync(Havergal);
        const string body =
            "Please send 24 pcs LJ-150-AD.\nAnd for the dinghies we thought of eight blue fenders A3, if you have them.";
        var view = await OpenAsync(nell, await ReceiveAsync(Mail(body, "desk-1"), "desk.eml"));
        Assert.Equal([("LJ-150-AD", 24m)], Lines(view).Take(1).Select(l => (l.Item!, l.Quantity!.Value)));
        while (Lines(view).Count() > 1)
            view = await DoAsync(nell, view, $"leave-out/2?version={Version(view)}", new { });

        view = await DoAsync(
            nell,
            view,
            "split",
            new
            {
                version = Version(view),
                line = 1,
                first = 10,
            }
        );
        Assert.Equal([10m, 14m], Lines(view).Select(l => l.Quantity!.Value));
        Assert.Equal("number", (
                await DoAsync(
                    nell,
                    view,
                    "split",
                    new
                    {
                        version = Version(view),
                        line = 1,
                        first = 10,
                    }
                )
            ).GetProperty("code").GetString());
        view = await DoAsync(nell, view, "join", new { version = Version(view), line = 1 });
        Assert.Equal([24m], Lines(view).Select(l => l.Quantity!.Value));
        Assert.Equal(
            "line_last",
            (await DoAsync(nell, view, "join", new { version = Version(view), line = 1 }))
                .GetProperty("code")
                .GetString()
        );

        var text = view.GetProperty("parts")[0].GetProperty("part").GetProperty("text").GetString()!;
        var start = text.IndexOf("eight", StringComparison.Ordinal);
        view = await DoAsync(
            nell,
            view,
            "choose",
            new
            {
                version = Version(view),
                line = 0,
                part = 0,
                start,
                length = "eight blue fenders A3".Length,
            }
        );
        Assert.Equal([("LJ-150-AD", 24m), ("FND-A3-BL", 8m)], Lines(view).Select(l => (l.Item!, l.Quantity!.Value)));
        var evidence = view.GetProperty("reading").GetProperty("lines")[1].GetProperty("quantityEvidence")[0];
        Assert.Equal(
            "eight",
            text.Substring(evidence.GetProperty("start").GetInt32(), evidence.GetProperty("length").GetInt32())
        );
        Assert.Equal("text_chosen", (
                await DoAsync(
                    nell,
                    view,
                    "choose",
                    new
                    {
                        version = Version(view),
                        line = 0,
                        part = 0,
                        start = 0,
                        length = 9_999_999,
                    }
                )
            ).GetProperty("code").GetString());
        Assert.Equal("stale", (
                await DoAsync(
                    nell,
                    view,
                    "split",
                    new
                    {
                        version = 1,
                        line = 1,
                        first = 1,
                    }
                )
            ).GetProperty("code").GetString());
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await (await house.AsAsync(Castellane)).PostAsJsonAsync(
                    $"/api/requests/{view.GetProperty("number").GetString()}/split",
                    new
                    {
                        version = 1,
                        line = 1,
                        first = 1,
                    },
                    Cancel
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task A_date_may_be_given_in_the_words_of_the_original_and_a_kind_corrected()
    {
        var nell = await house.AsAsync(Havergal);
        var view = await OpenAsync(
            nell,
            await ReceiveAsync(Mail("Please send 24 pcs LJ-150-AD before the regatta.", "desk-2"), "desk.eml")
        );
        view = await DoAsync(
            nell,
            view,
            "correct",
            new
            {
                version = Version(view),
                field = "wanted",
                value = "20 March 2027",
                where = new
                {
                    part = 0,
                    start = 0,
                    length = 6,
                },
            }
        );
        Assert.Equal("2027-03-20", view.GetProperty("reading").GetProperty("wanted").GetProperty("value").GetString());
        Assert.Equal("date", (
                await DoAsync(
                    nell,
                    view,
                    "correct",
                    new
                    {
                        version = Version(view),
                        field = "wanted",
                        value = "the regatta",
                    }
                )
            ).GetProperty("code").GetString());
        view = await DoAsync(
            nell,
            view,
            "correct",
            new
            {
                version = Version(view),
                field = "kind",
                value = "requestForQuotation",
            }
        );
        Assert.Equal("requestForQuotation", view.GetProperty("reading").GetProperty("kind").GetString());
        Assert.Equal("kind_unknown", (
                await DoAsync(
                    nell,
                    view,
                    "correct",
                    new
                    {
                        version = Version(view),
                        field = "kind",
                        value = "poem",
                    }
                )
            ).GetProperty("code").GetString());
    }

    [Fact]
    public async Task What_is_settled_for_everybody_reads_the_next_letter_of_anybody_and_is_counted()
    {
        var nell = await house.AsAsync(Havergal);
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
                "/api/records/buyer-codes?filter=frobnicator&columns=buyer,words,item,learnedFrom,helped",
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
        var nell = await house.AsAsync(Havergal);
        static string WithTable(string id, string table) =>
            $"From: Bosun <bosun@oystercatcher.example>\nSubject: order\nMessage-ID: <{id}@test.example>\nMIME-Version: 1.0\nContent-Type: multipart/mixed; boundary=b\n\n--b\nContent-Type: text/plain\n\nOur order is attached.\n--b\nContent-Type: text/csv; name=o.csv\nContent-Disposition: attachment; filename=o.csv\n\n{table}\n--b--\n";
        var view = await OpenAsync(
            nell,
            await ReceiveAsync(
                WithTable("col-1", "Stuff;Heap;Bag\nball fender A3, blue;4;x\nlife-jacket 150 N, adult;2;x"),
                "col.eml"
            )
        );
        Assert.Equal("columns", (
                await DoAsync(
                    nell,
                    view,
                    "columns",
                    new
                    {
                        version = Version(view),
                        part = 1,
                        row = 0,
                        columns = new Dictionary<int, string> { [0] = "words" },
                    }
                )
            ).GetProperty("code").GetString());
        view = await DoAsync(
            nell,
            view,
            "columns",
            new
            {
                version = Version(view),
                part = 1,
                row = 0,
                columns = new Dictionary<int, string> { [0] = "words", [1] = "quantity" },
            }
        );
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
    public async Task Attachments_are_handed_out_inert()
    {
        var nell = await house.AsAsync(Havergal);
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
            (await house.CreateClient().GetAsync($"/api/requests/{number}/attachments/0", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task An_order_of_a_channel_becomes_one_with_its_price_not_held_against_ours()
    {
        var nell = await house.AsAsync(Havergal);
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
        var nell = await house.AsAsync(Havergal);
        async Task<int> CountAsync() =>
            (await (await nell.GetAsync("/api/requests", Cancel)).JsonAsync()).GetArrayLength();
        await house.TakenInAsync();
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
            await ReadCommand.RunAsync([file, "--data", house.DataFolder, "--buyer", "B-0003"], answer, errors)
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
                [file, "--data", house.DataFolder, "--buyer", "nobody"],
                ["--what"],
            }
        )
            Assert.Equal(2, await ReadCommand.RunAsync(wrong, answer, errors));
    }

    [Fact]
    public async Task A_change_is_not_made_into_a_new_order()
    {
        var nell = await house.AsAsync(Havergal);
        var view = await OpenAsync(
            nell,
            await ReceiveAsync(
                Mail("Change to our order PO 4711-9: 6 pcs LJ-150-AD instead of 4.", "desk-change"),
                "desk.eml"
            )
        );
        Assert.Equal("change", view.GetProperty("reading").GetProperty("kind").GetString());
        Assert.Equal(
            "not_to_turn",
            (await DoAsync(nell, view, "turn", new { version = Version(view), intoOrder = true }))
                .GetProperty("code")
                .GetString()
        );
        // Said to be an order, it is one.
        view = await DoAsync(
            nell,
            view,
            "correct",
            new
            {
                version = Version(view),
                field = "kind",
                value = "order",
            }
        );
        Assert.Equal(
            "order",
            (await DoAsync(nell, view, "turn", new { version = Version(view), intoOrder = true }))
                .GetProperty("kind")
                .GetString()
        );
    }

    [Fact]
    public async Task What_a_person_said_of_the_head_stays_when_a_table_is_read_anew()
    {
        var nell = await house.AsAsync(Havergal);
        var view = await OpenAsync(
            nell,
            await ReceiveAsync("Ding;Zahl\nball fender A3, blue;4\nlife-jacket 150 N, adult;2\n", "head.csv")
        );
        view = await DoAsync(
            nell,
            view,
            "correct",
            new
            {
                version = Version(view),
                field = "buyer",
                value = "2",
            }
        );
        view = await DoAsync(
            nell,
            view,
            "correct",
            new
            {
                version = Version(view),
                field = "poNumber",
                value = "MINE-1",
            }
        );
        view = await DoAsync(
            nell,
            view,
            "columns",
            new
            {
                version = Version(view),
                part = 0,
                row = 0,
                columns = new Dictionary<int, string> { [0] = "words", [1] = "quantity" },
            }
        );
        var reading = view.GetProperty("reading");
        Assert.Equal(
            ("Oystercatcher Sailing School", "MINE-1", "settled by Nell Havergal"),
            (
                reading.GetProperty("buyer").GetProperty("value").GetString(),
                reading.GetProperty("poNumber").GetProperty("value").GetString(),
                reading.GetProperty("buyer").GetProperty("how").GetString()
            )
        );
        Assert.Equal([4m, 2m], Lines(view).Select(l => l.Quantity!.Value));
    }

    [Fact]
    public async Task The_count_of_how_often_words_helped_is_not_typed()
    {
        var paz = await house.AsAsync(2);
        var row = (await (await paz.GetAsync("/api/records/buyer-codes?take=1", Cancel)).JsonAsync())
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
