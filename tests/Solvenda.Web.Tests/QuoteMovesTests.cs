using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// The table of moves walked through the real host: in every state everything is tried, and what is no move changes
/// nothing.
/// </summary>
public sealed class QuoteMovesTests(House house) : MoneyCalls(house)
{
    private static readonly string[] Doings = ["edit", "send", "revise", "withdraw", "order", "accept", "decline"];

    private static readonly object Letter = new
    {
        to = "fionn@tresselvane.example",
        subject = "walked",
        text = "here: {link}",
    };

    // What each doing is to the table; an edit is allowed while it is open, an order once it is accepted.
    private static bool IsMove(QuoteState state, string doing) =>
        doing switch
        {
            "edit" => QuoteMoves.IsOpen(state),
            "order" => state == QuoteState.Accepted,
            "send" => QuoteMoves.Table.After(state, QuoteDoing.Send) is not null,
            "revise" => QuoteMoves.Table.After(state, QuoteDoing.Revise) is not null,
            "withdraw" => QuoteMoves.Table.After(state, QuoteDoing.Withdraw) is not null,
            "accept" => QuoteMoves.Table.After(state, QuoteDoing.Accept) is not null,
            _ => QuoteMoves.Table.After(state, QuoteDoing.Decline) is not null,
        };

    // A quote in that state, and its buyer's link where it left.
    private async Task<(string Number, string Link)> InAsync(QuoteState state, HttpClient quill)
    {
        var asks = state is QuoteState.InApproval or QuoteState.Cleared;
        var (number, _) = await QuoteAsync(quill, asks ? "BB2-10-NV x 180 m -12%" : "SHK-BOW-10 x 10");
        if (state == QuoteState.Drafting)
            return (number, "none");
        if (state == QuoteState.Withdrawn)
        {
            await DoAsync(quill, number, "none", "withdraw");
            return (number, "none");
        }
        if (asks)
        {
            var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
            var asked = await (
                await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "walked" })
            ).JsonAsync();
            if (state == QuoteState.Cleared)
                (
                    await (await House.AsAsync(Paz)).PostAsJsonAsync(
                        $"/api/asks/{asked.GetProperty("asks")[0].GetProperty("id").GetInt64()}/grant",
                        new { note = "" },
                        Cancel
                    )
                ).EnsureSuccessStatusCode();
            return (number, "none");
        }
        var subject = $"walked {number}";
        var sent = await quill.ActAsync(
            $"/api/quotes/{number}/send",
            await SeenAsync(quill, $"/api/quotes/{number}"),
            new
            {
                to = "fionn@tresselvane.example",
                subject,
                text = "here: {link}",
            }
        );
        sent.EnsureSuccessStatusCode();
        var link = await House.LinkAsync(subject);
        if (state is QuoteState.Accepted or QuoteState.Declined)
            (
                await DoAsync(quill, number, link, state == QuoteState.Accepted ? "accept" : "decline")
            ).EnsureSuccessStatusCode();
        return (number, link);
    }

    private async Task<HttpResponseMessage> DoAsync(HttpClient quill, string number, string link, string doing)
    {
        if (doing is "accept" or "decline")
            return await House
                .CreateClient()
                .PostAsJsonAsync(
                    $"/api/offers/{link}/{doing}",
                    new
                    {
                        name = "Fionn Tressel",
                        poNumber = $"W-{number}",
                        reason = "too dear",
                    },
                    Cancel
                );
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        return doing switch
        {
            "edit" => await quill.ActAsync(
                $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits",
                sheet,
                new[] { new { kind = "add", value = "SHK-BOW-10 x 1" } }
            ),
            "send" => await quill.ActAsync($"/api/quotes/{number}/send", sheet, Letter),
            "withdraw" => await quill.ActAsync($"/api/quotes/{number}/withdraw", sheet, new { reason = "walked" }),
            _ => await quill.PostAsync($"/api/quotes/{number}/{doing}", null, Cancel),
        };
    }

    // All of it that a move could touch.
    private static async Task<string> StandsAsync(HttpClient client, string number)
    {
        var quote = await (await client.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync();
        var sheet = quote.GetProperty("sheet");
        return $"{quote.GetProperty("state")} {quote.GetProperty("revision")} {sheet.GetProperty("version")} {sheet.GetProperty("lines").GetArrayLength()} {sheet.GetProperty("tally")}";
    }

    private static string Name(QuoteState state) => JsonNamingPolicy.CamelCase.ConvertName(state.ToString());

    [Theory]
    [InlineData(QuoteState.Drafting)]
    [InlineData(QuoteState.InApproval)]
    [InlineData(QuoteState.Cleared)]
    [InlineData(QuoteState.WithCustomer)]
    [InlineData(QuoteState.Accepted)]
    [InlineData(QuoteState.Declined)]
    [InlineData(QuoteState.Withdrawn)]
    public async Task What_is_no_move_is_refused_and_changes_nothing(QuoteState state)
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await InAsync(state, quill);
        var stands = await StandsAsync(quill, number);
        Assert.StartsWith(Name(state), stands, StringComparison.Ordinal);
        foreach (var doing in Doings.Where(d => !IsMove(state, d)))
        {
            // A quote that waits may not be sent; the figures may be changed, which takes the ask back.
            var answer = await DoAsync(quill, number, link, doing);
            Assert.True((int)answer.StatusCode is 404 or 409 or 422, $"{doing} in {state}: {answer.StatusCode}");
            Assert.Equal(stands, await StandsAsync(quill, number));
        }
    }

    [Theory]
    [InlineData(QuoteState.Drafting, "send", QuoteState.WithCustomer)]
    [InlineData(QuoteState.Drafting, "withdraw", QuoteState.Withdrawn)]
    [InlineData(QuoteState.InApproval, "withdraw", QuoteState.Withdrawn)]
    [InlineData(QuoteState.Cleared, "send", QuoteState.WithCustomer)]
    [InlineData(QuoteState.Cleared, "withdraw", QuoteState.Withdrawn)]
    [InlineData(QuoteState.WithCustomer, "withdraw", QuoteState.Withdrawn)]
    [InlineData(QuoteState.WithCustomer, "accept", QuoteState.Accepted)]
    [InlineData(QuoteState.WithCustomer, "decline", QuoteState.Declined)]
    public async Task What_is_a_move_is_made(QuoteState from, string doing, QuoteState to)
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await InAsync(from, quill);
        (await DoAsync(quill, number, link, doing)).EnsureSuccessStatusCode();
        Assert.StartsWith(Name(to), await StandsAsync(quill, number), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(QuoteState.WithCustomer)]
    [InlineData(QuoteState.Declined)]
    public async Task A_new_revision_begins_as_the_old_one_was_and_the_old_link_is_over(QuoteState from)
    {
        var quill = await House.AsAsync(Quill);
        var (number, link) = await InAsync(from, quill);
        var before = await SeenAsync(quill, $"/api/quotes/{number}");
        (await DoAsync(quill, number, link, "revise")).EnsureSuccessStatusCode();
        var after = await SeenAsync(quill, $"/api/quotes/{number}");
        Assert.StartsWith("drafting", await StandsAsync(quill, number), StringComparison.Ordinal);
        Assert.Equal(before.GetProperty("tally").GetRawText(), after.GetProperty("tally").GetRawText());
        var old = await (await House.CreateClient().GetAsync($"/api/offers/{link}", Cancel)).JsonAsync();
        Assert.False(old.GetProperty("open").GetBoolean());
        Assert.NotEmpty(old.GetProperty("why").GetString()!);
    }

    [Fact]
    public async Task Changing_what_waits_or_was_granted_makes_it_a_draft_only_where_it_is_worse()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await InAsync(QuoteState.Cleared, quill);
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        var line = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(quill, sheet, "discount", "11", line);
        Assert.Equal("granted", State(sheet));
        Assert.StartsWith("cleared", await StandsAsync(quill, number), StringComparison.Ordinal);
        sheet = await SetAsync(quill, sheet, "discount", "13", line);
        Assert.Equal("needed", State(sheet));
        Assert.StartsWith("drafting", await StandsAsync(quill, number), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Reasons_are_asked_for_and_kept()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await InAsync(QuoteState.Drafting, quill);
        var sheet = await SeenAsync(quill, $"/api/quotes/{number}");
        var refused = await quill.ActAsync($"/api/quotes/{number}/withdraw", sheet, new { reason = "  " });
        Assert.Equal("reason_missing", await refused.CodeAsync());
        (
            await quill.ActAsync($"/api/quotes/{number}/withdraw", sheet, new { reason = "bought elsewhere" })
        ).EnsureSuccessStatusCode();
        var history = await (
            await quill.GetAsync($"/api/dossiers/{await DossierAsync(quill, number)}/history", Cancel)
        ).Content.ReadAsStringAsync(Cancel);
        Assert.Contains("bought elsewhere", history, StringComparison.Ordinal);
    }

    private static async Task<string> DossierAsync(HttpClient client, string number) =>
        (await (await client.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync())
            .GetProperty("dossier")
            .GetString()!;

    [Fact]
    public async Task Sending_with_the_same_key_sends_once_and_answers_the_same()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await InAsync(QuoteState.Drafting, quill);
        var version = (await SeenAsync(quill, $"/api/quotes/{number}")).GetProperty("version").GetInt64();
        Task<HttpResponseMessage> SendAsync()
        {
            var request = new HttpRequestMessage(HttpMethod.Post, $"/api/quotes/{number}/send")
            {
                Content = JsonContent.Create(Letter),
            };
            request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
            request.Headers.Add("Idempotency-Key", $"sent-{number}");
            return quill.SendAsync(request, Cancel);
        }
        var answers = await Task.WhenAll(SendAsync(), SendAsync(), SendAsync());
        Assert.All(answers, a => a.EnsureSuccessStatusCode());
        var again = await SendAsync();
        again.EnsureSuccessStatusCode();
        var sent = await House.DbAsync(db => db.Outbox.Select(o => o.Key).ToListAsync(Cancel));
        Assert.Single(sent, key => key.StartsWith(number, StringComparison.OrdinalIgnoreCase));
    }
}
