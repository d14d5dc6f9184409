using System.Globalization;
using System.Linq.Expressions;
using System.Reflection;
using Solvenda.Acts.Lists;
using Solvenda.Core.Sheets;
using Solvenda.Core.Sheets.Entry;

namespace Solvenda.Acts.Records;

/// <summary>Makes fields from properties of a row.</summary>
public static class Fields
{
    private static readonly CultureInfo Plain = CultureInfo.InvariantCulture;

    /// <param name="check">What is wrong with a text; null where nothing is.</param>
    /// <param name="read">What is kept of what was typed: a code for a word.</param>
    public static Field<TRow> Text<TRow>(
        Expression<Func<TRow, string?>> property,
        string label,
        bool required = false,
        bool inList = false,
        string hint = "",
        FieldType type = FieldType.Text,
        string[]? also = null,
        Func<string, string?>? check = null,
        Func<string, string>? read = null
    )
    {
        var p = Of(property);
        var nullable = new NullabilityInfoContext().Create(p).WriteState == NullabilityState.Nullable;
        return new Field<TRow>(
            Name(p),
            label,
            type,
            (row, _) => (string?)p.GetValue(row) ?? "",
            (row, text, _) =>
            {
                var kept = text.Length > 0 && read is not null ? read(text) : text;
                if (kept.Length > 0 && check?.Invoke(kept) is { } wrong)
                    return wrong;
                p.SetValue(row, kept.Length == 0 && nullable ? null : kept);
                return null;
            }
        )
        {
            Required = required,
            InList = inList,
            Hint = hint,
            AlsoCalled = also ?? [],
            Property = p.Name,
        };
    }

    public static Field<TRow> Number<TRow>(
        Expression<Func<TRow, decimal>> property,
        string label,
        bool inList = false,
        decimal least = 0m,
        decimal most = 1_000_000_000m,
        string hint = "",
        string[]? also = null
    ) => Number<TRow>(Of(property), label, true, inList, least, most, hint, also);

    public static Field<TRow> Number<TRow>(
        Expression<Func<TRow, decimal?>> property,
        string label,
        bool inList = false,
        decimal least = 0m,
        decimal most = 1_000_000_000m,
        string hint = "",
        string[]? also = null
    ) => Number<TRow>(Of(property), label, false, inList, least, most, hint, also);

    public static Field<TRow> Whole<TRow>(
        Expression<Func<TRow, int>> property,
        string label,
        int most = 10_000,
        bool inList = false,
        string hint = "",
        string[]? also = null
    ) => Whole<TRow>(Of(property), label, true, most, inList, hint, also);

    public static Field<TRow> Whole<TRow>(
        Expression<Func<TRow, int?>> property,
        string label,
        int most = 10_000,
        bool inList = false,
        string hint = "",
        string[]? also = null
    ) => Whole<TRow>(Of(property), label, false, most, inList, hint, also);

    public static Field<TRow> Date<TRow>(
        Expression<Func<TRow, DateOnly>> property,
        string label,
        bool inList = false
    ) => Date<TRow>(Of(property), label, true, inList);

    public static Field<TRow> Date<TRow>(
        Expression<Func<TRow, DateOnly?>> property,
        string label,
        bool inList = false,
        string hint = ""
    ) => Date<TRow>(Of(property), label, false, inList, hint);

    public static Field<TRow> Flag<TRow>(
        Expression<Func<TRow, bool>> property,
        string label,
        bool inList = false,
        string hint = "",
        string[]? also = null
    )
    {
        var p = Of(property);
        return new Field<TRow>(
            Name(p),
            label,
            FieldType.Flag,
            (row, _) => (bool)p.GetValue(row)! ? "yes" : "no",
            (row, text, _) =>
            {
                bool? value = text.ToLowerInvariant() switch
                {
                    "yes" or "y" or "true" or "1" or "x" => true,
                    "" or "no" or "n" or "false" or "0" or "-" => false,
                    _ => null,
                };
                if (value is null)
                    return $"“{text}” is neither yes nor no";
                p.SetValue(row, value);
                return null;
            }
        )
        {
            InList = inList,
            Hint = hint,
            AlsoCalled = also ?? [],
            Property = p.Name,
        };
    }

    public static Field<TRow> Choice<TRow, TEnum>(
        Expression<Func<TRow, TEnum>> property,
        string label,
        bool inList = false,
        string hint = ""
    )
        where TEnum : struct, Enum
    {
        var p = Of(property);
        var names = Enum.GetNames<TEnum>().ToDictionary(Words, n => n, StringComparer.OrdinalIgnoreCase);
        return new Field<TRow>(
            Name(p),
            label,
            FieldType.Choice,
            (row, _) => Words(p.GetValue(row)!.ToString()!),
            (row, text, _) =>
            {
                if (!names.TryGetValue(text, out var name) && !Enum.GetNames<TEnum>().Contains(name = text))
                    return $"“{text}” is none of {string.Join(", ", names.Keys)}";
                p.SetValue(row, Enum.Parse<TEnum>(name));
                return null;
            }
        )
        {
            Required = true,
            InList = inList,
            Hint = hint,
            Choices = [.. names.Keys],
            Property = p.Name,
        };
    }

    /// <param name="of">Kind of record that it refers to.</param>
    public static Field<TRow> Reference<TRow>(
        Expression<Func<TRow, long>> property,
        string label,
        string of,
        bool inList = false,
        string[]? also = null
    ) => Reference<TRow>(Of(property), label, of, true, inList, also);

