using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Formats.Pdf;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Papers of the house: its letterhead as it is typed, pick lists, and what customs want.</summary>
public sealed class PapersTests(House house) : BilledCalls(house)
{
    private const long Whitlock = 10;
    private static readonly byte[] _png = [0x89, 0x50, 0x4E, 0x47];

    private static async Task<string> WordsAsync(HttpClient who, string path) =>
        string.Join(
            ' ',
            PdfText.Read(await who.GetByteArrayAsync(path, Cancel)).Pages.SelectMany(p => p.Words.Select(w => w.Text))
        );

    [Fact]
    public async Task A_letterhead_is_drawn_before_it_is_kept_and_on_every_paper_after()
    {
        var cass = await House.AsAsync(Whitlock);
        var view = await (await cass.GetAsync("/api/setup/house", Cancel)).JsonAsync();
        var facts = JsonSerializer.Deserialize<Dictionary<string, object>>(view.GetProperty("facts").GetRawText())!;
        (facts["colour"], facts["foot"]) = ("#7A2E1F", "Ropes since the tide");
        var drawn = await cass.PostAsJsonAsync("/api/setup/house/paper", new { facts }, Cancel);
        Assert.Equal(_png, (await drawn.Content.ReadAsByteArrayAsync(Cancel))[..4]);
        Assert.Equal("", (await HouseAsync()).PaperFoot);
        var nell = await House.AsAsync(Havergal);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await nell.PostAsJsonAsync("/api/setup/house/paper", new { facts }, Cancel)).StatusCode
        );
        facts["colour"] = "red";
        var red = await cass.PostAsJsonAsync("/api/setup/house/paper", new { facts }, Cancel);
        Assert.Equal("house_field", await red.CodeAsync());
        facts["colour"] = "#7a2e1f";
        using var save = new HttpRequestMessage(HttpMethod.Put, "/api/setup/house")
        {
            Content = JsonContent.Create(new { facts }),
        };
        save.Headers.TryAddWithoutValidation("If-Match", $"\"{view.GetProperty("version").GetInt64()}\"");
        Assert.Equal(HttpStatusCode.OK, (await cass.SendAsync(save, Cancel)).StatusCode);
        Assert.Equal("#7a2e1f", (await HouseAsync()).PaperColour);
        var petra = await House.AsAsync(Petra);
        Assert.Contains(
            "Ropes since the tide",
            await WordsAsync(petra, "/api/ledger/journal"),
            StringComparison.Ordinal
        );
    }

    private Task<Data.Rows.HouseRow> HouseAsync() =>
        House.DbAsync(db => db.House.AsNoTracking().OrderBy(h => h.Id).FirstAsync(Cancel));

    private async Task<string> LetterAsync(string order)
    {
        var key = $"{order}-1.sent".ToLowerInvariant();
        return System.Text.Encoding.UTF8.GetString(
            await House.DbAsync(db => db.Outbox.Where(o => o.Key == key).Select(o => o.Payload).FirstAsync(Cancel))
        );
    }

    private async Task<string> OrderedForAsync(string name, string line)
    {
        var nell = await House.AsAsync(Havergal);
        var buyer = await House.DbAsync(db =>
            db.Buyers.Where(b => b.Name == name).Select(b => b.Id).FirstAsync(Cancel)
        );
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == buyer)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CreditLimitMinor, 900_000_000L), Cancel)
        );
        var made = await nell.PostAsync($"/api/buyers/{buyer}/orders", null, Cancel);
        var order = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(nell, $"/api/orders/{order}");
        sheet = await nell.EditAsync(sheet, new { kind = "add", value = line });
        sheet = await SetAsync(nell, sheet, "poNumber", "PO-" + order);
        var done = await nell.ActAsync($"/api/orders/{order}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        return order;
    }

    [Fact]
    public async Task What_leaves_the_union_takes_its_papers_along_and_what_stays_does_not()
    {
        var nell = await House.AsAsync(Havergal);
        var juno = await House.AsAsync(Castellane);
        var (home, _) = await OrderedAsync($"6 x {Shackle}");
        var order = await OrderedForAsync("Tangvik Oppdrett", $"8 x {Shackle}");
        await PostAsync(juno, "/api/goods/release", new { order, lines = Array.Empty<object>() });
        Assert.Contains(
            Shackle,
            await WordsAsync(juno, $"/api/goods/pick-list?shipment={order}/1"),
            StringComparison.Ordinal
        );
        var shipment = await (await juno.GetAsync($"/api/shipments/{order}/1", Cancel)).JsonAsync();
        await PostAsync(
            juno,
            $"/api/shipments/{order}/1/send",
            new { asAsked = true, seen = shipment.GetProperty("version").GetInt64() }
        );
        await ShipAsync(home);
        var letter = await LetterAsync(order);
        Assert.Contains("commercial invoice", letter, StringComparison.Ordinal);
        var plain = await LetterAsync(home);
        Assert.DoesNotContain("commercial invoice", plain, StringComparison.Ordinal);
        var customs = await WordsAsync(juno, $"/api/shipments/{order}/1/customs/commercial-invoice");
        Assert.Contains("732690", customs, StringComparison.Ordinal);
        Assert.Contains("worth in all", customs, StringComparison.Ordinal);
        Assert.Contains(
            "net, kg",
            await WordsAsync(juno, $"/api/shipments/{order}/1/customs/packing-list"),
            StringComparison.Ordinal
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await juno.GetAsync($"/api/shipments/{order}/1/customs/love-letter", Cancel)).StatusCode
        );
    }

    [Fact]
    public async Task What_is_to_be_paid_ahead_goes_as_no_invoice_and_not_once_it_is_one()
    {
        var (nell, petra) = (await House.AsAsync(Havergal), await House.AsAsync(Petra));
        var (order, total) = await OrderedAsync($"6 x {Shackle}");
        var path = $"/api/orders/{order}/pro-forma";
        var paper = await WordsAsync(nell, path);
        Assert.Contains("This is no invoice.", paper, StringComparison.Ordinal);
        Assert.Contains(total.ToString("N2", CultureInfo.InvariantCulture), paper, StringComparison.Ordinal);
        var juno = await House.AsAsync(Castellane);
        Assert.Equal(HttpStatusCode.Forbidden, (await juno.PostAsync(path, null, Cancel)).StatusCode);
        await PostAsync(nell, path);
        // Again, as it stands then; neither is booked.
        await PostAsync(nell, path);
        Assert.Equal(2, (await LettersAsync($"{order}.pro-forma".ToLowerInvariant())).Count);
        Assert.Empty(await RowsAsync(order));
        await ShipAsync(order);
        await InvoicedAsync(petra, order);
        Assert.Equal("order_state", await (await nell.PostAsync(path, null, Cancel)).CodeAsync());
    }

    [Fact]
    public async Task What_goes_to_a_buyer_elsewhere_in_the_union_is_listed_by_tax_number()
    {
        var petra = await House.AsAsync(Petra);
        async Task<decimal> SoldAsync()
        {
            var of = await (await petra.GetAsync("/api/ledger/union-sales", Cancel)).JsonAsync();
            return of.GetProperty("sales")
                .EnumerateArray()
                .Where(s => s.GetProperty("country").GetString() == "NL")
                .Sum(s => s.GetProperty("goods").GetDecimal());
        }
        var before = await SoldAsync();
        var order = await OrderedForAsync("Teerling Scheepsbenodigdheden", $"8 x {Shackle}");
        await ShipAsync(order);
        var number = await InvoicedAsync(petra, order);
        var net = (await RowsAsync(order))[0].TotalWithoutTaxMinor / 100m;
        Assert.Equal(before + net, await SoldAsync());
        await PostAsync(petra, $"/api/invoices/{number}/credit", new { reason = "all back", charges = true });
        Assert.Equal(before, await SoldAsync());
        var sorcha = await House.AsAsync(Quill);
        Assert.Equal(HttpStatusCode.Forbidden, (await sorcha.GetAsync("/api/ledger/union-sales", Cancel)).StatusCode);
        var file = await petra.GetStringAsync("/api/ledger/union-sales/file", Cancel);
        Assert.StartsWith("country,tax number,buyer,goods,services,currency", file, StringComparison.Ordinal);
    }
}
