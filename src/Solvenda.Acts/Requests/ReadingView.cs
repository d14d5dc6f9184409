using System.Globalization;
using System.Text.Json;
using Solvenda.Core.Documents;
using Solvenda.Core.Reading;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;

namespace Solvenda.Acts.Requests;

/// <summary>Where a value stands in the original: characters of one of its parts.</summary>
public sealed record EvidenceView(int Start, int Length, int Part = 0)
{
    /// <summary>Whether both have a character in common.</summary>
    public bool Meets(EvidenceView other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return new Evidence(Part, Start, Length).Meets(new Evidence(other.Part, other.Start, other.Length));
    }
}

/// <summary>A value that was read, with how sure (0 to 1), how it was found, and where it stands.</summary>
public sealed record FieldView(string? Value, decimal Sure, string How, IReadOnlyList<EvidenceView> Evidence)
{
    public static readonly FieldView Missing = new(null, 0m, "not found", []);

    // As people are named where they settle something.
    private const string Settled = "settled by ";

    /// <summary>Whether a person said it.</summary>
    public bool IsSettled => How.StartsWith(Settled, StringComparison.Ordinal);

    public static FieldView SettledBy(string who, string? value, EvidenceView? where) =>
        new(value, value is null ? 0m : 1m, Settled + who, where is null ? [] : [where]);
}

/// <summary>What one key would settle a line as.</summary>
public sealed record ProposalView(
    string Code,
    string Words,
    decimal Quantity,
    string Unit,
    string UnitWord,
    decimal Score,
    string Why
);

/// <summary>One line that was read. Codes are ours; null item: not known yet.</summary>
/// <param name="Sure">The least of item, quantity and unit.</param>
/// <param name="SettledBy">Who settled it by hand; null where it was read so.</param>
public sealed record ReadLineView(
    int No,
    string Words,
    string? TheirCode,
    string? ItemCode,
    string? ItemWords,
    decimal ItemSure,
    string ItemHow,
    decimal? Quantity,
    decimal QuantitySure,
    string QuantityHow,
    string Unit,
    string UnitWord,
    decimal Sure,
    bool NeedsYou,
    decimal? Price,
    decimal PriceBase,
    string Note,
    IReadOnlyList<ProposalView> Proposals,
    IReadOnlyList<EvidenceView> Evidence,
    IReadOnlyList<EvidenceView> QuantityEvidence,
    string? SettledBy
)
{
    /// <summary>The day this line is wanted, yyyy-MM-dd, where it says one of its own.</summary>
    public FieldView Wanted { get; init; } = FieldView.Missing;

    /// <summary>Amount of the line as stated.</summary>
    public decimal? Amount { get; init; }

    /// <summary>Whether their price holds the tax.</summary>
    public bool WithTax { get; init; }

    /// <summary>In a change: the line is taken back.</summary>
    public bool TakenBack { get; init; }
}

/// <summary>A charge stated on the document.</summary>
public sealed record StatedCharge(string Kind, decimal Amount);

/// <summary>
/// Words that nothing explains, and that could be a quantity or a thing; or a figure that others contradict, as
/// <paramref name="Why"/> says.
/// </summary>
public sealed record LeftOverView(string Words, EvidenceView Where, string Why = "");

/// <summary>Something that is asked beside the goods: delivery, printed, certificate or question.</summary>
public sealed record RemarkView(RemarkKind Kind, string Words, EvidenceView Where);

/// <summary>Something of the original that was not used, and why.</summary>
public sealed record UnusedView(string Words, string Why, EvidenceView Where);

/// <summary>A buyer that it may be from, and why.</summary>
public sealed record BuyerCandidateView(long Id, string Name, string How, decimal Sure);