    public static Field<TRow> Reference<TRow>(
        Expression<Func<TRow, long?>> property,
        string label,
        string of,
        bool inList = false,
        string[]? also = null
    ) => Reference<TRow>(Of(property), label, of, false, inList, also);

    /// <summary>A reference that is kept by its code itself.</summary>
    public static Field<TRow> CodeOf<TRow>(
        Expression<Func<TRow, string?>> property,
        string label,
        string of,
        bool required = false,
        bool inList = false,
        string[]? also = null
    )
    {
        var p = Of(property);
        return new Field<TRow>(
            Name(p),
            label,
            FieldType.Reference,
            (row, _) => (string?)p.GetValue(row) ?? "",
            (row, text, references) =>
            {
                if (text.Length > 0 && references.Exact(of, text) is not { } exact)
                    return $"there is no {References.One(of)} “{text}”";
                p.SetValue(row, text.Length == 0 ? null : references.Exact(of, text));
                return null;
            }
        )
        {
            Required = required,
            InList = inList,
            Of = of,
            AlsoCalled = also ?? [],
            Property = p.Name,
        };
    }

    private static Field<TRow> Number<TRow>(
        PropertyInfo p,
        string label,
        bool required,
        bool inList,
        decimal least,
        decimal most,
        string hint,
        string[]? also
    ) =>
        new(
            Name(p),
            label,
            FieldType.Number,
            (row, _) => p.GetValue(row) is decimal d ? d.ToString("0.######", Plain) : "",
            (row, text, _) =>
            {
                if (text.Length == 0)
                {
                    p.SetValue(row, null);
                    return null;
                }
                if (Numbers.Read(text) is not { } number)
                    return $"“{text}” is not a number";
                if (number < least || number > most)
                    return string.Create(
                        Plain,
                        $"{number:0.######} is not between {least:#,0.######} and {most:#,0.######}"
                    );
                p.SetValue(row, decimal.Round(number, 6));
                return null;
            }
        )
        {
            Required = required,
            InList = inList,
            Hint = hint,
            AlsoCalled = also ?? [],
            Property = p.Name,
        };

    private static Field<TRow> Whole<TRow>(
        PropertyInfo p,
        string label,
        bool required,
        int most,
        bool inList,
        string hint,
        string[]? also
    ) =>
        new(
            Name(p),
            label,
            FieldType.Whole,
            (row, _) => p.GetValue(row) is int n ? n.ToString(Plain) : "",
            (row, text, _) =>
            {
                if (text.Length == 0)
                {
                    p.SetValue(row, null);
                    return null;
                }
                if (!int.TryParse(text, NumberStyles.None, Plain, out var number) || number > most)
                    return string.Create(Plain, $"“{text}” is not a whole number up to {most:#,0}");
                p.SetValue(row, number);
                return null;
            }
        )
        {
            Required = required,
            InList = inList,
            Hint = hint,
            AlsoCalled = also ?? [],
            Property = p.Name,
        };

    private static Field<TRow> Date<TRow>(PropertyInfo p, string label, bool required, bool inList, string hint = "") =>
        new(
            Name(p),
            label,
            FieldType.Date,
            (row, _) => p.GetValue(row) is DateOnly d ? d.ToString("yyyy-MM-dd", Plain) : "",
            (row, text, _) =>
            {
                if (text.Length == 0)
                {
                    p.SetValue(row, null);
                    return null;
                }
                if (!DateOnly.TryParseExact(text, "yyyy-MM-dd", Plain, DateTimeStyles.None, out var day))
                    return $"“{text}” is not a date";
                p.SetValue(row, day);
                return null;
            }
        )
        {
            Required = required,
            InList = inList,
            Hint = hint,
            Property = p.Name,
        };

    private static Field<TRow> Reference<TRow>(
        PropertyInfo p,
        string label,
        string of,
        bool required,
        bool inList,
        string[]? also
    )
    {
        var name = Name(p);
        return new Field<TRow>(
            name.EndsWith("Id", StringComparison.Ordinal) ? name[..^2] : name,
            label,
            FieldType.Reference,
            (row, references) => p.GetValue(row) is long id ? references.CodeOf(of, id) : "",
            (row, text, references) =>
            {
                if (text.Length == 0)
                {
                    p.SetValue(row, null);
                    return null;
                }
                if (references.IdOf(of, text) is not { } id)
                    return $"there is no {References.One(of)} “{text}”";
                p.SetValue(row, id);
                return null;
            }
        )
        {
            Required = required,
            InList = inList,
            Of = of,
            AlsoCalled = also ?? [],
            Property = p.Name,
            Show = (row, references) => p.GetValue(row) is long id ? references.ShownOf(of, id) : "",
        };
    }

    private static string Words(string name) =>
        string.Concat(
            name.Select(
                (c, i) =>
                    i > 0 && char.IsUpper(c) ? " " + char.ToLowerInvariant(c) : char.ToLowerInvariant(c).ToString()
            )
        );

    private static string Name(PropertyInfo p) => char.ToLowerInvariant(p.Name[0]) + p.Name[1..];

    private static PropertyInfo Of<TRow, TValue>(Expression<Func<TRow, TValue>> property) =>
        (PropertyInfo)((MemberExpression)property.Body).Member;
}
