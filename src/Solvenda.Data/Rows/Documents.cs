using System.ComponentModel.DataAnnotations.Schema;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Approvals;
using Solvenda.Core.Documents;
using Solvenda.Core.Pricing;
using Solvenda.Core.Sheets;

namespace Solvenda.Data.Rows;

/// <summary>Marks the version of a record; a save fails where somebody else saved in between.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class ConcurrencyCheckVersionAttribute : Attribute;

/// <summary>One matter with one buyer.</summary>
[Index(nameof(Number), IsUnique = true), Index(nameof(BuyerId))]
public sealed class DossierRow
{
    public long Id { get; set; }
    public required string Number { get; set; }
    public long BuyerId { get; set; }
    public BuyerRow Buyer { get; set; } = null!;
    public string Matter { get; set; } = "";
    public DateTime CreatedAt { get; set; }
}

/// <summary>
/// The priced body of a quote or an order, with the terms on its head. Totals are kept for lists; they are worked out,
/// never typed.
/// </summary>
public sealed class SheetRow
{
    public long Id { get; set; }
    public required string Currency { get; set; }
    public DateOnly PricingDate { get; set; }

    /// <summary>The terms, each with the hand that typed it.</summary>
    public Head Head { get; set; } = Head.Empty;

    /// <summary>What the buyer's own document states beside its lines, as JSON; empty where nothing.</summary>
    public string Stated { get; set; } = "";

    /// <summary>Kept for lists: a copy of the term.</summary>
    public DateOnly? Wanted { get; set; }

    /// <summary>Kept for lists and the finder: a copy of the term.</summary>
    public string? PoNumber { get; set; }

    /// <summary>Kept for lists: a copy of the terms that the house made for itself, as <see cref="IOwnRow"/>.</summary>
    public string Own { get; set; } = OwnValues.None;

    /// <summary>Home currency per unit of the sheet's currency, frozen.</summary>
    public decimal? FrozenRate { get; set; }

    /// <summary>The channel that it came by; null where nobody said.</summary>
    public string? Channel { get; set; }

    /// <summary>
    /// What its lines were priced at when it left the house, as JSON; empty for a sheet that is priced anew each time.
    /// </summary>
    public string Kept { get; set; } = "";
    public long TotalWithoutTaxMinor { get; set; }
    public long TotalWithTaxMinor { get; set; }
    public long MarginMinor { get; set; }
    public long NextKey { get; set; } = 1;

    [ConcurrencyCheckVersion]
    public long Version { get; set; } = 1;

    /// <summary>
    /// Its lines as the context knows them: for queries alone. Of a sheet in hand <see cref="Lines"/> has them all.
    /// </summary>
    public List<SheetLineRow> StoredLines { get; set; } = [];

    /// <summary>Its lines, all of them, to be read and changed.</summary>
    [NotMapped]
    public IReadOnlyList<SheetLineRow> Lines => _atHand ?? StoredLines;

    /// <summary>Lines of this version that were not read again; the context learns of those that change.</summary>
    internal IReadOnlyList<SheetLineRow> AtHand => _atHand ?? [];

    private List<SheetLineRow>? _atHand;
    private List<SheetLineRow> _gone = [];

    /// <summary>Those of them that were taken out since this was asked last.</summary>
    internal List<SheetLineRow> ForgetGone()
    {
        var gone = _gone;
        _gone = [];
        return gone;
    }

    /// <summary>Takes lines that are at hand as its own, so that they are not read.</summary>
    /// <param name="lines">As they are stored, <see cref="SheetLineRow.Apart"/>.</param>
    public void Have(List<SheetLineRow> lines) => _atHand = lines;

    public void Add(SheetLineRow line)
    {
        StoredLines.Add(line);
        _atHand?.Add(line);
    }

    public void Remove(SheetLineRow line)
    {
        var wasAtHand = _atHand?.Remove(line) ?? false;
        if (!StoredLines.Remove(line) && wasAtHand)
            _gone.Add(line);
    }
}

/// <summary>One revision of a quote.</summary>
[
    Index(nameof(Number), nameof(Revision), IsUnique = true),
    Index(nameof(State)),
    Index(nameof(TokenHash)),
    Index(nameof(DossierId)),
    Index(nameof(SheetId), IsUnique = true)
]
public sealed class QuoteRow
{
    public long Id { get; set; }
    public required string Number { get; set; }
    public int Revision { get; set; } = 1;
    public long DossierId { get; set; }
    public DossierRow Dossier { get; set; } = null!;
    public long SheetId { get; set; }
    public SheetRow Sheet { get; set; } = null!;
    public long SellerId { get; set; }

