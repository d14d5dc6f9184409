using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using OtpNet;
using Solvenda.Data.Rows;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>People and keys: invited, switched off, a second factor, sessions, what a key opens.</summary>
public sealed class PeopleTests(House house) : MoneyCalls(house)
{
    private const long Whitlock = 10;
    private static readonly string[] Everything = ["everything"];
    private static readonly string[] PriceAlone = ["price"];

    [Fact]
    public async Task Somebody_invited_sets_their_own_password_once_and_no_weak_one()
    {
        var cass = await House.AsAsync(Whitlock);
        object Person(string mail) =>
            new
            {
                login = "ines",
                fields = new
                {
                    name = "Ines Calder",
                    does = "order desk",
                    mail,
                    roles = new[] { "desk", "seller" },
                    signature = "",
                    worksFrom = "09:00:00",
                    worksTo = "17:00:00",
                },
            };
        Assert.Equal(
            "address",
            await (await cass.PostAsJsonAsync("/api/setup/people", Person("nowhere"), Cancel)).CodeAsync()
        );
        var invited = await (
            await cass.PostAsJsonAsync("/api/setup/people", Person("ines@brinemoor.example"), Cancel)
        ).JsonAsync();
        // Where a letter goes, nobody but its reader sees the link.
        Assert.Equal(JsonValueKind.Null, invited.GetProperty("link").ValueKind);
        Assert.Equal(
            "login",
            await (
                await cass.PostAsJsonAsync("/api/setup/people", Person("ines@brinemoor.example"), Cancel)
            ).CodeAsync()
        );
        var id = invited.GetProperty("person").GetInt64();
        var letter = await House.DbAsync(db =>
            db.Outbox.Where(o => o.Key.StartsWith($"welcome-{id}-")).Select(o => o.Payload).SingleAsync(Cancel)
        );
        var text = System.Text.Encoding.UTF8.GetString(letter).Replace("=\r\n", "", StringComparison.Ordinal);
        var token = text.Split("/welcome/")[1].Split('\r', '\n', ' ')[0];
        using var nobody = House.CreateClient();
        Task<HttpResponseMessage> TakeAsync(string password) =>
            nobody.PostAsJsonAsync("/api/session/welcome", new { token, password }, Cancel);
        Assert.Equal("password_short", await (await TakeAsync("short")).CodeAsync());
        foreach (
            var weak in new[] { "password1234", "qwertyuiop12", "aaaaaaaaaaaaaa", "letmeinletmein", "abcdefghijklmn" }
        )
            Assert.Equal("password_weak", await (await TakeAsync(weak)).CodeAsync());
        var welcome = await nobody.GetStringAsync($"/api/session/welcome/{token}", Cancel);
        Assert.Contains("Ines Calder", welcome, StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.OK, (await TakeAsync("a quay at low water")).StatusCode);
        Assert.Equal("link_used", await (await TakeAsync("a quay at low water")).CodeAsync());
        Assert.Equal(HttpStatusCode.OK, (await nobody.GetAsync("/api/desk", Cancel)).StatusCode);
        // Switched off they are out at once, and what they leave is taken.
        await House.DbAsync(db =>
            db.Buyers.Where(b => b.Id == 9).ExecuteUpdateAsync(s => s.SetProperty(b => b.AccountManagerId, id), Cancel)
        );
        var off = await cass.PostAsJsonAsync(
            $"/api/setup/people/{id}/switch",
            new { on = false, to = (long?)null },
            Cancel
        );
        Assert.Equal("hand_over", await off.CodeAsync());
        off = await cass.PostAsJsonAsync($"/api/setup/people/{id}/switch", new { on = false, to = Quill }, Cancel);
        Assert.Equal(HttpStatusCode.OK, off.StatusCode);
        Assert.Equal(HttpStatusCode.Unauthorized, (await nobody.GetAsync("/api/desk", Cancel)).StatusCode);
        Assert.Equal(
            Quill,
            await House.DbAsync(db =>
                db.Buyers.Where(b => b.Id == 9).Select(b => b.AccountManagerId).FirstAsync(Cancel)
            )
        );
        var again = await nobody.PostAsJsonAsync(
            "/api/session",
            new { login = "ines", password = "a quay at low water" },
            Cancel
        );
        Assert.Equal(HttpStatusCode.Unauthorized, again.StatusCode);
    }

    [Fact]
    public async Task The_last_administrator_stays_one_and_nobody_switches_themselves_off()
    {
        var cass = await House.AsAsync(Whitlock);
        Assert.Equal(
            "own_switch",
            await (
                await cass.PostAsJsonAsync($"/api/setup/people/{Whitlock}/switch", new { on = false }, Cancel)
            ).CodeAsync()
        );
        var people = (await (await cass.GetAsync("/api/setup/people", Cancel)).JsonAsync()).GetProperty("people");
        var me = people.EnumerateArray().First(p => p.GetProperty("id").GetInt64() == Whitlock).GetProperty("fields");
        var fields = JsonSerializer.Deserialize<Dictionary<string, object>>(me.GetRawText())!;
        fields["mail"] = "elsewhere@brinemoor.example";
        Assert.Equal(
            HttpStatusCode.OK,
            (await cass.PutAsJsonAsync($"/api/setup/people/{Whitlock}", fields, Cancel)).StatusCode
        );
        // Whoever had the old address hears of it there.
        Assert.Equal(
            "whitlock@brinemoor.example",
            await House.DbAsync(db =>
                db.Outbox.Where(o => o.Key.StartsWith($"address-{Whitlock}-")).Select(o => o.To).SingleAsync(Cancel)
            )
        );
        fields["roles"] = new[] { "desk" };
        var put = await cass.PutAsJsonAsync($"/api/setup/people/{Whitlock}", fields, Cancel);
        Assert.Equal("last_administrator", await put.CodeAsync());
    }

