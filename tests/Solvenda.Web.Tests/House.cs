using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.AspNetCore.TestHost;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Logging;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>
/// The real host with the demo world on a real SQLite file. The world is made once, with its messages read; each class
/// of tests has a copy of its own.
/// </summary>
public sealed class House : WebApplicationFactory<Program>
{
    private static readonly string[] _channels = ["mail", "edi"];
    private static readonly Lazy<string> _made = new(Make);
    private readonly bool _makes;
    private readonly string _data = Directory.CreateTempSubdirectory("solvenda-tests").FullName;

    public House()
        : this(copy: true) { }

    private House(bool copy)
    {
        _makes = !copy;
        if (!copy)
            return;
        foreach (var file in Directory.GetFiles(_made.Value, "*", SearchOption.AllDirectories))
        {
            var to = Path.Combine(_data, Path.GetRelativePath(_made.Value, file));
            Directory.CreateDirectory(Path.GetDirectoryName(to)!);
            File.Copy(file, to);
        }
    }

    private static string Make()
    {
        var kept = Directory.CreateTempSubdirectory("solvenda-world").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(kept, recursive: true);
        using var first = new House(copy: false);
        first.TakenInAsync().GetAwaiter().GetResult();
        // The file alone is whole, whatever its log still holds.
        using var db = new Microsoft.Data.Sqlite.SqliteConnection(
            $"Data Source={Database.FileIn(first._data)};Pooling=False"
        );
        db.Open();
        using var command = db.CreateCommand();
        command.CommandText = "VACUUM INTO $file";
        command.Parameters.AddWithValue("$file", Database.FileIn(kept));
        command.ExecuteNonQuery();
        return kept;
    }

    public string DataFolder => _data;

    /// <summary>A client with the demo's machine key.</summary>
    public HttpClient Machine()
    {
        var client = CreateClient();
        client.DefaultRequestHeaders.Authorization = new("Bearer", "demo-integration-key");
        return client;
    }

    /// <summary>
    /// A client signed in as one of the demo's people, by key: 1 Oduya, 2 Paz, 3 Havergal, 4 Quill, 5 Mohr, 6 Stroud, 8
    /// Castellane.
    /// </summary>
    public async Task<HttpClient> AsAsync(long person)
    {
        var client = CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
        var answer = await client.PostAsJsonAsync(
            "/api/demo/step-in",
            new { id = person },
            TestContext.Current.CancellationToken
        );
        answer.EnsureSuccessStatusCode();
        return client;
    }

    /// <summary>Asks the database of the house, or writes into it.</summary>
    public async Task<T> DbAsync<T>(Func<SolvendaDb, Task<T>> ask)
    {
        await using var db = await Services
            .GetRequiredService<IDbContextFactory<SolvendaDb>>()
            .CreateDbContextAsync(TestContext.Current.CancellationToken);
        return await ask(db);
    }

    /// <summary>The buyer's link in a letter that left, by words that stand in its subject.</summary>
    public async Task<string> LinkAsync(string subject)
    {
        var mail = await Answers.EventuallyAsync(() =>
            Directory
                .GetFiles(Path.Combine(_data, "outside", "post"), "*.eml")
                .Select(File.ReadAllText)
                .FirstOrDefault(t => t.Contains(subject, StringComparison.Ordinal))
        );
        return mail.Split("/offer/")[1].Split('\r', '\n', ' ', '=')[0];
    }

    /// <summary>Waits until the messages that the demo world begins with are taken in.</summary>
    public async Task TakenInAsync()
    {
        // Asked for, the house opens.
        _ = Services;
        for (var tries = 0; tries < 600; tries++)
        {
            if (
                _channels.All(channel => Directory.GetFiles(Path.Combine(_data, "outside", channel, "in")).Length == 0)
                && await IsSoldAsync()
                && !await IsReadingAsync()
            )
                return;
            await Task.Delay(100, TestContext.Current.CancellationToken);
        }
        throw new TimeoutException("The demo's messages are not taken in.");
    }

    // What the marketplace holds comes by asking it.
    private Task<bool> IsSoldAsync() =>
        DbAsync(db => db.Requests.AnyAsync(r => r.Subject.Contains("HMQ-551"), TestContext.Current.CancellationToken));

    private Task<bool> IsReadingAsync() =>
        DbAsync(db =>
            db.Requests.AnyAsync(r => r.State == RequestState.Reading, TestContext.Current.CancellationToken)
        );

