using System.Globalization;
using System.Linq.Expressions;
using System.Reflection;
using System.Text.Json;
using Solvenda.Core.Money;
using Solvenda.Data;

namespace Solvenda.Acts.Lists;

/// <summary>Makes columns of lists of documents: shown, filtered and sorted by, and never typed.</summary>
internal static class Columns
{
    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    public static Field<TRow> Text<TRow>(
        Expression<Func<TRow, string?>> property,
        string label,
        bool inList = true,
        FieldType type = FieldType.Text
    )
    {
        var p = Of(property);
        return Make<TRow>(p, label, type, (row, _) => (string?)p.GetValue(row) ?? "", inList);
    }

    public static Field<TRow> Day<TRow>(Expression<Func<TRow, DateOnly?>> property, string label, bool inList = true)
    {
        var p = Of(property);
        return Make<TRow>(
            p,
            label,
            FieldType.Date,
            (row, _) => p.GetValue(row) is DateOnly day ? day.ToString("yyyy-MM-dd", Plain) : "",
            inList
        );
    }

    public static Field<TRow> Moment<TRow>(Expression<Func<TRow, DateTime>> property, string label, bool inList = true)
    {
        var p = Of(property);
        return Make<TRow>(
            p,
            label,
            FieldType.Moment,
            (row, _) => ((DateTime)p.GetValue(row)!).ToString("yyyy-MM-ddTHH:mm:ssZ", Plain),
            inList
        );
    }

    /// <summary>Filtered by, and not shown: what a value holds for is looked up in the database.</summary>
    /// <param name="number">What the documents are known by.</param>
    public static Field<TRow> Among<TRow>(
        string name,
        string label,
        Expression<Func<TRow, string?>> number,
        Func<SolvendaDb, string, IQueryable<string>> among
    ) =>
        new(name, label, FieldType.Text, (_, _) => "", NotTyped)
        {
            ByHouse = true,
            Among = among,
            NumberIn = Of(number).Name,
        };

    /// <param name="property">Null where nobody can say.</param>
    public static Field<TRow> Whole<TRow>(Expression<Func<TRow, int?>> property, string label, bool inList = true)
    {
        var p = Of(property);
        return Make<TRow>(
            p,
            label,
            FieldType.Whole,
            (row, _) => p.GetValue(row) is int count ? count.ToString(Plain) : "",
            inList
        );
    }

    /// <param name="minor">In minor units.</param>
    /// <param name="currency">Of the row; sums stay apart by it.</param>
    public static Field<TRow> Money<TRow>(
        Expression<Func<TRow, long>> minor,
        Expression<Func<TRow, string>> currency,
        string label
    )
    {
        var (m, c) = (Of(minor), Of(currency));
        string Say(TRow row)
        {
            // What nobody can say is in no currency.
            if ((string)c.GetValue(row)! is not { Length: > 0 } code)
                return "";
            var amount = Amount.FromMinor((long)m.GetValue(row)!, Currency.Of(code));
            return amount.Value.ToString($"F{amount.Currency.Decimals}", Plain);
        }
        return new Field<TRow>(
            Name(m).Replace("Minor", "", StringComparison.Ordinal),
            label,
            FieldType.Money,
            (row, _) => Say(row),
            NotTyped
        )
        {
            InList = true,
            ByHouse = true,
            Property = m.Name,
            AddedBy = c.Name,
        };
    }

    /// <param name="words">What each state is called, by its name.</param>
    /// <param name="type">A track is drawn by the name of its state; a file says it in words all the same.</param>
    public static Field<TRow> State<TRow, TState>(
        Expression<Func<TRow, TState>> property,
        string label,
        IReadOnlyDictionary<string, string> words,
        FieldType type = FieldType.Choice
    )
        where TState : struct, Enum
    {
        var p = Of(property);
        string NameOf(TRow row) => p.GetValue(row)!.ToString()!;
        return new Field<TRow>(Name(p), label, type, (row, _) => words[NameOf(row)], NotTyped)
        {
            InList = true,
            ByHouse = true,
            Property = p.Name,
            Choices = [.. words.Values],
            States = words,
            Show = type == FieldType.Track ? (row, _) => JsonNamingPolicy.CamelCase.ConvertName(NameOf(row)) : null,
        };
    }

    private static Field<TRow> Make<TRow>(
        PropertyInfo p,
        string label,
        FieldType type,
        Func<TRow, References, string> say,
        bool inList
    ) =>
        new(Name(p), label, type, say, NotTyped)
        {
            InList = inList,
            ByHouse = true,
            Property = p.Name,
        };

    private static string? NotTyped<TRow>(TRow row, string text, References references) =>
        throw new InvalidOperationException("A column of documents is not typed.");

    private static PropertyInfo Of<TRow, T>(Expression<Func<TRow, T>> property) =>
        (PropertyInfo)
            (
                (MemberExpression)(
                    property.Body is UnaryExpression { Operand: MemberExpression inner } ? inner : property.Body
                )
            ).Member;

    private static string Name(PropertyInfo p) => JsonNamingPolicy.CamelCase.ConvertName(p.Name);
}
