using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Lists;

/// <summary>How a field is typed and shown.</summary>
public enum FieldType
{
    Text,

    /// <summary>Text of several lines.</summary>
    Prose,

    /// <summary>A code, in the monospaced face.</summary>
    Code,
    Number,
    Whole,
    Date,
    Flag,
    Choice,

    /// <summary>Another record, by its code.</summary>
    Reference,

    /// <summary>Words in several languages: "sv: …; de: …".</summary>
    ByLanguage,

    /// <summary>An amount, with as many decimals as its currency has.</summary>
    Money,

    /// <summary>A moment, UTC, as 2026-12-31T14:05:00Z.</summary>
    Moment,

    /// <summary>How far one track of an order is, by the name of its state.</summary>
    Track,
}

/// <summary>
/// A field of a kind of record: what the form, the list, the import and the export know of it. Values travel as text:
/// numbers with a point, dates as yyyy-MM-dd, flags as yes and no.
/// </summary>
public abstract class Field(string name, string label, FieldType type)
{
    public string Name { get; } = name;

    public string Label { get; } = label;

    public FieldType Type { get; } = type;

    public bool Required { get; init; }

    /// <summary>What it means or how it is typed, in a few words.</summary>
    public string Hint { get; init; } = "";

    public IReadOnlyList<string> Choices { get; init; } = [];

    /// <summary>What the states that it is one of are called, by their names in code; empty for other fields.</summary>
    public IReadOnlyDictionary<string, string> States { get; init; } = new Dictionary<string, string>();

    /// <summary>The kind that a reference is of.</summary>
    public string? Of { get; init; }

    /// <summary>Shown in the list unless somebody chose other columns.</summary>
    public bool InList { get; init; }

    /// <summary>The house itself keeps it: nobody types it, neither in the form nor by a file.</summary>
    public bool ByHouse { get; init; }

    /// <summary>
    /// For amounts that may be added up: the property whose value keeps the sums apart, a currency; null where a sum
    /// would mean nothing.
    /// </summary>
    public string? AddedBy { get; init; }

    /// <summary>Other names that columns of imported files have for it.</summary>
    public IReadOnlyList<string> AlsoCalled { get; init; } = [];

    /// <summary>Only these may change it; none: whoever may change the record.</summary>
    public Roles OnlyBy { get; init; }

    /// <summary>Only these see it; none: everybody.</summary>
    public Roles SeenBy { get; init; }

    /// <summary>
    /// Whether it carries money or authority: it has a right of its own, and the record's owner is told of a change.
    /// </summary>
    public bool Money { get; init; }

    /// <summary>Whether it stands among others in one column of the row: a field that the house made.</summary>
    public bool IsOwn => OwnField.Is(Name);

    /// <summary>Whether somebody with these roles sees it.</summary>
    public bool IsSeenBy(Roles roles) => SeenBy == Roles.None || (roles & SeenBy) != Roles.None;

    /// <summary>
    /// Property of the row that it is kept in, for sorting and filtering; null where it is more than one.
    /// </summary>
    public string? Property { get; init; }

    /// <summary>
    /// For what is filtered by and not shown: the numbers of the documents that a value holds for; null for a field
    /// that a row has. <see cref="NumberIn"/> is the property that they are compared with.
    /// </summary>
    public Func<SolvendaDb, string, IQueryable<string>>? Among { get; init; }

    /// <inheritdoc cref="Among" />
    public string? NumberIn { get; init; }
}

/// <inheritdoc />
public sealed class Field<TRow>(
    string name,
    string label,
    FieldType type,
    Func<TRow, References, string> get,
    Func<TRow, string, References, string?> set
) : Field(name, label, type)
{
    public string Get(TRow row, References references) => get(row, references);

    /// <summary>The same field, carrying money: only these may change it.</summary>
    public Field<TRow> OfMoney(Roles onlyBy, Roles seenBy = Roles.None) =>
        new(Name, Label, Type, get, set)
        {
            Required = Required,
            Hint = Hint,
            Choices = Choices,
            Of = Of,
            InList = InList,
            ByHouse = ByHouse,
            AddedBy = AddedBy,
            AlsoCalled = AlsoCalled,
            Property = Property,
            Show = Show,
            Money = true,
            OnlyBy = onlyBy,
            SeenBy = seenBy,
        };

    /// <summary>The same field, which a row that is there keeps as it was made.</summary>
    /// <param name="why">Why, in words.</param>
    public Field<TRow> Staying(string why)
    {
        var stays = (Field<TRow>)MemberwiseClone();
        stays._stays = why;
        return stays;
    }

    private string? _stays;

    /// <summary>What a list shows where that is not the text itself: a buyer's name in place of its code.</summary>
    public Func<TRow, References, string>? Show { get; init; }

    /// <summary>
    /// Whether nobody has said anything yet: a price of nothing and a date of year one are no values.
    /// </summary>
    public bool IsUnset(TRow row, References references) =>
        Get(row, references) is var text
        && (
            text.Length == 0
            || (Type == FieldType.Number && text == "0")
            || (Type == FieldType.Date && text == "0001-01-01")
        );

    /// <summary>Takes the text; answers with what is wrong with it, and then changes nothing, or null.</summary>
    public string? Set(TRow row, string text, References references)
    {
        var plain = text.Trim();
        if (plain.Length == 0 && Required)
            return $"{Label} is needed";
        if (plain.Length > 2_000)
            return $"{Label} is longer than 2,000 letters";
        return _stays is { } why && row is IListRow { Id: not 0 } && plain != get(row, references)
            ? why
            : set(row, plain, references);
    }
}
