using System.Globalization;
using System.Linq.Expressions;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Sheets;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Records;

/// <summary>
/// Filters in words: <c>rope family:hardware price&gt;5 to&lt;2026-12-31 active:no</c>. A condition is a field, a sign and a value, in quotes where it has blanks;
/// what is none is looked for in every text and in the codes and names of what is referred to.
/// </summary>
public static partial class RecordFilter
{
    public static IQueryable<TRow> Apply<TRow>(
        RecordKind<TRow> kind,
        SolvendaDb db,
        IQueryable<TRow> rows,
        string filter
    )
        where TRow : class, IRecordRow
    {
        ArgumentNullException.ThrowIfNull(kind);
        var active = (bool?)true;
        foreach (Match token in Token().Matches(filter))
        {
            var value = token.Groups["quoted"].Success ? token.Groups["quoted"].Value : token.Groups["value"].Value;
            if (!token.Groups["field"].Success)
            {
                rows = Words(kind, db, rows, value);
                continue;
            }
            var name = token.Groups["field"].Value;
            if (name == "active")
            {
                active = value switch
                {
                    "no" => false,
                    "any" => null,
                    _ => true,
                };
                continue;
            }
            var field =
                kind.Fields.FirstOrDefault(f =>
                    string.Equals(f.Name, name, StringComparison.OrdinalIgnoreCase)
                    || string.Equals(
                        f.Label.Replace(" ", "", StringComparison.Ordinal),
                        name,
                        StringComparison.OrdinalIgnoreCase
                    )
                ) ?? throw RefusalException.Bad("field_unknown", $"There is no field “{name}” to filter by.", "filter");
            rows = rows.Where(Condition<TRow>(field, token.Groups["sign"].Value, value, db));
        }
        return active is { } wanted ? rows.Where(r => r.Active == wanted) : rows;
    }

