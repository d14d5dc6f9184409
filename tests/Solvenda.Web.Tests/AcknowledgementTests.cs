using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// What goes back to a buyer by EDI says what became of each of their lines, and what was added to them.
/// </summary>
public sealed class AcknowledgementTests(House house) : MoneyCalls(house)
{
    private const string Order =
        "ISA*00*          *00*          *01*NORTHGANNET    *ZZ*BRINEMOOR      *260305*0914*U*00401*000000901*0*P*>~GS*PO*NORTHGANNET*BRINEMOOR*20260305*0914*901*X*004010~ST*850*0001~BEG*00*SA*NG-ACK-1**20260305~CUR*BY*USD~FOB*CC**CIF Port of Gannet~ITD*01*3*****60~DTM*002*20270420~N1*ST*Northgannet Depot 7*92*NG-07~N3*77 Pier Road~N4*Gannet*ME*04002*US~PO1*1*40*EA***VP*SHK-BOW-10~PO1*2*24*EA***VP*THM-SS-12~CTT*2~SE*13*0001~GE*1*901~IEA*1*000000901~";

    private static string[] Of(string text, string tag) =>
        [.. text.Split('~').Select(t => t.Trim()).Where(t => t.StartsWith(tag + "*", StringComparison.Ordinal))];

    private async Task<(HttpClient Nell, string Number, JsonElement Sheet)> OrderedAsync(string po)
    {
        var nell = await House.AsAsync(Havergal);
        var text = Order.Replace("NG-ACK-1", po, StringComparison.Ordinal);
        text = text.Replace("000000901", Control(po), StringComparison.Ordinal);
        var request = (await ReceiveAsync(text, $"{po}.x12")).GetProperty("number").GetString()!;
        var seen = await (await nell.GetAsync($"/api/requests/{request}", Cancel)).JsonAsync();
        var turned = await nell.PostAsJsonAsync(
            $"/api/requests/{request}/turn",
            new { version = seen.GetProperty("version").GetInt64(), intoOrder = true },
            Cancel
        );
        var number = (await turned.JsonAsync()).GetProperty("number").GetString()!;
        return (nell, number, await SeenAsync(nell, $"/api/orders/{number}"));
    }

    private static string Control(string po) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{900 + po[^1]:000000000}");

    private async Task<string> AnswerAsync(HttpClient nell, string number, JsonElement sheet)
    {
        var confirmed = await nell.ActAsync($"/api/orders/{number}/confirm", sheet);
        Assert.True(confirmed.StatusCode == HttpStatusCode.OK, await confirmed.Content.ReadAsStringAsync(Cancel));
        var file = Path.Combine(House.DataFolder, "outside", "edi", "out", $"855-{number}.x12");
        return await Answers.EventuallyAsync(() => File.Exists(file) ? File.ReadAllText(file) : null);
    }

    [Fact]
    public async Task As_ordered_every_line_is_accepted_under_their_number()
    {
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-1");
        var answer = await AnswerAsync(nell, number, sheet);
        var lines = Of(answer, "PO1");
        Assert.Equal(["PO1*1*40*EA", "PO1*2*24*EA"], lines.Select(l => string.Join('*', l.Split('*')[..4])));
        Assert.All(Of(answer, "ACK"), a => Assert.StartsWith("ACK*IA*", a, StringComparison.Ordinal));
        Assert.StartsWith("BAK*00*AD*NG-ACK-1*", Of(answer, "BAK").Single(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_line_with_another_quantity_says_so_and_one_added_stands_behind_theirs()
    {
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-2");
        var first = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await SetAsync(nell, sheet, "quantity", "36", first);
        sheet = await nell.EditAsync(sheet, new { kind = "add", value = "SHK-BOW-12 x 4" });
        var answer = await AnswerAsync(nell, number, sheet);
        var lines = Of(answer, "PO1").Select(l => l.Split('*')).ToList();
        Assert.Equal(["1 36", "2 24"], lines.Take(2).Select(l => $"{l[1]} {l[2]}"));
        Assert.Equal(("4", "SHK-BOW-12"), (lines[2][2], lines[2][^1]));
        Assert.Equal(["IQ 36", "IA 24", "IA 4"], Of(answer, "ACK").Select(a => $"{a.Split('*')[1]} {a.Split('*')[2]}"));
        // Something differs from what they wrote: acknowledged with change.
        Assert.Contains("*AC*", Of(answer, "BAK").Single(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_line_left_out_leaves_the_others_under_their_own_numbers()
    {
        var (nell, number, sheet) = await OrderedAsync("NG-ACK-3");
        var first = sheet.GetProperty("lines")[0].GetProperty("key").GetInt64();
        sheet = await nell.EditAsync(sheet, new { kind = "remove", line = first });
        var answer = await AnswerAsync(nell, number, sheet);
        Assert.Equal(["2"], Of(answer, "PO1").Select(l => l.Split('*')[1]));
        Assert.Contains("*AC*", Of(answer, "BAK").Single(), StringComparison.Ordinal);
    }
}
