using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization;
using Solvenda.Core.People;

namespace Solvenda.Core.Sheets;

/// <summary>A term as it stands on a head: its canonical text, and the hand that typed it.</summary>
/// <param name="Text">As the term writes it: numbers with a point, dates as yyyy-MM-dd.</param>
/// <param name="By">Null where it stands as the buyer has it by default.</param>
public sealed record TermValue(string Text, Hand? By);

/// <summary>The terms on the head of a document, by their names. What nobody said is not in it.</summary>
public sealed class Head
{
    private static readonly JsonSerializerOptions Json = new()
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    /// <summary>Nothing said.</summary>
    public static readonly Head Empty = new(
        ImmutableSortedDictionary.Create<string, TermValue>(StringComparer.Ordinal)
    );

    private readonly ImmutableSortedDictionary<string, TermValue> _terms;

    private Head(ImmutableSortedDictionary<string, TermValue> terms) => _terms = terms;

    /// <summary>Every term that says something.</summary>
    public IEnumerable<KeyValuePair<string, TermValue>> All => _terms;

    /// <summary>The term; null where nothing is said.</summary>
    public TermValue? this[string name] => _terms.GetValueOrDefault(name);

    /// <summary>Its canonical text; null where nothing is said.</summary>
    public string? Text(string name) => _terms.GetValueOrDefault(name)?.Text;

    /// <summary>The same with another text; null or empty takes the term away.</summary>
    public Head With(string name, string? text, Hand? by) =>
        new(string.IsNullOrEmpty(text) ? _terms.Remove(name) : _terms.SetItem(name, new TermValue(text, by)));

    /// <summary>For storing: a name, its text and its hand each, as JSON.</summary>
    public string ToJson() =>
        JsonSerializer.Serialize(
            _terms.ToDictionary(t => t.Key, t => new Kept(t.Value.Text, t.Value.By?.Person?.Value, t.Value.By?.Name)),
            Json
        );

    /// <summary>As <see cref="ToJson"/> wrote it.</summary>
    public static Head FromJson(string json) =>
        string.IsNullOrEmpty(json)
            ? Empty
            : new Head(
                JsonSerializer
                    .Deserialize<Dictionary<string, Kept>>(json)!
                    .ToImmutableSortedDictionary(
                        t => t.Key,
                        t => new TermValue(
                            t.Value.V,
                            t.Value.N is { } name ? new Hand(t.Value.P is { } id ? new PersonId(id) : null, name) : null
                        ),
                        StringComparer.Ordinal
                    )
            );

    // Short names: a sheet has a dozen of them.
    private sealed record Kept(string V, long? P, string? N);
}