/// <summary>
/// The reading of a request: one shape for every form it came in. Kept as it was read, with what people settled.
/// </summary>
public sealed record ReadingView(
    MessageKind Kind,
    long? BuyerId,
    FieldView Buyer,
    FieldView Contact,
    FieldView PoNumber,
    FieldView Wanted,
    FieldView DeliverTo,
    FieldView Incoterm,
    FieldView IncotermPlace,
    FieldView Currency,
    FieldView PaymentDays,
    IReadOnlyList<ReadLineView> Lines,
    IReadOnlyList<StatedCharge> Charges,
    IReadOnlyList<string> Warnings
)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>
    /// How sure it is that the message is of its kind, 0 to 1; readings of before are taken as they are.
    /// </summary>
    public decimal KindSure { get; init; } = 1m;

    /// <summary>Who said what kind it is; null where it was read so.</summary>
    public string? KindSettledBy { get; init; }

    /// <summary>What nothing explains: to be taken up, or said to mean nothing.</summary>
    public IReadOnlyList<LeftOverView> LeftOvers { get; init; } = [];

    /// <summary>Where a person said that what stands there means nothing.</summary>
    public IReadOnlyList<EvidenceView> MeansNothing { get; init; } = [];

    /// <summary>What was not used, and why.</summary>
    public IReadOnlyList<UnusedView> Unused { get; init; } = [];

    /// <summary>What is asked beside the goods; it goes along onto a quote or an order.</summary>
    public IReadOnlyList<RemarkView> Remarks { get; init; } = [];

    /// <summary>The first day on which they take the goods, yyyy-MM-dd; null where they do not say.</summary>
    public string? WantedFrom { get; init; }

    /// <summary>A quote of ours that it refers to.</summary>
    public FieldView QuoteNumber { get; init; } = FieldView.Missing;

    /// <summary>What a request for prices calls itself by.</summary>
    public FieldView Reference { get; init; } = FieldView.Missing;

    /// <summary>ISO 3166-1 alpha-2 of where it goes.</summary>
    public string? DeliverToCountry { get; init; }

    /// <summary>Total of the lines as stated.</summary>
    public FieldView Goods { get; init; } = FieldView.Missing;

    /// <summary>What was paid for all of it, with tax; null where it does not say.</summary>
    public decimal? Paid { get; init; }

    /// <summary>What the channel keeps of that; null where it does not say.</summary>
    public decimal? Fee { get; init; }

    /// <summary>What else they say.</summary>
    public string Note { get; init; } = "";

    /// <summary>Where more than one buyer fits.</summary>
    public IReadOnlyList<BuyerCandidateView> BuyerCandidates { get; init; } = [];

    /// <summary>ISO 639-1 of the words it was read by; empty for structured forms.</summary>
    public string Language { get; init; } = "";

    public bool NeedsYou =>
        BuyerId is null
        || Buyer.Sure < ReadLine.SureEnough
        || KindSure < ReadLine.SureEnough
        || PoNumber.Sure is > 0 and < ReadLine.SureEnough
        || LeftOvers.Count > 0
        || Lines.Count == 0
        || Lines.Any(l => l.NeedsYou)
        || (Wanted.Value is not null && Wanted.Sure < Reading.UnsureDate);

    /// <summary>
    /// The same, with everything that a person had said before of its kind, its head, and what means nothing.
    /// </summary>
    public ReadingView Keeping(ReadingView before)
    {
        ArgumentNullException.ThrowIfNull(before);
        static FieldView Of(FieldView old, FieldView read) => old.IsSettled ? old : read;
        var same = this with
        {
            Kind = before.KindSettledBy is null ? Kind : before.Kind,
            KindSure = before.KindSettledBy is null ? KindSure : before.KindSure,
            KindSettledBy = before.KindSettledBy,
            MeansNothing = before.MeansNothing,
            Buyer = Of(before.Buyer, Buyer),
            BuyerId = before.Buyer.IsSettled ? before.BuyerId : BuyerId,
            Contact = Of(before.Contact, Contact),
            PoNumber = Of(before.PoNumber, PoNumber),
            Reference = Of(before.Reference, Reference),
            Wanted = Of(before.Wanted, Wanted),
            DeliverTo = Of(before.DeliverTo, DeliverTo),
            DeliverToCountry = before.DeliverTo.IsSettled ? before.DeliverToCountry : DeliverToCountry,
            Incoterm = Of(before.Incoterm, Incoterm),
            IncotermPlace = Of(before.IncotermPlace, IncotermPlace),
            Currency = Of(before.Currency, Currency),
            PaymentDays = Of(before.PaymentDays, PaymentDays),
        };
        return before.MeansNothing.Aggregate(same, (reading, where) => reading.Explaining(where));
    }

    /// <summary>
    /// The same as another kind: what a request for prices calls itself by is an order's number once it is an order.
    /// </summary>
    public ReadingView As(MessageKind kind)
    {
        var number = PoNumber.Value is null ? Reference : PoNumber;
        return kind switch
        {
            MessageKind.RequestForQuotation => this with
            {
                Kind = kind,
                Reference = number,
                PoNumber = FieldView.Missing,
            },
            MessageKind.Order => this with { Kind = kind, PoNumber = number, Reference = FieldView.Missing },
            _ => this with { Kind = kind },
        };
    }

    /// <summary>The same without what is left over where something was taken up.</summary>
    public ReadingView Explaining(EvidenceView where)
    {
        ArgumentNullException.ThrowIfNull(where);
        return this with { LeftOvers = [.. LeftOvers.Where(l => l.Where != where && !l.Where.Meets(where))] };
    }

    public string ToJson() => JsonSerializer.Serialize(this, Json);

    /// <summary>As lists say it: its PO number, and how many lines it has.</summary>
    public string InBrief()
    {
        var lines = Lines.Count(l => !l.TakenBack);
        var many = string.Create(CultureInfo.InvariantCulture, $"{lines} {(lines == 1 ? "line" : "lines")}");
        return PoNumber.Value is { } po ? $"PO {po}, {many}" : many;
    }

    public static ReadingView FromJson(string json) => JsonSerializer.Deserialize<ReadingView>(json, Json)!;

    public static ReadingView Of(Reading r, ReadingContext context)
    {
        ArgumentNullException.ThrowIfNull(r);
        ArgumentNullException.ThrowIfNull(context);
        var buyer = r.Buyer.Sure > 0 ? context.BuyerNames.GetValueOrDefault(r.Buyer.Value) : null;
        return new ReadingView(
            r.Kind,
            buyer is null ? null : r.Buyer.Value.Value,
            new FieldView(buyer, r.Buyer.Sure, r.Buyer.How, Where(r.Buyer.Evidence)),
            Text(r.Contact),
            Text(r.PoNumber),
            Show(r.Wanted, Day),
            Text(r.DeliverTo),
            Text(r.Incoterm),
            Text(r.IncotermPlace),
            Show(r.Currency, c => c?.Code),
            Show(r.PaymentDays, d => d?.ToString(CultureInfo.InvariantCulture)),
            [.. r.Lines.Select((l, i) => Line(l, i + 1, context))],
            [.. r.Charges.Select(c => new StatedCharge(c.Kind, c.Amount))],
            r.Warnings
        )
        {
            KindSure = r.KindSure,
            LeftOvers = [.. r.LeftOvers.Select(l => new LeftOverView(l.Words, Where(l.Where), l.Why))],
            Unused = [.. r.Unused.Select(u => new UnusedView(u.Words, u.Why, Where(u.Where)))],
            Remarks = [.. r.Remarks.Select(x => new RemarkView(x.Kind, x.Words, Where(x.Where)))],
            WantedFrom = Day(r.WantedFrom),
            QuoteNumber = Text(r.QuoteNumber),
            Reference = Text(r.Reference),
            DeliverToCountry = r.DeliverToCountry,
            Paid = r.Paid,
            Fee = r.Fee,
            Goods = Show(r.Goods, g => g?.ToString(CultureInfo.InvariantCulture)),
            Note = r.Note,
            BuyerCandidates =
            [
                .. r.BuyerCandidates.Select(c => new BuyerCandidateView(c.Buyer.Value, c.Name, c.How, c.Sure)),
            ],
            Language = r.Language,
        };
    }

    private static string? Day(DateOnly? day) => day?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static FieldView Text(Field<string> f) => Show(f, v => v);

    private static FieldView Show<T>(Field<T> f, Func<T?, string?> say) =>
        new(f.Sure > 0 ? say(f.Value) : null, f.Sure, f.How, Where(f.Evidence));

    private static IReadOnlyList<EvidenceView> Where(IEnumerable<Evidence> evidence) => [.. evidence.Select(Where)];

    private static EvidenceView Where(Evidence e) => new(e.Start, e.Length, e.Part);

    public static ReadLineView Line(ReadLine l, int no, ReadingContext context)
    {
        ArgumentNullException.ThrowIfNull(l);
        ArgumentNullException.ThrowIfNull(context);
        var item = l.Item.Value.Value > 0 ? context.Items.ById(l.Item.Value) : null;
        return new ReadLineView(
            no,
            l.Words,
            l.Code,
            item?.Code,
            item?.Words,
            l.Item.Sure,
            l.Item.How,
            l.Quantity.Value,
            l.Quantity.Sure,
            l.Quantity.How,
            l.Unit.Value.Code,
            UnitTable.OnSheet(l.Unit.Value),
            l.Sure,
            l.NeedsYou,
            l.Price,
            l.PriceBase,
            l.Note,
            [
                .. l.Proposals.Select(p => new ProposalView(
                    p.Code,
                    p.Words,
                    p.Quantity,
                    p.Unit.Code,
                    UnitTable.OnSheet(p.Unit),
                    p.Score,
                    p.Why
                )),
            ],
            Where(l.Evidence),
            Where(l.Quantity.Evidence),
            null
        )
        {
            Wanted = Show(l.Wanted, Day),
            Amount = l.Amount,
            WithTax = l.WithTax,
            TakenBack = l.TakenBack,
        };
    }
}
