using System.Collections.Immutable;
using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>
/// Values of the fields that the house made for itself, as rows keep them: one JSON object by the names of the fields,
/// numbers as numbers, so that the database can compare them.
/// </summary>
public static class OwnValues
{
    /// <summary>Nothing said.</summary>
    public const string None = "{}";

    private static readonly JsonSerializerOptions Plain = new()
    {
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>The own fields of such things that are in use, in the order in which they were made.</summary>
    public static async Task<ImmutableArray<OwnField>> FieldsAsync(SolvendaDb db, OwnOn on, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var rows = await db
            .OwnFields.AsNoTracking()
            .Where(f => f.On == on && f.Active)
            .OrderBy(f => f.Id)
            .ToListAsync(cancel);
        return [.. rows.Select(Of)];
    }

    /// <summary>A row as a value.</summary>
    public static OwnField Of(OwnFieldRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        return new OwnField(
            row.Label,
            row.Type,
            [.. row.Choices.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)],
            row.OnPaper,
            row.Hint
        );
    }

    /// <summary>As a row keeps them.</summary>
    public static string Of(IEnumerable<(string Name, string Text)> values)
    {
        var all = values.ToDictionary(
            v => v.Name,
            v =>
                decimal.TryParse(v.Text, NumberStyles.Number, CultureInfo.InvariantCulture, out var number)
                && number.ToString(CultureInfo.InvariantCulture) == v.Text
                    ? (object)number
                    : v.Text
        );
        return JsonSerializer.Serialize(all, Plain);
    }

    /// <summary>The text of one; empty where nothing is said.</summary>
    public static string Get(string own, string name) => All(own).GetValueOrDefault(name, "");

    /// <summary>The same with another text; empty takes it away.</summary>
    public static string With(string own, string name, string text)
    {
        var all = All(own);
        all.Remove(name);
        if (text.Length > 0)
            all[name] = text;
        return Of(all.Select(v => (v.Key, v.Value)));
    }

    private static Dictionary<string, string> All(string own) =>
        own == None
            ? []
            : JsonSerializer
                .Deserialize<Dictionary<string, JsonElement>>(own)!
                .ToDictionary(v => v.Key, v => v.Value.ToString());

    /// <summary>For queries: the text of one; null where nothing is said.</summary>
    /// <param name="path">From <see cref="PathOf"/>.</param>
    public static string? TextIn(string own, string path) => throw new NotSupportedException("Only in a query.");

    /// <summary>For queries: the number of one; null where nothing is said.</summary>
    /// <param name="path">From <see cref="PathOf"/>.</param>
    public static double? NumberIn(string own, string path) => throw new NotSupportedException("Only in a query.");

    /// <summary>Where the database finds one.</summary>
    public static string PathOf(string name) => $"$.\"{name}\"";

    internal static void Map(ModelBuilder model)
    {
        foreach (var name in new[] { nameof(TextIn), nameof(NumberIn) })
            model.HasDbFunction(typeof(OwnValues).GetMethod(name)!).HasName("json_extract").IsBuiltIn();
    }
}
