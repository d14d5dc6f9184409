using System.Linq.Expressions;

namespace Solvenda.Acts.Lists;

/// <summary>
/// A property of a row as an expression. By the row's own type and never by an interface, since the database knows what
/// a query made only by that.
/// </summary>
internal static class Member
{
    public static Expression<Func<TRow, T>> Of<TRow, T>(string name)
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        Expression held = Expression.Property(row, typeof(TRow).GetProperty(name)!);
        return Expression.Lambda<Func<TRow, T>>(
            held.Type == typeof(T) ? held : Expression.Convert(held, typeof(T)),
            row
        );
    }

    /// <summary>What a field holds.</summary>
    public static Expression<Func<TRow, T>> Of<TRow, T>(Field field)
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        var held = OwnColumns.Held(row, field);
        return Expression.Lambda<Func<TRow, T>>(
            held.Type == typeof(T) ? held : Expression.Convert(held, typeof(T)),
            row
        );
    }

    public static Expression<Func<TRow, bool>> Is<TRow>(string name, bool value)
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        var held = Expression.Property(row, typeof(TRow).GetProperty(name)!);
        return Expression.Lambda<Func<TRow, bool>>(value ? held : Expression.Not(held), row);
    }

    /// <summary>Whether something is there.</summary>
    public static Expression<Func<TRow, bool>> IsThere<TRow>(string name)
    {
        var row = Expression.Parameter(typeof(TRow), "r");
        var held = Expression.Property(row, typeof(TRow).GetProperty(name)!);
        return Expression.Lambda<Func<TRow, bool>>(
            held.Type.IsValueType && Nullable.GetUnderlyingType(held.Type) is null
                ? Expression.Constant(true)
                : Expression.NotEqual(held, Expression.Constant(null, held.Type)),
            row
        );
    }
}
