using Solvenda.Core.Approvals;
using Solvenda.Core.Ordering;
using Solvenda.Core.Ordering.Checks;
using Solvenda.Core.Pricing;
using Solvenda.Core.Promising;
using Solvenda.Core.Sheets;
using Solvenda.Core.Units;
using Solvenda.Data.Rows;
using Solvenda.Web.Printing;

namespace Solvenda.Web.Sheets;

/// <summary>A sheet as the screen shows it: every figure worked out by Core. Money and prices are decimals in the sheet's currency; percentages are 0 to 100.</summary>
public sealed record SheetView(
    long Id,
    long Version,
    bool Editable,
    string Currency,
    int Decimals,
    DateOnly PricingDate,
    HeadView Head,
    IReadOnlyList<LineView> Lines,
    TallyView Tally,
    IReadOnlyList<FindingView> Findings,
    IReadOnlyList<ReachView> Headroom,
    ApprovalView Approval,
    FreightView Freight
)
{
    public static SheetView Of(Judged judged)
    {
        ArgumentNullException.ThrowIfNull(judged);
        var row = judged.Open.Sheet;
        return Of(
            judged.Priced,
            judged.Findings,
            row.Id,
            row.Version,
            judged.Open.IsEditable,
            new HeadView(
                row.PoNumber,
                row.PaymentDays,
                row.Incoterm,
                row.IncotermPlace,
                row.DeliverTo,
                row.DeliverToCountry,
                row.ShipFrom,
                row.Wanted,
                row.Note,
                judged.Open.Dossier.Matter,
                judged.Open.Quote?.ValidUntil
            )
            {
                FromBuyer = AsByDefault(row, judged.Open.Buyer),
                FreightService = row.FreightService,
                BillTo = row.BillTo,
                ShippingRule = row.ShippingRule,
                Language = row.Language,
                DocumentsBy = row.DocumentsBy,
                Languages = [.. Wording.All.Values.Select(w => new LanguageView(w.Code, w.Name))],
                Addresses =
                [
                    .. judged.Open.Addresses.Select(a => new AddressView(
                        a.Code,
                        a.Use,
                        a.Words,
                        a.Country,
                        a.ReceivingDays
                    )),
                ],
            },
            judged.Facts.Stock,
            judged.Facts.LineHeadroom,
            judged.Headroom,
            new ApprovalView(judged.Approval, judged.Need.Approver?.Name, [.. judged.Need.Fired.Select(f => f.Words)])
        );
    }

    private static List<string> AsByDefault(SheetRow row, BuyerRow buyer)
    {
        var fields = new (string Name, object? Here, object? Theirs)[]
        {
            ("paymentDays", row.PaymentDays, buyer.PaymentDays),
            ("incoterm", row.Incoterm, buyer.Incoterm),
            ("incotermPlace", row.IncotermPlace, buyer.IncotermPlace),
            ("deliverTo", row.DeliverTo, buyer.DeliverTo),
            ("deliverToCountry", row.DeliverToCountry, buyer.DeliverToCountry),
            ("shipFrom", row.ShipFrom, buyer.ShipFrom),
            ("billTo", row.BillTo, buyer.BillTo),
            ("shippingRule", row.ShippingRule, buyer.ShippingRule),
            ("language", row.Language, buyer.Language),
            ("documentsBy", row.DocumentsBy, buyer.DocumentsBy),
        };
        return [.. fields.Where(f => f.Here is not null && Equals(f.Here, f.Theirs)).Select(f => f.Name)];
    }

    /// <summary>Also for sheets that are not stored: the price API.</summary>
    public static SheetView Of(
        PricedSheet priced,
        IReadOnlyList<Finding> findings,
        long id,
        long version,
        bool editable,
        HeadView head,
        IReadOnlyDictionary<long, LineStock> stock,
        IReadOnlyDictionary<long, decimal?> lineHeadroom,
        IReadOnlyList<Reach> headroom,
        ApprovalView approval
    )
    {
        var currency = priced.Sheet.Currency;
        return new SheetView(
            id,
            version,
            editable,
            currency.Code,
            currency.Decimals,
            priced.Sheet.PricingDate,
            head,
            [
                .. priced.Lines.Select(l =>
                    LineView.Of(l, stock.GetValueOrDefault(l.Line.Key), lineHeadroom.GetValueOrDefault(l.Line.Key))
                ),
            ],
            TallyView.Of(priced),
            [.. findings.Select(FindingView.Of)],
            [.. headroom.Select(r => new ReachView(r.Name, r.UpToPercent))],
            approval,
            new FreightView(
                priced.Freight.Gap,
                priced.Freight.Kilograms,
                priced.Freight.Zone,
                priced.Freight.Service,
                [.. priced.Freight.Unweighed]
            )
        );
    }
}

