using System.Collections;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace Solvenda.Web;

/// <summary>
/// Refuses a null in a list whose elements may be none, as the serializer itself refuses a null property; no door has
/// to look for it.
/// </summary>
internal static class WholeLists
{
    public static void Modify(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var nullability = new NullabilityInfoContext();
        var lists = type
            .Properties.Where(p => p.Get is not null && p.AttributeProvider is PropertyInfo)
            .Select(p => (Json: p, Of: nullability.Create((PropertyInfo)p.AttributeProvider!)))
            .Where(p => ElementOf(p.Of) is { WriteState: NullabilityState.NotNull, Type.IsValueType: false })
            .Select(p => p.Json)
            .ToList();
        if (lists.Count > 0)
            type.OnDeserialized = read => Look(read, lists);
    }

    private static NullabilityInfo? ElementOf(NullabilityInfo of) =>
        of.Type == typeof(string) || !typeof(IEnumerable).IsAssignableFrom(of.Type)
            ? null
            : of.ElementType ?? (of.GenericTypeArguments is [var only] ? only : null);

    private static void Look(object read, List<JsonPropertyInfo> lists)
    {
        foreach (var list in lists)
        {
            if (list.Get!(read) is ICollection all && all.Cast<object?>().Any(e => e is null))
                throw new JsonException($"“{list.Name}” has an entry that is null.");
        }
    }
}
