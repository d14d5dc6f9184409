using System.Collections.Immutable;
using System.Text.Json;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Channels;

/// <summary>
/// Reads what a sales channel hands over as JSON: orders that are paid already, and questions of people, several in one
/// file.
/// </summary>
public static class ChannelOrders
{
    private const int Deepest = 32;

    private const int MostEntries = 2_000;

    private static readonly JsonDocumentOptions Lenient = new()
    {
        MaxDepth = Deepest,
        CommentHandling = JsonCommentHandling.Skip,
        AllowTrailingCommas = true,
    };

    // What a file may list.
    private static readonly string[] Lists = ["orders", "questions", "cancellations"];

    public static ImmutableArray<Incoming> Read(byte[] raw)
    {
        ArgumentNullException.ThrowIfNull(raw);
        var text = System.Text.Encoding.UTF8.GetString(raw).TrimStart('\uFEFF');
        JsonDocument document;
        try
        {
            document = JsonDocument.Parse(text, Lenient);
        }
        catch (JsonException e)
        {
            return
            [
                new Incoming("", "JSON", [Part(text)])
                {
                    Problem = $"The JSON is not well formed, line {e.LineNumber + 1}.",
                },
            ];
        }
        using (document)
        {
            var root = document.RootElement;
            var orders = JsonEntry.List(root, "orders");
            var questions = JsonEntry.List(root, "questions");
            var cancellations = JsonEntry.List(root, "cancellations");
            var entries = orders.Count + questions.Count + cancellations.Count;
            if (root.ValueKind != JsonValueKind.Object || entries == 0)
                return
                [
                    new Incoming("", "JSON", [Part(text)])
                    {
                        Problem = "The JSON holds neither orders nor questions nor cancellations.",
                    },
                ];
            if (entries > MostEntries)
                return
                [
                    new Incoming("", "JSON", [Part(text)])
                    {
                        Problem = $"The file holds {entries} entries; up to {MostEntries} are read.",
                    },
                ];
            var channel = JsonEntry.Plain(root, "channel");
            return
            [
                .. orders.Select(o => ChannelOrder.Read(o, channel)),
                .. questions.Select(q => Question(q, channel)),
                .. cancellations.Select(c => ChannelOrder.ReadCancellation(c, channel)),
            ];
        }
    }

    /// <summary>
    /// The channel's own id of what is in the file, where that is one thing alone; null else. Never throws.
    /// </summary>
    public static string? OwnIdOf(byte[] raw)
    {
        ArgumentNullException.ThrowIfNull(raw);
        try
        {
            using var document = JsonDocument.Parse(raw, Lenient);
            var root = document.RootElement;
            var entries = Lists.SelectMany(name => JsonEntry.List(root, name)).Take(2).ToList();
            return
                entries.Count == 1
                && JsonEntry.Plain(entries[0], "id") is { Length: > 0 } id
                && JsonEntry.Plain(root, "channel") is { Length: > 0 } channel
                ? $"channel:{channel}:{id}"
                : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static OriginalPart Part(string text) => new("the file", PartKind.Json, text);

    private static readonly string[] Referring = ["inReplyTo", "order"];

    private static Incoming Question(JsonElement question, string channel)
    {
        var words = JsonEntry.Plain(question, "text");
        var listing = JsonEntry.Plain(question, "listing");
        var from = JsonEntry.Plain(question, "from");
        var id = JsonEntry.Plain(question, "id");
        return new Incoming(
            from,
            $"{channel} question {id}{(listing.Length > 0 ? $" about {listing}" : "")}",
            [new OriginalPart("the question", PartKind.Letter, words)]
        )
        {
            OwnId = id.Length > 0 ? $"channel:{channel}:{id}" : null,
            Document = new OrderDocument(MessageKind.Question, [])
            {
                Clues = [new Clue("channel", channel, [])],
                Contact = from.Length > 0 ? new Stated<string>(from, new Evidence(0, 0, 0)) : null,
                Written = JsonEntry.Day(question, "askedAt"),
                Note = new Stated<string>(words, new Evidence(0, 0, words.Length)),
                About =
                [
                    .. Referring
                        .Select(name => JsonEntry.Plain(question, name))
                        .Where(other => other.Length > 0)
                        .Select(other => $"channel:{channel}:{other}"),
                ],
            },
        };
    }
}
