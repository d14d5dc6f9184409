using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Planning;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Events;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>The stock that is planned: what is short, what can be done, what is asked for and what comes.</summary>
public sealed class PlanningTests(House house) : MoneyCalls(house)
{
    private const string Quay = "Skerrow quay";
    private const string Depot = "Ardmoyle depot";

    private DateOnly Today => House.Services.GetRequiredService<HouseClock>().Today;

    private static string Iso(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private Task<long> ItemAsync(string code) =>
        House.DbAsync(db => db.Items.Where(i => i.Code == code).Select(i => i.Id).FirstAsync(Cancel));

    private static async Task<JsonElement> OutlookAsync(HttpClient who, long item, string warehouse = Quay) =>
        await (
            await who.GetAsync($"/api/planning/{item}?warehouse={Uri.EscapeDataString(warehouse)}", Cancel)
        ).JsonAsync();

    private static JsonElement Wait(JsonElement outlook, string order) =>
        outlook.GetProperty("waits").EnumerateArray().Single(w => w.GetProperty("order").GetString() == order);

    private static async Task CountAsync(
        HttpClient planner,
        string code,
        long item,
        decimal quantity,
        string warehouse = Quay
    )
    {
        var seen = (await OutlookAsync(planner, item, warehouse)).GetProperty("row").GetProperty("onHand").GetDecimal();
        await PostAsync(
            planner,
            "/api/planning/counted",
            new
            {
                item = code,
                warehouse,
                quantity,
                seen,
                reason = "for a test",
            }
        );
    }

    private static async Task<string> FileAsync(HttpClient planner, params string[] rows)
    {
        var file = "kind;reference;item;warehouse;quantity;day;delivery\n" + string.Join('\n', rows);
        var answer = await planner.PostAsync(
            "/api/planning/arrivals?filename=arrivals.csv",
            new ByteArrayContent(Encoding.UTF8.GetBytes(file)),
            Cancel
        );
        var said = await answer.JsonAsync();
        return answer.IsSuccessStatusCode
            ? $"{said.GetProperty("expected")}/{said.GetProperty("arrived")}/{said.GetProperty("known")}"
            : said.GetProperty("title").GetString()!;
    }

    // Two orders for one item, and too little of it left for the second.
    private async Task<(string First, string Second, long Item)> ShortAsync(HttpClient planner, string code)
    {
        var quill = await House.AsAsync(Quill);
        // Their credit is not what this is about.
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CreditLimitMinor, 100_000_000L), Cancel)
        );
        var item = await ItemAsync(code);
        await CountAsync(planner, code, item, 5_000);
        var (first, _) = await ConfirmedAsync(quill, $"{code} x 40");
        var (second, _) = await ConfirmedAsync(quill, $"{code} x 30");
        var others = (await OutlookAsync(planner, item))
            .GetProperty("waits")
            .EnumerateArray()
            .Sum(w => w.GetProperty("quantity").GetDecimal());
        await CountAsync(planner, code, item, others - 20);
        return (first, second, item);
    }

    [Fact]
    public async Task What_is_missing_follows_when_it_comes_and_they_are_told_the_day()
    {
        var planner = await House.AsAsync(Castellane);
        var (_, second, item) = await ShortAsync(planner, "CHN-SL-08");
        Assert.Equal("1/0/0", await FileAsync(planner, $"expected;B-1;CHN-SL-08;{Quay};500;{Iso(Today.AddDays(9))};"));
        var wait = Wait(await OutlookAsync(planner, item), second);
        Assert.Equal(10m, wait.GetProperty("kept").GetDecimal());
        var split = wait.GetProperty("reliefs")
            .EnumerateArray()
            .Single(r => r.GetProperty("words").GetString()!.StartsWith("the rest", StringComparison.Ordinal));
        var body = new
        {
            commitment = wait.GetProperty("commitment").GetInt64(),
            sign = split.GetProperty("sign").GetString(),
        };
        Assert.Equal(1, (await PostAsync(planner, "/api/planning/reliefs", body)).GetProperty("told").GetInt32());

        var after = await OutlookAsync(planner, item);
        Assert.Equal(0, after.GetProperty("row").GetProperty("late").GetInt32());
        Assert.Contains(
            $"{second}.dates.",
            string.Join(' ', await LettersAsync(second)),
            StringComparison.OrdinalIgnoreCase
        );
        Assert.Equal(30m, await CommittedAsync(second));
        var moved = await House.DbAsync(async db =>
            (DatesMoved)
                EventCodes.FromJson(
                    EventCodes.Of<DatesMoved>(),
                    await db
                        .Events.Where(e => e.Subject == second && e.Code == EventCodes.Of<DatesMoved>())
                        .Select(e => e.Facts)
                        .SingleAsync(Cancel)
                )!
        );
        Assert.True(moved.Lines[0].After > moved.Lines[0].Before);
        Assert.Equal("fionn@tresselvane.example", moved.ToldTo);
        // Done once, it cannot be done again from a page that is old.
        var again = await planner.PostAsJsonAsync("/api/planning/reliefs", body, Cancel);
        Assert.Equal("relief_gone", await again.CodeAsync());
        Assert.Equal("", await FaultsAsync());
    }

    [Fact]
    public async Task Another_warehouse_helps_without_a_letter_and_its_stock_is_committed()
    {
        var planner = await House.AsAsync(Castellane);
        var (_, second, item) = await ShortAsync(planner, "CHN-SL-13");
        await CountAsync(planner, "CHN-SL-13", item, 900, Depot);
        var wait = Wait(await OutlookAsync(planner, item), second);
        var there = wait.GetProperty("reliefs").EnumerateArray().First();
        Assert.StartsWith("20 m from Ardmoyle depot", there.GetProperty("words").GetString(), StringComparison.Ordinal);
        var body = new
        {
            commitment = wait.GetProperty("commitment").GetInt64(),
            sign = there.GetProperty("sign").GetString(),
        };
        Assert.Equal(0, (await PostAsync(planner, "/api/planning/reliefs", body)).GetProperty("told").GetInt32());
        Assert.Equal(30m, await CommittedAsync(second));
        var depot = await OutlookAsync(planner, item, Depot);
        Assert.Equal(20m, Wait(depot, second).GetProperty("quantity").GetDecimal());
    }

    [Fact]
    public async Task Promised_anew_everything_that_can_be_is_kept_and_each_buyer_has_one_letter()
    {
        var planner = await House.AsAsync(Castellane);
        var (_, second, item) = await ShortAsync(planner, "CHN-SL-16");
        await FileAsync(planner, $"expected;B-7;CHN-SL-16;{Quay};500;{Iso(Today.AddDays(10))};");
        var before = (await (await planner.GetAsync("/api/planning", Cancel)).JsonAsync()).GetProperty("anew");
        Assert.Contains(before.EnumerateArray(), r => r.GetProperty("order").GetString() == second);
        var done = await PostAsync(planner, "/api/planning/anew");
        Assert.Equal(before.GetArrayLength(), done.GetProperty("lines").GetInt32());
        Assert.Single(await LettersAsync(second), l => l.Contains(".dates.", StringComparison.Ordinal));
        Assert.Equal(0, (await PostAsync(planner, "/api/planning/anew")).GetProperty("lines").GetInt32());
        // An arrival that comes sooner lets it move up again, not before it is wanted.
        await FileAsync(planner, $"expected;B-7;CHN-SL-16;{Quay};500;{Iso(Today.AddDays(2))};");
        await PostAsync(planner, "/api/planning/anew");
        Assert.Equal("", await FaultsAsync());
        Assert.Equal(0, (await OutlookAsync(planner, item)).GetProperty("row").GetProperty("late").GetInt32());
    }

    [Fact]
    public async Task What_is_asked_for_is_a_file_and_its_answer_comes_by_the_folder_once()
    {
        var planner = await House.AsAsync(Castellane);
        var item = await ItemAsync("CLT-BZ-08");
        var asked = new
        {
            item = "CLT-BZ-08",
            warehouse = Quay,
            quantity = 250,
            wanted = Iso(Today.AddDays(20)),
        };
        var number = (await PostAsync(planner, "/api/planning/asked", asked)).GetProperty("number").GetString()!;
        Assert.StartsWith("W", number, StringComparison.Ordinal);
        var supply = Path.Combine(House.DataFolder, "outside", "supply");
        var file = await Answers.EventuallyAsync(() =>
            Directory.GetFiles(Path.Combine(supply, "out"), $"{number}.csv").Select(File.ReadAllText).FirstOrDefault()
        );
        Assert.Contains($"asked,{number},CLT-BZ-08", file, StringComparison.Ordinal);
        Assert.Equal(250m, (await OutlookAsync(planner, item)).GetProperty("row").GetProperty("asked").GetDecimal());

        var answer =
            $"day,quantity,warehouse,item,reference,kind,delivery\n{Iso(Today.AddDays(9))},250,{Quay},CLT-BZ-08,{number},expected,\n";
        await File.WriteAllTextAsync(Path.Combine(supply, "in", "answer.csv"), answer, Cancel);
        await Answers.EventuallyAsync(() => File.Exists(Path.Combine(supply, "done", "answer.csv")) ? "taken" : null);
        var row = (await OutlookAsync(planner, item)).GetProperty("row");
        Assert.Equal(0m, row.GetProperty("asked").GetDecimal());

        var onHand = row.GetProperty("onHand").GetDecimal();
        var came = $"arrived;{number};CLT-BZ-08;{Quay};100;{Iso(Today)};DN-1";
        Assert.Equal("0/1/0", await FileAsync(planner, came));
        Assert.Equal("0/0/1", await FileAsync(planner, came));
        var after = (await OutlookAsync(planner, item)).GetProperty("row");
        Assert.Equal(
            (onHand + 100, 150m),
            (after.GetProperty("onHand").GetDecimal(), after.GetProperty("comes").GetDecimal())
        );
        Assert.Equal("", await FaultsAsync());
    }

    [Theory]
    [InlineData("expected;X-1;NO-SUCH;Skerrow quay;5;2026-12-04;", "There is no item “NO-SUCH”")]
    [InlineData("expected;X-1;CLT-BZ-08;the moon;5;2026-12-04;", "none of the warehouses")]
    [InlineData("expected;X-1;CLT-BZ-08;Skerrow quay;-5;2026-12-04;", "no number above 0")]
    [InlineData("expected;X-1;CLT-BZ-08;Skerrow quay;5;4.12.2026;", "not written as 2026-12-04")]
    [InlineData("arrived;X-1;CLT-BZ-08;Skerrow quay;5;2026-12-04;", "no delivery")]
    [InlineData("expected;;CLT-BZ-08;Skerrow quay;5;2026-12-04;", "no reference")]
    [InlineData("gone;X-1;CLT-BZ-08;Skerrow quay;5;2026-12-04;", "neither")]
    public async Task A_file_with_one_bad_row_is_refused_whole_and_names_it(string row, string why)
    {
        var planner = await House.AsAsync(Castellane);
        var item = await ItemAsync("CLT-BZ-08");
        var before = (await OutlookAsync(planner, item)).GetProperty("row").GetProperty("comes").GetDecimal();
        var good = $"expected;X-0;CLT-BZ-08;{Quay};7;{Iso(Today.AddDays(3))};";
        Assert.Contains(why, await FileAsync(planner, good, row), StringComparison.Ordinal);
        Assert.Equal(before, (await OutlookAsync(planner, item)).GetProperty("row").GetProperty("comes").GetDecimal());
    }

    [Fact]
    public async Task Only_planners_plan_and_what_was_counted_on_an_old_page_is_not_kept()
    {
        var planner = await House.AsAsync(Castellane);
        var item = await ItemAsync("CLT-BZ-08");
        var body = new
        {
            item = "CLT-BZ-08",
            warehouse = Quay,
            quantity = 3,
            seen = -1,
            reason = "counted",
        };
        var quill = await House.AsAsync(Quill);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await quill.PostAsJsonAsync("/api/planning/counted", body, Cancel)).StatusCode
        );
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.PostAsync("/api/planning/anew", null, Cancel)).StatusCode);
        Assert.False((await OutlookAsync(quill, item)).GetProperty("mayPlan").GetBoolean());
        Assert.Equal("stale", await (await planner.PostAsJsonAsync("/api/planning/counted", body, Cancel)).CodeAsync());
        foreach (var (quantity, wanted) in new[] { (-4m, Today), (0m, Today), (5m, Today.AddDays(-1)) })
        {
            var asked = new
            {
                item = "CLT-BZ-08",
                warehouse = Quay,
                quantity,
                wanted = Iso(wanted),
            };
            var answer = await planner.PostAsJsonAsync("/api/planning/asked", asked, Cancel);
            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        }
    }

    [Fact]
    public async Task The_planners_desk_is_what_falls_short()
    {
        var planner = await House.AsAsync(Castellane);
        await ShortAsync(planner, "CHN-SS-10");
        var desk = await (await planner.GetAsync("/api/desk", Cancel)).JsonAsync();
        var item = desk.GetProperty("items")
            .EnumerateArray()
            .Single(i => i.GetProperty("number").GetString() == "CHN-SS-10");
        Assert.StartsWith("short from", item.GetProperty("reason").GetString(), StringComparison.Ordinal);
        Assert.Equal("one promise cannot be kept", item.GetProperty("rest").GetString());
    }
}