/// <summary>The terms on the head of the document.</summary>
public sealed record HeadView(
    string? PoNumber,
    int? PaymentDays,
    string? Incoterm,
    string? IncotermPlace,
    string? DeliverTo,
    string? DeliverToCountry,
    string? ShipFrom,
    DateOnly? Wanted,
    string Note,
    string Matter,
    DateOnly? ValidUntil
)
{
    /// <summary>The freight service asked for; null: the cheapest.</summary>
    public string? FreightService { get; init; }

    public string? BillTo { get; init; }

    public string? ShippingRule { get; init; }

    /// <summary>ISO 639-1.</summary>
    public string Language { get; init; } = "";

    /// <summary>mail, edi or paper; null where nobody said.</summary>
    public string? DocumentsBy { get; init; }

    /// <summary>The languages that documents are written in, to choose from.</summary>
    public IReadOnlyList<LanguageView> Languages { get; init; } = [];

    /// <summary>The buyer's other addresses, to choose from.</summary>
    public IReadOnlyList<AddressView> Addresses { get; init; } = [];

    /// <summary>Names of the fields that stand as the buyer has them by default.</summary>
    public IReadOnlyList<string> FromBuyer { get; init; } = [];
}

/// <summary>A language by its code, and what its speakers call it.</summary>
public sealed record LanguageView(string Code, string Name);

/// <summary>One of the buyer's addresses.</summary>
public sealed record AddressView(string Code, string Use, string Words, string Country, string ReceivingDays);

/// <summary>A part of a line's quantity, in its unit, and when it can be there.</summary>
public sealed record ArrivalView(decimal Quantity, DateOnly Arrives);

/// <summary>One step of a price build.</summary>
public sealed record StepView(StepKind Kind, string Words, string? Rule, DateOnly? From, DateOnly? To, decimal Price);

/// <summary>What the buyer wrote for the line, and their price carried to our unit.</summary>
public sealed record AskedView(
    string Words,
    string? Code,
    decimal? Quantity,
    string? Unit,
    decimal? Price,
    decimal PriceBase,
    decimal? PriceInOurs
);

/// <summary>One line. Prices are per <paramref name="PriceBase"/> of the unit; null where there is none.</summary>
public sealed record LineView(
    long Key,
    LineKind Kind,
    string? Code,
    string Words,
    decimal Quantity,
    string Unit,
    string UnitWord,
    IReadOnlyList<string> Units,
    decimal? BasePrice,
    decimal? ListPrice,
    decimal? NetPrice,
    decimal PriceBase,
    ByHandKind HandKind,
    decimal HandValue,
    decimal DiscountPercent,
    decimal Gross,
    decimal Allowance,
    decimal Charges,
    decimal Net,
    decimal SheetDiscountShare,
    decimal? Cost,
    decimal? Floor,
    decimal? Margin,
    decimal? MarginPercent,
    string? TaxCategory,
    decimal? TaxPercent,
    bool Optional,
    string Note,
    IReadOnlyList<StepView> Build,
    PriceGap Gap,
    AskedView? Asked,
    DateOnly? Promise,
    decimal? FreeNow,
    decimal? Headroom,
    string? Gtin,
    IReadOnlyList<LineChargeView> RuleCharges,
    IReadOnlyList<PartView> Parts,
    IReadOnlyList<ArrivalView> Arrivals
)
{
    public static LineView Of(PricedLine l, LineStock? stock, decimal? headroom)
    {
        var line = l.Line;
        var asked = line.Asked;
        return new LineView(
            line.Key,
            line.Kind,
            l.Item?.Code,
            line.Words,
            line.Quantity,
            line.Unit.Code,
            UnitTable.OnSheet(line.Unit),
            l.Item is null ? [] : [l.Item.StockUnit.Code, .. l.Item.SalesUnits.Select(u => u.Unit.Code)],
            l.Terms.Base,
            l.Build.List?.Value,
            l.HasPrice ? l.Figures.NetPrice : null,
            l.Build.PriceBase,
            line.ByHand.Kind,
            line.ByHand.Value,
            l.HasPrice ? l.DiscountPercent : 0m,
            l.Figures.Gross.Value,
            l.Figures.Allowance.Value,
            l.Figures.Charges.Value,
            l.Figures.Net.Value,
            l.Figures.SheetDiscountShare.Value,
            l.Terms.Cost,
            l.Floor,
            l.Figures.Margin?.Value,
            l.IsSold ? SheetFigures.MarginOf(l) : null,
            l.Terms.Tax?.Category,
            l.Terms.Tax?.Percent,
            line.Optional,
            line.Note,
            [.. l.Build.Steps.Select(s => new StepView(s.Kind, s.Words, s.Rule, s.From, s.To, s.Price))],
            l.Build.Gap,
            asked == AskedFor.Nothing
                ? null
                : new AskedView(
                    asked.Words,
                    asked.Code,
                    asked.Quantity,
                    asked.Unit?.Code,
                    asked.Price,
                    asked.PriceBase,
                    l.HasPrice ? PriceAsOnPo.Theirs(l) : null
                ),
            stock?.Promise?.Arrives,
            stock?.FreeNow,
            headroom,
            l.Item?.Gtin,
            [.. l.RuleCharges.Select(c => new LineChargeView(c.Rule, c.Words, c.Amount))],
            [
                .. l.Parts.Select(p => new PartView(
                    p.Item.Code,
                    p.Item.Words,
                    p.Quantity,
                    p.Item.StockUnit.Code,
                    UnitTable.OnSheet(p.Item.StockUnit),
                    p.Net.Value,
                    p.Tax?.Category,
                    p.Tax?.Percent
                )),
            ],
            [
                .. (stock?.Parts ?? []).Select(p => new ArrivalView(
                    p.Quantity / (l.Item?.Factor(line.Unit) ?? 1m),
                    p.Promise.Arrives
                )),
            ]
        );
    }
}