    [Fact]
    public async Task A_key_is_shown_once_opens_its_scopes_runs_out_and_is_revoked()
    {
        var cass = await House.AsAsync(Whitlock);
        Assert.Equal(
            "key",
            await (
                await cass.PostAsJsonAsync("/api/setup/keys", new { name = "x", scopes = Everything }, Cancel)
            ).CodeAsync()
        );
        var made = await (
            await cass.PostAsJsonAsync(
                "/api/setup/keys",
                new
                {
                    name = "shop till",
                    scopes = PriceAlone,
                    expires = "2026-11-30",
                },
                Cancel
            )
        ).JsonAsync();
        using var till = House.CreateClient();
        till.DefaultRequestHeaders.Authorization = new("Bearer", made.GetProperty("secret").GetString());
        var ask = new
        {
            buyer = "1",
            lines = new[]
            {
                new
                {
                    item = "BB2-10-NV",
                    quantity = 5,
                    unit = "MTR",
                },
            },
        };
        Task<HttpResponseMessage> PriceAsync() => till.PostAsJsonAsync("/api/v1/price", ask, Cancel);
        Assert.Equal(HttpStatusCode.OK, (await PriceAsync()).StatusCode);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await till.PostAsync("/api/v1/inbound?filename=a", null, Cancel)).StatusCode
        );
        var shown = await (await cass.GetAsync("/api/setup/keys", Cancel)).JsonAsync();
        Assert.Equal(
            Acts.Acting.Rights.Scopes,
            shown.GetProperty("scopes").EnumerateArray().Select(o => o.GetProperty("code").GetString()!)
        );
        Assert.DoesNotContain(
            "secret",
            await (await cass.GetAsync("/api/setup/keys", Cancel)).Content.ReadAsStringAsync(Cancel),
            StringComparison.OrdinalIgnoreCase
        );
        House.Time.TurnOn(TimeSpan.FromDays(5));
        Assert.Equal(HttpStatusCode.Unauthorized, (await PriceAsync()).StatusCode);
        House.Time.TurnOn(-TimeSpan.FromDays(5));
        Assert.Equal(HttpStatusCode.OK, (await PriceAsync()).StatusCode);
        Assert.Equal(
            HttpStatusCode.OK,
            (await cass.DeleteAsync($"/api/setup/keys/{made.GetProperty("id").GetInt64()}", Cancel)).StatusCode
        );
        Assert.Equal(HttpStatusCode.Unauthorized, (await PriceAsync()).StatusCode);
    }

    [Fact]
    public async Task A_second_factor_is_asked_for_and_no_code_holds_twice()
    {
        var nell = await House.AsAsync(Havergal);
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await nell.PostAsJsonAsync("/api/own/password", new { old = "", @new = "nine fathoms deep" }, Cancel)
            ).StatusCode
        );
        var secret = (await (await nell.GetAsync("/api/own/second-factor", Cancel)).JsonAsync())
            .GetProperty("secret")
            .GetString()!;
        string Code() => new Totp(Base32Encoding.ToBytes(secret)).ComputeTotp(House.Time.GetUtcNow().UtcDateTime);
        Assert.Equal(
            "second_factor",
            await (
                await nell.PostAsJsonAsync("/api/own/second-factor", new { secret, code = "000000" }, Cancel)
            ).CodeAsync()
        );
        var proof = Code();
        Assert.Equal(
            HttpStatusCode.OK,
            (await nell.PostAsJsonAsync("/api/own/second-factor", new { secret, code = proof }, Cancel)).StatusCode
        );
        using var other = House.CreateClient();
        async Task<(HttpStatusCode, string?)> InAsync(string? code)
        {
            var answer = await other.PostAsJsonAsync(
                "/api/session",
                new
                {
                    login = "havergal",
                    password = "nine fathoms deep",
                    code,
                },
                Cancel
            );
            return (answer.StatusCode, answer.IsSuccessStatusCode ? null : await answer.CodeAsync());
        }
        Assert.Equal((HttpStatusCode.Unauthorized, "second_factor"), await InAsync(null));
        // The code that proved it was used.
        Assert.Equal((HttpStatusCode.Unauthorized, "second_factor"), await InAsync(proof));
        House.Time.TurnOn(TimeSpan.FromSeconds(60));
        var code = Code();
        Assert.Equal((HttpStatusCode.OK, null), await InAsync(code));
        Assert.Equal((HttpStatusCode.Unauthorized, "second_factor"), await InAsync(code));
        var own = await (await other.GetAsync("/api/own", Cancel)).JsonAsync();
        Assert.True(own.GetProperty("hasSecondFactor").GetBoolean());
        Assert.True(own.GetProperty("sessions").GetArrayLength() >= 2);
        await other.DeleteAsync("/api/own/sessions", Cancel);
        Assert.Equal(HttpStatusCode.Unauthorized, (await nell.GetAsync("/api/desk", Cancel)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await other.GetAsync("/api/desk", Cancel)).StatusCode);
        await House.DbAsync(db =>
            db.People.Where(p => p.Id == Havergal)
                .ExecuteUpdateAsync(s => s.SetProperty(p => p.SecondFactor, (string?)null), Cancel)
        );
    }
}
