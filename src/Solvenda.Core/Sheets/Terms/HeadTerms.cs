using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Billing;
using Solvenda.Core.Documents;
using Solvenda.Core.People;
using Solvenda.Core.Sheets.Entry;

namespace Solvenda.Core.Sheets.Terms;

/// <summary>Every term that a head can have. A new one is one entry here, and its line in <see cref="All"/>.</summary>
public static partial class HeadTerms
{
    /// <summary>The longest that anybody may give: a year.</summary>
    public const int MostPaymentDays = PaymentPlan.MostDays;

    /// <summary>The longest that an offer holds, in days.</summary>
    public const int MostValidDays = 180;

    /// <summary>The dearest freight that is believed, in the sheet's currency.</summary>
    public const decimal MostFreight = 1_000_000m;

    /// <summary>Until when its goods are kept back for an offer; nothing said: they are not.</summary>
    public static readonly HeadTerm KeptBack = new(
        "keptBack",
        "goods kept until",
        TermKind.Date,
        TermReading.Day(f => f.Today, f => f.Today.AddDays(MostValidDays))
    )
    {
        Only = DocumentKind.Quote,
        Seldom = true,
    };

    /// <summary>The buyer's own number for what they order.</summary>
    public static readonly HeadTerm PoNumber = new("poNumber", "their PO", TermKind.Text, TermReading.Words(60))
    {
        Only = DocumentKind.Order,
        Paper = "yourPo",
    };

    /// <summary>What kind of order it is: <see cref="OrderKind"/>; goods now where nobody said.</summary>
    public static readonly HeadTerm Kind = new(
        "kind",
        "kind",
        TermKind.Choice,
        TermReading.OneOf(_ => OrderKind.All.Select(k => k.Words), "the kinds of order", "order_kind")
    )
    {
        Only = DocumentKind.Order,
        Stands = StandsOnce.Begun,
        Choices = _ => OrderKind.All.Select(k => new TermChoice(k.Words, k.Words)),
    };

    /// <summary>Why it costs nothing, where its kind is without charge.</summary>
    public static readonly HeadTerm FreeWhy = new("freeWhy", "free because", TermKind.Text, TermReading.Words(200))
    {
        Only = DocumentKind.Order,
        Seldom = true,
    };

    /// <summary>The licence under which goods go that may not be exported without one.</summary>
    public static readonly HeadTerm Licence = new("licence", "export licence", TermKind.Text, TermReading.Words(60))
    {
        Only = DocumentKind.Order,
        Paper = "licence",
        Seldom = true,
    };

    /// <summary>
    /// The buyer's number for a part of what they ordered once and call off; with the PO number it is the key.
    /// </summary>
    public static readonly HeadTerm Release = new("releaseNumber", "release", TermKind.Text, TermReading.Words(60))
    {
        Only = DocumentKind.Order,
        Paper = "yourRelease",
        Seldom = true,
    };

    /// <summary>For whoever picks and packs; on their lists, and never on the buyer's papers.</summary>
    public static readonly HeadTerm ForWarehouse = new(
        "forWarehouse",
        "for the warehouse",
        TermKind.LongText,
        TermReading.Words(500)
    )
    {
        FromBuyer = b => b.WarehouseNote,
        Seldom = true,
    };

    /// <summary>For the house; never printed.</summary>
    public static readonly HeadTerm Inner = new("inner", "inner note", TermKind.LongText, TermReading.Words(500))
    {
        Seldom = true,
    };

    /// <summary>Which department of ours, or which place, it is for.</summary>
    public static readonly HeadTerm Department = new(
        "department",
        "our department",
        TermKind.Text,
        TermReading.Words(60)
    )
    {
        Seldom = true,
    };

    /// <summary>How they came to us: a fair, a visit, somebody's word.</summary>
    public static readonly HeadTerm LeadSource = new("leadSource", "came by", TermKind.Text, TermReading.Words(60))
    {
        Seldom = true,
    };

    /// <summary>The campaign that brought it.</summary>
    public static readonly HeadTerm Campaign = new("campaign", "campaign", TermKind.Text, TermReading.Words(60))
    {
        Choices = f => f.Book.Campaigns.Select(c => c.Id).Distinct().Select(c => new TermChoice(c, c)),
        Seldom = true,
    };

