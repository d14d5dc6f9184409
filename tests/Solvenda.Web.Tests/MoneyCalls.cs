using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Planning;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What tests of money and authority call.</summary>
public abstract class MoneyCalls(House house) : IClassFixture<House>
{
    protected House House { get; } = house;

    protected const long Paz = 2;
    protected const long Havergal = 3;
    protected const long Quill = 4;
    protected const long Mohr = 5;
    protected const long Stroud = 6;
    protected const long Castellane = 8;
    protected const long Tressel = 1;

    protected static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    protected static async Task<(string Number, JsonElement Sheet)> QuoteAsync(HttpClient client, params string[] lines)
    {
        var made = await client.PostAsJsonAsync("/api/quotes", new { buyerId = Tressel, matter = "a test" }, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(client, $"/api/quotes/{number}");
        foreach (var line in lines)
            sheet = await client.EditAsync(sheet, new { kind = "add", value = line });
        return (number, sheet);
    }

    protected static async Task<(string Number, JsonElement Sheet)> OrderAsync(HttpClient client, params string[] lines)
    {
        var made = await client.PostAsync($"/api/buyers/{Tressel}/orders", null, Cancel);
        var number = (await made.JsonAsync()).GetProperty("number").GetString()!;
        var sheet = await SeenAsync(client, $"/api/orders/{number}");
        foreach (var line in lines)
            sheet = await client.EditAsync(sheet, new { kind = "add", value = line });
        return (number, sheet);
    }

    protected static async Task<JsonElement> SeenAsync(HttpClient client, string path) =>
        (await (await client.GetAsync(path, Cancel)).JsonAsync()).Sheet();

    protected static Task<JsonElement> SetAsync(
        HttpClient client,
        JsonElement sheet,
        string field,
        string value,
        long? line = null
    ) =>
        client.EditAsync(
            sheet,
            new
            {
                kind = "set",
                line,
                field,
                value,
            }
        );

    protected async Task<decimal> CommittedAsync(string number) =>
        (
            await House.DbAsync(db =>
                (
                    from c in db.Commitments
                    join o in db.Orders on c.OrderId equals o.Id
                    where o.Number == number
                    select c.Quantity
                ).ToListAsync(Cancel)
            )
        ).Sum();

    protected Task<List<string>> LettersAsync(string number) =>
        House.DbAsync(db =>
            db.Outbox.Where(o => EF.Functions.Like(o.Key, number + "%"))
                .OrderBy(o => o.Id)
                .Select(o => o.Key)
                .ToListAsync(Cancel)
        );

    protected static async Task<JsonElement> PostAsync(HttpClient who, string path, object? body = null)
    {
        var answer = body is null
            ? await who.PostAsync(path, null, Cancel)
            : await who.PostAsJsonAsync(path, body, Cancel);
        Assert.True(answer.StatusCode == HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Cancel));
        return await answer.JsonAsync();
    }

    protected static async Task<(string Number, JsonElement Document)> ConfirmedAsync(
        HttpClient who,
        params string[] lines
    )
    {
        var (number, sheet) = await OrderAsync(who, lines);
        sheet = await SetAsync(who, sheet, "poNumber", "PO-" + number);
        var done = await who.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        return (number, await done.JsonAsync());
    }

    /// <summary>So much of an item lies in each warehouse.</summary>
    protected async Task CountedAsync(string item, decimal quantity, decimal elsewhere)
    {
        var runner = House.Services.GetRequiredService<ActRunner>();
        var lies = await House.DbAsync(db =>
            db.Stock.Where(s => db.Items.Any(i => i.Id == s.ItemId && i.Code == item)).ToListAsync(Cancel)
        );
        foreach (var stock in lies)
            await runner.RunAsync(
                Actor.House,
                new CountStock(
                    item,
                    stock.Warehouse,
                    stock.Warehouse == "Skerrow quay" ? quantity : elsewhere,
                    stock.OnHand,
                    "for a test"
                ),
                Cancel
            );
    }

    /// <summary>A quote that the buyer accepted.</summary>
    protected async Task<string> AcceptedAsync(HttpClient client, params string[] lines)
    {
        var (number, sheet) = await QuoteAsync(client, lines);
        return await AcceptedAsync(client, number, sheet);
    }

