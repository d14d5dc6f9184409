using System.Globalization;
using System.Linq.Expressions;
using System.Text.RegularExpressions;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Core.Money;
using Solvenda.Core.People;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Lists;

/// <summary>
/// Filters in words: <c>rope family:hardware price&gt;5 to&lt;2026-12-31 active:no</c>. A condition is a field, a sign
/// and a value, in quotes where it has blanks;
/// what is none is looked for in every text and in the codes and names of what is referred to.
/// </summary>
public static partial class ListFilter
{
    public static IQueryable<TRow> Apply<TRow>(
        IListOf<TRow> kind,
        SolvendaDb db,
        IQueryable<TRow> rows,
        string filter,
        Roles who
    )
        where TRow : class, IListRow
    {
        ArgumentNullException.ThrowIfNull(kind);
        var active = (bool?)true;
        foreach (Match token in Token().Matches(filter))
        {
            var value = token.Groups["quoted"].Success ? token.Groups["quoted"].Value : token.Groups["value"].Value;
            if (!token.Groups["field"].Success)
            {
                rows = Words(kind, db, rows, value, who);
                continue;
            }
            var name = token.Groups["field"].Value;
            if (name == kind.ActiveWord)
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
                )
                    is { } found
                && found.IsSeenBy(who)
                    ? found
                    : throw RefusedException.Bad(
                        "field_unknown",
                        $"There is no field “{name}” to filter by.",
                        "filter"
                    );
            rows = rows.Where(Condition<TRow>(field, token.Groups["sign"].Value, value, db));
        }
        return active is { } wanted ? rows.Where(Member.Is<TRow>(nameof(IListRow.Active), wanted)) : rows;
    }

    private static Expression<Func<TRow, bool>> Condition<TRow>(Field field, string sign, string value, SolvendaDb db)
        where TRow : class
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        if (field.Among is { } among)
            return Expression.Lambda<Func<TRow, bool>>(
                Expression.Call(
                    typeof(Queryable),
                    nameof(Queryable.Contains),
                    [typeof(string)],
                    among(db, value).Expression,
                    Expression.Property(row, field.NumberIn!)
                ),
                row
            );
        if (field.Property is null)
            throw RefusedException.Bad("field_unknown", $"{field.Label} cannot be filtered by.", "filter");
        var held = OwnColumns.Held(row, field);
        var type = held.Type;
        var plain = Nullable.GetUnderlyingType(type) ?? type;
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
        if (plain == typeof(string) && field.Type == FieldType.Date)
            return Expression.Lambda<Func<TRow, bool>>(OwnDay(held, sign, Day(value)), row);
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
        if (plain == typeof(DateTime))
            return Expression.Lambda<Func<TRow, bool>>(OfDay(held, type, sign, Day(value)), row);
        if (plain == typeof(long) && field.AddedBy is { } currency)
            return Expression.Lambda<Func<TRow, bool>>(Money(row, held, type, currency, sign, value), row);
        return Expression.Lambda<Func<TRow, bool>>(
            Compare(held, Expression.Convert(Held(Parsed(plain, field, value), plain), type), sign),
            row
        );
    }

    private static DateOnly Day(string value) =>
        DateOnly.TryParseExact(value, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
            ? day
            : throw Bad(value, "date, as 2026-12-31");

    // Days are kept as they sort.
    private static BinaryExpression OwnDay(Expression held, string sign, DateOnly day) =>
        Compare(
            Expression.Call(
                typeof(string),
                nameof(string.Compare),
                null,
                held,
                Held(day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture))
            ),
            Expression.Constant(0),
            sign
        );

    // A moment is asked for by its day: after a day is from the next one on.
    private static Expression OfDay(Expression held, Type type, string sign, DateOnly day)
    {
        var begins = day.ToDateTime(TimeOnly.MinValue, DateTimeKind.Utc);
        var ends = day == DateOnly.MaxValue ? DateTime.MaxValue : begins.AddDays(1);
        Expression Than(string by, DateTime moment) => Compare(held, Expression.Convert(Held(moment), type), by);
        return sign switch
        {
            ">" => Than(">=", ends),
            ">=" => Than(">=", begins),
            "<" => Than("<", begins),
            "<=" => Than("<", ends),
            _ => Expression.AndAlso(Than(">=", begins), Than("<", ends)),
        };
    }

    private static object Parsed(Type plain, Field field, string value) =>
        plain switch
        {
            _ when plain == typeof(decimal) => Bounded(value),
            _ when plain == typeof(double) => (double)Bounded(value),
            _ when plain == typeof(int) => (int)Math.Clamp(Bounded(value), int.MinValue, int.MaxValue),
            _ when plain == typeof(DateOnly) => Day(value),
            _ when plain == typeof(bool) => value is "yes" or "true",
            _ when plain.IsEnum => Enum.GetNames(plain)
                .FirstOrDefault(n => IsSame(n, value) || IsSame(field.States.GetValueOrDefault(n, n), value))
                is { } name
                ? Enum.Parse(plain, name)
                : throw Bad(value, field.Label),
            _ => throw RefusedException.Bad("field_unknown", $"{field.Label} cannot be filtered by.", "filter"),
        };

    // A state is typed without its blanks, or in quotes with them.
    private static bool IsSame(string name, string typed) =>
        string.Equals(
            name.Replace(" ", "", StringComparison.Ordinal),
            typed.Replace(" ", "", StringComparison.Ordinal),
            StringComparison.OrdinalIgnoreCase
        );

    // What the database can hold; beyond it nothing is.
    private static decimal Bounded(string value) =>
        Math.Clamp(Numbers.Read(value) ?? throw Bad(value, "number"), -9_000_000_000_000m, 9_000_000_000_000m);

    // An amount is kept in minor units of the row's own currency: 500 is 500 for a yen and 50,000 for a euro.
    private static BinaryExpression Money(
        ParameterExpression row,
        Expression held,
        Type type,
        string currency,
        string sign,
        string value
    )
    {
        var amount = Bounded(value);
        BinaryExpression? any = null;
        foreach (var same in Currency.All.GroupBy(c => c.Decimals))
        {
            var minor = decimal.ToInt64(
                decimal.Round(
                    Math.Clamp(amount * (decimal)Math.Pow(10, same.Key), long.MinValue, long.MaxValue),
                    0,
                    MidpointRounding.AwayFromZero
                )
            );
            var isOne = Expression.Call(
                typeof(Enumerable),
                nameof(Enumerable.Contains),
                [typeof(string)],
                Held(same.Select(c => c.Code).ToList(), typeof(List<string>)),
                Expression.Property(row, currency)
            );
            var of = Expression.AndAlso(isOne, Compare(held, Expression.Convert(Held(minor), type), sign));
            any = any is null ? of : Expression.OrElse(any, of);
        }
        return any!;
    }

    private static BinaryExpression Compare(Expression held, Expression other, string sign) =>
        sign switch
        {
            ">" => Expression.GreaterThan(held, other),
            "<" => Expression.LessThan(held, other),
            ">=" => Expression.GreaterThanOrEqual(held, other),
            "<=" => Expression.LessThanOrEqual(held, other),
            _ => Expression.Equal(held, other),
        };

    private static IQueryable<TRow> Words<TRow>(
        IListOf<TRow> kind,
        SolvendaDb db,
        IQueryable<TRow> rows,
        string word,
        Roles who
    )
        where TRow : class, IListRow
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        var like = Held($"%{Escape(word)}%");
        Expression any = Expression.Constant(false);
        foreach (var field in kind.Fields.Where(f => f.Property is not null && f.IsSeenBy(who)))
        {
            var held = OwnColumns.Held(row, field);
            if (held.Type == typeof(string))
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
                any = Expression.OrElse(any, IsOneOf(held, held.Type, Matching(field.Of!, word, db)));
            else
                any = StatesCalled(field, word)
                    .Select(name => Enum.Parse(held.Type, name))
                    .Aggregate(any, (or, state) => Expression.OrElse(or, Expression.Equal(held, Held(state))));
        }
        return rows.Where(Expression.Lambda<Func<TRow, bool>>(any, row));
    }

    // "approv" finds what is "in approval"; two letters would find too much.
    private static IEnumerable<string> StatesCalled(Field field, string word) =>
        word.Length < 3
            ? []
            : field
                .States.Where(s => s.Value.Split(' ').Any(w => w.StartsWith(word, StringComparison.OrdinalIgnoreCase)))
                .Select(s => s.Key);

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

    private static RefusedException Bad(string value, string what) =>
        RefusedException.Bad("number", $"“{value}” is not a {what}.", "filter");

    [GeneratedRegex(
        """(?:(?<field>[A-Za-z][\w-]*)(?<sign><=|>=|[:=<>]))?(?:"(?<quoted>[^"]*)"|(?<value>[^\s"]+))|(?<field>[A-Za-z][\w-]*)(?<sign>:)(?<value>)(?=\s|$)"""
    )]
    private static partial Regex Token();
}