    /// <summary>The territory that it counts for; the buyer's own where nobody said.</summary>
    public static readonly HeadTerm Territory = new("territory", "territory", TermKind.Text, TermReading.Words(60))
    {
        FromBuyer = b => b.Territory,
        Seldom = true,
    };

    /// <summary>Until when an offer holds; kept on the revision itself.</summary>
    public static readonly HeadTerm ValidUntil = new(
        "validUntil",
        "holds until",
        TermKind.Date,
        TermReading.Day(f => f.Today, f => f.Today.AddDays(MostValidDays))
    )
    {
        Only = DocumentKind.Quote,
        Needed = true,
        Paper = "holdsUntil",
    };

    /// <summary>Who of the buyer's house ordered it.</summary>
    public static readonly HeadTerm OrderedBy = new("orderedBy", "ordered by", TermKind.Text, TermReading.Words(120))
    {
        Paper = "orderedBy",
        Seldom = true,
    };

    /// <summary>The buyer's own job, place or ship that it is for.</summary>
    public static readonly HeadTerm Job = new("job", "job or place", TermKind.Text, TermReading.Words(120))
    {
        Paper = "job",
        Seldom = true,
    };

    /// <summary>When the goods are wanted.</summary>
    public static readonly HeadTerm Wanted = new(
        "wanted",
        "wanted",
        TermKind.Date,
        TermReading.Day(f => f.Today.AddYears(-1), f => f.Today.AddYears(3))
    );

    /// <summary>
    /// Days net, or a plan as <see cref="PaymentPlan"/> writes it; what is beyond the buyer's own is a figure that is
    /// judged.
    /// </summary>
    public static readonly HeadTerm PaymentDays = new("paymentDays", "days to pay", TermKind.Days, PlanOf)
    {
        FromBuyer = b => b.PaymentDays is { } days ? b.PaymentPlan ?? Canonical(days) : null,
        Paper = "payment",
        PaperValue = "daysNet",
        Say = text => text.All(char.IsAsciiDigit) ? $"{text} days" : text,
    };

    /// <summary>
    /// Incoterms 2020. Delivered duty paid makes the house pay the duty, so it is only for buyers who have it by
    /// default.
    /// </summary>
    public static readonly HeadTerm Incoterm = new("incoterm", "Incoterm", TermKind.Choice, IncotermOf)
    {
        FromBuyer = b => b.Incoterm,
        Choices = f => f.Incoterms.Select(t => new TermChoice(t, t)),
    };

    /// <summary>The named place of the Incoterm.</summary>
    public static readonly HeadTerm IncotermPlace = new("incotermPlace", "place", TermKind.Text, TermReading.Words(120))
    {
        FromBuyer = b => b.IncotermPlace,
    };

    /// <summary>Where the goods go: one of the buyer's addresses.</summary>
    public static readonly HeadTerm DeliverTo = new(
        "deliverTo",
        "deliver to",
        TermKind.Choice,
        TermReading.Place("deliver-to")
    )
    {
        FromBuyer = b => b.DeliverTo,
        Choices = TermReading.Places("deliver-to"),
        Paper = "deliverTo",
    };

    /// <summary>The country of the deliver-to: tax and freight hang on it.</summary>
    public static readonly HeadTerm DeliverToCountry = new("deliverToCountry", "country", TermKind.Text, CountryOf)
    {
        FromBuyer = b => b.DeliverToCountry,
        Stands = StandsOnce.Begun,
    };

    /// <summary>Who pays, where it is not the buyer's own address.</summary>
    public static readonly HeadTerm BillTo = new("billTo", "invoice to", TermKind.Choice, TermReading.Place("bill-to"))
    {
        FromBuyer = b => b.BillTo,
        Choices = TermReading.Places("bill-to"),
        Paper = "invoiceTo",
        Seldom = true,
    };

    /// <summary>The warehouse that it leaves from.</summary>
    public static readonly HeadTerm ShipFrom = new(
        "shipFrom",
        "ship from",
        TermKind.Choice,
        TermReading.OneOf(f => f.Warehouses, "our warehouses", "warehouse")
    )
    {
        FromBuyer = b => b.ShipFrom,
        Choices = f => f.Warehouses.Select(w => new TermChoice(w, w)),
    };

    /// <summary>How its lines go out.</summary>
    public static readonly HeadTerm ShippingRule = new(
        "shippingRule",
        "shipped",
        TermKind.Choice,
        TermReading.OneOf(_ => ShippingRules.Words, "the ways to ship", "shipping_rule")
    )
    {
        FromBuyer = b => b.ShippingRule,
        Choices = _ => ShippingRules.Words.Select(w => new TermChoice(w, w)),
        Paper = "shipped",
        PaperValue = "rule.",
    };

