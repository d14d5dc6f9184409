using System.Net;
using System.Net.Http.Json;
using System.Text;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Ways;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Requests in people's hands: brought, handed on, answered.</summary>
public sealed class QueueTests(House house) : QueueCalls(house)
{
    [Fact]
    public async Task A_request_is_taken_handed_on_and_laid_back()
    {
        var number = (await ReceiveAsync(Order("WAY-11"), "way11.x12")).GetProperty("number").GetString()!;
        await WeighedAsync(number);
        var nell = await House.AsAsync(Havergal);
        Task<HttpResponseMessage> HandAsync(long? to) =>
            nell.PostAsJsonAsync($"/api/requests/{number}/hand", new { to }, Cancel);
        var taken = await (await HandAsync(Havergal)).JsonAsync();
        Assert.Equal("Nell Havergal", taken.GetProperty("hand").GetProperty("name").GetString());
        await HandAsync(Quill);
        Assert.Equal(
            Quill,
            await House.DbAsync(db =>
                db.Requests.Where(r => r.Number == number).Select(r => r.HandId).SingleAsync(Cancel)
            )
        );
        // A planner reads no requests.
        Assert.Equal("not_theirs", await (await HandAsync(Castellane)).CodeAsync());
        await HandAsync(null);
        Assert.Null(
            await House.DbAsync(db =>
                db.Requests.Where(r => r.Number == number).Select(r => r.HandId).SingleAsync(Cancel)
            )
        );
    }

    [Fact]
    public async Task A_letter_is_answered_in_its_own_thread_and_waits_for_nobody_since()
    {
        const string Mail =
            "From: Pat Orr <pat@orr.example>\r\nTo: orders@brinemoor.example\r\nSubject: opening hours\r\n"
            + "Message-ID: <way-12@orr.example>\r\nContent-Type: text/plain\r\n\r\nHello, when are you open? Pat\r\n";
        var number = (await ReceiveAsync(Mail, "way12.eml")).GetProperty("number").GetString()!;
        await WeighedAsync(number);
        var nell = await House.AsAsync(Havergal);
        var choices = await (await nell.GetAsync($"/api/requests/{number}/answers", Cancel)).JsonAsync();
        Assert.Equal("pat@orr.example", choices.GetProperty("to").GetString());
        var seen = await (await nell.GetAsync($"/api/requests/{number}", Cancel)).JsonAsync();
        var answer = new
        {
            version = seen.GetProperty("version").GetInt64(),
            to = "",
            subject = "Re: opening hours",
            text = "From eight to five.",
            done = true,
        };
        var sent = await (await nell.PostAsJsonAsync($"/api/requests/{number}/answers", answer, Cancel)).JsonAsync();
        Assert.Equal("answered", sent.GetProperty("state").GetString());
        Assert.Equal("From eight to five.", sent.GetProperty("answers")[0].GetProperty("text").GetString());
        var key = $"{number}.answer.1".ToLowerInvariant();
        var letter = await House.DbAsync(db => db.Outbox.AsNoTracking().SingleAsync(o => o.Key == key, Cancel));
        var text = Encoding.UTF8.GetString(letter.Payload);
        Assert.Contains("In-Reply-To: <way-12@orr.example>", text, StringComparison.Ordinal);
        Assert.Contains("From eight to five.", text, StringComparison.Ordinal);
        // Once is enough.
        Assert.Equal(
            "request_done",
            await (await nell.PostAsJsonAsync($"/api/requests/{number}/answers", answer, Cancel)).CodeAsync()
        );
    }

    [Fact]
    public async Task A_file_dropped_onto_the_queue_is_a_request_and_the_same_again_is_the_same()
    {
        var nell = await House.AsAsync(Havergal);
        Task<HttpResponseMessage> DropAsync(HttpClient who, string text) =>
            who.PostAsync(
                "/api/requests/files?filename=drop.x12",
                new ByteArrayContent(Encoding.ASCII.GetBytes(text)),
                Cancel
            );
        var first = await (await DropAsync(nell, Order("WAY-13"))).JsonAsync();
        Assert.True(first.GetProperty("isNew").GetBoolean());
        var again = await (await DropAsync(nell, Order("WAY-13"))).JsonAsync();
        Assert.False(again.GetProperty("isNew").GetBoolean());
        Assert.Equal(first.GetProperty("number").GetString(), again.GetProperty("number").GetString());
        Assert.Equal("file_empty", await (await DropAsync(nell, "")).CodeAsync());
        var castellane = await House.AsAsync(Castellane);
        Assert.Equal(HttpStatusCode.Forbidden, (await DropAsync(castellane, Order("WAY-14"))).StatusCode);
    }

    private async Task<int> TakeAsync(string file)
    {
        using var taking = System.Diagnostics.Process.Start(
            new System.Diagnostics.ProcessStartInfo(
                Path.Combine(Folders.Root(), "solvenda"),
                ["take", file, "--data", House.DataFolder]
            )
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        await taking.WaitForExitAsync(Cancel);
        return taking.ExitCode;
    }

    [Fact]
    public async Task A_file_laid_by_the_command_is_taken_and_put_away()
    {
        var name = $"take-{Guid.NewGuid():N}.x12";
        var file = Path.Combine(Path.GetTempPath(), name);
        await File.WriteAllTextAsync(file, Order("WAY-15"), Cancel);
        try
        {
            Assert.Equal(0, await TakeAsync(file));
            var number = await Answers.EventuallyAsync(() =>
                House.DbAsync(db =>
                    db.Requests.Where(r => r.Channel == "file" && r.Raw.Filename!.EndsWith(name))
                        .Select(r => r.Number)
                        .FirstOrDefaultAsync(Cancel)
                )
            );
            Assert.NotEqual("", number);
            Assert.Equal(1, await TakeAsync(file + ".gone"));
        }
        finally
        {
            File.Delete(file);
        }
    }

    [Fact]
    public async Task A_way_that_is_closed_takes_nothing_by_any_door_and_says_so()
    {
        var whitlock = await House.AsAsync(10);
        async Task SayAsync(bool open)
        {
            var said = new WaySaid("file", null, open, false, 90, [], false, null);
            var seen = await House.DbAsync(db =>
                db.Ways.Where(w => w.Channel == "file").Select(w => w.Version).FirstOrDefaultAsync(Cancel)
            );
            var set = await whitlock.PostAsJsonAsync("/api/setup/ways", new { said, seen }, Cancel);
            Assert.True(set.IsSuccessStatusCode, await set.Content.ReadAsStringAsync(Cancel));
        }
        var nell = await House.AsAsync(Havergal);
        Task<HttpResponseMessage> DropAsync() =>
            nell.PostAsync(
                "/api/requests/files?filename=closed.x12",
                new ByteArrayContent(Encoding.ASCII.GetBytes(Order("WAY-17"))),
                Cancel
            );
        await SayAsync(open: false);
        Assert.Equal("way_closed", await (await DropAsync()).CodeAsync());
        await SayAsync(open: true);
        Assert.Equal(HttpStatusCode.OK, (await DropAsync()).StatusCode);
    }
}
