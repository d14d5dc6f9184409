using System.Net;
using System.Net.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Solvenda.Acts.Acting;
using Solvenda.Core.Documents;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>What tests of invoices and of what comes after them call.</summary>
public abstract class BilledCalls(House house) : MoneyCalls(house), IAsyncLifetime
{
    protected const string Rope = "PS3-12-WH";
    protected const string Shackle = "SHK-BOW-12";
    protected const long Petra = 9;

    protected DateOnly Today => House.Services.GetRequiredService<HouseClock>().Today;

    public async ValueTask InitializeAsync()
    {
        await House.DbAsync(async db =>
        {
            await db
                .Buyers.Where(b => b.Id == Tressel)
                .ExecuteUpdateAsync(b => b.SetProperty(x => x.CreditLimitMinor, 900_000_000L), Cancel);
            await db
                .Orders.Where(o => db.Commitments.Any(c => c.OrderId == o.Id))
                .ExecuteUpdateAsync(o => o.SetProperty(x => x.Terms, TermsTrack.Cancelled), Cancel);
            return await db.Commitments.ExecuteDeleteAsync(Cancel);
        });
        foreach (var item in new[] { Rope, Shackle })
            await CountedAsync(item, 1_000, 0);
    }

    public ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        return ValueTask.CompletedTask;
    }

    protected async Task<(string Number, decimal Total)> OrderedAsync(params string[] lines)
    {
        var nell = await House.AsAsync(Havergal);
        var (number, sheet) = await OrderAsync(nell, lines);
        sheet = await SetAsync(nell, sheet, "poNumber", "PO-" + number);
        sheet = await SetAsync(nell, sheet, "shippingRule", "as it comes");
        var done = await nell.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(done.StatusCode == HttpStatusCode.OK, await done.Content.ReadAsStringAsync(Cancel));
        var minor = await House.DbAsync(db =>
            db.Orders.Where(o => o.Number == number).Select(o => o.Sheet.TotalWithTaxMinor).FirstAsync(Cancel)
        );
        return (number, minor / 100m);
    }

    protected async Task ShipAsync(string order, params object[] lines)
    {
        var juno = await House.AsAsync(Castellane);
        var sent = await juno.PostAsJsonAsync("/api/goods/ship", new { order, lines }, Cancel);
        Assert.True(sent.IsSuccessStatusCode, await sent.Content.ReadAsStringAsync(Cancel));
    }

    protected static Task<HttpResponseMessage> InvoiceAsync(HttpClient who, string order) =>
        who.PostAsJsonAsync("/api/invoices", new { order }, Cancel);

    protected static async Task<string> InvoicedAsync(HttpClient who, string order) =>
        (await (await InvoiceAsync(who, order)).JsonAsync()).GetProperty("number").GetString()!;

    protected Task<List<InvoiceRow>> RowsAsync(string order) =>
        House.DbAsync(db =>
            db.Invoices.AsNoTracking().Where(i => i.Order.Number == order).OrderBy(i => i.Id).ToListAsync(Cancel)
        );

    protected Task<MoneyTrack> MoneyAsync(string order) =>
        House.DbAsync(db => db.Orders.Where(o => o.Number == order).Select(o => o.Money).FirstAsync(Cancel));

    protected Task<long> OpenAsync(string invoice) =>
        House.DbAsync(db => db.OpenItems.Where(o => o.Number == invoice).SumAsync(o => o.OpenMinor, Cancel));

    protected static async Task<long> KeyAsync(HttpClient who, string order, int line) =>
        (await SeenAsync(who, $"/api/orders/{order}")).GetProperty("lines")[line].GetProperty("key").GetInt64();
}
