using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Asking, and everything that can be answered: with whom an ask is, and what becomes of the quote.</summary>
public sealed class AskTests(House house) : MoneyCalls(house)
{
    private const long Oduya = 1;

    private static async Task<(string Number, long Ask)> AskedAsync(HttpClient who, string line, bool urgent = false)
    {
        var (number, sheet) = await QuoteAsync(who, line);
        var asked = await who.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "a good buyer", urgent });
        Assert.Equal(HttpStatusCode.OK, asked.StatusCode);
        return (number, (await asked.JsonAsync()).GetProperty("asks")[0].GetProperty("id").GetInt64());
    }

    private static Task<HttpResponseMessage> DoAsync(HttpClient who, long ask, string what, object body) =>
        who.PostAsJsonAsync($"/api/asks/{ask}/{what}", body, Cancel);

    private static async Task<JsonElement> ViewAsync(HttpClient who, long ask) =>
        await (await who.GetAsync($"/api/asks/{ask}", Cancel)).JsonAsync();

    private static async Task<string> StateAsync(HttpClient who, string quote) =>
        (await (await who.GetAsync($"/api/quotes/{quote}", Cancel)).JsonAsync()).GetProperty("state").GetString()!;

    private async Task<List<long>> HoldersAsync(long ask) =>
        await House.DbAsync(db =>
            db.AskHolders.Where(h => h.AskId == ask).Select(h => h.PersonId).Order().ToListAsync(Cancel)
        );

    private Task<string> MovedAsync(string number) =>
        House.DbAsync(async db =>
            string.Join(
                '\n',
                await db
                    .Events.Where(e => e.Subject == number && e.Code == "ask.moved")
                    .Select(e => e.Facts)
                    .ToListAsync(Cancel)
            )
        );

    // The house's own worker does the same each minute; whichever is first.
    private Task<bool> MoveAsync(long ask) =>
        House.Services.GetRequiredService<ActRunner>().RunAsync(Actor.House, new MoveAskOn(ask), Cancel);

    [Fact]
    public async Task Granted_up_to_a_figure_the_quote_goes_back_and_is_cleared_by_that_much_alone()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var (number, ask) = await AskedAsync(quill, "BB2-10-NV x 180 m -12%");
        // Neither more than was asked, nor something that was not.
        foreach (
            var wrong in new object[]
            {
                new { figure = "discount", upTo = 12m },
                new { figure = "discount", upTo = 15m },
                new { figure = "discount", upTo = -1m },
                new { figure = "terms", upTo = 5m },
                new { figure = "floor", upTo = 0m },
            }
        )
            Assert.Equal(HttpStatusCode.UnprocessableEntity, (await DoAsync(paz, ask, "grant", wrong)).StatusCode);
        Assert.Equal("inApproval", await StateAsync(quill, number));
        var granted = await DoAsync(paz, ask, "grant", new { figure = "discount", upTo = 10m });
        Assert.Equal(HttpStatusCode.OK, granted.StatusCode);
        Assert.Equal("drafting", await StateAsync(quill, number));
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        Assert.Equal("needed", State(sheet));
        var key = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        Assert.Equal("needed", State(sheet = await SetAsync(quill, sheet, "discount", "10.1", key)));
        Assert.Equal("granted", State(await SetAsync(quill, sheet, "discount", "10", key)));
        Assert.Equal("10.0 %", (await ViewAsync(quill, ask)).GetProperty("upTo").GetString());
    }

    [Fact]
    public async Task A_question_back_decides_nothing_and_waits_for_the_one_who_asked()
    {
        var (quill, paz, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Paz), await House.AsAsync(Mohr));
        var (number, ask) = await AskedAsync(quill, "BB2-10-NV x 180 m -12%");
        Assert.Equal(HttpStatusCode.Forbidden, (await DoAsync(mohr, ask, "talk", new { words = "hm" })).StatusCode);
        Assert.Equal(
            HttpStatusCode.OK,
            (await DoAsync(paz, ask, "talk", new { words = "Who offers less?" })).StatusCode
        );
        Assert.Null(await House.DbAsync(db => db.Asks.Where(a => a.Id == ask).Select(a => a.DueAt).FirstAsync(Cancel)));
        var desk = (await (await quill.GetAsync("/api/desk", Cancel)).JsonAsync()).GetProperty("items");
        Assert.Contains(desk.EnumerateArray(), i => i.GetProperty("path").GetString() == $"/asks/{ask}");
        var view = await ViewAsync(quill, ask);
        Assert.Equal("Who offers less?", view.GetProperty("question").GetString());
        Assert.True(view.GetProperty("may").GetProperty("answer").GetBoolean());
        Assert.False(view.GetProperty("may").GetProperty("decide").GetBoolean());
        Assert.Equal(
            HttpStatusCode.OK,
            (await DoAsync(quill, ask, "talk", new { words = "A yard next door." })).StatusCode
        );
        view = await ViewAsync(paz, ask);
        Assert.Equal(JsonValueKind.Null, view.GetProperty("question").ValueKind);
        Assert.Equal(
            ["a good buyer", "Who offers less?", "A yard next door."],
            view.GetProperty("said").EnumerateArray().Select(s => s.GetProperty("words").GetString())
        );
        Assert.Equal("inApproval", await StateAsync(quill, number));
        Assert.Equal(HttpStatusCode.OK, (await DoAsync(paz, ask, "grant", new { })).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await DoAsync(paz, ask, "talk", new { words = "one more" })).StatusCode);
    }

    [Fact]
    public async Task Passed_on_it_is_somebody_elses_and_goes_only_to_who_may()
    {
        var (quill, paz, oduya) = (await House.AsAsync(Quill), await House.AsAsync(Paz), await House.AsAsync(Oduya));
        var (_, ask) = await AskedAsync(quill, "BB2-10-NV x 180 m -12%");
        var to = (await ViewAsync(paz, ask))
            .GetProperty("to")
            .EnumerateArray()
            .Select(t => t.GetProperty("id").GetInt64());
        Assert.Equal([Oduya], to);
        foreach (var wrong in new[] { Quill, Havergal, Mohr, Paz })
            Assert.Equal(
                HttpStatusCode.UnprocessableEntity,
                (await DoAsync(paz, ask, "pass-on", new { to = wrong })).StatusCode
            );
        Assert.Equal(HttpStatusCode.Forbidden, (await DoAsync(quill, ask, "pass-on", new { to = Oduya })).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await DoAsync(paz, ask, "pass-on", new { to = Oduya })).StatusCode);
        Assert.Equal([Oduya], await HoldersAsync(ask));
        Assert.Equal(HttpStatusCode.OK, (await DoAsync(oduya, ask, "grant", new { })).StatusCode);
    }

    [Fact]
    public async Task Who_asked_takes_it_back_and_nobody_else_does()
    {
        var (quill, paz, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Paz), await House.AsAsync(Mohr));
        var (number, ask) = await AskedAsync(quill, "BB2-10-NV x 180 m -12%");
        foreach (var other in new[] { paz, mohr })
            Assert.Equal(HttpStatusCode.Forbidden, (await DoAsync(other, ask, "withdraw", new { })).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await DoAsync(quill, ask, "withdraw", new { })).StatusCode);
        Assert.Equal("drafting", await StateAsync(quill, number));
        Assert.Equal(HttpStatusCode.Conflict, (await DoAsync(paz, ask, "grant", new { })).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await DoAsync(quill, ask, "withdraw", new { })).StatusCode);
    }

    [Fact]
    public async Task Several_are_granted_together_or_none_of_them()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var (first, one) = await AskedAsync(quill, "BB2-10-NV x 180 m -12%");
        var (second, two) = await AskedAsync(quill, "BB2-10-NV x 150 m -11%");
        var (third, three) = await AskedAsync(await House.AsAsync(Paz), "BB2-10-NV x 150 m -16%");
        Task<HttpResponseMessage> AllAsync(params long[] asks) =>
            paz.PostAsJsonAsync("/api/asks/grant", new { asks }, Cancel);
        // From each the next in turn, and from the last the first: all of them are come by.
        var mine = new HashSet<long>();
        for (long at = one; mine.Add(at); )
            at = (await ViewAsync(paz, at)).GetProperty("place").GetProperty("next").GetInt64();
        Assert.Equal((await ViewAsync(paz, one)).GetProperty("place").GetProperty("waiting").GetInt32(), mine.Count);
        // The third is his own.
        Assert.Equal(HttpStatusCode.Forbidden, (await AllAsync(one, two, three)).StatusCode);
        Assert.Equal("inApproval", await StateAsync(quill, first));
        Assert.Equal(HttpStatusCode.OK, (await AllAsync(one, two)).StatusCode);
        Assert.Equal(("cleared", "cleared"), (await StateAsync(quill, first), await StateAsync(quill, second)));
        Assert.Equal(HttpStatusCode.Conflict, (await AllAsync(one)).StatusCode);
        Assert.Equal("inApproval", await StateAsync(quill, third));
    }

    [Fact]
    public async Task Sent_back_it_names_the_lines_that_it_is_about()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var (number, ask) = await AskedAsync(quill, "BB2-10-NV x 180 m -12%");
        var key = (await ViewAsync(paz, ask)).GetProperty("lines")[0].GetProperty("key").GetInt64();
        var back = await DoAsync(paz, ask, "send-back", new { note = "not under 2.00", marks = new[] { key, 99_999 } });
        Assert.Equal(HttpStatusCode.OK, back.StatusCode);
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        var mark = Assert.Single(
            sheet.GetProperty("findings").EnumerateArray(),
            f => f.GetProperty("check").GetString() == "sent-back"
        );
        Assert.Equal(key, mark.GetProperty("line").GetInt64());
        Assert.Contains("not under 2.00", mark.GetProperty("words").GetString(), StringComparison.Ordinal);
        // Asked again, what changed is said first.
        sheet = await SetAsync(quill, sheet, "discount", "11", key);
        var again = await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "they take it today" });
        var next = (await again.JsonAsync()).GetProperty("asks").EnumerateArray().Last().GetProperty("id").GetInt64();
        var since = (await ViewAsync(paz, next)).GetProperty("sinceLast").EnumerateArray().Select(s => s.GetString()!);
        Assert.Equal("sent back: “not under 2.00”", since.First());
        Assert.Contains(since, s => s.EndsWith("12 % became 11 %", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Each_level_says_yes_in_turn_and_nobody_out_of_turn()
    {
        await House.DbAsync(async db =>
        {
            db.Policies.Add(
                new PolicyRow
                {
                    Code = "deep",
                    Figure = "discount",
                    Route = RouteKind.EachLevel,
                    Conditions = "discount > 15",
                    Holds = true,
                }
            );
            return await db.SaveChangesAsync(Cancel);
        });
        var (quill, paz, oduya) = (await House.AsAsync(Quill), await House.AsAsync(Paz), await House.AsAsync(Oduya));
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 20 m -17%");
        await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "once" });
        var asks = await House.DbAsync(db =>
            db.Asks.Where(a => a.Subject == number).Select(a => new { a.Id, a.Steps }).ToListAsync(Cancel)
        );
        var deep = Assert.Single(asks, a => a.Steps == "2|1").Id;
        Assert.Equal([Paz], await HoldersAsync(deep));
        Assert.Equal(HttpStatusCode.Forbidden, (await DoAsync(oduya, deep, "grant", new { })).StatusCode);
        // How far it goes is not for the first of two to say.
        Assert.Equal(
            "up_to",
            await (await DoAsync(paz, deep, "grant", new { figure = "discount", upTo = 10m })).CodeAsync()
        );
        Assert.Equal(HttpStatusCode.OK, (await DoAsync(paz, deep, "grant", new { })).StatusCode);
        Assert.Equal([Oduya], await HoldersAsync(deep));
        Assert.Equal(HttpStatusCode.Forbidden, (await DoAsync(paz, deep, "grant", new { })).StatusCode);
        Assert.Equal("inApproval", await StateAsync(quill, number));
        foreach (var ask in asks)
            Assert.Equal(HttpStatusCode.OK, (await DoAsync(oduya, ask.Id, "grant", new { })).StatusCode);
        Assert.Equal("cleared", await StateAsync(quill, number));
        await House.DbAsync(db => db.Policies.Where(p => p.Code == "deep").ExecuteDeleteAsync(Cancel));
    }

    [Fact]
    public async Task Nobody_answers_and_it_climbs_by_working_hours_and_is_never_granted_by_silence()
    {
        var quill = await House.AsAsync(Quill);
        var (number, ask) = await AskedAsync(quill, "BB2-10-NV x 180 m -12%");
        await MoveAsync(ask);
        Assert.Equal([Paz], await HoldersAsync(ask));
        // Asked on a Thursday morning, eight working hours are over on Friday.
        House.Time.TurnOn(TimeSpan.FromHours(20));
        await MoveAsync(ask);
        Assert.Equal([Paz], await HoldersAsync(ask));
        House.Time.TurnOn(TimeSpan.FromHours(12));
        await MoveAsync(ask);
        Assert.Equal([Oduya], await HoldersAsync(ask));
        // Over the weekend nothing is overdue; after it she is reminded, for nobody stands above her.
        House.Time.TurnOn(TimeSpan.FromHours(48));
        await MoveAsync(ask);
        Assert.DoesNotContain("reminded", await MovedAsync(number));
        House.Time.TurnOn(TimeSpan.FromHours(48));
        await MoveAsync(ask);
        Assert.Contains("reminded", await MovedAsync(number));
        Assert.Equal([Oduya], await HoldersAsync(ask));
        House.Time.TurnOn(-TimeSpan.FromHours(128));
        Assert.Equal("inApproval", await StateAsync(quill, number));
    }

    [Fact]
    public async Task Who_is_away_has_a_stand_in_as_far_as_that_one_may()
    {
        var quill = await House.AsAsync(Quill);
        var (_, small) = await AskedAsync(quill, "SHK-BOW-10 x 10 -8.5%");
        var day = DateOnly.FromDateTime(House.Time.GetUtcNow().UtcDateTime);
        // Havergal stands in; she may give 5 %, so it is beyond her, and goes on to the director.
        await House.DbAsync(async db =>
        {
            db.Absences.Add(
                new AbsenceRow
                {
                    PersonId = Paz,
                    From = day,
                    To = day,
                    StandInId = Havergal,
                }
            );
            return await db.SaveChangesAsync(Cancel);
        });
        await MoveAsync(small);
        Assert.Equal([Oduya], await HoldersAsync(small));
        await House.DbAsync(db => db.Absences.Where(a => a.To == day).ExecuteDeleteAsync(Cancel));
    }

    [Fact]
    public async Task An_ask_is_seen_by_those_whom_it_concerns()
    {
        var (_, ask) = await AskedAsync(await House.AsAsync(Quill), "BB2-10-NV x 180 m -12%", urgent: true);
        foreach (var who in new[] { Quill, Paz, Oduya, Havergal, Stroud })
            Assert.Equal(
                HttpStatusCode.OK,
                (await (await House.AsAsync(who)).GetAsync($"/api/asks/{ask}", Cancel)).StatusCode
            );
        foreach (var who in new[] { Mohr, Castellane, 9L, 10L })
            Assert.Equal(
                HttpStatusCode.Forbidden,
                (await (await House.AsAsync(who)).GetAsync($"/api/asks/{ask}", Cancel)).StatusCode
            );
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await House.CreateClient().GetAsync($"/api/asks/{ask}", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task The_letter_names_the_ask_and_signs_nobody_in()
    {
        var (_, ask) = await AskedAsync(await House.AsAsync(Quill), "BB2-10-NV x 180 m -12%");
        var letter = await House.DbAsync(db =>
            db.Outbox.Where(o => o.Key == $"ask-{ask}-2").Select(o => o.Payload).SingleAsync(Cancel)
        );
        var text = System.Text.Encoding.UTF8.GetString(letter);
        Assert.Contains($"/asks/{ask}", text, StringComparison.Ordinal);
        Assert.Contains("paz@brinemoor.example", text, StringComparison.Ordinal);
        // A mail scanner that follows it changes nothing.
        var visit = await House.CreateClient().GetAsync($"/asks/{ask}", Cancel);
        Assert.DoesNotContain("Set-Cookie", visit.Headers.Select(h => h.Key));
        Assert.Equal([Paz], await HoldersAsync(ask));
    }

    [Fact]
    public async Task What_was_decided_about_a_document_is_printed_for_an_auditor_and_shown_to_no_seller()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -12%");
        var asked = await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "an offer from elsewhere" });
        var ask = (await asked.JsonAsync()).GetProperty("asks")[0].GetProperty("id").GetInt64();
        await paz.PostAsJsonAsync($"/api/asks/{ask}/grant", new { note = "this once" }, Cancel);
        var path = $"/api/setup/decisions/{number}";
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.GetAsync(path, Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await paz.GetAsync("/api/setup/decisions/Q00-1", Cancel)).StatusCode);
        var words = HouseTests.PdfWords(await paz.GetByteArrayAsync(path, Cancel));
        foreach (var said in new[] { "offer from elsewhere", "this once", "granted by Leandro Paz", "12 % discount" })
            Assert.Contains(said, words, StringComparison.Ordinal);
        var hash = await House.DbAsync(db =>
            db.Events.Where(e => e.Subject == number && e.Code == "ask.granted").Select(e => e.Hash).FirstAsync(Cancel)
        );
        Assert.Contains(hash[..40], words.Replace(" ", "", StringComparison.Ordinal), StringComparison.Ordinal);
    }
}
