using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Requests;
using Solvenda.Core.Reading;
using Solvenda.Data;
using Solvenda.Formats;
using Solvenda.Formats.Edi;

namespace Solvenda.Web.Requests;

/// <summary>
/// <c>./solvenda read FILE… [--buyer X] [--data DIR]</c>: prints the reading of files as JSON, for those who test what
/// they send. Stores nothing (docs/guide/integrators.md).
/// </summary>
public static class ReadCommand
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        DefaultIgnoreCondition = JsonIgnoreCondition.Never,
    };

    /// <returns>0 where every file was read; 1 where one could not be; 2 where the command itself is wrong.</returns>
    public static async Task<int> RunAsync(IReadOnlyList<string> args, TextWriter answer, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(args);
        ArgumentNullException.ThrowIfNull(answer);
        ArgumentNullException.ThrowIfNull(errors);
        var (files, buyer, data) = (new List<string>(), (string?)null, "data");
        for (var i = 0; i < args.Count; i++)
        {
            if (args[i] is "--buyer" or "--data" && i + 1 < args.Count)
                (buyer, data) = args[i] == "--buyer" ? (args[++i], data) : (buyer, args[++i]);
            else if (args[i].StartsWith("--", StringComparison.Ordinal))
                return await WrongAsync(
                    $"{args[i]} is not known. Usage: read FILE… [--buyer CODE or NAME] [--data DIR]"
                );
            else
                files.Add(args[i]);
        }
        if (files.Count == 0)
            return await WrongAsync("Which file? Usage: read FILE… [--buyer CODE or NAME] [--data DIR]");
        var database = Database.FileIn(Path.GetFullPath(data));
        if (!File.Exists(database))
            return await WrongAsync(
                $"There is no data in {Path.GetFullPath(data)}; start the server once, or name its folder with --data."
            );

        await using var db = new SolvendaDb(
            (DbContextOptions<SolvendaDb>)new DbContextOptionsBuilder<SolvendaDb>().UseSolvenda(database).Options
        );
        long? preset = null;
        if (buyer is not null)
        {
            preset = await db
                .Buyers.Where(b => b.Code == buyer || b.Name == buyer)
                .Select(b => (long?)b.Id)
                .FirstOrDefaultAsync();
            if (preset is null)
                return await WrongAsync($"There is no buyer “{buyer}”.");
        }
        var settings = Startup.Settings();
        using var books = new PriceBooks(Startup.SellerOf(SolvendaOptions.From(settings), settings));
        using var log = LoggerFactory.Create(l => l.AddConsole(o => o.LogToStandardErrorThreshold = LogLevel.Trace));
        var reader = new Reader(books, log.CreateLogger<Reader>());
        var today = DateOnly.FromDateTime(DateTime.Now);
        var all = new JsonArray();
        var unread = 0;
        foreach (var file in files)
        {
            if (!File.Exists(file))
                return await WrongAsync($"There is no file {file}.");
            var result = await reader.ReadAsync(
                db,
                await File.ReadAllBytesAsync(file),
                Path.GetFileName(file),
                today,
                CancellationToken.None,
                preset
            );
            unread += result.Messages.Count(m => m.Reading is null);
            all.Add(
                new JsonObject
                {
                    ["file"] = file,
                    ["syntax"] = JsonSerializer.SerializeToNode(result.File.Syntax, Json),
                    ["messages"] = new JsonArray([.. result.Messages.Select(m => (JsonNode)Of(m))]),
                }
            );
        }
        await answer.WriteLineAsync(all.ToJsonString(Json));
        return unread == 0 ? 0 : 1;

        async Task<int> WrongAsync(string words)
        {
            await errors.WriteLineAsync(words);
            return 2;
        }
    }

    private static JsonObject Of(ReadMessage read)
    {
        var reading = read.Reading is null ? null : JsonSerializer.SerializeToNode(read.Reading, Json);
        if (reading is not null)
            Place(reading, read.Message.Parts, [.. read.Message.Parts.Select(Segments)]);
        return new JsonObject
        {
            ["from"] = read.Message.From,
            ["subject"] = read.Message.Subject,
            ["ownId"] = read.Message.OwnId,
            ["parts"] = new JsonArray([
                .. read.Message.Parts.Select(p =>
                    (JsonNode)
                        new JsonObject
                        {
                            ["name"] = p.Name,
                            ["kind"] = JsonSerializer.SerializeToNode(p.Kind, Json),
                            ["length"] = p.Text.Length,
                            ["pages"] = p.Pages,
                        }
                ),
            ]),
            ["problem"] = read.Problem,
            ["reading"] = reading,
        };
    }

    private static IReadOnlyList<Segment> Segments(OriginalPart part) =>
        part.Kind == PartKind.Edi ? Readers.SegmentsOf(part.Text) : [];

    // Adds to each piece of evidence what people call its place: line and text; page and rectangle; segment and
    // element.
    private static void Place(
        JsonNode node,
        IReadOnlyList<OriginalPart> parts,
        IReadOnlyList<IReadOnlyList<Segment>> segments
    )
    {
        switch (node)
        {
            case JsonArray array:
                foreach (var one in array.OfType<JsonNode>())
                    Place(one, parts, segments);
                break;
            case JsonObject o when o.ContainsKey("start") && o.ContainsKey("length") && o.ContainsKey("part"):
                var (part, start, length) = (
                    o["part"]!.GetValue<int>(),
                    o["start"]!.GetValue<int>(),
                    o["length"]!.GetValue<int>()
                );
                if (part >= parts.Count || start < 0 || start > parts[part].Text.Length)
                    break;
                var text = parts[part].Text;
                o["text"] = text.Substring(start, Math.Min(length, text.Length - start));
                o["line"] = text.AsSpan(0, start).Count('\n') + 1;
                var words = parts[part]
                    .Words.Where(w => w.Start < start + length && w.Start + w.Length > start)
                    .ToList();
                if (words.Count > 0)
                {
                    o["page"] = words[0].Page + 1;
                    var (left, top) = (words.Min(w => w.Left), words.Min(w => w.Top));
                    o["rectangle"] = new JsonArray(
                        Round(left),
                        Round(top),
                        Round(words.Max(w => w.Left + w.Width) - left),
                        Round(words.Max(w => w.Top + w.Height) - top)
                    );
                }
                if (
                    segments[part]
                        .Select((s, i) => (Segment: s, At: i))
                        .FirstOrDefault(s => s.Segment.Start <= start && s.Segment.Start + s.Segment.Length > start) is
                    { Segment: { } segment } found
                )
                {
                    (o["segment"], o["tag"]) = (found.At + 1, segment.Tag);
                    var element = Enumerable
                        .Range(1, segment.Elements)
                        .FirstOrDefault(e =>
                            segment.Place(e) is var at
                            && at.Start <= start
                            && at.Start + at.Length > start
                            && start > segment.Start
                        );
                    o["element"] = element == 0 ? null : element;
                }
                break;
            case JsonObject o:
                foreach (var (_, value) in o.ToList())
                {
                    if (value is not null)
                        Place(value, parts, segments);
                }
                break;
        }
    }

    private static JsonNode Round(double value) => JsonValue.Create(Math.Round(value, 4));
}
