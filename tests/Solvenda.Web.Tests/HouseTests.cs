using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What the administrator sets of the house itself: papers, warehouses, reasons, checks.</summary>
public sealed class HouseTests(House house) : MoneyCalls(house)
{
    private const long Whitlock = 10;

    // The smallest PNG that there is: one clear pixel.
    private const string Pixel =
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==";

    private static async Task<HttpResponseMessage> SaveAsync(HttpClient who, object facts, string? logo, long version)
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, "/api/setup/house")
        {
            Content = JsonContent.Create(new { facts, logo }),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{version}\"");
        return await who.SendAsync(request, Cancel);
    }

    private static object Facts(string name, string mail = "desk@newhouse.example") =>
        new
        {
            name,
            address = "Pier 4, Skerrow",
            mail,
            phone = "",
            taxNumber = "IE9999999WA",
            register = "",
            bank = "Harbour Savings Bank",
        };

    private static async Task<long> VersionAsync(HttpClient who) =>
        (await (await who.GetAsync("/api/setup/house", Cancel)).JsonAsync()).GetProperty("version").GetInt64();

    private static async Task<long> MakeAsync(HttpClient who, string kind, object values)
    {
        var made = await who.PostAsJsonAsync($"/api/records/{kind}", new { values }, Cancel);
        Assert.Equal(HttpStatusCode.OK, made.StatusCode);
        return (await made.JsonAsync()).GetProperty("id").GetInt64();
    }

    [Fact]
    public async Task Papers_bear_the_name_and_the_logo_that_were_set_and_a_stale_page_saves_nothing()
    {
        var (cass, quill) = (await House.AsAsync(Whitlock), await House.AsAsync(Quill));
        var version = await VersionAsync(cass);
        Assert.Equal(HttpStatusCode.Forbidden, (await SaveAsync(quill, Facts("Mine"), null, version)).StatusCode);
        Assert.Equal("house_field", await (await SaveAsync(cass, Facts("", "x@y.example"), null, version)).CodeAsync());
        Assert.Equal("house_field", await (await SaveAsync(cass, Facts("A", "no mail"), null, version)).CodeAsync());
        var script = Convert.ToBase64String(Encoding.UTF8.GetBytes("<svg onload=alert(1)>"));
        Assert.Equal("file_kind", await (await SaveAsync(cass, Facts("A"), script, version)).CodeAsync());
        var large = Convert.ToBase64String(new byte[300_001]);
        Assert.Equal("file_large", await (await SaveAsync(cass, Facts("A"), large, version)).CodeAsync());
        Assert.Equal(HttpStatusCode.NotFound, (await House.CreateClient().GetAsync("/api/logo", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await SaveAsync(cass, Facts("Newhouse Ropes"), Pixel, version)).StatusCode);
        Assert.Equal("stale", await (await SaveAsync(cass, Facts("Other"), null, version)).CodeAsync());
        var logo = await House.CreateClient().GetAsync("/api/logo", Cancel);
        Assert.Equal("image/png", logo.Content.Headers.ContentType!.MediaType);
        var (number, _) = await QuoteAsync(quill, "SHK-BOW-10 x 4");
        var print = await quill.GetAsync($"/api/quotes/{number}/print", Cancel);
        Assert.Equal(HttpStatusCode.OK, print.StatusCode);
        var words = PdfWords(await print.Content.ReadAsByteArrayAsync(Cancel));
        Assert.Contains("Newhouse", words, StringComparison.Ordinal);
        Assert.Contains("Harbour", words, StringComparison.Ordinal);
        // Taken away again, it is gone; the rest stays.
        Assert.Equal(HttpStatusCode.OK, (await SaveAsync(cass, Facts("Newhouse Ropes"), "", version + 1)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await House.CreateClient().GetAsync("/api/logo", Cancel)).StatusCode);
        var session = await (await quill.GetAsync("/api/session", Cancel)).JsonAsync();
        Assert.Equal("Newhouse Ropes", session.GetProperty("seller").GetString());
    }

    internal static string PdfWords(byte[] pdf)
    {
        using var document = UglyToad.PdfPig.PdfDocument.Open(pdf);
        return string.Join(' ', document.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));
    }

    [Fact]
    public async Task A_warehouse_that_was_set_up_ships_by_its_own_days()
    {
        var (cass, quill) = (await House.AsAsync(Whitlock), await House.AsAsync(Quill));
        Assert.Equal(
            "record_field",
            await (
                await cass.PostAsJsonAsync(
                    "/api/records/warehouses",
                    new { values = new { code = "Shed", cutOff = "quarter past" } },
                    Cancel
                )
            ).CodeAsync()
        );
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 4");
        string? Promise(JsonElement of) => of.GetProperty("lines")[0].GetProperty("promise").GetString();
        var before = DateOnly.Parse(Promise(sheet)!, System.Globalization.CultureInfo.InvariantCulture);
        var id = await House.DbAsync(db =>
            db.Warehouses.Where(w => w.Code == "Skerrow quay").Select(w => w.Id).FirstAsync(Cancel)
        );
        var path = $"/api/records/warehouses/{id}";
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(cass, path, new { pickingDays = "20" })).StatusCode);
        var later = DateOnly.Parse(
            Promise(await SeenAsync(quill, $"/api/orders/{number}"))!,
            System.Globalization.CultureInfo.InvariantCulture
        );
        // Nineteen working days more are more than three weeks.
        Assert.True(later.DayNumber - before.DayNumber >= 21, $"{before} became {later}");
        Assert.Equal(HttpStatusCode.OK, (await ChangeAsync(cass, path, new { pickingDays = "1" })).StatusCode);
        await MakeAsync(cass, "warehouses", new { code = "New shed", cutOff = "11:30" });
        var names = await quill.GetStringAsync("/api/warehouses", Cancel);
        Assert.Contains("New shed", names, StringComparison.Ordinal);
        Assert.Contains("cut-off New shed", await quill.GetStringAsync("/api/desk", Cancel), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_check_is_the_houses_to_set_but_for_those_that_hold_the_house_up()
    {
        var (cass, quill) = (await House.AsAsync(Whitlock), await House.AsAsync(Quill));
        var paz = await House.AsAsync(Paz);
        object Values(string check, string level, string numbers = "") =>
            new
            {
                values = new
                {
                    check,
                    level,
                    numbers,
                },
            };
        async Task<string> RefusedAsync(object body) =>
            await (await cass.PostAsJsonAsync("/api/records/checks", body, Cancel)).CodeAsync();
        Assert.Equal("record_field", await RefusedAsync(Values("approval", "off")));
        Assert.Equal("record_field", await RefusedAsync(Values("credit", "notice")));
        Assert.Equal("record_field", await RefusedAsync(Values("no-such", "off")));
        Assert.Equal("record_field", await RefusedAsync(Values("repeat", "as it is", "days 900")));
        Assert.Equal("record_field", await RefusedAsync(Values("repeat", "as it is", "weeks 2")));
        Assert.Equal("record_field", await RefusedAsync(Values("repeat", "as it is", "days")));
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await paz.PostAsJsonAsync("/api/records/checks", Values("po-number", "off"), Cancel)).StatusCode
        );
        var (number, sheet) = await OrderAsync(quill, "SHK-BOW-10 x 4");
        Assert.DoesNotContain("po-number/poNumber", Stops(sheet));
        var id = await MakeAsync(
            cass,
            "checks",
            new
            {
                check = "po-number",
                level = "stop",
                document = "order",
            }
        );
        Assert.Contains("po-number/poNumber", Stops(await SeenAsync(quill, $"/api/orders/{number}")));
        Assert.Equal("stopped", await (await quill.ActAsync($"/api/orders/{number}/confirm", sheet)).CodeAsync());
        var shown = await (await cass.GetAsync("/api/setup/checks", Cancel)).JsonAsync();
        var one = shown.EnumerateArray().Single(c => c.GetProperty("code").GetString() == "po-number");
        Assert.Equal("stop", one.GetProperty("set")[0].GetProperty("level").GetString());
        Assert.Equal(
            HttpStatusCode.OK,
            (await ChangeAsync(cass, $"/api/records/checks/{id}", new { level = "off" })).StatusCode
        );
        Assert.DoesNotContain(
            "po-number",
            (await SeenAsync(quill, $"/api/orders/{number}")).GetProperty("findings").GetRawText(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_new_buyer_is_of_the_territory_of_its_country_and_of_its_seller()
    {
        var paz = await House.AsAsync(Paz);
        async Task<JsonElement> MadeAsync(object values)
        {
            var id = await MakeAsync(paz, "buyers", values);
            var record = await (await paz.GetAsync($"/api/records/buyers/{id}", Cancel)).JsonAsync();
            return record.GetProperty("values");
        }
        object Buyer(string code, string country, string manager = "", string territory = "") =>
            new
            {
                code,
                name = "New " + code,
                country,
                currency = "EUR",
                isProspect = "yes",
                language = "en",
                accountManager = manager,
                territory,
            };
        var danish = await MadeAsync(Buyer("T-1", "DK"));
        Assert.Equal(
            ("aquaculture", "Bastian Mohr"),
            (danish.GetProperty("territory").GetString(), danish.GetProperty("accountManager").GetString())
        );
        var said = await MadeAsync(Buyer("T-2", "DK", "Sorcha Quill", "harbours"));
        Assert.Equal(
            ("harbours", "Sorcha Quill"),
            (said.GetProperty("territory").GetString(), said.GetProperty("accountManager").GetString())
        );
        var nowhere = await MadeAsync(Buyer("T-3", "NZ"));
        Assert.Equal("", nowhere.GetProperty("territory").GetString());
    }

    [Fact]
    public async Task Who_is_told_something_hears_of_it_as_it_happens_and_nobody_else_does()
    {
        var (quill, paz, mohr) = (await House.AsAsync(Quill), await House.AsAsync(Paz), await House.AsAsync(Mohr));
        async Task<StreamReader> ListenAsync(HttpClient who)
        {
            var answer = await who.GetAsync("/api/notices/stream", HttpCompletionOption.ResponseHeadersRead, Cancel);
            Assert.Equal("text/event-stream", answer.Content.Headers.ContentType!.MediaType);
            return new StreamReader(await answer.Content.ReadAsStreamAsync(Cancel));
        }
        static async Task<string> NextAsync(StreamReader stream)
        {
            while (await stream.ReadLineAsync(Cancel) is { } line)
            {
                if (line.StartsWith("data:", StringComparison.Ordinal))
                    return line[5..].Trim();
            }
            throw new InvalidOperationException("The stream ended.");
        }
        using var hers = await ListenAsync(paz);
        using var his = await ListenAsync(mohr);
        Assert.Equal(("begun", "begun"), (await NextAsync(hers), await NextAsync(his)));
        var heard = NextAsync(his);
        var (number, sheet) = await QuoteAsync(quill, "BB2-10-NV x 180 m -12%");
        await quill.ActAsync($"/api/quotes/{number}/ask", sheet, new { why = "an offer from elsewhere" });
        Assert.Equal("told", await NextAsync(hers));
        Assert.False(heard.IsCompleted);
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await House.CreateClient().GetAsync("/api/notices/stream", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task Reasons_are_offered_where_they_are_given()
    {
        var (cass, quill) = (await House.AsAsync(Whitlock), await House.AsAsync(Quill));
        await MakeAsync(cass, "reasons", new { use = "lost", words = "a cousin sells rope" });
        var lost = await quill.GetStringAsync("/api/setup/reasons?use=lost", Cancel);
        Assert.Contains("a cousin sells rope", lost, StringComparison.Ordinal);
        Assert.DoesNotContain(
            "a cousin",
            await quill.GetStringAsync("/api/setup/reasons?use=waived", Cancel),
            StringComparison.Ordinal
        );
    }
}