    /// <summary>How documents go out to them.</summary>
    public static readonly HeadTerm By = new(
        "documentsBy",
        "documents by",
        TermKind.Choice,
        TermReading.OneOf(_ => DocumentsBy.All, "the ways out", "documents_by")
    )
    {
        FromBuyer = b => b.DocumentsBy,
        Choices = _ => DocumentsBy.All.Select(w => new TermChoice(w, w)),
    };

    /// <summary>Language of the document and its letter, ISO 639-1.</summary>
    public static readonly HeadTerm Language = new(
        "language",
        "in",
        TermKind.Choice,
        TermReading.OneOf(
            f => f.Languages.Select(l => l.Value),
            "the languages that documents are written in",
            "language"
        )
    )
    {
        FromBuyer = b => b.Language,
        Choices = f => f.Languages,
        Needed = true,
    };

    /// <summary>The freight service; nothing said: the cheapest.</summary>
    public static readonly HeadTerm FreightService = new(
        "freightService",
        "service",
        TermKind.Choice,
        TermReading.OneOf(f => f.Book.FreightBands.Select(b => b.Service).Distinct(), "our freight services", "service")
    )
    {
        Choices = f => f.Book.FreightBands.Select(b => b.Service).Distinct().Select(s => new TermChoice(s, s)),
        Seldom = true,
        Stands = StandsOnce.Billed,
    };

    /// <summary>
    /// Freight by hand; nothing said: worked out by the table. What is under the table is a figure that is judged.
    /// </summary>
    public static readonly HeadTerm Freight = new(
        "freight",
        "freight",
        TermKind.Amount,
        TermReading.Amount(MostFreight)
    )
    {
        Stands = StandsOnce.Billed,
    };

    /// <summary>The insurance premium by hand; nothing said: worked out.</summary>
    public static readonly HeadTerm Insurance = new(
        "insurance",
        "insurance",
        TermKind.Amount,
        TermReading.Amount(MostFreight)
    )
    {
        Seldom = true,
        Stands = StandsOnce.Billed,
    };

    /// <summary>A percentage off all lines, or an amount with the sheet's currency behind it.</summary>
    public static readonly HeadTerm SheetDiscount = new("sheetDiscount", "less on all", TermKind.Discount, DiscountOf)
    {
        Elsewhere = true,
        Stands = StandsOnce.Billed,
        Say = text => text.Contains(' ', StringComparison.Ordinal) ? text : $"{text} %",
    };

    /// <summary>Printed on the document.</summary>
    public static readonly HeadTerm Note = new("note", "note", TermKind.LongText, TermReading.Words(500))
    {
        FromBuyer = b => b.PrintedNote,
        Elsewhere = true,
    };

    /// <summary>What the whole is about; kept on the dossier.</summary>
    public static readonly HeadTerm Matter = new("matter", "matter", TermKind.Text, TermReading.Words(500))
    {
        Elsewhere = true,
    };

    /// <summary>All of them, in the order in which they are shown.</summary>
    public static readonly ImmutableArray<HeadTerm> All =
    [
        PoNumber,
        Kind,
        ValidUntil,
        Wanted,
        KeptBack,
        FreeWhy,
        Release,
        OrderedBy,
        Job,
        Department,
        LeadSource,
        Campaign,
        Territory,
        Licence,
        PaymentDays,
        Incoterm,
        IncotermPlace,
        DeliverTo,
        DeliverToCountry,
        BillTo,
        ShipFrom,
        ShippingRule,
        By,
        Language,
        FreightService,
        Freight,
        Insurance,
        ForWarehouse,
        Inner,
        SheetDiscount,
        Note,
        Matter,
    ];

    /// <summary>The term of that name; null where there is none.</summary>
    public static HeadTerm? Find(string name) => All.FirstOrDefault(t => t.Name == name);

    /// <summary>What a buyer has by default; nobody's hand.</summary>
    public static Head Of(Buyers.Buyer buyer)
    {
        ArgumentNullException.ThrowIfNull(buyer);
        return All.Where(t => t.FromBuyer is not null)
            .Aggregate(Head.Empty, (head, term) => head.With(term.Name, term.FromBuyer!(buyer), null));
    }
}
