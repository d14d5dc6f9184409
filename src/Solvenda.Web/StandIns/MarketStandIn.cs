using System.Text.Json;
using System.Text.Json.Nodes;

namespace Solvenda.Web.StandIns;

/// <summary>
/// The stand-in for a marketplace or a web shop: a small HTTP service, a process of its own. What lies in its feed
/// folder it hands over until it is told that it was taken; what it is told it keeps, once for each key. It can be made
/// to fail.
/// </summary>
public static class MarketStandIn
{
    private static readonly string[] Lists = ["orders", "questions", "cancellations"];
    private static readonly JsonSerializerOptions Indented = new() { WriteIndented = true };

    /// <param name="args">--name, --folder, --port (0: any that is free), --key (what callers have to show).</param>
    public static async Task<int> RunAsync(string[] args)
    {
        var builder = WebApplication.CreateSlimBuilder(args);
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        var settings = builder.Configuration;
        var folder = settings["folder"] ?? throw new ArgumentException("--folder is missing");
        var shop = new Shop(settings["name"] ?? "shop", folder);
        builder.WebHost.UseUrls($"http://127.0.0.1:{settings.GetValue("port", 0)}");
        await using var app = builder.Build();
        if (settings["key"] is { Length: > 0 } key)
            app.Use(
                (http, next) =>
                {
                    if (http.Request.Headers.Authorization == $"Bearer {key}")
                        return next();
                    http.Response.StatusCode = 401;
                    return Task.CompletedTask;
                }
            );
        app.Use(
            (http, next) =>
            {
                if (!shop.Fails || http.Request.Path == "/fail")
                    return next();
                http.Response.StatusCode = 503;
                return Task.CompletedTask;
            }
        );
        app.MapGet("/waiting", () => Results.Json(shop.Waiting()));
        app.MapPost("/waiting/{id}/taken", (string id) => shop.Taken(id) ? Results.NoContent() : Results.NotFound());
        app.MapPost("/told", async (HttpRequest told) => await shop.ToldAsync(told));
        app.MapGet("/told", () => Results.Json(shop.AllTold()));
        app.MapPost("/fail", (bool on) => shop.Fails = on);
        await app.StartAsync();
        Console.WriteLine($"ready {app.Urls.First()}");
        // It ends with whoever started it: then nothing comes from there any more.
        _ = Task.Run(async () =>
        {
            while (await Console.In.ReadLineAsync() is not null)
            {
                // Nothing is said to it that way.
            }
            await app.StopAsync();
        });
        await app.WaitForShutdownAsync();
        return 0;
    }

    // What is taken and what was told stands in its folder, and is there again after a restart.
    private sealed class Shop(string name, string folder)
    {
        private readonly string _feed = Directory.CreateDirectory(Path.Combine(folder, "feed")).FullName;
        private readonly string _taken = Directory.CreateDirectory(Path.Combine(folder, "taken")).FullName;
        private readonly string _told = Directory.CreateDirectory(Path.Combine(folder, "told")).FullName;

        public bool Fails { get; set; }

        public JsonObject Waiting()
        {
            var entries = new JsonArray();
            foreach (var (id, message, age) in All())
            {
                if (!File.Exists(MarkOf(id)))
                    entries.Add(
                        new JsonObject
                        {
                            ["id"] = id,
                            ["age"] = age.TotalSeconds,
                            ["message"] = message,
                        }
                    );
            }
            return new JsonObject { ["entries"] = entries };
        }

        public bool Taken(string id)
        {
            if (All().All(e => e.Id != id))
                return false;
            File.WriteAllText(MarkOf(id), "");
            return true;
        }

        // An id is a name, and no way to another folder.
        private string MarkOf(string id) => Path.Combine(_taken, Uri.EscapeDataString(id));

        public async Task<IResult> ToldAsync(HttpRequest told)
        {
            var key = told.Headers["Idempotency-Key"].ToString();
            if (key.Length is 0 or > 200 || Path.GetFileName(key) != key)
                return Results.BadRequest();
            var file = Path.Combine(_told, key + ".json");
            if (File.Exists(file))
                return Results.Ok();
            using var body = new MemoryStream();
            await told.Body.CopyToAsync(body);
            var part = Path.Combine(_told, $".{Guid.NewGuid():N}");
            await File.WriteAllBytesAsync(part, body.ToArray());
            File.Move(part, file, overwrite: true);
            return Results.Ok();
        }

        public JsonArray AllTold() =>
            [
                .. Directory
                    .EnumerateFiles(_told, "*.json")
                    .Order(StringComparer.Ordinal)
                    .Select(f => JsonNode.Parse(File.ReadAllText(f))),
            ];

        // Each order, question and cancellation by itself, as a message of its own.
        private IEnumerable<(string Id, JsonObject Message, TimeSpan Age)> All()
        {
            foreach (var file in Directory.EnumerateFiles(_feed, "*.json").Order(StringComparer.Ordinal))
            {
                var age = DateTime.UtcNow - File.GetLastWriteTimeUtc(file);
                var all = JsonNode.Parse(File.ReadAllText(file))!;
                foreach (var list in Lists)
                {
                    foreach (var one in all[list]?.AsArray() ?? [])
                        yield return (
                            $"{list[..^1]}-{one!["id"]}",
                            new JsonObject { ["channel"] = name, [list] = new JsonArray(one.DeepClone()) },
                            age > TimeSpan.FromMinutes(1) ? age : TimeSpan.Zero
                        );
                }
            }
        }
    }
}