/// <param name="Words">What it is called; for a charge that came by rule the rule's words.</param>
public sealed record ChargeView(string Kind, string Words, decimal Amount, bool ByHand)
{
    public static ChargeView Of(SheetCharge charge, Core.Money.Currency currency) =>
        new(charge.Kind, charge.Words, Core.Money.Amount.Round(charge.Amount, currency).Value, charge.ByHand);
}

/// <summary>How freight was worked out, or why it was not.</summary>
public sealed record FreightView(
    FreightGap Gap,
    decimal Kilograms,
    string? Zone,
    string? Service,
    IReadOnlyList<string> Unweighed
);

/// <summary>A charge that a rule put on a line.</summary>
public sealed record LineChargeView(string Rule, string Words, decimal Amount);

/// <summary>A part of a bundle: its quantity on the line, and its share of the line's net.</summary>
public sealed record PartView(
    string Code,
    string Words,
    decimal Quantity,
    string Unit,
    string UnitWord,
    decimal Net,
    string? TaxCategory,
    decimal? TaxPercent
);

public sealed record TaxView(string Category, decimal Percent, decimal Basis, decimal Tax);

/// <summary>The totals.</summary>
public sealed record TallyView(
    decimal Goods,
    decimal? SheetDiscountPercent,
    decimal SheetDiscount,
    decimal Charges,
    IReadOnlyList<ChargeView> ChargeLines,
    IReadOnlyList<TaxView> Taxes,
    decimal TotalWithoutTax,
    decimal TotalTax,
    decimal TotalWithTax,
    decimal Due,
    decimal Margin,
    decimal? MarginPercent,
    decimal? LeastMarginPercent,
    int LinesWithoutCost
)
{
    public static TallyView Of(PricedSheet p)
    {
        var t = p.Tally;
        // The sheet's own floor: what would be left if every line stood at its floor, as a margin.
        var costed = p
            .Sold.Where(l =>
                l.Terms.Counts && l.Floor is not null && l.Figures.Cost is not null && l.Terms.PriceBase != 0
            )
            .ToList();
        var atFloor = costed.Sum(l => l.Line.Quantity * l.Floor!.Value / l.Terms.PriceBase);
        var cost = costed.Sum(l => l.Figures.Cost!.Value.Value);
        return new TallyView(
            t.Goods.Value,
            p.Sheet.Discount.Percent,
            t.SheetDiscount.Value,
            t.Charges.Value,
            [.. p.Charges.Select(c => ChargeView.Of(c, p.Sheet.Currency))],
            [.. t.Taxes.Select(x => new TaxView(x.Tax.Category, x.Tax.Percent, x.Basis.Value, x.TaxAmount.Value))],
            t.TotalWithoutTax.Value,
            t.TotalTax.Value,
            t.TotalWithTax.Value,
            t.Due.Value,
            t.Margin.Value,
            t.MarginPercent,
            atFloor == 0 ? null : decimal.Round((atFloor - cost) * 100m / atFloor, 1),
            t.LinesWithoutCost
        );
    }
}

public sealed record CureView(string Key, string Words, string Action, string Field, string Value);

/// <summary>What a check found. <paramref name="WaiveBy"/> says who may waive it.</summary>
public sealed record FindingView(
    string Check,
    Outcome Outcome,
    string Words,
    long? Line,
    string Field,
    WaiveBy WaiveBy,
    IReadOnlyList<CureView> Cures,
    IReadOnlyList<string> Documents,
    string? WaivedBy,
    string? WaivedWhy
)
{
    public static FindingView Of(Finding f)
    {
        ArgumentNullException.ThrowIfNull(f);
        return new FindingView(
            f.Check,
            f.Outcome,
            f.Words,
            f.Line,
            f.Field,
            f.Waive,
            [.. f.Cures.Select(c => new CureView(c.Key, c.Words, c.Action, c.Field, c.Value))],
            [.. f.Documents],
            f.Waived?.Who,
            f.Waived?.Reason
        );
    }
}

/// <summary>Up to which discount on the whole somebody may go alone; null: not even as it is.</summary>
public sealed record ReachView(string Name, decimal? UpToPercent);

/// <summary>Whether approval is needed, by whom, and for what.</summary>
public sealed record ApprovalView(ApprovalState State, string? Approver, IReadOnlyList<string> Why)
{
    public static readonly ApprovalView None = new(ApprovalState.NotNeeded, null, []);
}
