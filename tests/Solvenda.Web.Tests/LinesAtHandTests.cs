using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Lines that are not read again, and not sent again, are the same as if they were.</summary>
public sealed class LinesAtHandTests(House house) : MoneyCalls(house)
{
    private static readonly string[] Three = ["BB2-10-NV x 180 m -2%", "SHK-BOW-10 x 12", "SVC-EYE x 4"];

    private static long Key(JsonElement sheet, int at) => sheet.GetProperty("lines")[at].GetProperty("key").GetInt64();

    private static object Quantity(JsonElement sheet, int line, string value) =>
        new
        {
            kind = "set",
            line = Key(sheet, line),
            field = "quantity",
            value,
        };

    private static Task<HttpResponseMessage> EditAsync(HttpClient client, JsonElement sheet, object edit) =>
        client.ActAsync($"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits", sheet, new[] { edit });

    private static async Task<JsonElement> EditAsync(HttpClient client, JsonElement sheet, object edit, string shown)
    {
        using var request = new HttpRequestMessage(
            HttpMethod.Post,
            $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits"
        )
        {
            Content = JsonContent.Create(new[] { edit }),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{sheet.GetProperty("version").GetInt64()}\"");
        request.Headers.Add("Solvenda-Shown", shown);
        return await (await client.SendAsync(request, Cancel)).JsonAsync();
    }

    private static string[] Lines(JsonElement sheet) =>
        [.. sheet.GetProperty("lines").EnumerateArray().Select(l => l.GetRawText())];

    [Fact]
    public async Task What_another_process_wrote_is_seen_and_kept_whoever_has_the_lines_at_hand()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, Three);
        sheet = await (await EditAsync(quill, sheet, Quantity(sheet, 0, "200"))).SheetAsync();
        var id = sheet.GetProperty("id").GetInt64();
        await House.DbAsync(async db =>
        {
            var row = await db.Sheets.Include(s => s.StoredLines).SingleAsync(s => s.Id == id, Cancel);
            row.StoredLines.Single(l => l.Key == Key(sheet, 1)).Quantity = 77m;
            row.Remove(row.StoredLines.Single(l => l.Key == Key(sheet, 2)));
            return await db.SaveChangesAsync(Cancel);
        });
        using var stale = await EditAsync(quill, sheet, Quantity(sheet, 0, "210"));
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
        var now = await SeenAsync(quill, $"/api/quotes/{number}");
        Assert.Equal(sheet.GetProperty("version").GetInt64() + 1, now.GetProperty("version").GetInt64());
        now = await (await EditAsync(quill, now, Quantity(now, 0, "210"))).SheetAsync();
        Assert.Equal(
            [210m, 77m],
            now.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("quantity").GetDecimal())
        );
    }

    [Fact]
    public async Task What_was_refused_leaves_nothing_behind_and_lines_come_and_go_as_if_they_were_read()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, Three);
        object[] edits =
        [
            Quantity(sheet, 0, "200"),
            new { kind = "remove", line = Key(sheet, 1) },
            new { kind = "add", value = "BB2-10-NV x 3" },
            Quantity(sheet, 0, "7"),
            new
            {
                kind = "set",
                line = Key(sheet, 2),
                field = "discount",
                value = "5",
            },
        ];
        foreach (var edit in edits)
        {
            using var refused = await EditAsync(quill, sheet, Quantity(sheet, 0, "a lot"));
            Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
            sheet = await (await EditAsync(quill, sheet, edit)).SheetAsync();
            Assert.Equal(Lines(sheet), Lines(await SeenAsync(quill, $"/api/quotes/{number}")));
            var stored = await House.DbAsync(db =>
                db.SheetLines.Where(l => l.SheetId == sheet.GetProperty("id").GetInt64())
                    .OrderBy(l => l.Position)
                    .Select(l => l.Quantity)
                    .ToListAsync(Cancel)
            );
            Assert.Equal(
                stored,
                sheet.GetProperty("lines").EnumerateArray().Select(l => l.GetProperty("quantity").GetDecimal())
            );
        }
    }

    [Fact]
    public async Task An_order_like_another_is_noticed_also_while_its_lines_are_at_hand()
    {
        var quill = await House.AsAsync(Quill);
        await OrderAsync(quill, "NET-25-GR x 17", "SVC-EYE x 3");
        var (number, sheet) = await OrderAsync(quill, "NET-25-GR x 16", "SVC-EYE x 3");
        bool Noticed(JsonElement of) =>
            of.GetProperty("findings").EnumerateArray().Any(f => f.GetProperty("check").GetString() == "repeat");
        Assert.False(Noticed(sheet));
        sheet = await (await EditAsync(quill, sheet, Quantity(sheet, 0, "17"))).SheetAsync();
        Assert.True(Noticed(sheet));
        Assert.True(Noticed(await SeenAsync(quill, $"/api/orders/{number}")));
    }

    [Fact]
    public async Task An_answer_carries_only_the_lines_that_are_otherwise_and_names_all_of_them()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, Three);
        var whole = await EditAsync(quill, sheet, Quantity(sheet, 1, "13"), "nothing that it knows");
        Assert.Equal(JsonValueKind.Null, whole.GetProperty("keys").ValueKind);
        Assert.Equal(3, whole.Sheet().GetProperty("lines").GetArrayLength());

        var part = await EditAsync(
            quill,
            whole.Sheet(),
            Quantity(sheet, 1, "14"),
            whole.GetProperty("shown").GetString()!
        );
        Assert.Equal(3, part.GetProperty("keys").GetArrayLength());
        var only = Assert.Single(part.Sheet().GetProperty("lines").EnumerateArray());
        Assert.Equal(14m, only.GetProperty("quantity").GetDecimal());
        Assert.Equal(only.GetRawText(), Lines(await SeenAsync(quill, $"/api/quotes/{number}"))[1]);

        // What was shown before that is not what that screen shows any more.
        var again = await EditAsync(
            quill,
            part.Sheet(),
            Quantity(sheet, 1, "15"),
            whole.GetProperty("shown").GetString()!
        );
        Assert.Equal(3, again.Sheet().GetProperty("lines").GetArrayLength());
    }

    [Fact]
    public async Task A_page_learns_how_far_a_document_is_without_fetching_it()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill, Three);
        var document = await (await quill.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync();
        async Task<(long, long, long)> NewestAsync()
        {
            var newest = await (await quill.GetAsync($"/api/newest/{number}", Cancel)).JsonAsync();
            return (
                newest.GetProperty("sheet").GetInt64(),
                newest.GetProperty("version").GetInt64(),
                newest.GetProperty("event").GetInt64()
            );
        }
        var (id, version, last) = await NewestAsync();
        Assert.Equal(document.GetProperty("lastEvent").GetInt64(), last);
        Assert.Equal((sheet.GetProperty("id").GetInt64(), sheet.GetProperty("version").GetInt64()), (id, version));
        await (await EditAsync(quill, sheet, Quantity(sheet, 0, "200"))).SheetAsync();
        Assert.Equal((id, version + 1, last), await NewestAsync());
        using var withdrawn = await quill.PostAsJsonAsync(
            $"/api/quotes/{number}/withdraw",
            new { reason = "they rang" },
            Cancel
        );
        Assert.True(withdrawn.IsSuccessStatusCode);
        Assert.True((await NewestAsync()).Item3 > last);
        using var none = await quill.GetAsync("/api/newest/Q00-00000", Cancel);
        Assert.Equal(HttpStatusCode.NotFound, none.StatusCode);
    }
}
