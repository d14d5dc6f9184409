using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Solvenda.Web.Requests;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What a person does with what was read.</summary>
public sealed class ReadingDeskTests(House house) : ReadingCalls(house)
{
    [Fact]
    public async Task Messages_of_one_file_know_each_other_and_a_broken_one_fails_alone()
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
        var nell = await House.AsAsync(Havergal);
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
                    Path.Combine(House.DataFolder, "outside", "edi", "out"),
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
        var nell = await House.AsAsync(Havergal);
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
                await (await House.AsAsync(Castellane)).PostAsJsonAsync(
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
        var nell = await House.AsAsync(Havergal);
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
        Assert.Equal("date", (await CorrectAsync(nell, view, "wanted", "the regatta")).GetProperty("code").GetString());
        view = await CorrectAsync(nell, view, "kind", "requestForQuotation");
        Assert.Equal("requestForQuotation", view.GetProperty("reading").GetProperty("kind").GetString());
        Assert.Equal("kind_unknown", (await CorrectAsync(nell, view, "kind", "poem")).GetProperty("code").GetString());
    }

    [Fact]
    public async Task A_change_is_not_made_into_a_new_order()
    {
        var nell = await House.AsAsync(Havergal);
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
        view = await CorrectAsync(nell, view, "kind", "order");
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
        var nell = await House.AsAsync(Havergal);
        var view = await OpenAsync(
            nell,
            await ReceiveAsync("Ding;Zahl\nball fender A3, blue;4\nlife-jacket 150 N, adult;2\n", "head.csv")
        );
        view = await CorrectAsync(nell, view, "buyer", "2");
        view = await CorrectAsync(nell, view, "poNumber", "MINE-1");
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
}
