using System.Text.Json;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;

namespace Solvenda.Web.Requests;

/// <summary>Where a value stands in the original: characters of its text.</summary>
public sealed record EvidenceView(int Start, int Length);

/// <summary>A value that was read, with how sure (0 to 1), how it was found, and where it stands.</summary>
public sealed record FieldView(string? Value, decimal Sure, string How, IReadOnlyList<EvidenceView> Evidence);

/// <summary>What one key would settle a line as.</summary>
public sealed record ProposalView(string Code, string Words, decimal Quantity, string Unit, string UnitWord, decimal Score, string Why);

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
    string? SettledBy);

/// <summary>A charge stated on the document.</summary>
public sealed record StatedCharge(string Kind, decimal Amount);

/// <summary>The reading of a request: one shape for every form it came in. Kept as it was read, with what people settled.</summary>
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
    IReadOnlyList<string> Warnings)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    public bool NeedsYou => BuyerId is null || Buyer.Sure < ReadLine.SureEnough || Lines.Count == 0 || Lines.Any(l => l.NeedsYou);

    public string ToJson() => JsonSerializer.Serialize(this, Json);

    public static ReadingView FromJson(string json) => JsonSerializer.Deserialize<ReadingView>(json, Json)!;

    public static ReadingView Of(Reading r, ReadingContext context)
    {
        ArgumentNullException.ThrowIfNull(r);
        var buyer = r.Buyer.Sure > 0 ? context.BuyerNames.GetValueOrDefault(r.Buyer.Value) : null;
        return new ReadingView(
            r.Kind,
            buyer is null ? null : r.Buyer.Value.Value,
            new FieldView(buyer, r.Buyer.Sure, r.Buyer.How, Where(r.Buyer.Evidence)),
            Text(r.Contact), Text(r.PoNumber), Show(r.Wanted, w => w?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)), Text(r.DeliverTo), Text(r.Incoterm), Text(r.IncotermPlace),
            Show(r.Currency, c => c?.Code), Show(r.PaymentDays, d => d?.ToString(System.Globalization.CultureInfo.InvariantCulture)),
            [.. r.Lines.Select((l, i) => Line(l, i + 1, context))],
            [.. r.Charges.Select(c => new StatedCharge(c.Kind, c.Amount))],
            r.Warnings);
    }

    private static FieldView Text(Field<string> f) => Show(f, v => v);

    private static FieldView Show<T>(Field<T> f, Func<T?, string?> say) => new(f.Sure > 0 ? say(f.Value) : null, f.Sure, f.How, Where(f.Evidence));

    private static IReadOnlyList<EvidenceView> Where(IEnumerable<Evidence> evidence) => [.. evidence.Select(e => new EvidenceView(e.Start, e.Length))];

    private static ReadLineView Line(ReadLine l, int no, ReadingContext context)
    {
        var item = l.Item.Value.Value > 0 ? context.Items.ById(l.Item.Value) : null;
        return new ReadLineView(
            no, l.Words, l.Code, item?.Code, item?.Words, l.Item.Sure, l.Item.How, l.Quantity.Value, l.Quantity.Sure, l.Quantity.How, l.Unit.Value.Code, UnitTable.OnSheet(l.Unit.Value),
            l.Sure, l.NeedsYou, l.Price, l.PriceBase, l.Note,
            [.. l.Proposals.Select(p => new ProposalView(p.Code, p.Words, p.Quantity, p.Unit.Code, UnitTable.OnSheet(p.Unit), p.Score, p.Why))],
            Where(l.Evidence), Where(l.Quantity.Evidence), null);
    }
}
