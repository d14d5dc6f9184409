using System.Collections.Frozen;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Solvenda.Core.Documents.Events;

namespace Solvenda.Data.Events;

/// <summary>
/// Facts as JSON and back, by their stable code. Every event of Core is known by its attribute; there is no list to
/// forget it in.
/// </summary>
public static class EventCodes
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    private static readonly FrozenDictionary<Type, EventCodeAttribute> Codes = typeof(IEvent)
        .Assembly.GetTypes()
        .Where(t => t.IsClass && t.IsAssignableTo(typeof(IEvent)))
        .ToFrozenDictionary(t => t, t => t.GetCustomAttribute<EventCodeAttribute>()!);

    private static readonly FrozenDictionary<string, Type> Types = Codes.ToFrozenDictionary(
        c => c.Value.Code,
        c => c.Key
    );

    /// <summary>Every event, by its type.</summary>
    public static IReadOnlyDictionary<Type, EventCodeAttribute> All => Codes;

    /// <summary>The stable code of an event.</summary>
    public static string Of<TEvent>()
        where TEvent : IEvent => Codes[typeof(TEvent)].Code;

    public static EventCodeAttribute Of(IEvent facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return Codes[facts.GetType()];
    }

    public static string ToJson(IEvent facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        return JsonSerializer.Serialize(facts, facts.GetType(), Json);
    }

    /// <summary>Null where they were blanked, or are of a code that nobody knows any more.</summary>
    public static IEvent? FromJson(string code, string facts) =>
        facts.Length > 0 && Types.TryGetValue(code, out var type)
            ? (IEvent?)JsonSerializer.Deserialize(facts, type, Json)
            : null;
}
