using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Channels;

/// <summary>Takes values out of one entry of a channel's JSON by their path ("payment.state").</summary>
internal static class JsonEntry
{
    /// <summary>The objects of a list; empty where there is no such list.</summary>
    public static List<JsonElement> List(JsonElement root, string name) =>
        root.ValueKind == JsonValueKind.Object
        && root.TryGetProperty(name, out var list)
        && list.ValueKind == JsonValueKind.Array
            ? [.. list.EnumerateArray().Where(e => e.ValueKind == JsonValueKind.Object)]
            : [];

    public static JsonElement? Find(JsonElement of, string path)
    {
        foreach (var name in path.Split('.'))
        {
            if (of.ValueKind != JsonValueKind.Object || !of.TryGetProperty(name, out of))
                return null;
        }
        return of;
    }

    public static string Plain(JsonElement of, string path) => Find(of, path) is { } e ? Plain(e) : "";

    public static string Plain(JsonElement e) =>
        e.ValueKind switch
        {
            JsonValueKind.String => e.GetString()!.Trim(),
            JsonValueKind.Number or JsonValueKind.True or JsonValueKind.False => e.GetRawText(),
            _ => "",
        };

    /// <summary>The day at the front of a time as of ISO 8601; null where there is none.</summary>
    public static DateOnly? Day(JsonElement of, string path) =>
        DateOnly.TryParseExact(
            Plain(of, path).Split('T')[0],
            "yyyy-MM-dd",
            CultureInfo.InvariantCulture,
            DateTimeStyles.None,
            out var day
        )
            ? day
            : null;

    /// <summary>An entry as indented JSON, a line to each value, and where each value stands in it.</summary>
    public static (string Text, Dictionary<string, Evidence> Places) Lay(JsonElement entry)
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
