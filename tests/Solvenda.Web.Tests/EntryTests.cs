using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Lines onto a sheet as fast as speech: how they are understood, rows that are pasted, and what is not in the
/// catalogue.</summary>
public sealed class EntryTests(House house) : MoneyCalls(house)
{
    private static async Task<List<JsonElement>> ChoicesAsync(HttpClient client, JsonElement sheet, string typed) =>
        [
            .. (
                await (
                    await client.GetAsync(
                        $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/entry?q={Uri.EscapeDataString(typed)}",
                        Cancel
                    )
                ).JsonAsync()
            )
                .GetProperty("choices")
                .EnumerateArray(),
        ];

    private static async Task<HttpResponseMessage> PasteAsync(
        HttpClient client,
        JsonElement sheet,
        string text,
        long? after = null
    )
    {
        using var request = new HttpRequestMessage(
            HttpMethod.Post,
            $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/paste"
        )
        {
            Content = JsonContent.Create(new { text, after }),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{sheet.GetProperty("version").GetInt64()}\"");
        return await client.SendAsync(request, Cancel);
    }

    private static JsonElement Line(JsonElement sheet, int at) => sheet.GetProperty("lines")[at];

    private static string Said(JsonElement line) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{line.GetProperty("code").GetString() ?? line.GetProperty("words").GetString()} {line.GetProperty("quantity").GetDecimal():0.###} {line.GetProperty("unit").GetString()}"
        );

    [Fact]
    public async Task What_is_typed_is_understood_for_this_buyer_and_added_as_it_was_understood()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill);
        var flares = (await ChoicesAsync(quill, sheet, "hand flares 4 @70 -5% by 14 dec"))[0];
        Assert.Equal("FLR-HH-4", flares.GetProperty("code").GetString());
        Assert.Equal(
            (4m, 66.5m),
            (flares.GetProperty("quantity").GetDecimal(), flares.GetProperty("net").GetDecimal())
        );
        Assert.True(flares.GetProperty("freeHere").GetDecimal() > 0);
        // Their price, as the sheet will have it.
        var braid = (await ChoicesAsync(quill, sheet, "BB2-10-NV 180"))[0];
        foreach (var choice in new[] { braid, flares })
            sheet = await quill.EditAsync(
                sheet,
                new
                {
                    kind = "add",
                    value = choice.GetProperty("text").GetString(),
                    field = choice.GetProperty("code").GetString(),
                }
            );
        Assert.Equal(braid.GetProperty("price").GetDecimal(), Line(sheet, 0).GetProperty("basePrice").GetDecimal());
        Assert.Equal("FLR-HH-4 4 C62", Said(Line(sheet, 1)));
        Assert.EndsWith("-12-14", Line(sheet, 1).GetProperty("wanted").GetString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_no_item_is_called_stays_with_its_price_and_is_asked_for_nothing_else()
    {
        var quill = await House.AsAsync(Quill);
        var (number, sheet) = await QuoteAsync(quill);
        var first = (await ChoicesAsync(quill, sheet, "teak boarding ladder 5 step x 1 @240"))[0];
        Assert.Equal(JsonValueKind.Null, first.GetProperty("code").ValueKind);
        sheet = await quill.EditAsync(sheet, new { kind = "add", value = first.GetProperty("text").GetString() });
        var line = Line(sheet, 0);
        Assert.True(line.GetProperty("isFree").GetBoolean());
        Assert.Equal((240m, 240m), (line.GetProperty("net").GetDecimal(), Total(sheet)));
        Assert.DoesNotContain(Stops(sheet), s => s.StartsWith("item", StringComparison.Ordinal));
        // A cost shows what it earns; what was typed is taken back like all else.
        sheet = await SetAsync(quill, sheet, "cost", "180", line.GetProperty("key").GetInt64());
        Assert.Equal(25m, Line(sheet, 0).GetProperty("marginPercent").GetDecimal());
        // The history says that it was typed, and not how much: it is read by people who may not see that.
        var document = await (await quill.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync();
        var dossier = document.GetProperty("dossier").GetString();
        var history = (await (await quill.GetAsync($"/api/dossiers/{dossier}/history", Cancel)).JsonAsync()).ToString();
        Assert.Contains("cost typed", history, StringComparison.Ordinal);
        Assert.DoesNotContain("\"180\"", history, StringComparison.Ordinal);
        sheet = await (await quill.UndoAsync(sheet)).SheetAsync();
        Assert.Equal(JsonValueKind.Null, Line(sheet, 0).GetProperty("cost").ValueKind);
    }

    [Fact]
    public async Task Much_that_is_not_in_the_catalogue_needs_somebodys_word()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "a whole new pontoon x 1 @9000");
        sheet = await SetAsync(quill, sheet, "cost", "10", Line(sheet, 0).GetProperty("key").GetInt64());
        Assert.Equal("needed", State(sheet));
    }

    [Fact]
    public async Task Rows_of_a_spreadsheet_come_in_one_step_and_go_in_one()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill, "SVC-EYE x 1");
        var answer = await PasteAsync(
            quill,
            sheet,
            "Item code\tQty\tUnit\tPrice\r\nSHK-BOW-10\t12\tpcs\t4,10\r\n\r\nDeck\t\t\t\r\nNO-SUCH-1\t3\tpcs\t\r\n"
        );
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var done = await answer.JsonAsync();
        Assert.Equal((2, 1), (done.GetProperty("lines").GetInt32(), done.GetProperty("toFix").GetInt32()));
        sheet = done.GetProperty("answer").GetProperty("sheet");
        Assert.Equal(4, sheet.GetProperty("lines").GetArrayLength());
        Assert.Equal(4.1m, Line(sheet, 1).GetProperty("netPrice").GetDecimal());
        Assert.Equal("heading", Line(sheet, 2).GetProperty("kind").GetString());
        Assert.Contains(Stops(sheet), s => s == "item/item");
        // A price that was pasted is one that was typed: by this hand.
        Assert.Equal("netPrice", Line(sheet, 1).GetProperty("handKind").GetString());
        sheet = await (await quill.UndoAsync(sheet)).SheetAsync();
        Assert.Equal(["SVC-EYE 1 C62"], sheet.GetProperty("lines").EnumerateArray().Select(Said));
        // On what was seen, or not at all.
        var stale = await PasteAsync(quill, done.GetProperty("answer").GetProperty("sheet"), "SHK-BOW-10\t1");
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await PasteAsync(quill, sheet, "\t\t\n\t")).StatusCode);
    }

    [Fact]
    public async Task Who_may_not_write_is_told_nothing_and_types_nothing()
    {
        var quill = await House.AsAsync(Quill);
        var (_, sheet) = await QuoteAsync(quill);
        var stroud = await House.AsAsync(Stroud);
        var entry = await stroud.GetAsync($"/api/sheets/{sheet.GetProperty("id").GetInt64()}/entry?q=rope", Cancel);
        Assert.Equal(HttpStatusCode.Forbidden, entry.StatusCode);
        Assert.Equal(HttpStatusCode.Forbidden, (await PasteAsync(stroud, sheet, "SHK-BOW-10\t1")).StatusCode);
    }
}
