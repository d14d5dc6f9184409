using System.Collections.Immutable;
using System.Linq.Expressions;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Core.Approvals;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Records;

/// <summary>
/// A kind of master data: one file in Kinds/, one line in <see cref="RecordKinds"/>. Lists, forms, history, import and
/// export follow from it.
/// </summary>
public abstract class RecordKind : ListKind
{
    public override string ActiveWord => "active";

    public override Roles ViewsForAllBy => ChangedBy;

    /// <summary>Names of the fields that tell one from another; an import finds what is there by them.</summary>
    public required IReadOnlyList<string> Key { get; init; }

    /// <summary>The field that stands for a record in titles and references.</summary>
    public string Calls { get; init; } = "code";

    /// <summary>
    /// Names of fields that are seldom needed: the form keeps them behind "more" while they are empty.
    /// </summary>
    public IReadOnlyList<string> Seldom { get; init; } = [];

    /// <summary>Who may change them.</summary>
    public Roles ChangedBy { get; init; } = Roles.Admin | Roles.Lead;

    /// <summary>Who may change what carries money or authority: never those who sell by it alone.</summary>
    public const Roles MoneyBy = Roles.Admin | Roles.Lead;

    /// <summary>
    /// Names of fields that may be asked for also by who may not set them: a limit, by a seller. A figure judges each
    /// of
    /// them, so that nothing is granted unseen.
    /// </summary>
    public IReadOnlyList<string> Askable { get; init; } = [];

    /// <summary>Whether the whole record carries money: an agreement, a cost.</summary>
    public bool Money { get; init; }

    /// <summary>The kinds that its fields refer to.</summary>
    public IEnumerable<string> Referred => AllFields.Where(f => f.Of is not null).Select(f => f.Of!).Distinct();

    public abstract IRecordReader Reader { get; }

    public abstract IRecordWriter Writer { get; }

    public abstract IImporter Importer { get; }
}

/// <inheritdoc />
public sealed class RecordKind<TRow> : RecordKind, IListOf<TRow>
    where TRow : class, IRecordRow
{
    private IReadOnlyList<Field<TRow>> _fields = [];

    public required IReadOnlyList<Field<TRow>> Fields
    {
        get => _fields;
        init => _fields = value;
    }

    /// <summary>
    /// Key of the person whose a record is, and who is told of changes that carry money; null for nobody.
    /// </summary>
    public Func<SolvendaDb, TRow, CancellationToken, Task<long?>> Owner { get; init; } =
        (_, _, _) => Task.FromResult<long?>(null);

    /// <summary>A new row, with what must not be null.</summary>
    public required Func<TRow> Make { get; init; }

    /// <summary>Settles for a new row what nobody said; null where there is nothing to settle.</summary>
    public Func<SolvendaDb, TRow, CancellationToken, Task>? Settle { get; init; }

    /// <summary>What policies look at when a row is kept; null where they look at nothing of it.</summary>
    public Func<TRow, KeptFacts, Kept>? Figures { get; init; }

    /// <summary>The rows with the children that fields are made of.</summary>
    public Func<SolvendaDb, IQueryable<TRow>> Rows { get; init; } = db => db.Set<TRow>();

    /// <summary>Everything that is wrong with a row as a whole, and at which field.</summary>
    public Func<TRow, References, IEnumerable<(string Field, string Words)>> Check { get; init; } = (_, _) => [];

    /// <summary>
    /// Which others a row in use cannot stand beside: rates of one class whose days overlap. Null: it stands beside
    /// any.
    /// </summary>
    public Func<TRow, Expression<Func<TRow, bool>>>? Overlapping { get; init; }

    /// <summary>Refuses a row, saved in this transaction, that overlaps another one in use.</summary>
    internal async Task StandsAloneAsync(SolvendaDb db, TRow row, CancellationToken cancel)
    {
        if (Overlapping is not { } overlapping || !row.Active)
            return;
        var other = await db.Set<TRow>()
            .AsNoTracking()
            .Where(overlapping(row))
            .Where(r => r.Id != row.Id && r.Active)
            .FirstOrDefaultAsync(cancel);
        if (other is null)
            return;
        var key = string.Join(", ", Key.Select(k => Find(k)!.Get(other, References.None)).Where(v => v.Length > 0));
        throw RefusedException.Bad(
            "record_field",
            $"Its days overlap those of the {One} “{key}”; end that one the day before first. Nothing was changed.",
            "from"
        );
    }

    public override IReadOnlyList<Field> AllFields => _fields;

    public bool NewestFirst => false;

    public override IListReader List => new ListReader<TRow>(this);

    public override IRecordReader Reader => new RecordReader<TRow>(this);

    public override IRecordWriter Writer => new RecordWriter<TRow>(this);

    public override IImporter Importer => new Importer<TRow>(this);

    protected override void Add(ImmutableArray<OwnField> own) =>
        _fields = OwnColumnsOf<TRow>.Behind(_fields, own, typed: true);

    /// <summary>What a record is called by.</summary>
    public string CallsOf(TRow row, References references) => Find(Calls)!.Get(row, references);

    // Records have pages by their keys.
    string IListOf<TRow>.Called(TRow row) => "";

    public Field<TRow>? Find(string name) => _fields.FirstOrDefault(f => f.Name == name);
}
