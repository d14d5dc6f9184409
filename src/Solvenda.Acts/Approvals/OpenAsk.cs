using System.Collections.Immutable;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Sheets;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Core.People;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.Approvals;

/// <summary>Something to be kept on file that somebody was asked about.</summary>
/// <param name="Kind">Of record.</param>
/// <param name="Id">Null for one that is to be made.</param>
/// <param name="Calls">What it is called.</param>
/// <param name="Values">What is to be kept, by the names of fields.</param>
/// <param name="Changes">Field by field, as it was then.</param>
public sealed record AskedChange(
    string Kind,
    long? Id,
    string Calls,
    ImmutableSortedDictionary<string, string> Values,
    ImmutableArray<RecordFieldChange> Changes
);

/// <summary>
/// An ask with what it is about, a sheet or something on file, and whether somebody may decide on it.
/// </summary>
/// <param name="Sheet">Null where it is about something on file.</param>
/// <param name="Change">Null where it is about a sheet.</param>
public sealed record OpenAsk(
    AskRow Row,
    OpenSheet? Sheet,
    AskedChange? Change,
    IReadOnlyDictionary<PersonId, Decider> People,
    ImmutableArray<Fired> Fired
)
{
    private const Roles Deciders = Roles.Lead | Roles.Credit;

    /// <summary>The sheet, of an ask that is about one.</summary>
    /// <exception cref="InvalidOperationException">It is about something on file.</exception>
    public OpenSheet Open => Sheet ?? throw new InvalidOperationException("The ask is about no sheet.");

    /// <summary>The seller on the head; of something on file whoever asked.</summary>
    public PersonId Owner => Sheet?.Owner.Id ?? new PersonId(Row.OwnerId);

    /// <summary>What its events are about.</summary>
    public string Subject => Sheet?.Subject ?? Row.Subject;

    /// <summary>What it is about, as it is said: "Q26-00187 for Tressel", "the credit limit of Tressel".</summary>
    public string Called => Sheet is { } s ? $"{s.Number} for {s.Buyer.Name}" : Row.About;

    /// <summary>The matter that it belongs to; null for something on file.</summary>
    public long? Dossier => Sheet?.Dossier.Id;

    /// <summary>Where what it is about is looked at.</summary>
    public string Path =>
        Sheet is { } sheet ? $"/{(sheet.Order is null ? "quotes" : "orders")}/{sheet.Subject}"
        : Change is { Id: { } id } ? $"/records/{Change.Kind}/{id}"
        : $"/asks/{Row.Id}";

    /// <summary>The document; of something on file the ask itself.</summary>
    public DocumentRef Ref =>
        Sheet?.Ref ?? new DocumentRef("ask", Row.Id.ToString(System.Globalization.CultureInfo.InvariantCulture));

    /// <summary>Whom it goes to in turn.</summary>
    public ImmutableArray<ImmutableArray<PersonId>> Steps => AskFacts.StepsOf(Row);

    /// <summary>Whether somebody else is asked once this step said yes.</summary>
    public bool GoesOn => Row.Step < Steps.Length - 1;

    /// <summary>Who typed, asked for, or owns it: they decide nothing of it, in whatever part.</summary>
    public IReadOnlySet<PersonId> Involved
    {
        get
        {
            var involved = new HashSet<PersonId> { new(Row.AskedById), new(Row.OwnerId), Owner };
            if (Row.HandId is { } typed)
                involved.Add(new PersonId(typed));
            return involved;
        }
    }

    /// <summary>Whether it is about what the buyer owes.</summary>
    public bool IsOfCredit => Fired.Any(f => FigureList.Of(f.Figure) is CreditFigure);

    /// <summary>Who has it; any one of them decides.</summary>
    public ImmutableArray<PersonId> HolderIds => [.. Row.Holders.Select(h => new PersonId(h.PersonId))];

    /// <summary>Who has it, as it is said: "A or B".</summary>
    public string Holders => string.Join(" or ", HolderIds.Select(h => People[h].Name));

    public bool IsHeldBy(PersonId person) => Row.Holders.Exists(h => h.PersonId == person.Value);

    /// <summary>
    /// Null where this person may decide; else why not. Whoever has it decides, and any lead or credit controller whose
    /// authority covers it; where several are asked in turn, only who has it.
    /// </summary>
    public Refusal? WhyNot(PersonId? person, Judgement now)
    {
        ArgumentNullException.ThrowIfNull(now);
        if (person is not { } id || !People.TryGetValue(id, out var me))
            return new Refusal("not_allowed", "Somebody has to decide this.");
        if (Involved.Contains(id))
            return new Refusal("not_allowed", "Nobody decides on what they typed, asked for, send or own themselves.");
        if (!me.Active)
            return new Refusal("not_allowed", "Who was switched off decides nothing.");
        if (!IsHeldBy(id) && (me.Roles & Deciders) == Roles.None)
            return new Refusal("not_allowed", "Whoever is asked decides it, or somebody who leads.");
        if (Steps.Length > 1 && !IsHeldBy(id))
            return new Refusal("not_allowed", "It is decided in turn, and it is somebody else’s turn.");
        return GoesOn || Covers(me, now)
            ? null
            : new Refusal("not_allowed", "These figures are beyond your authority.");
    }

    /// <summary>Whether a person's authority covers what was asked, and what stands there by now.</summary>
    public bool Covers(Decider person, Judgement now)
    {
        ArgumentNullException.ThrowIfNull(person);
        ArgumentNullException.ThrowIfNull(now);
        // Of what stands there, what this ask is about: what others are asked is theirs.
        var policies = Fired.Select(f => f.Policy).ToHashSet();
        var hand = now
            .Needs.Where(n => IsSameHand(n.Hand))
            .SelectMany(n => n.Fired)
            .Where(f => policies.Contains(f.Policy));
        return Route.Covers(person.Authority, Fired) && Route.Covers(person.Authority, [.. hand]);
    }

    private bool IsSameHand(Hand hand) =>
        Row.HandId is { } id ? hand.Person?.Value == id : hand.Person is null && hand.Name == Row.HandName;
}

/// <summary>Loads asks to be looked at and decided.</summary>
public sealed class AskLoader(SheetLoader loader, HouseClock clock)
{
    public async Task<OpenAsk> AskAsync(SolvendaDb db, long id, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        var row =
            await db.Asks.Include(a => a.Holders).FirstOrDefaultAsync(a => a.Id == id, cancel)
            ?? throw RefusedException.NotFound("such ask");
        if (row.SheetId is { } sheet && await loader.BySheetAsync(db, sheet, cancel) is var open)
            return new OpenAsk(row, open, null, open.People, AskFacts.FiredOf(row));
        return new OpenAsk(
            row,
            null,
            JsonSerializer.Deserialize<AskedChange>(row.Change),
            (await Deciders.OnAsync(db, clock.Today, cancel)).People,
            AskFacts.FiredOf(row)
        );
    }
}
