using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Lists;

/// <summary>
/// A list of one kind of thing: documents, each a file in Kinds/, and records. Filter, sorting, columns, foot, views
/// and export follow from its fields.
/// </summary>
public abstract class ListKind
{
    /// <summary>As in addresses: "orders".</summary>
    public required string Name { get; init; }

    public required string Title { get; init; }

    /// <summary>What one of them is called.</summary>
    public required string One { get; init; }

    /// <summary>The word by which a filter asks for rows that are not shown by themselves: open:no.</summary>
    public virtual string ActiveWord => "open";

    /// <summary>Who sees it; none: everybody.</summary>
    public Roles SeenBy { get; init; }

    /// <summary>Who may save and take away views of it that are everybody's.</summary>
    public abstract Roles ViewsForAllBy { get; }

    /// <summary>Whether somebody with these roles sees it.</summary>
    public bool IsSeenBy(Roles roles) => SeenBy == Roles.None || (roles & SeenBy) != Roles.None;

    public abstract IReadOnlyList<Field> AllFields { get; }

    public abstract IListReader List { get; }

    /// <summary>What fields that the house made stand on them; null where it can make none.</summary>
    public OwnOn? OwnOn { get; init; }

    /// <summary>The same list, with the fields that the house made.</summary>
    public async Task<ListKind> WithOwnAsync(SolvendaDb db, CancellationToken cancel) =>
        OwnOn is { } on && await OwnValues.FieldsAsync(db, on, cancel) is { Length: > 0 } own ? With(own) : this;

    private ListKind With(ImmutableArray<OwnField> own)
    {
        var with = (ListKind)MemberwiseClone();
        with.Add(own);
        return with;
    }

    /// <summary>Puts them behind its fields.</summary>
    protected virtual void Add(ImmutableArray<OwnField> own) =>
        throw new InvalidOperationException($"{Title} have no fields of the house’s own.");

    /// <summary>What can be done to many of its rows at once, each on its own.</summary>
    public IReadOnlyList<Deed> Deeds { get; init; } = [];
}

/// <summary>A list, by what its rows are made of.</summary>
public interface IListOf<TRow>
    where TRow : class, IListRow
{
    string ActiveWord { get; }

    IReadOnlyList<Field<TRow>> Fields { get; }

    Func<SolvendaDb, IQueryable<TRow>> Rows { get; }

    /// <summary>Whether the newest stand first, where nobody sorted them.</summary>
    bool NewestFirst { get; }

    /// <summary>What a row is known by: in titles, and in the address of its page.</summary>
    string Called(TRow row);
}

/// <summary>Something that can be done to many documents, one after the other.</summary>
/// <param name="Name">As in addresses: "set-aside".</param>
/// <param name="Words">On its button: "set them aside".</param>
/// <param name="Needs">Who may.</param>
/// <param name="Takes">What it has to be given.</param>
/// <param name="RunAsync">Does it to one, by its number, as it stands when its turn comes.</param>
public sealed record Deed(
    string Name,
    string Words,
    Right Needs,
    DeedTakes Takes,
    Func<DeedOf, CancellationToken, Task> RunAsync
);

/// <summary>What something that is done to many has to be given.</summary>
public enum DeedTakes
{
    Nothing,

    /// <summary>Why; it is kept with each.</summary>
    Reason,

    /// <summary>A day, as yyyy-MM-dd.</summary>
    Day,
}

/// <summary>One of the many that something is done to.</summary>
/// <param name="Given">What it was given: a reason, a day.</param>
/// <param name="Key">Makes a repeat safe: each act under it is carried out once.</param>
public sealed record DeedOf(ActRunner Acts, SolvendaDb Db, Actor Actor, string Number, string Given, string Key)
{
    /// <summary>Carries an act out for whoever does it.</summary>
    /// <param name="step">Which of several, where it takes several.</param>
    public Task<TAnswer> RunAsync<TAnswer>(IAct<TAnswer> act, CancellationToken cancel, string step = "") =>
        Acts.RunAsync(Actor, act, cancel, Key + step);
}

/// <summary>A list of documents: rows made from several tables by one query.</summary>
public sealed class DocumentList<TRow> : ListKind, IListOf<TRow>
    where TRow : class, IListRow
{
    private IReadOnlyList<Field<TRow>> _fields = [];

    public required IReadOnlyList<Field<TRow>> Fields
    {
        get => _fields;
        init => _fields = value;
    }

    public required Func<SolvendaDb, IQueryable<TRow>> Rows { get; init; }

    public required Func<TRow, string> Number { get; init; }

    public bool NewestFirst => true;

    public override Roles ViewsForAllBy => Roles.Admin | Roles.Lead;

    public override IReadOnlyList<Field> AllFields => Fields;

    public override IListReader List => new ListReader<TRow>(this);

    protected override void Add(ImmutableArray<OwnField> own) =>
        _fields = OwnColumnsOf<TRow>.Behind(_fields, own, typed: false);

    public string Called(TRow row) => Number(row);
}
