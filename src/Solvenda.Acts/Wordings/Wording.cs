using System.Collections.Immutable;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using Solvenda.Core.Units;

namespace Solvenda.Acts.Wordings;

/// <summary>
/// What we say to buyers in one language, with its numbers and days: on paper, in letters, on the page behind their
/// link.
/// One file each in Wordings/, called by its code in ISO 639-1; a language is added by adding its file.
/// </summary>
public sealed class Wording
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        UnmappedMemberHandling = System.Text.Json.Serialization.JsonUnmappedMemberHandling.Disallow,
    };

    private Wording(string code, File file)
    {
        Code = code;
        Name = file.Name;
        Texts = file.Texts;
        // Our own signs and months, so that a document does not hang on what the machine it is printed on has
        // installed.
        var culture = (CultureInfo)CultureInfo.InvariantCulture.Clone();
        (
            culture.NumberFormat.NumberDecimalSeparator,
            culture.NumberFormat.NumberGroupSeparator,
            culture.NumberFormat.NegativeSign
        ) = (file.Decimal, file.Group, "\u2212");
        string[] months = [.. file.Months, ""];
        (
            culture.DateTimeFormat.MonthNames,
            culture.DateTimeFormat.MonthGenitiveNames,
            culture.DateTimeFormat.LongDatePattern
        ) = (months, months, file.Day);
        Culture = CultureInfo.ReadOnly(culture);
    }

    /// <summary>Every language that documents are written in, by its code.</summary>
    public static ImmutableSortedDictionary<string, Wording> All { get; } =
        Assembly
            .GetExecutingAssembly()
            .GetManifestResourceNames()
            .Where(n => n.Contains(".Wordings.", StringComparison.Ordinal))
            .Select(Load)
            .ToImmutableSortedDictionary(w => w.Code, w => w, StringComparer.Ordinal);

    /// <summary>What is wrong with a language for documents; null where nothing is.</summary>
    public static string? Fault(string code) =>
        All.ContainsKey(code)
            ? null
            : $"“{code}” is none of the languages that documents are written in: {string.Join(", ", All.Keys)}";

    public static Wording Of(string code) => All[code];

    /// <summary>ISO 639-1.</summary>
    public string Code { get; }

    /// <summary>What its speakers call it.</summary>
    public string Name { get; }

    /// <summary>Its numbers and days.</summary>
    public CultureInfo Culture { get; }

    public IReadOnlyDictionary<string, string> Texts { get; }

    public string this[string key] => Texts[key];

    /// <summary>A text with its places filled.</summary>
    public string With(string key, params object[] values) => string.Format(Culture, Texts[key], values);

    /// <summary>
    /// A text that only some of a kind have: <paramref name="otherwise"/> for those that the house itself named.
    /// </summary>
    public string Or(string key, string otherwise) => Texts.GetValueOrDefault(key, otherwise);

    public string Day(DateOnly day) => day.ToString(Culture.DateTimeFormat.LongDatePattern, Culture);

    public string Number(decimal value) => value.ToString("#,0.######", Culture);

    public string Fixed(decimal value, int decimals) =>
        value.ToString("N" + decimals.ToString(CultureInfo.InvariantCulture), Culture);

    public string UnitWord(Unit unit) => Or("unit." + unit.Code, UnitTable.OnSheet(unit));

    private static Wording Load(string resource)
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream(resource)!;
        return new Wording(
            resource.Split('.')[^2],
            JsonSerializer.Deserialize<File>(stream, Json)
                ?? throw new InvalidOperationException($"{resource} is empty.")
        );
    }

    private sealed record File(
        string Name,
        string Decimal,
        string Group,
        string Day,
        string[] Months,
        Dictionary<string, string> Texts
    );
}
