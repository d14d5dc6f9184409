using System.Globalization;
using System.Text.Json.Nodes;

namespace Solvenda.Web.Tests.Fuzz;

/// <summary>
/// Makes values for a schema of the OpenAPI document: half of them such as people send, the others from the ends of
/// what the types can hold and beyond.
/// </summary>
/// <param name="known">Values that are there, by the name under which they are asked for.</param>
public sealed class OddValues(Random random, JsonNode schemas, Dictionary<string, string[]> known)
{
    private const int Deepest = 5;

    private static readonly string[] Texts =
    [
        "",
        " ",
        "x",
        "a=b",
        "0001-01-01",
        "9999-12-31",
        "2026-02-30",
        "-1",
        "1e99",
        "9e12",
        "79228162514264337593543950335",
        "0.00000000000001",
        "NaN",
        "∞",
        "1.250",
        "١٢",
        "\u0000",
        "\uD800",
        "'; --",
        "%",
        "=1+1",
        "../../x",
        "[]",
        "{",
        "(((",
        "price > 99999999999999999999",
        "code = a and (b",
        "from < 0001-01-01",
        "*",
        "no such thing",
        "2026-12-01",
        "5",
        "3 MTR",
    ];

    private static readonly string[] Numbers =
    [
        "0",
        "-1",
        "1",
        "3",
        "100",
        "0.0000001",
        "-0.5",
        "2147483648",
        "9223372036854775807",
        "-9223372036854775808",
        "9.3e18",
        "1e28",
        "79228162514264337593543950335",
        "1e300",
        "1e-300",
        "501",
    ];

    /// <summary>What is there under a name from now on.</summary>
    public void Prefer(string name, string[] values) => known[name] = values;

    /// <summary>A value as JSON, right or wrong.</summary>
    public JsonNode? Of(JsonNode schema, string name, int depth = 0)
    {
        // Something of quite another kind.
        if (depth > 0 && random.Next(12) == 0)
            return random.Next(5) switch
            {
                0 => null,
                1 => JsonValue.Create(7),
                2 => new JsonArray(null, 1, "x"),
                3 => new JsonObject { ["x"] = null },
                _ => JsonValue.Create(Text(name)),
            };
        if (schema["$ref"]?.GetValue<string>() is { } reference)
            return Of(schemas[reference.Split('/')[^1]]!, name, depth);
        if ((schema["oneOf"] ?? schema["anyOf"] ?? schema["allOf"]) is JsonArray { Count: > 0 } either)
            return Of(either[random.Next(either.Count)]!, name, depth);
        if (schema["enum"] is JsonArray names && random.Next(8) != 0)
            return names[random.Next(names.Count)]?.DeepClone();
        var types = schema["type"] switch
        {
            JsonArray several => [.. several.Select(t => t!.GetValue<string>())],
            JsonValue one => new[] { one.GetValue<string>() },
            _ => ["string"],
        };
        return types[random.Next(types.Length)] switch
        {
            "null" => null,
            "object" => Object(schema, depth),
            "array" => Array(schema, name, depth),
            "boolean" => JsonValue.Create(random.Next(2) == 0),
            "integer" => JsonNode.Parse(Number(name, whole: true)),
            "number" => JsonNode.Parse(Number(name, whole: false)),
            _ => JsonValue.Create(Text(name)),
        };
    }

    /// <summary>A value as it stands in an address or a header.</summary>
    public string Plain(string name) =>
        Known(name) is { } there ? there
        : random.Next(2) == 0 ? Numbers[random.Next(Numbers.Length)]
        : Texts[random.Next(Texts.Length)];

    private JsonObject Object(JsonNode schema, int depth)
    {
        var made = new JsonObject();
        if (depth > Deepest)
            return made;
        foreach (var (name, of) in schema["properties"]?.AsObject() ?? [])
        {
            if (random.Next(15) != 0)
                made[name] = Of(of!, name, depth + 1);
        }
        if (schema["additionalProperties"] is JsonObject of2)
        {
            for (var i = random.Next(4); i > 0; i--)
                made[Known("field") ?? Text("field")] = Of(of2, "value", depth + 1);
        }
        if (random.Next(20) == 0)
            made["neverHeardOf"] = 1;
        return made;
    }

    private JsonArray Array(JsonNode schema, string name, int depth)
    {
        var made = new JsonArray();
        var many = random.Next(40) == 0 ? 600 : random.Next(4);
        for (var i = 0; i < many && depth <= Deepest; i++)
            made.Add(Of(schema["items"] ?? new JsonObject(), name, depth + 1));
        return made;
    }

    private string Number(string name, bool whole)
    {
        if (Known(name) is { } there && decimal.TryParse(there, CultureInfo.InvariantCulture, out _))
            return there;
        var number = Numbers[random.Next(Numbers.Length)];
        return whole && random.Next(3) != 0 ? number.Split('.', 'e')[0] : number;
    }

    private string Text(string name) =>
        Known(name) ?? (random.Next(60) == 0 ? new string('é', 20_000) : Texts[random.Next(Texts.Length)]);

    private string? Known(string name) =>
        random.Next(4) != 0 && known.TryGetValue(name, out var values) && values.Length > 0
            ? values[random.Next(values.Length)]
            : null;
}
