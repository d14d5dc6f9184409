using System.Net.Http.Json;
using Solvenda.Acts.Acting;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Open pages hear what others changed, and never miss it silently.</summary>
public sealed class PulseTests(House house) : MoneyCalls(house)
{
    [Fact]
    public async Task A_page_hears_of_what_others_changed_and_of_nothing_that_was_refused()
    {
        var (quill, paz) = (await House.AsAsync(Quill), await House.AsAsync(Paz));
        var before = (await (await paz.GetAsync("/api/pulse", Cancel)).JsonAsync()).GetProperty("at").GetInt64();
        var (number, sheet) = await QuoteAsync(quill, "SHK-BOW-10 x 2");
        await quill.PostAsJsonAsync("/api/quotes", new { buyerId = 999_999, matter = "nobody" }, Cancel);
        var heard = await (await paz.GetAsync($"/api/pulse?after={before}", Cancel)).JsonAsync();
        var subjects = heard.GetProperty("subjects").EnumerateArray().Select(s => s.GetString()!).ToList();
        Assert.Equal([number], subjects.Where(s => s.StartsWith('Q')));
        Assert.False(heard.GetProperty("everything").GetBoolean());
        var at = heard.GetProperty("at").GetInt64();
        var later = await (await paz.GetAsync($"/api/pulse?after={at}", Cancel)).Content.ReadAsStringAsync(Cancel);
        Assert.DoesNotContain(number, later, StringComparison.Ordinal);
        await SetAsync(quill, sheet, "matter", "more");
        Assert.Contains(
            number,
            (await (await paz.GetAsync($"/api/pulse?after={at}", Cancel)).Content.ReadAsStringAsync(Cancel)),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Who_was_away_too_long_or_since_before_the_start_is_told_that_anything_may_have_changed()
    {
        var pulse = new Pulse(TimeProvider.System);
        Assert.True(pulse.Since(0).Everything);
        var begin = pulse.Since(0).At;
        Assert.False(pulse.Since(begin).Everything);
        pulse.Tell(["A1", "A2", "A1"]);
        Assert.Equal(["A1", "A2"], pulse.Since(begin).Subjects);
        Assert.Equal(["A1"], pulse.Since(begin + 2).Subjects);
        Assert.True(pulse.Since(begin + 4).Everything);
        for (var i = 0; i < 3_000; i++)
            pulse.Tell([$"B{i % 7}"]);
        Assert.True(pulse.Since(begin).Everything);
        Assert.Equal(7, pulse.Since(pulse.Since(0).At - 700).Subjects.Count);
        pulse.Tell([.. Enumerable.Range(0, 300).Select(i => $"C{i}")]);
        Assert.True(pulse.Since(pulse.Since(0).At - 300).Everything);
    }
}