    /// <summary>The order that it became, alone or with others; null: none yet.</summary>
    public long? OrderId { get; set; }
    public OrderRow? Order { get; set; }
    public long? RequestId { get; set; }
    public QuoteState State { get; set; }
    public DateOnly ValidUntil { get; set; }
    public DateTime CreatedAt { get; set; }
    public DateTime? SentAt { get; set; }
    public string? SentTo { get; set; }
    public DateTime? AnsweredAt { get; set; }
    public string? AnsweredBy { get; set; }
    public string? DeclineReason { get; set; }

    /// <summary>SHA-256 of the buyer's link; the link itself is only in the letter.</summary>
    public string? TokenHash { get; set; }
    public long? PrintId { get; set; }
    public int Opened { get; set; }

    /// <summary>
    /// Number of the first of the quotes that the buyer takes one of; null where it stands alone.
    /// </summary>
    public string? OneOf { get; set; }
}

/// <summary>
/// A file that belongs to a matter: inner, or for the buyer to see; to the whole, to one document, or to a line of it.
/// </summary>
[Index(nameof(DossierId))]
public sealed class AttachmentRow
{
    public long Id { get; set; }
    public long DossierId { get; set; }

    /// <summary>Number of the quote or order; empty for the whole matter.</summary>
    public string Document { get; set; } = "";

    /// <summary>Key of the line of the document; null for all of it.</summary>
    public long? LineKey { get; set; }
    public required string Name { get; set; }

    /// <summary>What the bytes are, by their first few; never what the sender says.</summary>
    public required string ContentType { get; set; }
    public required byte[] Bytes { get; set; }

    /// <summary>Whether the buyer sees it beside the quote.</summary>
    public bool ForBuyer { get; set; }
    public required string Who { get; set; }
    public DateTime At { get; set; }
}

/// <summary>Lines kept by a name, to be put on sheets again.</summary>
[Index(nameof(OwnerId), nameof(Name), IsUnique = true)]
public sealed class AssortmentRow
{
    public long Id { get; set; }

    /// <summary>Whose it is; null: the house's.</summary>
    public long? OwnerId { get; set; }
    public required string Name { get; set; }

    /// <summary>Its lines as they are typed, one a row: code, quantity and unit, and what stands under which
    /// heading.</summary>
    public string Lines { get; set; } = "";
}

[
    Index(nameof(Number), IsUnique = true),
    Index(nameof(PoKey)),
    Index(nameof(DossierId)),
    Index(nameof(SheetId), IsUnique = true),
    Index(nameof(Terms))
]
public sealed class OrderRow
{
    public long Id { get; set; }
    public required string Number { get; set; }
    public long DossierId { get; set; }
    public DossierRow Dossier { get; set; } = null!;
    public long SheetId { get; set; }
    public SheetRow Sheet { get; set; } = null!;
    public long SellerId { get; set; }

    /// <summary>The order that it is called off of; null where it is none.</summary>
    public long? FrameId { get; set; }
    public long? RequestId { get; set; }
    public required string Channel { get; set; }

    /// <summary>Kept for lists: a copy of the term (OrderKind); empty for goods now.</summary>
    public string Kind { get; set; } = "";

    /// <summary>Key of the PO number (PoKey); empty without one.</summary>
    public string PoKey { get; set; } = "";
    public TermsTrack Terms { get; set; }
    public GoodsTrack Goods { get; set; }
    public MoneyTrack Money { get; set; }
    public DateTime CreatedAt { get; set; }
    public DateTime? ConfirmedAt { get; set; }

    /// <summary>How often it was confirmed: more than once where it was changed.</summary>
    public int Confirmed { get; set; }

    /// <summary>Why it is held by hand; empty where it is not.</summary>
    public string HeldWhy { get; set; } = "";

    /// <summary>Kept for lists: how many stops its checks found when last run, and the first in words.</summary>
    public int Stops { get; set; }
    public string FirstStop { get; set; } = "";

    /// <summary>
    /// Kept for lists: the promise of a confirmed order that can no longer be kept, in words; empty where all can.
    /// </summary>
    public string Late { get; set; } = "";

    /// <summary>Kept for lists: codes of the checks that stop it, apart by blanks.</summary>
    public string StopChecks { get; set; } = "";

    /// <summary>Kept for lists: whether its buyer's credit is among what stops it.</summary>
    public bool CreditStop { get; set; }

