using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What a house makes for itself: its own fields, how its numbers look, what it sells by.</summary>
public sealed class OwnFieldTests(House house) : MoneyCalls(house)
{
    private const long Whitlock = 10;

    private static async Task<HttpResponseMessage> FieldAsync(
        HttpClient who,
        string on,
        string label,
        string type,
        string choices = "",
        bool onPaper = false
    ) =>
        await who.PostAsJsonAsync(
            "/api/records/own-fields",
            new
            {
                values = new
                {
                    on,
                    label,
                    type,
                    choices,
                    onPaper = onPaper ? "yes" : "no",
                },
            },
            Cancel
        );

    private static async Task MadeAsync(Task<HttpResponseMessage> making) =>
        Assert.Equal(HttpStatusCode.OK, (await making).StatusCode);

    private static async Task<string[]> CodesAsync(HttpClient who, string kind, string filter, string more = "")
    {
        var path = $"/api/lists/{kind}?filter={Uri.EscapeDataString(filter)}&columns=code{more}";
        var page = await (await who.GetAsync(path, Cancel)).JsonAsync();
        return [.. page.GetProperty("rows").EnumerateArray().Select(r => r.GetProperty("cells")[0].GetString()!)];
    }

    [Fact]
    public async Task Fields_of_ones_own_are_typed_listed_filtered_sorted_exported_and_imported_as_others()
    {
        var (cass, paz) = (await House.AsAsync(Whitlock), await House.AsAsync(Paz));
        Assert.Equal(HttpStatusCode.Forbidden, (await FieldAsync(paz, "items", "bay", "text")).StatusCode);
        await MadeAsync(FieldAsync(cass, "items", "bay depth", "number"));
        await MadeAsync(FieldAsync(cass, "items", "counted on", "date"));
        await MadeAsync(FieldAsync(cass, "items", "grade", "choice", "rough; fine"));
        Assert.Equal("record_field", await (await FieldAsync(cass, "items", "weight", "number")).CodeAsync());
        Assert.Equal("record_field", await (await FieldAsync(cass, "items", "colour", "choice", "red")).CodeAsync());
        Assert.Equal("record_double", await (await FieldAsync(cass, "items", "GRADE", "text")).CodeAsync());
        var file =
            "code;bay depth;counted on;grade\nSHK-BOW-10;9,5;2026-03-01;fine\nSHK-BOW-12;10;2026-04-01;rough\nSVC-EYE;many;;pink\n";
        var seen = await LookAsync(paz, file);
        Assert.Equal(2, seen.GetProperty("refusedCount").GetInt32());
        file = file.Replace("SVC-EYE;many;;pink\n", "", StringComparison.Ordinal);
        var id = (await LookAsync(paz, file)).GetProperty("id").GetInt64();
        (await paz.PostAsync($"/api/imports/{id}/take", null, Cancel)).EnsureSuccessStatusCode();
        Assert.Equal("taken", (await RecordCalls.SettledAsync(paz, id)).GetProperty("state").GetString());

        // Ten is more than nine and a half: numbers are compared as numbers.
        Assert.Equal(["SHK-BOW-12"], await CodesAsync(paz, "items", "baydepth>9.5"));
        Assert.Equal(["SHK-BOW-10"], await CodesAsync(paz, "items", "own-grade:fine"));
        Assert.Equal(["SHK-BOW-10"], await CodesAsync(paz, "items", "countedon<2026-03-15"));
        Assert.Equal(["SHK-BOW-12"], await CodesAsync(paz, "items", "grade:rough"));
        Assert.Equal(
            ["SHK-BOW-12", "SHK-BOW-10"],
            (await CodesAsync(paz, "items", "baydepth>0", "&sort=own-bay-depth&down=true"))
        );
        var csv = await paz.GetStringAsync("/api/lists/items/export?filter=grade:fine", Cancel);
        Assert.Contains("bay depth,counted on,grade", csv, StringComparison.Ordinal);
        Assert.Contains("9.5,2026-03-01,fine", csv, StringComparison.Ordinal);
        var foot = await (await paz.GetAsync("/api/lists/items/foot?columns=own-bay-depth", Cancel)).JsonAsync();
        Assert.Equal("9.5 to 10", foot.GetProperty("cells")[0].GetString());
        // It is in the history by its name, and what is wrong with it is told at its field.
        var record = await FirstAsync(paz, "items", "SHK-BOW-10");
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(paz, record, Own("own-grade", "Rough"))).StatusCode);
        Assert.Equal("record_field", await (await ChangeAsync(paz, record, Own("own-grade", "pink"))).CodeAsync());
        var view = await (await paz.GetAsync(record, Cancel)).JsonAsync();
        Assert.Equal("rough", view.GetProperty("values").GetProperty("own-grade").GetString());
        Assert.Contains("\"grade\"", view.GetProperty("history").GetRawText(), StringComparison.Ordinal);
    }

    private static Dictionary<string, string> Own(string name, string value) => new() { [name] = value };

    private static async Task<string> FirstAsync(HttpClient who, string kind, string code)
    {
        var page = await (await who.GetAsync($"/api/lists/{kind}?filter=code={code}", Cancel)).JsonAsync();
        return $"/api/records/{kind}/{page.GetProperty("rows")[0].GetProperty("id").GetInt64()}";
    }

    private static async Task<JsonElement> LookAsync(HttpClient who, string csv)
    {
        var begun = await who.PostAsync(
            "/api/records/items/imports?filename=own.csv",
            new ByteArrayContent(Encoding.UTF8.GetBytes(csv)),
            Cancel
        );
        return await RecordCalls.SettledAsync(who, (await begun.JsonAsync()).GetProperty("id").GetInt64());
    }

    [Fact]
    public async Task A_field_keeps_its_name_and_kind_since_values_hang_on_them()
    {
        var cass = await House.AsAsync(Whitlock);
        var made = await FieldAsync(cass, "buyers", "berth", "text");
        var path = $"/api/records/own-fields/{(await made.JsonAsync()).GetProperty("id").GetInt64()}";
        Assert.Equal("record_field", await (await ChangeAsync(cass, path, Own("label", "quay"))).CodeAsync());
        Assert.Equal("record_field", await (await ChangeAsync(cass, path, Own("type", "number"))).CodeAsync());
        Assert.Equal("record_field", await (await ChangeAsync(cass, path, Own("on", "items"))).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(cass, path, Own("hint", "which quay"))).StatusCode);
    }

    [Fact]
    public async Task On_a_quote_it_is_a_term_that_goes_along_to_its_order_and_onto_paper()
    {
        var (cass, quill) = (await House.AsAsync(Whitlock), await House.AsAsync(Quill));
        await MadeAsync(FieldAsync(cass, "quotes", "hull number", "number"));
        await MadeAsync(FieldAsync(cass, "orders", "hull number", "number", onPaper: true));
        await MadeAsync(FieldAsync(cass, "quotes", "season", "choice", "spring; autumn", onPaper: true));
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 4");
        Assert.Equal(
            "number",
            (await SetAsync(quill, sheet, "own-hull-number", "the big one")).GetProperty("code").GetString()
        );
        sheet = await SetAsync(quill, sheet, "own-hull-number", "1,204");
        sheet = await SetAsync(quill, sheet, "own-season", "SPRING");
        Assert.Equal(("1204", "spring"), (sheet.Term("own-hull-number"), sheet.Term("own-season")));
        sheet = await (await quill.UndoAsync(sheet)).SheetAsync();
        Assert.Equal("", sheet.Term("own-season"));
        sheet = await SetAsync(quill, sheet, "own-season", "autumn");
        var print = await quill.GetAsync($"/api/quotes/{number}/print", Cancel);
        var words = HouseTests.PdfWords(await print.Content.ReadAsByteArrayAsync(Cancel));
        Assert.Contains("season autumn", words, StringComparison.Ordinal);
        Assert.DoesNotContain("1204", words, StringComparison.Ordinal);
        var document = await (await quill.GetAsync($"/api/quotes/{number}", Cancel)).JsonAsync();
        var dossier = document.GetProperty("dossier").GetString();
        var history = await quill.GetStringAsync($"/api/dossiers/{dossier}/history", Cancel);
        Assert.Contains("hull number", history, StringComparison.Ordinal);
        var page = await quill.GetStringAsync(
            "/api/lists/quotes?filter=" + Uri.EscapeDataString("hullnumber>1200 season:autumn"),
            Cancel
        );
        Assert.Contains(number, page, StringComparison.Ordinal);

        var order = await TurnedAsync(quill, number, sheet);
        Assert.Equal("1204", order.Term("own-hull-number"));
        Assert.DoesNotContain("own-season", order.GetProperty("terms").GetRawText(), StringComparison.Ordinal);
        Assert.Equal(
            "field_unknown",
            (await SetAsync(quill, order, "own-nothing", "1")).GetProperty("code").GetString()
        );
    }

    private async Task<JsonElement> TurnedAsync(HttpClient who, string number, JsonElement sheet)
    {
        await AcceptedAsync(who, number, sheet);
        var made = await PostAsync(who, $"/api/quotes/{number}/order");
        return await SeenAsync(who, $"/api/orders/{made.GetProperty("number").GetString()}");
    }

    private static Task<HttpResponseMessage> NumbersAsync(
        HttpClient who,
        string series,
        string pattern,
        string seen,
        int? next = null
    ) =>
        who.PutAsJsonAsync(
            $"/api/setup/numbers/{series}",
            new
            {
                pattern,
                seen,
                next,
            },
            Cancel
        );

    [Fact]
    public async Task Numbers_look_as_the_house_says_never_collide_and_are_known_when_somebody_names_them()
    {
        var (cass, quill) = (await House.AsAsync(Whitlock), await House.AsAsync(Quill));
        const string Old = "Q{yy}-{00000}";
        Assert.Equal(HttpStatusCode.Forbidden, (await NumbersAsync(quill, "Q", "OFF{000}", Old)).StatusCode);
        Assert.Equal("series_pattern", await (await NumbersAsync(cass, "Q", "{000}", Old)).CodeAsync());
        Assert.Equal("series_collides", await (await NumbersAsync(cass, "Q", "S{yy}-{000}", Old)).CodeAsync());
        Assert.Equal("series_collides", await (await NumbersAsync(cass, "Q", "Q26-{000}", Old)).CodeAsync());
        Assert.Equal("series_next", await (await NumbersAsync(cass, "Q", Old, Old, next: 1)).CodeAsync());
        Assert.Equal("stale", await (await NumbersAsync(cass, "Q", "OFF{000}", "OLD{0}")).CodeAsync());
        Assert.Equal(HttpStatusCode.NotFound, (await NumbersAsync(cass, "Z", "Z{0}", "Z{0}")).StatusCode);
        var before = (await QuoteAsync(quill)).Number;
        var kept = await (await NumbersAsync(cass, "Q", "off-{yyyy}.{000}", Old, next: 4_000)).JsonAsync();
        Assert.Equal("OFF-2026.4000", kept.GetProperty("next").GetString());
        Assert.Equal("OFF-2026.4000", (await QuoteAsync(quill)).Number);
        Assert.Equal("OFF-2026.4001", (await QuoteAsync(quill)).Number);
        Assert.Equal(HttpStatusCode.OK, (await quill.GetAsync($"/api/quotes/{before}", Cancel)).StatusCode);
        // A letter that names one of either form is about it.
        foreach (var named in new[] { before, "OFF-2026.4001" })
        {
            var came = await ReceiveAsync(
                $"From: fionn@tresselvane.example\nTo: desk@example.example\nSubject: your quote\n\nPlease send us what you quoted in {named}.\n",
                "letter.eml"
            );
            var request = await quill.GetStringAsync($"/api/requests/{came.GetProperty("number").GetString()}", Cancel);
            Assert.Contains($"\"{named}\"", request, StringComparison.Ordinal);
        }
        var lately = await cass.GetStringAsync("/api/setup/house", Cancel);
        Assert.Contains("numbers of quotes", lately, StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_the_house_sells_by_and_its_usual_days_are_what_it_says()
    {
        var (cass, quill) = (await House.AsAsync(Whitlock), await House.AsAsync(Quill));
        var view = await (await cass.GetAsync("/api/setup/house", Cancel)).JsonAsync();
        async Task<HttpResponseMessage> SellsByAsync(params string[] incoterms)
        {
            var facts = JsonSerializer.Deserialize<Dictionary<string, object?>>(
                view.GetProperty("facts").GetRawText()
            )!;
            facts["incoterms"] = incoterms;
            using var request = new HttpRequestMessage(HttpMethod.Put, "/api/setup/house")
            {
                Content = JsonContent.Create(new { facts, logo = (string?)null }),
            };
            request.Headers.TryAddWithoutValidation("If-Match", $"\"{view.GetProperty("version").GetInt64()}\"");
            return await cass.SendAsync(request, Cancel);
        }
        Assert.Equal("incoterm", await (await SellsByAsync("DAP", "XYZ")).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await SellsByAsync("FCA", "DAP")).StatusCode);
        var (_, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 4");
        Assert.Equal(
            ["FCA", "DAP"],
            sheet
                .TermOf("incoterm")
                .GetProperty("choices")
                .EnumerateArray()
                .Select(c => c.GetProperty("value").GetString())
        );
        Assert.Equal("incoterm", (await SetAsync(quill, sheet, "incoterm", "EXW")).GetProperty("code").GetString());
        Assert.Equal("FCA", (await SetAsync(quill, sheet, "incoterm", "fca")).Term("incoterm"));

        var days = await FirstAsync(cass, "settings", "usual-days-to-pay");
        Assert.Equal("record_field", await (await ChangeAsync(cass, days, Own("value", "10.5"))).CodeAsync());
        Assert.Equal("record_field", await (await ChangeAsync(cass, days, Own("value", "366"))).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(cass, days, Own("value", "45"))).StatusCode);
    }
}
