using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Shipping;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What carriers are told of shipments, and what they say of them.</summary>
public sealed class CarrierFileTests(House house) : MoneyCalls(house)
{
    private const string Post = "Skerry Post";
    private const string At = "/api/carriers/Skerry%20Post/file";

    private async Task<string> SentAsync(HttpClient juno)
    {
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CreditLimitMinor, 900_000_000L), Cancel)
        );
        await CountedAsync("SHK-BOW-12", 5_000, 0);
        var (order, _) = await ConfirmedAsync(await House.AsAsync(Havergal), "12 x SHK-BOW-12");
        var made = await PostAsync(juno, "/api/goods/release", new { order, lines = (object?)null });
        var number = made[0].GetString()!;
        var packed = await PostAsync(
            juno,
            $"/api/shipments/{number}/pack",
            new
            {
                parcels = 2,
                weightKg = 6.4,
                carrier = Post,
                seen = 1,
            }
        );
        await PostAsync(
            juno,
            $"/api/shipments/{number}/send",
            new { asAsked = true, seen = packed.GetProperty("version").GetInt64() }
        );
        return number;
    }

    private static async Task<JsonElement> SayAsync(HttpClient who, string text, bool dry = false)
    {
        var answer = await who.PostAsync(
            $"{At}?filename=back.csv{(dry ? "&dry=true" : "")}",
            new ByteArrayContent(Encoding.UTF8.GetBytes(text)),
            Cancel
        );
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Cancel));
        return await answer.JsonAsync();
    }

    private Task<(string Tracking, long? Cost, DateOnly? Delivered)> KeptAsync(string number) =>
        House.DbAsync(async db =>
        {
            var s = await db.Shipments.AsNoTracking().FirstAsync(s => s.Number == number, Cancel);
            return (s.Tracking, s.CostMinor, s.Delivered);
        });

    [Fact]
    public async Task They_are_told_in_their_form_and_what_comes_back_is_tried_then_taken_once()
    {
        var juno = await House.AsAsync(Castellane);
        var number = await SentAsync(juno);
        var rows = (await juno.GetStringAsync(At, Cancel)).Split('\n', StringSplitOptions.TrimEntries);
        Assert.Equal("Reference,Name,Address,Country,Parcels,Weight", rows[0].TrimStart('\uFEFF').Replace(';', ','));
        Assert.Contains(
            rows,
            r => r.StartsWith(number, StringComparison.Ordinal) && r.EndsWith("6.4", StringComparison.Ordinal)
        );

        var back =
            $"Price;Tracking number;Your reference;odd\n9,50;SKP77;{number};x\n1,00;SKP78;S26-99999/1;\nmuch;SKP79;{number};";
        var tried = await SayAsync(juno, back, dry: true);
        Assert.Equal((1, 2), (tried.GetProperty("taken").GetArrayLength(), tried.GetProperty("left").GetArrayLength()));
        Assert.Equal(("", null, null), await KeptAsync(number));
        await SayAsync(juno, back);
        Assert.Equal(("SKP77", 950L, null), await KeptAsync(number));
        var letters = await LettersAsync(number.Replace('/', '-'));
        Assert.Contains(letters, l => l.Contains(".tracking.", StringComparison.Ordinal));

        // The same once more says nothing new, and tells nobody again.
        var again = await SayAsync(juno, back);
        Assert.Equal((0, 1), (again.GetProperty("taken").GetArrayLength(), again.GetProperty("known").GetInt32()));
        // A cost that they put right is something new.
        await SayAsync(juno, $"shipment;cost\n{number};10.20");
        await SayAsync(juno, $"shipment;delivered\n{number};2026-12-04");
        Assert.Equal(("SKP77", 1020L, new DateOnly(2026, 12, 4)), await KeptAsync(number));
        Assert.Equal(letters, await LettersAsync(number.Replace('/', '-')));
        var view = await (await juno.GetAsync($"/api/shipments/{number}", Cancel)).JsonAsync();
        Assert.Equal("https://skerry-post.example/follow/SKP77", view.GetProperty("followAt").GetString());
    }

    [Fact]
    public async Task What_is_no_file_of_theirs_is_refused_and_nobody_else_may_bring_one()
    {
        var juno = await House.AsAsync(Castellane);
        async Task<string> CodeAsync(HttpClient who, string at, string text) =>
            await (await who.PostAsync(at, new ByteArrayContent(Encoding.UTF8.GetBytes(text)), Cancel)).CodeAsync();
        Assert.Equal("carrier_file", await CodeAsync(juno, At, "tracking;cost\nSKP1;2"));
        Assert.Equal("carrier_file", await CodeAsync(juno, At, ""));
        Assert.Equal("carrier_unknown", await CodeAsync(juno, "/api/carriers/Nobody/file", "shipment\nS26-1/1"));
        var quill = await House.AsAsync(Quill);
        Assert.Equal(HttpStatusCode.Forbidden, (await quill.GetAsync(At, Cancel)).StatusCode);
        Assert.Equal("not_allowed", await CodeAsync(quill, At, "shipment\nS26-1/1"));
        // What is still being packed did not leave, whatever they say.
        var picking = await House.DbAsync(db =>
            db.Shipments.Where(s => s.State == ShipmentState.Picking).Select(s => s.Number).FirstAsync(Cancel)
        );
        var said = await SayAsync(juno, $"shipment;tracking\n{picking};SKP1");
        Assert.Contains(
            "did not leave us",
            said.GetProperty("left")[0].GetProperty("why").GetString(),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task By_folder_they_are_told_as_it_goes_and_what_they_lay_there_is_taken()
    {
        var juno = await House.AsAsync(Castellane);
        var number = await SentAsync(juno);
        var at = Path.Combine(House.DataFolder, "outside", "carrier", "skerry-post");
        var told = Path.Combine(at, "out", $"{number.Replace('/', '-')}.csv");
        await Answers.UntilAsync(() => Task.FromResult(File.Exists(told)));
        Assert.Contains(number, await File.ReadAllTextAsync(told, Cancel), StringComparison.Ordinal);
        await File.WriteAllTextAsync(
            Path.Combine(at, "in", "picked-up.csv"),
            $"consignment;your reference;charge\nSKP5;{number};7.15\nSKP6;S26-99999/1;1",
            Cancel
        );
        await Answers.UntilAsync(async () => await KeptAsync(number) == ("SKP5", 715L, null));
        // What could not be taken is told to the administrator, and the file is kept.
        await Answers.UntilAsync(async () =>
            await House.DbAsync(db => db.Troubles.AnyAsync(t => t.Words.Contains("S26-99999/1"), Cancel))
        );
        Assert.True(File.Exists(Path.Combine(at, "done", "picked-up.csv")));
    }

    [Fact]
    public async Task A_form_that_would_not_come_back_is_refused()
    {
        var cass = await House.AsAsync(10);
        var id = await House.DbAsync(db => db.Carriers.Where(c => c.Code == Post).Select(c => c.Id).FirstAsync(Cancel));
        var answer = await ChangeAsync(cass, $"/api/records/carriers/{id}", new { form = "Name = to" });
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
    }
}
