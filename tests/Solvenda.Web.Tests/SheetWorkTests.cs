using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>A day's work on a sheet: headings, places, options, other money, and stops that are let pass.</summary>
public sealed class SheetWorkTests(House house) : MoneyCalls(house)
{
    private const long Nordvass = 9;

    private static long Key(JsonElement sheet, int at) => sheet.GetProperty("lines")[at].GetProperty("key").GetInt64();

    private static List<string> Lines(JsonElement sheet) =>
        [
            .. sheet
                .GetProperty("lines")
                .EnumerateArray()
                .Select(l =>
                    l.GetProperty("kind").GetString() == "heading"
                        ? $"# {l.GetProperty("words").GetString()}"
                        : l.GetProperty("code").GetString()!
                ),
        ];

    [Fact]
    public async Task Headings_stand_between_lines_and_lines_move_past_them()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 2", "THM-SS-12 x 4");
        sheet = await quill.EditAsync(sheet, new { kind = "addHeading", value = "For the deck" });
        Assert.Equal(["SHK-BOW-10", "THM-SS-12", "# For the deck"], Lines(sheet));
        var total = Total(sheet);
        sheet = await quill.EditAsync(
            sheet,
            new
            {
                kind = "move",
                line = Key(sheet, 2),
                after = (long?)null,
            }
        );
        Assert.Equal(["# For the deck", "SHK-BOW-10", "THM-SS-12"], Lines(sheet));
        sheet = await quill.EditAsync(
            sheet,
            new
            {
                kind = "move",
                line = Key(sheet, 1),
                after = Key(sheet, 2),
            }
        );
        Assert.Equal(["# For the deck", "THM-SS-12", "SHK-BOW-10"], Lines(sheet));
        // A place costs nothing, and words of a heading are its own.
        Assert.Equal(total, Total(sheet));
        sheet = await SetAsync(quill, sheet, "words", "On deck", Key(sheet, 0));
        Assert.Equal("# On deck", Lines(sheet)[0]);
        sheet = await (await quill.UndoAsync(sheet)).SheetAsync();
        Assert.Equal("# For the deck", Lines(sheet)[0]);
    }

    [Fact]
    public async Task An_option_counts_for_nothing_until_it_is_wanted()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 2", "THM-SS-12 x 4");
        var whole = Total(sheet);
        var optional = await SetAsync(quill, sheet, "optional", "true", Key(sheet, 1));
        Assert.True(Total(optional) < whole);
        Assert.Equal(whole, Total(await SetAsync(quill, optional, "optional", "false", Key(optional, 1))));
    }

    [Fact]
    public async Task A_line_taken_off_takes_its_money_and_comes_back_with_undo()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 2", "THM-SS-12 x 4");
        var gone = await quill.EditAsync(sheet, new { kind = "remove", line = Key(sheet, 0) });
        Assert.Equal(["THM-SS-12"], Lines(gone));
        Assert.True(Total(gone) < Total(sheet));
        var back = await (await quill.UndoAsync(gone)).SheetAsync();
        Assert.Equal(Lines(sheet), Lines(back));
        Assert.Equal(Total(sheet), Total(back));
    }

    private static async Task<(string Number, JsonElement Sheet)> InKronorAsync(HttpClient client)
    {
        var made = await client.PostAsJsonAsync("/api/quotes", new { buyerId = Nordvass, matter = "kronor" }, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(client, $"/api/quotes/{number}");
        return (number, await client.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-10 x 40" }));
    }

    [Fact]
    public async Task A_rate_that_moves_moves_what_is_drafted_and_not_what_was_offered()
    {
        var (mohr, paz) = (await House.AsAsync(Mohr), await House.AsAsync(Paz));
        var (sent, sheet) = await InKronorAsync(mohr);
        Assert.Equal("SEK", sheet.GetProperty("currency").GetString());
        var letter = new
        {
            to = "inkop@nordvass.example",
            subject = "in kronor",
            text = "{link}",
        };
        var offered = await (await mohr.ActAsync($"/api/quotes/{sent}/send", sheet, letter)).SheetAsync();
        var (drafted, draft) = await InKronorAsync(mohr);
        Assert.Equal(Total(offered), Total(draft));
        var rate = await paz.PostAsJsonAsync(
            "/api/records/rates",
            new
            {
                values = new
                {
                    currency = "SEK",
                    day = House.Time.GetUtcNow().ToString("yyyy-MM-dd", null),
                    rate = "0.05",
                },
            },
            Cancel
        );
        Assert.True(rate.IsSuccessStatusCode, await rate.Content.ReadAsStringAsync(Cancel));
        Assert.Equal(Total(offered), Total(await SeenAsync(mohr, $"/api/quotes/{sent}")));
        Assert.True(Total(await SeenAsync(mohr, $"/api/quotes/{drafted}")) > Total(offered) * 1.2m);
    }

    [Fact]
    public async Task A_stop_is_let_pass_by_who_may_with_a_reason_and_covers_no_more_than_it_did()
    {
        var (quill, stroud) = (await House.AsAsync(Quill), await House.AsAsync(Stroud));
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 4000");
        sheet = await SetAsync(quill, sheet, "poNumber", "W-" + number);
        Assert.Contains("credit", Checks(sheet));
        var path = $"/api/orders/{number}/waive";
        object Waive(string reason) =>
            new
            {
                check = "credit",
                line = (long?)null,
                reason,
            };
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.PostAsJsonAsync(path, Waive("please"), Cancel)).StatusCode);
        Assert.Equal("reason_missing", await (await stroud.PostAsJsonAsync(path, Waive("  "), Cancel)).CodeAsync());
        Assert.Equal(
            "no_such_stop",
            await (
                await stroud.PostAsJsonAsync(
                    path,
                    new
                    {
                        check = "repeat",
                        line = (long?)null,
                        reason = "x",
                    },
                    Cancel
                )
            ).CodeAsync()
        );
        var passed = await stroud.PostAsJsonAsync(path, Waive("paid by phone this morning"), Cancel);
        Assert.Equal(HttpStatusCode.OK, passed.StatusCode);
        var seen = await SeenAsync(quill, $"/api/orders/{number}");
        Assert.DoesNotContain("credit", Checks(seen));
        // A bigger order is more than was let pass; a smaller one is less.
        var more = await SetAsync(quill, seen, "quantity", "9000", Key(seen, 0));
        Assert.Contains("credit", Checks(more));
        var less = await SetAsync(quill, more, "quantity", "3900", Key(more, 0));
        Assert.DoesNotContain("credit", Checks(less));
    }

    private static IEnumerable<string> Checks(JsonElement sheet) => Stops(sheet).Select(s => s.Split('/')[0]);
}