    /// <inheritdoc cref="AcceptedAsync(HttpClient, string[])" />
    protected async Task<string> AcceptedAsync(HttpClient client, string number, JsonElement sheet)
    {
        var subject = "accepted " + number;
        var letter = new
        {
            to = "office@tresselvane.example",
            subject,
            text = "{link}",
        };
        var sent = await client.ActAsync($"/api/quotes/{number}/send", sheet, letter);
        Assert.True(sent.StatusCode == HttpStatusCode.OK, await sent.Content.ReadAsStringAsync(Cancel));
        var link = await House.LinkAsync(subject);
        var accept = await House
            .CreateClient()
            .PostAsJsonAsync($"/api/offers/{link}/accept", new { name = "F", poNumber = "TV-" + number }, Cancel);
        Assert.Equal(HttpStatusCode.OK, accept.StatusCode);
        return number;
    }

    /// <summary>Does something to many, and waits until the round is over.</summary>
    protected static async Task<JsonElement> RoundAsync(HttpClient who, string list, object body)
    {
        var round = await PostAsync(who, $"/api/lists/{list}/deeds", body);
        var id = round.GetProperty("id").GetInt64();
        var over = await Answers.EventuallyAsync(async () =>
        {
            var now = await (await who.GetAsync($"/api/rounds/{id}", Cancel)).JsonAsync();
            return now.GetProperty("over").GetBoolean() ? now.GetRawText() : null;
        });
        return JsonDocument.Parse(over).RootElement;
    }

    /// <summary>What the proofs of money alone find wrong: those of every order take seconds.</summary>
    protected Task<string> MoneyFaultsAsync() =>
        FaultsAsync([
            new Acts.Proofs.LedgerBalances(),
            new Acts.Proofs.LedgerIsWhatIsOwed(),
            new Acts.Proofs.InvoicesHaveNoGap(),
        ]);

    /// <summary>What the proofs over the whole database find wrong; empty where all holds.</summary>
    protected async Task<string> FaultsAsync()
    {
        using var books = new PriceBooks(House.Services.GetRequiredService<Seller>());
        return await FaultsAsync(
            Acts.Proofs.ProofList.All(books, new Acts.Proofs.SealedHeads(Path.Combine(House.DataFolder, "none")))
        );
    }

    private async Task<string> FaultsAsync(IReadOnlyCollection<Acts.Proofs.IProof> proofs)
    {
        await using var told = new StringWriter();
        var wrong = await House.DbAsync(db => Acts.Proofs.ProofList.RunAsync(proofs, db, told, Cancel));
        return wrong == 0 ? "" : told.ToString();
    }

    protected static string State(JsonElement sheet) => sheet.GetProperty("approval").GetProperty("state").GetString()!;

    protected static decimal Total(JsonElement sheet) =>
        sheet.GetProperty("tally").GetProperty("totalWithoutTax").GetDecimal();

    protected static IEnumerable<string> Stops(JsonElement sheet) =>
        sheet
            .GetProperty("findings")
            .EnumerateArray()
            .Where(f => f.GetProperty("outcome").GetString() == "stop")
            .Select(f => f.GetProperty("check").GetString() + "/" + f.GetProperty("field").GetString());

    protected static async Task<HttpResponseMessage> ChangeAsync(HttpClient client, string path, object values)
    {
        var record = await (await client.GetAsync(path, Cancel)).JsonAsync();
        using var request = new HttpRequestMessage(HttpMethod.Put, path)
        {
            Content = JsonContent.Create(new { values }),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{record.GetProperty("version").GetInt64()}\"");
        return await client.SendAsync(request, Cancel);
    }

    /// <summary>Something that a channel brings, made an order by somebody.</summary>
    protected async Task<(string Number, JsonElement Sheet)> OrderOfAsync(HttpClient client, string text, string name)
    {
        var number = (await ReceiveAsync(text, name)).GetProperty("number").GetString();
        var request = await (await client.GetAsync($"/api/requests/{number}", Cancel)).JsonAsync();
        var turned = await client.PostAsJsonAsync(
            $"/api/requests/{number}/turn",
            new { version = request.GetProperty("version").GetInt64(), intoOrder = true },
            Cancel
        );
        var order = (await turned.JsonAsync()).GetProperty("number").GetString()!;
        return (order, await SeenAsync(client, $"/api/orders/{order}"));
    }

    protected async Task<JsonElement> ReceiveAsync(string text, string name) =>
        await (
            await House
                .Machine()
                .PostAsync(
                    $"/api/v1/inbound?filename={name}",
                    new ByteArrayContent(Encoding.UTF8.GetBytes(text)),
                    Cancel
                )
        ).JsonAsync();
}
