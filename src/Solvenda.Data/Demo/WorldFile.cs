using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Solvenda.Data.Demo;

/// <summary>Reads the tables of the demo world that ship with it as JSON (Demo/World).</summary>
internal static class WorldFile
{
    private static readonly JsonSerializerOptions Strict = new(JsonSerializerDefaults.Web)
    {
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        Converters = { new JsonStringEnumConverter() },
    };

    public static IReadOnlyList<T> Read<T>(string name)
    {
        using var stream = Open($"World.{name}");
        return JsonSerializer.Deserialize<List<T>>(stream, Strict)!;
    }

    /// <summary>A file that ships inside the assembly.</summary>
    public static Stream Open(string name) =>
        Assembly.GetExecutingAssembly().GetManifestResourceStream($"Solvenda.Data.Demo.{name}")
        ?? throw new InvalidOperationException($"{name} of the demo world is not in the assembly.");
}
