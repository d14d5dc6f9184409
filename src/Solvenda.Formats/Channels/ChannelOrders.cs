using System.Collections.Immutable;
using System.Globalization;
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

    private static readonly string[] Address = ["name", "street", "postcode", "city", "country"];

    public static ImmutableArray<Incoming> Read(byte[] raw)
    {
        ArgumentNullException.ThrowIfNull(raw);
        var text = System.Text.Encoding.UTF8.GetString(raw).TrimStart('\uFEFF');
        JsonDocument document;
        try
        {
            document = JsonDocument.Parse(
                text,
                new JsonDocumentOptions
                {
                    MaxDepth = Deepest,
                    CommentHandling = JsonCommentHandling.Skip,
                    AllowTrailingCommas = true,
                }
            );
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
            var orders = Entries(root, "orders");
            var questions = Entries(root, "questions");
            if (root.ValueKind != JsonValueKind.Object || orders.Count + questions.Count == 0)
                return
                [
                    new Incoming("", "JSON", [Part(text)]) { Problem = "The JSON holds neither orders nor questions." },
                ];
            if (orders.Count + questions.Count > MostEntries)
                return
                [
                    new Incoming("", "JSON", [Part(text)])
                    {
                        Problem =
                            $"The file holds {orders.Count + questions.Count} entries; up to {MostEntries} are read.",
                    },
                ];
            var channel = Text(root, "channel");
            return [.. orders.Select(o => Order(o, channel)), .. questions.Select(q => Question(q, channel))];
        }
    }

    private static OriginalPart Part(string text) => new("the file", PartKind.Json, text);

    private static List<JsonElement> Entries(JsonElement root, string name) =>
        root.ValueKind == JsonValueKind.Object
        && root.TryGetProperty(name, out var list)
        && list.ValueKind == JsonValueKind.Array
            ? [.. list.EnumerateArray().Where(e => e.ValueKind == JsonValueKind.Object)]
            : [];

    private static Incoming Order(JsonElement order, string channel)
    {
        // Written anew, a line to each value, so that every value has a place of its own to point at.
        var (text, places) = Lay(order);
        Evidence At(string path) => places.GetValueOrDefault(path, new Evidence(0, 0, 0));
        Stated<string>? Stated(string path) =>
            Find(order, path) is { } e && Plain(e) is { Length: > 0 } value
                ? new Stated<string>(value, At(path))
                : null;
        var warnings = new List<string>();
        Stated<decimal>? Number(JsonElement of, string name, string path)
        {
            if (Plain(of, name) is not { Length: > 0 } value)
                return null;
            if (
                decimal.TryParse(
                    value,
                    NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                    CultureInfo.InvariantCulture,
                    out var number
                )
            )
                return new Stated<decimal>(number, At(path));
            warnings.Add($"“{value}” is not a number ({path}); it was left aside.");
            return null;
        }
        var lines = Entries(order, "lines")
            .Select(
                (l, i) =>
                    new StatedLine(
                        Plain(l, "line"),
                        Number(l, "quantity", $"lines[{i}].quantity"),
                        Plain(l, "unit") is { Length: > 0 } unit ? unit : "C62",
                        Number(l, "unitPrice", $"lines[{i}].unitPrice"),
                        1m,
                        null,
                        Find(l, "sku") is { } sku ? new Stated<string>(Plain(sku), At($"lines[{i}].sku")) : null,
                        Find(l, "gtin") is { } gtin ? new Stated<string>(Plain(gtin), At($"lines[{i}].gtin")) : null,
                        Plain(l, "title"),
                        [At($"lines[{i}]")]
                    )
                    {
                        WithTax = Plain(l, "taxIncluded") == "true",
                    }
            )
            .ToImmutableArray();
        var shipping = Number(order, "shipping", "shipping");
        var total = Number(order, "total", "total");
        var sum = lines.Sum(l => (l.Quantity?.Value ?? 0m) * (l.Price?.Value ?? 0m)) + (shipping?.Value ?? 0m);
        if (total is not null && total.Value != sum)
            warnings.Add(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"The total says {total.Value:0.00}; lines and shipping make {sum:0.00}."
                )
            );
        var id = Plain(order, "id");
        var paid = Plain(order, "payment.state");
        var notes = new[]
        {
            Plain(order, "note"),
            paid.Length > 0 ? $"{paid}, {Plain(order, "payment.reference")}" : "",
        };
        if (Plain(order, "fee") is { Length: > 0 } fee)
            warnings.Add($"The channel keeps a fee of {fee}.");
        var deliver = Address.Select(p => Plain(order, $"deliverTo.{p}")).ToList();
        return new Incoming(channel, $"{channel} order {id}", [Part(text)])
        {
            OwnId = id.Length > 0 ? $"channel:{channel}:{id}" : null,
            Problem = lines.IsEmpty ? $"Order {id} has no lines." : null,
            Document = lines.IsEmpty
                ? null
                : new OrderDocument(MessageKind.Order, lines)
                {
                    Clues = [new Clue("channel", channel, [])],
                    Contact = Stated("buyer.name"),
                    PoNumber = Stated("id"),
                    Written = DateOnly.TryParseExact(
                        Plain(order, "placedAt").Split('T')[0],
                        "yyyy-MM-dd",
                        CultureInfo.InvariantCulture,
                        DateTimeStyles.None,
                        out var day
                    )
                        ? day
                        : null,
                    Currency = Stated("currency"),
                    DeliverTo = deliver.Any(d => d.Length > 0)
                        ? new Stated<string>(
                            string.Join(
                                ", ",
                                new[] { deliver[0], deliver[1], $"{deliver[2]} {deliver[3]}".Trim(), deliver[4] }.Where(
                                    d => d.Length > 0
                                )
                            ),
                            At("deliverTo")
                        )
                        : null,
                    DeliverToCountry = deliver[4].Length == 2 ? deliver[4] : null,
                    Note = notes.Any(n => n.Length > 0)
                        ? new Stated<string>(string.Join("; ", notes.Where(n => n.Length > 0)), At("note"))
                        : null,
                    Charges = shipping is { Value: not 0 } s ? [("freight", s.Value)] : [],
                    Warnings = [.. warnings],
                },
        };
    }

    private static Incoming Question(JsonElement question, string channel)
    {
        var words = Plain(question, "text");
        var listing = Plain(question, "listing");
        var written = DateOnly.TryParseExact(
            Plain(question, "askedAt").Split('T')[0],
            "yyyy-MM-dd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? day
            : default;
        var from = Plain(question, "from");
        var id = Plain(question, "id");
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
                Written = written == default ? null : written,
                Note = new Stated<string>(words, new Evidence(0, 0, words.Length)),
            },
        };
    }

    private static JsonElement? Find(JsonElement of, string path)
    {
        foreach (var name in path.Split('.'))
        {
            if (of.ValueKind != JsonValueKind.Object || !of.TryGetProperty(name, out of))
                return null;
        }
        return of;
    }

    private static string Plain(JsonElement of, string path) => Find(of, path) is { } e ? Plain(e) : "";

    private static string Plain(JsonElement e) =>
        e.ValueKind switch
        {
            JsonValueKind.String => e.GetString()!.Trim(),
            JsonValueKind.Number or JsonValueKind.True or JsonValueKind.False => e.GetRawText(),
            _ => "",
        };

    private static string Text(JsonElement of, string name) => Plain(of, name);

    // An entry as indented JSON, with the characters of every value by its path.
    private static (string Text, Dictionary<string, Evidence> Places) Lay(JsonElement entry)
    {
        var text = new System.Text.StringBuilder();
        var places = new Dictionary<string, Evidence>();
        Write(entry, "", 0);
        return (text.ToString(), places);

        void Write(JsonElement e, string path, int depth)
        {
            var start = text.Length;
            switch (e.ValueKind)
            {
                case JsonValueKind.Object:
                    text.Append("{\n");
                    foreach (var p in e.EnumerateObject())
                    {
                        text.Append(' ', (depth + 1) * 2).Append(JsonSerializer.Serialize(p.Name, Shown)).Append(": ");
                        Write(p.Value, path.Length == 0 ? p.Name : $"{path}.{p.Name}", depth + 1);
                        text.Append('\n');
                    }
                    text.Append(' ', depth * 2).Append('}');
                    break;
                case JsonValueKind.Array:
                    text.Append("[\n");
                    var i = 0;
                    foreach (var one in e.EnumerateArray())
                    {
                        text.Append(' ', (depth + 1) * 2);
                        Write(one, $"{path}[{i++}]", depth + 1);
                        text.Append('\n');
                    }
                    text.Append(' ', depth * 2).Append(']');
                    break;
                case JsonValueKind.String:
                    text.Append(JsonSerializer.Serialize(e.GetString(), Shown));
                    break;
                default:
                    text.Append(e.GetRawText());
                    break;
            }
            places[path] = new Evidence(0, start, text.Length - start);
        }
    }

    // Shown as text, never as markup: letters stay letters.
    private static readonly JsonSerializerOptions Shown = new()
    {
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };
}
