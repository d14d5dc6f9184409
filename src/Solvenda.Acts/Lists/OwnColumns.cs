using System.Collections.Immutable;
using System.Linq.Expressions;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Lists;

/// <summary>Fields that the house made for itself, as lists, forms and files know fields.</summary>
internal static class OwnColumnsOf<TRow>
    where TRow : class
{
    /// <summary>Fields with those of the house behind them.</summary>
    /// <param name="typed">Whether they are typed here: on records; documents have them on their heads.</param>
    public static IReadOnlyList<Field<TRow>> Behind(
        IReadOnlyList<Field<TRow>> fields,
        ImmutableArray<OwnField> own,
        bool typed
    )
    {
        if (own.Length > 0 && !typeof(TRow).IsAssignableTo(typeof(IOwnRow)))
            throw new InvalidOperationException($"{typeof(TRow).Name} keeps no own fields.");
        return
        [
            .. fields,
            .. own.Select(f => new Field<TRow>(
                f.Name,
                f.Label,
                f.Type switch
                {
                    OwnType.Number => FieldType.Number,
                    OwnType.Date => FieldType.Date,
                    OwnType.Choice => FieldType.Choice,
                    _ => FieldType.Text,
                },
                (row, _) => OwnValues.Get(((IOwnRow)row).Own, f.Name),
                (row, text, _) => Set((IOwnRow)row, f, text)
            )
            {
                Property = nameof(IOwnRow.Own),
                Choices = f.Choices,
                Hint = f.Hint,
                ByHouse = !typed,
            }),
        ];
    }

    private static string? Set(IOwnRow row, OwnField field, string text)
    {
        var taken = text.Length == 0 ? new Taken("") : field.Read(text, today: null);
        if (taken.Refused is { } refused)
            return refused.Words;
        row.Own = OwnValues.With(row.Own, field.Name, taken.Text!);
        return null;
    }
}

/// <summary>The value of a field in a query, wherever a row keeps it.</summary>
internal static class OwnColumns
{
    /// <summary>The value of a field, as the database finds it.</summary>
    public static Expression Held(Expression row, Field field)
    {
        var property = Expression.Property(row, row.Type.GetProperty(field.Property!)!);
        return field.IsOwn
            ? Expression.Call(
                typeof(OwnValues),
                field.Type == FieldType.Number ? nameof(OwnValues.NumberIn) : nameof(OwnValues.TextIn),
                null,
                property,
                Expression.Constant(OwnValues.PathOf(field.Name))
            )
            : property;
    }
}