    private static Expression<Func<TRow, bool>> Condition<TRow>(Field field, string sign, string value, SolvendaDb db)
        where TRow : class
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        if (field.Property is not { } property)
            throw RefusalException.Bad("field_unknown", $"{field.Label} cannot be filtered by.", "filter");
        var type = typeof(TRow).GetProperty(property)!.PropertyType;
        var plain = Nullable.GetUnderlyingType(type) ?? type;
        Expression held = Expression.Property(row, property);
        if (value.Length == 0 || value == "-")
            return Expression.Lambda<Func<TRow, bool>>(
                plain != type || type == typeof(string)
                    ? Expression.Equal(held, Expression.Constant(null, type))
                    : Expression.Constant(false),
                row
            );
        if (field is { Type: FieldType.Reference } && plain == typeof(long))
            return Expression.Lambda<Func<TRow, bool>>(IsOneOf(held, type, Matching(field.Of!, value, db)), row);
        // A code is meant whole; a text anywhere.
        if (plain == typeof(string) && field.Type == FieldType.Reference && sign is (":" or "="))
            return Expression.Lambda<Func<TRow, bool>>(Expression.Equal(held, Held(value)), row);
        if (plain == typeof(string))
        {
            var like = Expression.Call(
                typeof(DbFunctionsExtensions),
                nameof(DbFunctionsExtensions.Like),
                null,
                Expression.Constant(EF.Functions),
                held,
                Held(sign == "=" ? Escape(value) : $"%{Escape(value)}%")
            );
            return Expression.Lambda<Func<TRow, bool>>(like, row);
        }
        object parsed = plain switch
        {
            _ when plain == typeof(decimal) => QuickLine.Number(value) ?? throw Bad(value, "number"),
            _ when plain == typeof(int) => (int)(QuickLine.Number(value) ?? throw Bad(value, "number")),
            _ when plain == typeof(long) => (long)((QuickLine.Number(value) ?? throw Bad(value, "number")) * 100m),
            _ when plain == typeof(DateOnly) => DateOnly.TryParseExact(
                value,
                "yyyy-MM-dd",
                CultureInfo.InvariantCulture,
                DateTimeStyles.None,
                out var day
            )
                ? day
                : throw Bad(value, "date, as 2026-12-31"),
            _ when plain == typeof(bool) => value is "yes" or "true",
            _ when plain.IsEnum => Enum.TryParse(
                plain,
                value.Replace(" ", "", StringComparison.Ordinal),
                true,
                out var e
            )
                ? e!
                : throw Bad(value, field.Label),
            _ => throw RefusalException.Bad("field_unknown", $"{field.Label} cannot be filtered by.", "filter"),
        };
        var other = Expression.Convert(Held(parsed, plain), type);
        var compare = sign switch
        {
            ">" => Expression.GreaterThan(held, other),
            "<" => Expression.LessThan(held, other),
            ">=" => Expression.GreaterThanOrEqual(held, other),
            "<=" => Expression.LessThanOrEqual(held, other),
            _ => Expression.Equal(held, other),
        };
        return Expression.Lambda<Func<TRow, bool>>(compare, row);
    }

    private static IQueryable<TRow> Words<TRow>(
        RecordKind<TRow> kind,
        SolvendaDb db,
        IQueryable<TRow> rows,
        string word
    )
        where TRow : class, IRecordRow
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        var like = Held($"%{Escape(word)}%");
        Expression any = Expression.Constant(false);
        foreach (var field in kind.Fields.Where(f => f.Property is not null))
        {
            var property = typeof(TRow).GetProperty(field.Property!)!;
            var held = Expression.Property(row, property);
            if (property.PropertyType == typeof(string))
                any = Expression.OrElse(
                    any,
                    Expression.Call(
                        typeof(DbFunctionsExtensions),
                        nameof(DbFunctionsExtensions.Like),
                        null,
                        Expression.Constant(EF.Functions),
                        held,
                        like
                    )
                );
            else if (field is { Type: FieldType.Reference, Of: "items" or "buyers" })
                any = Expression.OrElse(any, IsOneOf(held, property.PropertyType, Matching(field.Of!, word, db)));
        }
        return rows.Where(Expression.Lambda<Func<TRow, bool>>(any, row));
    }

    private static IQueryable<long> Matching(string of, string word, SolvendaDb db)
    {
        var like = $"%{Escape(word)}%";
        return of switch
        {
            "items" => db
                .Items.Where(i => EF.Functions.Like(i.Code, like) || EF.Functions.Like(i.Words, like))
                .Select(i => i.Id),
            "buyers" => db
                .Buyers.Where(b => EF.Functions.Like(b.Code, like) || EF.Functions.Like(b.Name, like))
                .Select(b => b.Id),
            _ => db.People.Where(p => EF.Functions.Like(p.Name, like)).Select(p => p.Id),
        };
    }

    private static Expression IsOneOf(Expression held, Type type, IQueryable<long> ids)
    {
        var contains = Expression.Call(
            typeof(Queryable),
            nameof(Queryable.Contains),
            [typeof(long)],
            ids.Expression,
            Expression.Convert(held, typeof(long))
        );
        return type == typeof(long)
            ? contains
            : Expression.AndAlso(Expression.NotEqual(held, Expression.Constant(null, type)), contains);
    }

    // A value behind a property, so that it becomes a parameter of the query and not part of its text.
    private static MemberExpression Held(object value, Type? type = null)
    {
        var box = Activator.CreateInstance(typeof(Box<>).MakeGenericType(type ?? value.GetType()), value)!;
        return Expression.Property(Expression.Constant(box), nameof(Box<int>.Value));
    }

    private sealed record Box<T>(T Value);

    // The signs of LIKE mean nothing when somebody types them.
    private static string Escape(string text) =>
        text.Replace("%", "", StringComparison.Ordinal).Replace("_", "", StringComparison.Ordinal);

    private static RefusalException Bad(string value, string what) =>
        RefusalException.Bad("number", $"“{value}” is not a {what}.", "filter");

    [GeneratedRegex(
        """(?:(?<field>[A-Za-z][\w-]*)(?<sign><=|>=|[:=<>]))?(?:"(?<quoted>[^"]*)"|(?<value>[^\s"]+))|(?<field>[A-Za-z][\w-]*)(?<sign>:)(?<value>)(?=\s|$)"""
    )]
    private static partial Regex Token();
}
