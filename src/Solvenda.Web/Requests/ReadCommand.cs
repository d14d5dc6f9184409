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

    private const string Usage = "Usage: read FILE… [--buyer CODE or NAME] [--data DIR]";

    private sealed record Asked(List<string> Files, string? Buyer, string Data);

    /// <returns>0 where every file was read; 1 where one could not be; 2 where the command itself is wrong.</returns>
    public static async Task<int> RunAsync(IReadOnlyList<string> args, TextWriter answer, TextWriter errors)
    {
        ArgumentNullException.ThrowIfNull(args);
        ArgumentNullException.ThrowIfNull(answer);
        ArgumentNullException.ThrowIfNull(errors);
        var (asked, wrong) = Parse(args);
        if (asked is null)
            return await WrongAsync(wrong);
        await using var db = new SolvendaDb(
            (DbContextOptions<SolvendaDb>)
                new DbContextOptionsBuilder<SolvendaDb>()
                    .UseSolvenda(Database.FileIn(Path.GetFullPath(asked.Data)))
                    .Options
        );
        var preset = await db
            .Buyers.Where(b => b.Code == asked.Buyer || b.Name == asked.Buyer)
            .Select(b => (long?)b.Id)
            .FirstOrDefaultAsync();
        if (asked.Buyer is not null && preset is null)
            return await WrongAsync($"There is no buyer “{asked.Buyer}”.");
        var settings = Startup.Settings();
        var seller = Startup.SellerOf(SolvendaOptions.From(settings), settings);
        using var books = new PriceBooks(seller);
        using var log = LoggerFactory.Create(l => l.AddConsole(o => o.LogToStandardErrorThreshold = LogLevel.Trace));
        var reader = new Reader(books, seller, log.CreateLogger<Reader>());
        var (all, unread) = (new JsonArray(), 0);
        foreach (var file in asked.Files)
        {
            var (read, missed) = await ReadAsync(reader, db, file, preset);
            all.Add(read);
            unread += missed;
        }
        await answer.WriteLineAsync(all.ToJsonString(Json));
        return unread == 0 ? 0 : 1;

        async Task<int> WrongAsync(string words)
        {
            await errors.WriteLineAsync(words);
            return 2;
        }
    }

    private static (Asked? Asked, string Wrong) Parse(IReadOnlyList<string> args)
    {
        var (files, buyer, data) = (new List<string>(), (string?)null, "data");
        for (var i = 0; i < args.Count; i++)
        {
            if (args[i] is "--buyer" or "--data" && i + 1 < args.Count)
                (buyer, data) = args[i] == "--buyer" ? (args[++i], data) : (buyer, args[++i]);
            else if (args[i].StartsWith("--", StringComparison.Ordinal))
                return (null, $"{args[i]} is not known. {Usage}");
            else
                files.Add(args[i]);
        }
        var folder = Path.GetFullPath(data);
        if (files.Count == 0)
            return (null, $"Which file? {Usage}");
        if (!File.Exists(Database.FileIn(folder)))
            return (null, $"There is no data in {folder}; start the server once, or name its folder with --data.");
        return files.Find(f => !File.Exists(f)) is { } missing
            ? (null, $"There is no file {missing}.")
            : (new Asked(files, buyer, data), "");
    }

    private static async Task<(JsonObject Read, int Unread)> ReadAsync(
        Reader reader,
        SolvendaDb db,
        string file,
        long? preset
    )
    {
        ReadResult result;
        try
        {
            result = await reader.ReadAsync(
                db,
                await File.ReadAllBytesAsync(file),
                Path.GetFileName(file),
                DateOnly.FromDateTime(DateTime.Now),
                CancellationToken.None,
                preset
            );
        }
        catch (TookTooLongException e)
        {
            return (new JsonObject { ["file"] = file, ["problem"] = e.Message }, 1);
        }
        return (
            new JsonObject
            {
                ["file"] = file,
                ["syntax"] = JsonSerializer.SerializeToNode(result.File.Syntax, Json),
                ["messages"] = new JsonArray([.. result.Messages.Select(m => (JsonNode)Of(m))]),
            },
            result.Messages.Count(m => m.Reading is null)
        );
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
                Evidence(o, parts, segments);
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

    private static void Evidence(
        JsonObject o,
        IReadOnlyList<OriginalPart> parts,
        IReadOnlyList<IReadOnlyList<Segment>> segments
    )
    {
        var (part, start, length) = (
            o["part"]!.GetValue<int>(),
            o["start"]!.GetValue<int>(),
            o["length"]!.GetValue<int>()
        );
        if (part >= parts.Count || start < 0 || start > parts[part].Text.Length)
            return;
        var text = parts[part].Text;
        o["text"] = text.Substring(start, Math.Min(length, text.Length - start));
        o["line"] = text.AsSpan(0, start).Count('\n') + 1;
        var words = parts[part].Words.Where(w => w.Start < start + length && w.Start + w.Length > start).ToList();
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
        for (var i = 0; i < segments[part].Count; i++)
        {
            var segment = segments[part][i];
            if (segment.Start > start || segment.Start + segment.Length <= start)
                continue;
            (o["segment"], o["tag"], o["element"]) = (i + 1, segment.Tag, ElementAt(segment, start));
            return;
        }
    }

    private static int? ElementAt(Segment segment, int start)
    {
        for (var e = 1; e <= segment.Elements && start > segment.Start; e++)
        {
            var at = segment.Place(e);
            if (at.Start <= start && at.Start + at.Length > start)
                return e;
        }
        return null;
    }

    private static JsonNode Round(double value) => JsonValue.Create(Math.Round(value, 4));
}
