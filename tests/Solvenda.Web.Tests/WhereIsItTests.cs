using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>"Where is my order?", answered from the one field: by PO, our number, or item and buyer.</summary>
public sealed class WhereIsItTests(House house) : MoneyCalls(house)
{
    private static async Task<JsonElement> FoundAsync(HttpClient who, string text, string number) =>
        (await (await who.GetAsync($"/api/find?q={Uri.EscapeDataString(text)}", Cancel)).JsonAsync())
            .EnumerateArray()
            .FirstOrDefault(f => f.GetProperty("number").GetString() == number);

    private static string Rest(JsonElement found) => found.GetProperty("rest").GetString()!;

    [Fact]
    public async Task An_order_says_how_far_it_is_wherever_it_is_found()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await ConfirmedAsync(quill, "THM-SS-16 x 3");
        foreach (var text in new[] { number, "PO-" + number, "THM-SS-16 tressel" })
            Assert.StartsWith(
                "waits, promised for ",
                Rest(await FoundAsync(quill, text, number)),
                StringComparison.Ordinal
            );
        Assert.Equal(JsonValueKind.Undefined, (await FoundAsync(quill, "THM-SS-16 havnlys", number)).ValueKind);
        await PostAsync(quill, $"/api/orders/{number}/hold", new { reason = "they call back" });
        Assert.StartsWith(
            "held: they call back",
            Rest(await FoundAsync(quill, number, number)),
            StringComparison.Ordinal
        );
        await PostAsync(quill, $"/api/orders/{number}/go-on");
        var sheet = await SeenAsync(quill, $"/api/orders/{number}");
        await quill.ActAsync($"/api/orders/{number}/cancel", sheet, new { reason = "a slip" });
        Assert.StartsWith("cancelled", Rest(await FoundAsync(quill, number, number)), StringComparison.Ordinal);
        Assert.Equal(JsonValueKind.Undefined, (await FoundAsync(quill, "THM-SS-16 tressel", number)).ValueKind);
    }

    [Fact]
    public async Task What_stops_an_order_that_is_not_confirmed_is_said()
    {
        var quill = await House.AsAsync(Quill);
        var (number, _) = await OrderAsync(quill, "SHK-BOW-10 x 4 -45%");
        Assert.StartsWith("stopped: ", Rest(await FoundAsync(quill, number, number)), StringComparison.Ordinal);
    }
}