    /// <summary>Kept for what buyers owe: with tax, what invoices billed of it.</summary>
    public long InvoicedMinor { get; set; }
}

/// <summary>An order as it was confirmed before a change.</summary>
[Index(nameof(OrderId), nameof(No), IsUnique = true)]
public sealed class OrderVersionRow
{
    public long Id { get; set; }
    public long OrderId { get; set; }

    /// <summary>From 1: which time it was confirmed.</summary>
    public int No { get; set; }
    public long SheetId { get; set; }
    public SheetRow Sheet { get; set; } = null!;
    public DateTime ConfirmedAt { get; set; }
}

/// <summary>One request for approval, of one hand's figures, as they were at that moment.</summary>
[Index(nameof(SheetId)), Index(nameof(Outcome), nameof(DueAt)), Index(nameof(Subject))]
public sealed class AskRow
{
    public long Id { get; set; }

    /// <summary>Null where it is about something on file.</summary>
    public long? SheetId { get; set; }
    public SheetRow? Sheet { get; set; }

    /// <summary>What is to be kept on file, as JSON (AskedChange); empty where it is about a sheet.</summary>
    public string Change { get; set; } = "";

    /// <summary>What a record is called that it is about; empty where it is about a sheet.</summary>
    public string About { get; set; } = "";

    /// <summary>Number of the quote or order, or the subject of the record.</summary>
    public required string Subject { get; set; }

    /// <summary>Whose figures they are; null for a machine's.</summary>
    public long? HandId { get; set; }
    public required string HandName { get; set; }

    /// <summary>Who asked.</summary>
    public long AskedById { get; set; }
    public required string AskedByName { get; set; }

    /// <summary>The seller on the head at that moment.</summary>
    public long OwnerId { get; set; }

    /// <summary>Who has it now; any one of them decides. Kept also once it is decided.</summary>
    public List<AskHolderRow> Holders { get; set; } = [];

    /// <summary>
    /// Whom it goes to in turn, as it was found when it was asked: keys of people apart by commas, steps apart by
    /// bars. The last decides.
    /// </summary>
    public string Steps { get; set; } = "";

    /// <summary>Which step has it, from 0.</summary>
    public int Step { get; set; }
    public AskOutcome Outcome { get; set; }
    public required string Why { get; set; }

    /// <summary>Whether the answer is wanted today.</summary>
    public bool Urgent { get; set; }

    /// <summary>Something is asked back of whoever asked; it waits for their answer. Null: nothing is.</summary>
    public string? Question { get; set; }

    /// <summary>Who asks back.</summary>
    public long? QuestionById { get; set; }

    /// <summary>What was shown, as JSON (Core's Shown): what a grant is tied to.</summary>
    public required string Shown { get; set; }

    /// <summary>What was beyond the authority, as JSON (Core's Fired).</summary>
    public required string Fired { get; set; }

    /// <summary>A figure that was granted less far than asked, by its code; empty: as asked.</summary>
    public string UpToFigure { get; set; } = "";

    /// <inheritdoc cref="UpToFigure" />
    public decimal? UpTo { get; set; }

    /// <summary>The last day on which a grant of credit covers anything; null: without end.</summary>
    public DateOnly? Until { get; set; }

    /// <summary>Keys of lines that were marked when it was sent back, apart by commas.</summary>
    public string Marks { get; set; } = "";
    public string Note { get; set; } = "";
    public DateTime AskedAt { get; set; }

    /// <summary>When it moves on if nobody answers; null: it waits.</summary>
    public DateTime? DueAt { get; set; }

    /// <summary>Working hours that each step has; 0: it waits.</summary>
    public int PatienceHours { get; set; }
    public DateTime? DecidedAt { get; set; }
    public long? DecidedById { get; set; }
}

/// <summary>Somebody who has an ask.</summary>
[PrimaryKey(nameof(AskId), nameof(PersonId)), Index(nameof(PersonId))]
public sealed class AskHolderRow
{
    public long AskId { get; set; }
    public long PersonId { get; set; }
}

[Index(nameof(OrderId))]
public sealed class WaiverRow
{
    public long Id { get; set; }
    public long OrderId { get; set; }
    public required string Check { get; set; }
    public long? LineKey { get; set; }
    public string Fingerprint { get; set; } = "";
    public decimal Excess { get; set; }
    public long ById { get; set; }
    public required string ByName { get; set; }
    public required string Reason { get; set; }
    public DateTime At { get; set; }

    /// <summary>The last day on which it lets anything pass; null: without end.</summary>
    public DateOnly? Until { get; set; }
}
