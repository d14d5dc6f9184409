using System.Collections;
using System.Collections.Immutable;
using System.Reflection;
using System.Text.RegularExpressions;
using Solvenda.Core.Documents.Events;
using Solvenda.Data.Events;
using Solvenda.Web.Dossiers;
using Xunit;

namespace Solvenda.Web.Tests;

/// <summary>Every event there is, in words: none is forgotten, and none shows its insides.</summary>
public sealed class EventWordTests
{
    public static TheoryData<Type> All() =>
        [.. typeof(IEvent).Assembly.GetTypes().Where(t => t.IsAssignableTo(typeof(IEvent)) && !t.IsInterface)];

    // Something of each type that facts are made of.
    private static object? Some(Type type)
    {
        if (Nullable.GetUnderlyingType(type) is { } under)
            return Some(under);
        if (type == typeof(string))
            return "some words";
        if (type.IsEnum)
            return Enum.GetValues(type).GetValue(0);
        if (type == typeof(DateOnly))
            return new DateOnly(2026, 3, 2);
        if (type == typeof(DateTime))
            return new DateTime(2026, 3, 2, 8, 0, 0, DateTimeKind.Utc);
        if (type.IsGenericType && type.GetGenericTypeDefinition() == typeof(ImmutableArray<>))
        {
            var of = type.GetGenericArguments()[0];
            var one = Array.CreateInstance(of, 1);
            one.SetValue(Some(of), 0);
            return typeof(ImmutableArray)
                .GetMethods()
                .Single(m => m.Name == "Create" && m.GetParameters() is [{ ParameterType.IsArray: true }])
                .MakeGenericMethod(of)
                .Invoke(null, [one]);
        }
        if (
            type.IsAssignableTo(typeof(IDictionary))
            || type.Name.StartsWith("ImmutableDictionary", StringComparison.Ordinal)
        )
            return type.GetField("Empty")?.GetValue(null);
        if (type.IsPrimitive || type == typeof(decimal))
            return Convert.ChangeType(3, type, System.Globalization.CultureInfo.InvariantCulture);
        var made = type.GetConstructors(BindingFlags.Public | BindingFlags.Instance)
            .MaxBy(c => c.GetParameters().Length)!;
        return made.Invoke([.. made.GetParameters().Select(p => Some(p.ParameterType))]);
    }

    [Theory]
    [MemberData(nameof(All))]
    public void An_event_is_said_in_words_and_comes_back_from_the_database_as_it_was(Type type)
    {
        var facts = (IEvent)Some(type)!;
        var words = EventWords.Of(facts);
        Assert.All(words, w => Assert.False(string.IsNullOrWhiteSpace(w.Words)));
        // No name of a type, no braces, no code of ours.
        Assert.All(
            words,
            w => Assert.DoesNotMatch(new Regex(@"[{}\[\]]|Solvenda|Immutable|\b[a-z]+_[a-z_]+\b"), w.Words)
        );
        var again = EventCodes.FromJson(EventCodes.All[type].Code, EventCodes.ToJson(facts))!;
        Assert.Equal(words.Select(w => w.Words), EventWords.Of(again).Select(w => w.Words));
    }

    [Fact]
    public void Every_event_has_a_code_of_its_own()
    {
        var codes = EventCodes.All.Values.Select(c => c.Code).ToList();
        Assert.Equal(codes.Count, codes.Distinct().Count());
        Assert.All(codes, c => Assert.Matches("^[a-z]+\\.[a-z_]+$", c));
    }
}