    /// <summary>
    /// The house's clock: it begins on a Thursday morning and runs on from there, so that no test meets a weekend, the
    /// end of a month or 15:00, whatever day it is; a test can turn it on.
    /// </summary>
    public HouseTime Time { get; } = new();

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.ConfigureTestServices(services => services.AddSingleton<TimeProvider>(Time));
        builder.UseSetting("demo", "true");
        builder.UseSetting("data", _data);
        builder.UseSetting("doorLimit", "100000");
        // The marketplace is a process of its own; only the house that makes the world starts it.
        builder.UseSetting("standIns", _makes ? "true" : "false");
        // What is refused on purpose would bury what failed.
        builder.ConfigureLogging(log => log.ClearProviders());
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        if (Directory.Exists(_data))
            Directory.Delete(_data, recursive: true);
    }
}

/// <summary>A clock of the tests' own.</summary>
public sealed class HouseTime : TimeProvider
{
    private static readonly DateTimeOffset Begin = new(2026, 11, 26, 9, 30, 0, TimeSpan.Zero);

    private readonly long _started = TimeProvider.System.GetTimestamp();
    private long _turnedOn;
    private DateTimeOffset? _stands;

    public override DateTimeOffset GetUtcNow() =>
        _stands
        ?? Begin + TimeProvider.System.GetElapsedTime(_started) + TimeSpan.FromTicks(Interlocked.Read(ref _turnedOn));

    /// <summary>Lets it stand still: what is due later never is.</summary>
    public void StandStill() => _stands = GetUtcNow();

    /// <summary>Turns it on by so much.</summary>
    public void TurnOn(TimeSpan by) => Interlocked.Add(ref _turnedOn, by.Ticks);
}

internal static class Answers
{
    public static async Task<JsonElement> JsonAsync(this HttpResponseMessage answer) =>
        JsonDocument.Parse(await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)).RootElement;

    /// <summary>One edit of a sheet, and the sheet after it; the refusal where it was refused.</summary>
    public static async Task<JsonElement> EditAsync(this HttpClient client, JsonElement sheet, object edit) =>
        (
            await (
                await client.ActAsync($"/api/sheets/{sheet.GetProperty("id").GetInt64()}/edits", sheet, new[] { edit })
            ).JsonAsync()
        ).Sheet();

    /// <summary>
    /// The sheet of an answer that says where its document stands too; the refusal where it was refused.
    /// </summary>
    public static JsonElement Sheet(this JsonElement answer) =>
        answer.TryGetProperty("sheet", out var sheet) ? sheet : answer;

    /// <summary>The sheet after edits.</summary>
    public static async Task<JsonElement> SheetAsync(this HttpResponseMessage answer) =>
        (await answer.JsonAsync()).Sheet();

    /// <summary>A term of the head, as it is typed; empty where nothing is said.</summary>
    public static string Term(this JsonElement sheet, string name) =>
        sheet.TermOf(name).GetProperty("value").GetString()!;

    /// <summary>A term of the head.</summary>
    public static JsonElement TermOf(this JsonElement sheet, string name) =>
        sheet.GetProperty("terms").EnumerateArray().Single(t => t.GetProperty("name").GetString() == name);

    /// <summary>Takes one's own last change back.</summary>
    public static Task<HttpResponseMessage> UndoAsync(this HttpClient client, JsonElement sheet) =>
        client.PostAsync(
            $"/api/sheets/{sheet.GetProperty("id").GetInt64()}/undo",
            null,
            TestContext.Current.CancellationToken
        );

    /// <summary>Posts what rests on the sheet as it was seen.</summary>
    public static async Task<HttpResponseMessage> ActAsync(
        this HttpClient client,
        string path,
        JsonElement sheet,
        object? body = null
    )
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path)
        {
            Content = body is null ? null : JsonContent.Create(body),
        };
        request.Headers.TryAddWithoutValidation("If-Match", $"\"{sheet.GetProperty("version").GetInt64()}\"");
        return await client.SendAsync(request, TestContext.Current.CancellationToken);
    }

    /// <summary>What workers do behind the answer is waited for.</summary>
    public static Task<string> EventuallyAsync(Func<string?> find) => EventuallyAsync(() => Task.FromResult(find()));

    /// <inheritdoc cref="EventuallyAsync(Func{string})" />
    public static async Task<T> EventuallyAsync<T>(Func<Task<T?>> find)
        where T : class
    {
        for (var i = 0; i < 150; i++)
        {
            if (await find() is { } found)
                return found;
            await Task.Delay(100, TestContext.Current.CancellationToken);
        }
        throw new TimeoutException();
    }

    /// <summary>Waits until something is so.</summary>
    public static Task UntilAsync(Func<Task<bool>> isSo) =>
        EventuallyAsync<object>(async () => await isSo() ? new object() : null);

    /// <summary>The stable code of a refusal.</summary>
    public static async Task<string> CodeAsync(this HttpResponseMessage answer) =>
        (await answer.JsonAsync()).GetProperty("code").GetString()!;
}
