using System.Collections.Immutable;
using Solvenda.Core.Approvals;
using Solvenda.Core.Approvals.Policies;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Credit;
using Solvenda.Core.Documents;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.People;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;

namespace Solvenda.Core.Ordering;

/// <summary>Where a PO number is looked for.</summary>
public enum EarlierIn
{
    /// <summary>Orders that are not shipped yet.</summary>
    OpenOrders,

    /// <summary>Orders that are shipped.</summary>
    PastOrders,

    /// <summary>Requests of which nothing was made yet.</summary>
    Requests,
}

/// <summary>A document that came before, and carries the same PO key or the same lines.</summary>
public sealed record Earlier(DocumentRef Document, string PoNumber, DateOnly Day, bool SamePo)
{
    /// <summary>Where it was found.</summary>
    public EarlierIn In { get; init; }

    /// <summary>As it is printed.</summary>
    public string Number => Document.Number;
}

/// <summary>Everything that checks look at. All of it was loaded before; a check only judges.</summary>
/// <param name="Head">The terms as they stand.</param>
/// <param name="Stated">What the buyer's own document states beside its lines.</param>
/// <param name="Me">Who looks: words say "you" to them.</param>
/// <param name="LineHeadroom">What this person may still give on each line, in percent, by its key.</param>
/// <param name="Credit">What the buyer owes and will owe with it; null for a quote.</param>
public sealed record CheckFacts(
    DocumentKind Document,
    PricedSheet Sheet,
    Buyer Buyer,
    Head Head,
    Stated Stated,
    IReadOnlyList<Earlier> Earlier,
    IReadOnlyDictionary<long, LineStock> Stock,
    CreditAtOrder? Credit,
    Judgement Approval,
    Hand Me,
    IReadOnlyDictionary<long, decimal?> LineHeadroom,
    ImmutableArray<Waiver> Waivers
)
{
    /// <summary>How much this buyer took of the items before.</summary>
    public IReadOnlyDictionary<ItemId, TakenBefore> TakenBefore { get; init; } =
        ImmutableDictionary<ItemId, TakenBefore>.Empty;

    /// <summary>True where the order can be acknowledged by EDI, since it came by it.</summary>
    public bool AnswersByEdi { get; init; }

    /// <summary>
    /// How it differs from what the buyer accepted, in words; empty where it does not, or there was no quote.
    /// </summary>
    public ImmutableArray<string> SinceAccepted { get; init; } = [];

    /// <summary>
    /// Of a confirmed order what each line was promised for, by its key; null before it is confirmed. Then only what
    /// is newly wrong is looked for.
    /// </summary>
    public IReadOnlyDictionary<long, DateOnly?>? Promised { get; init; }

    /// <summary>Keys of lines of which all went or is being picked: nothing about them is judged any more.</summary>
    public IReadOnlySet<long> Gone { get; init; } = ImmutableHashSet<long>.Empty;

    /// <summary>The house's day; unset where nobody says, as for a price that is only asked.</summary>
    public DateOnly Today { get; init; }

    /// <summary>The day on which the document was begun.</summary>
    public DateOnly Begun { get; init; }

    /// <summary>What the house set for its checks.</summary>
    public ImmutableArray<CheckSetting> Settings { get; init; } = [];

    /// <summary>Rules that the house made for itself: policies that ask nobody.</summary>
    public ImmutableArray<Policy> Rules { get; init; } = [];

    /// <summary>What the house may not deliver to.</summary>
    public ImmutableArray<Restriction> Restrictions { get; init; } = [];

    /// <summary>Of a frame, or of what is called off of one: how they stand; null of all others.</summary>
    public CallOff? CallOff { get; init; }

    /// <summary>A number of a check, as the house set it for this document and channel.</summary>
    public decimal Number(ICheck check, string name) =>
        CheckSetting.For(Settings, check, Document, Sheet.Sheet.Channel)?.Numbers.TryGetValue(name, out var value)
        == true
            ? value
            : check.Numbers.First(n => n.Name == name).Usual;

    /// <summary>Lines that were marked when the last ask came back; empty once it is asked again.</summary>
    public ImmutableArray<SentBackMark> SentBack { get; init; } = [];
}

/// <summary>A line that an answer was about.</summary>
/// <param name="Line">Its key.</param>
public sealed record SentBackMark(long Line, string By, string Note);

/// <summary>A rule that a sheet must meet. One file each, listed in <see cref="CheckList"/>.</summary>
public interface ICheck
{
    /// <summary>Stable code, part of the API.</summary>
    string Code { get; }

    /// <summary>What holds where all is well, in a few words that begin small.</summary>
    string Does { get; }

    /// <summary>
    /// Whether it stops as it does, whatever a house would like: without it something wrong goes out.
    /// </summary>
    bool IsFixed => false;

    /// <summary>Whether it still looks at an order that is confirmed: something may have come up since.</summary>
    bool Goes => false;

    /// <summary>The numbers that a house may set, each with what it is where nobody does.</summary>
    ImmutableArray<CheckNumber> Numbers => [];

    /// <summary>Judges the facts; says nothing where all is well.</summary>
    IEnumerable<Finding> Run(CheckFacts facts);
}
