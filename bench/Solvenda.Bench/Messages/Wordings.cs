using System.Reflection;
using System.Text.Json;

namespace Solvenda.Bench.Messages;

/// <summary>
/// How people of one language put things. Of each list every third is kept apart: readers are tuned on the others, and
/// the goals are measured on these.
/// </summary>
internal sealed class Wordings
{
    private readonly Dictionary<string, JsonElement> _all;
    private readonly bool _apart;

    private Wordings(string language, Dictionary<string, JsonElement> all, bool apart) =>
        (Language, _all, _apart) = (language, all, apart);

    public static readonly string[] Languages = ["en", "de", "sv", "no", "nl", "es", "fr", "da"];

    public string Language { get; }

    public static Wordings Of(string language, bool apart)
    {
        using var stream = Assembly
            .GetExecutingAssembly()
            .GetManifestResourceStream($"Solvenda.Bench.Messages.Wordings.{language}.json")!;
        return new Wordings(language, JsonSerializer.Deserialize<Dictionary<string, JsonElement>>(stream)!, apart);
    }

    /// <summary>One way to say it.</summary>
    public string One(string what, Random random) => Pick([.. _all[what].EnumerateArray()], random).GetString()!;

    /// <summary>The heads of a table.</summary>
    public string[] Heads(Random random) =>
        [.. Pick([.. _all["heads"].EnumerateArray()], random).EnumerateArray().Select(h => h.GetString()!)];

    /// <summary>The head of a column of discounts.</summary>
    public string Discount =>
        Language switch
        {
            "nl" => "Korting",
            "es" => "Dto",
            "fr" => "Remise",
            "da" => "Rabat",
            "en" => "Discount",
            _ => "Rabatt",
        };

    /// <summary>A word for a unit; empty where it goes without saying.</summary>
    public string Unit(string code, Random random) =>
        Pick([.. _all["units"].GetProperty(code).EnumerateArray()], random).GetString()!;

    private JsonElement Pick(List<JsonElement> of, Random random)
    {
        var mine = of.Where((_, i) => (i % 3 == 2) == _apart).ToList();
        return mine[random.Next(mine.Count)];
    }
}
