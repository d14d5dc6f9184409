using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Ubl;

/// <summary>
/// Reads UBL 2.x Order, OrderChange and RequestForQuotation (OASIS UBL 2.0 to 2.4). Tolerant of profiles, prefixes and
/// what is not known; strict about namespaces and money.
/// No DTD, no external entities, no resolver.
/// </summary>
public sealed class UblOrders
{
    internal const string Schema = "urn:oasis:names:specification:ubl:schema:xsd:";

    // A document of more is not an order; depth is bounded, since a reader recurses.
    private const long MostCharacters = 20_000_000;
    private const int Deepest = 100;

    internal static readonly XNamespace Basic = Schema + "CommonBasicComponents-2";
    internal static readonly XNamespace Aggregate = Schema + "CommonAggregateComponents-2";

    private static readonly Dictionary<string, MessageKind> Kinds = new()
    {
        ["Order"] = MessageKind.Order,
        ["OrderChange"] = MessageKind.Change,
        ["OrderCancellation"] = MessageKind.Cancellation,
        ["RequestForQuotation"] = MessageKind.RequestForQuotation,
    };

    private readonly string _text;
    private readonly int[] _lineStarts;
    private readonly List<string> _warnings = [];

    private UblOrders(string text)
    {
        _text = text;
        _lineStarts = [0, .. text.Select((c, i) => (c, i)).Where(x => x.c == '\n').Select(x => x.i + 1)];
    }

    public static Incoming Read(byte[] raw)
    {
        ArgumentNullException.ThrowIfNull(raw);
        var text = Decode(raw);
        var part = new OriginalPart("the document", PartKind.Xml, text);
        XElement root;
        try
        {
            root = Load(text);
        }
        catch (XmlException e)
        {
            return new Incoming("", "XML", [part])
            {
                Problem = e.Message.Contains("DTD", StringComparison.Ordinal)
                    ? "The document brings a document type of its own, which is never followed."
                    : $"The XML is not well formed: {e.Message}",
            };
        }
        if (
            root.Name.NamespaceName != Schema + root.Name.LocalName + "-2"
            || !Kinds.TryGetValue(root.Name.LocalName, out var kind)
        )
        {
            var known = root.Name.NamespaceName.StartsWith(Schema, StringComparison.Ordinal);
            return new Incoming("", $"XML {root.Name.LocalName}", [part])
            {
                Problem = known
                    ? $"A UBL {root.Name.LocalName} is not one that becomes a request; it is kept and shown."
                    : $"The document is a {root.Name.LocalName}{(root.Name.NamespaceName.Length > 0 ? $" of {root.Name.NamespaceName}" : " without a namespace")}, not a UBL order.",
            };
        }
        var reader = new UblOrders(text);
        var document = reader.Read(root, kind);
        var from = document.Clues.FirstOrDefault(c => c.Kind == "name")?.Value ?? "";
        var id = document.PoNumber?.Value ?? "";
        if (document.Lines.IsEmpty && kind != MessageKind.Cancellation)
            return new Incoming(from, $"UBL {root.Name.LocalName} {id}", [part])
            {
                Problem = "The document has no lines.",
            };
        return new Incoming(from, $"UBL {root.Name.LocalName} {id}", [part])
        {
            OwnId = id.Length > 0 ? $"ubl:{from}:{root.Name.LocalName}:{id}:{Value(root, "IssueDate")}" : null,
            Document = document,
        };
    }

    // By its byte order mark, else by what the declaration says, else UTF-8.
    internal static string Decode(byte[] raw)
    {
        var head = Encoding.Latin1.GetString(raw, 0, Math.Min(raw.Length, 200));
        var declared = head.Contains("encoding=", StringComparison.OrdinalIgnoreCase)
            ? head.Split("encoding=")[1].TrimStart('"', '\'').Split('"', '\'')[0]
            : "utf-8";
        Encoding encoding;
        try
        {
            encoding =
                raw is [0xFF, 0xFE, ..] ? Encoding.Unicode
                : raw is [0xFE, 0xFF, ..] ? Encoding.BigEndianUnicode
                : Encoding.GetEncoding(declared);
        }
        catch (ArgumentException)
        {
            encoding = Encoding.UTF8;
        }
        return encoding.GetString(raw).TrimStart('\uFEFF');
    }

    internal static XElement Load(string text)
    {
        using (var depth = Open(text))
        {
            while (depth.Read())
            {
                if (depth.Depth > Deepest)
                    throw new XmlException($"it is nested deeper than {Deepest}");
            }
        }
        using var reader = Open(text);
        return XElement.Load(reader, LoadOptions.SetLineInfo);
    }

    private static XmlReader Open(string text) =>
        XmlReader.Create(
            new StringReader(text),
            new XmlReaderSettings
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = MostCharacters,
                MaxCharactersFromEntities = 1_000,
            }
        );

    private OrderDocument Read(XElement root, MessageKind kind)
    {
        var change = kind is MessageKind.Change or MessageKind.Cancellation;
        var buyer = Under(root, "BuyerCustomerParty", "Party") ?? Under(root, "OriginatorCustomerParty", "Party");
        var delivery = root.Element(Aggregate + "Delivery");
        var terms = root.Element(Aggregate + "DeliveryTerms");
        var totals = root.Element(Aggregate + "AnticipatedMonetaryTotal");
        var lines = root.Elements(Aggregate + "OrderLine")
            .Concat(root.Elements(Aggregate + "RequestForQuotationLine"))
            .Select(Line)
            .ToImmutableArray();
        var (deliverTo, country) = DeliverTo(delivery);
        var document = new OrderDocument(kind, lines)
        {
            Clues = Clues(buyer),
            Contact = Text(Under(buyer, "Contact"), "Name"),
            // A change carries an id of its own; the order that it changes is the one that counts.
            PoNumber = (change ? Text(root.Element(Aggregate + "OrderReference"), "ID") : null) ?? Text(root, "ID"),
            QuoteNumber = Text(root.Element(Aggregate + "QuotationDocumentReference"), "ID"),
            Written = Date(root, "IssueDate")?.Value,
            Wanted = Period(delivery),
            DeliverTo = deliverTo,
            DeliverToCountry = country,
            Incoterm = Text(terms, "ID"),
            IncotermPlace =
                Text(Under(terms, "DeliveryLocation"), "ID") ?? Text(Under(terms, "DeliveryLocation"), "Description"),
            Currency = Text(root, "DocumentCurrencyCode") ?? Text(root, "PricingCurrencyCode"),
            PaymentDays = Days(root),
            Goods = Number(totals, "LineExtensionAmount"),
            Note = Text(root, "Note"),
            Charges =
            [
                .. root.Elements(Aggregate + "AllowanceCharge")
                    .Select(Charge)
                    .Where(c => c is not null)
                    .Select(c => c!.Value),
            ],
            WantedFrom = Date(Under(delivery, "RequestedDeliveryPeriod"), "StartDate")?.Value,
            Warnings = [.. _warnings],
        };
        return UblRest.With(document, root, Where);
    }

    private StatedLine Line(XElement line)
    {
        var item = line.Element(Aggregate + "LineItem") ?? line;
        var thing = item.Element(Aggregate + "Item");
        var price = item.Element(Aggregate + "Price");
        var quantity = item.Element(Basic + "Quantity");
        var @base = Number(price, "BaseQuantity");
        var gtin = Under(thing, "StandardItemIdentification")?.Element(Basic + "ID");
        return new StatedLine(
            Value(item, "ID"),
            Number(item, "Quantity"),
            (string?)quantity?.Attribute("unitCode") ?? "C62",
            Number(price, "PriceAmount"),
            @base is { Value: > 0 } b ? b.Value : 1m,
            Text(Under(thing, "BuyersItemIdentification"), "ID"),
            Text(Under(thing, "SellersItemIdentification"), "ID"),
            // 0160 is the GTIN in the list of ISO/IEC 6523 codes; where no scheme is named it is what the digits say.
            gtin is not null
            && ((string?)gtin.Attribute("schemeID") is null or "0160" or "GTIN")
                ? Text(Under(thing, "StandardItemIdentification"), "ID")
                : null,
            Value(thing, "Name") is { Length: > 0 } name ? name : Value(thing, "Description"),
            [Where(line)]
        )
        {
            Wanted = Period(item.Element(Aggregate + "Delivery")),
            Amount = Number(item, "LineExtensionAmount"),
            Allowances = item.Elements(Aggregate + "AllowanceCharge").Select(Charge).Sum(c => c?.Amount ?? 0m),
            Note = string.Join(
                "; ",
                new[] { Value(line, "Note"), Value(item, "Note"), LineStatus(item) }.Where(n => n.Length > 0)
            ),
            TakenBack = Value(item, "LineStatusCode") == "2",
        };
    }

    // LineStatusCode of a change, as in EDIFACT 1229.
    private static string LineStatus(XElement item) =>
        Value(item, "LineStatusCode") switch
        {
            "1" => "added",
            "2" => "taken back",
            "3" => "changed",
            _ => "",
        };

    private ImmutableArray<Clue> Clues(XElement? party)
    {
        var clues = ImmutableArray.CreateBuilder<Clue>();
        if (party is null)
            return [];
        foreach (
            var id in party
                .Elements(Aggregate + "PartyIdentification")
                .Select(i => i.Element(Basic + "ID"))
                .Append(party.Element(Basic + "EndpointID"))
                .OfType<XElement>()
        )
        {
            // 0088 is the GLN, in the same list.
            var scheme = (string?)id.Attribute("schemeID") ?? "";
            clues.Add(
                new Clue(
                    scheme is "0088" or "GLN" || (scheme.Length == 0 && id.Value.Trim().Length == 13)
                        ? "gln"
                        : "partner",
                    id.Value.Trim(),
                    [Where(id)]
                )
            );
        }
        foreach (
            var tax in party
                .Elements(Aggregate + "PartyTaxScheme")
                .Select(t => t.Element(Basic + "CompanyID"))
                .OfType<XElement>()
        )
            clues.Add(new Clue("tax", tax.Value.Trim(), [Where(tax)]));
        if (Text(Under(party, "Contact"), "ElectronicMail") is { } mail)
            clues.Add(new Clue("mail", mail.Value, [mail.Where]));
        if (
            (Text(Under(party, "PartyName"), "Name") ?? Text(Under(party, "PartyLegalEntity"), "RegistrationName")) is
            { } name
        )
            clues.Add(new Clue("name", name.Value, [name.Where]));
        return clues.ToImmutable();
    }

    private (Stated<string>? Words, string? Country) DeliverTo(XElement? delivery)
    {
        var location = Under(delivery, "DeliveryLocation");
        var address = Under(location, "Address") ?? delivery?.Element(Aggregate + "DeliveryAddress");
        if (address is null)
            return (null, null);
        var country = Value(Under(address, "Country"), "IdentificationCode");
        var parts = new[]
        {
            Value(location, "Name"),
            Value(address, "StreetName"),
            Value(address, "AdditionalStreetName"),
            $"{Value(address, "PostalZone")} {Value(address, "CityName")}".Trim(),
            country,
        };
        var text = string.Join(", ", parts.Where(p => p.Length > 0));
        return text.Length == 0
            ? (null, null)
            : (new Stated<string>(text, Where(address)), country.Length == 2 ? country : null);
    }

    // They want it within a period: its end is the day that must be kept.
    private Stated<DateOnly>? Period(XElement? delivery) =>
        Date(Under(delivery, "RequestedDeliveryPeriod"), "EndDate")
        ?? Date(Under(delivery, "RequestedDeliveryPeriod"), "StartDate")
        ?? Date(delivery, "RequestedDeliveryDate")
        ?? Date(delivery, "LatestDeliveryDate");

    private Stated<int>? Days(XElement root)
    {
        var measure = Under(root, "PaymentTerms")
            ?.Element(Aggregate + "SettlementPeriod")
            ?.Element(Basic + "DurationMeasure");
        return
            measure is not null
            && (string?)measure.Attribute("unitCode") is null or "DAY"
            && int.TryParse(measure.Value.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var days)
            ? new Stated<int>(days, Where(measure))
            : null;
    }

    private (string Kind, decimal Amount)? Charge(XElement charge)
    {
        if (Number(charge, "Amount") is not { } amount)
            return null;
        var reason = Value(charge, "AllowanceChargeReason");
        var kind =
            Value(charge, "AllowanceChargeReasonCode") is "FC" or "TX" ? "freight"
            : reason.Length > 0 ? reason
            : "charge";
        return (kind, Value(charge, "ChargeIndicator") == "true" ? amount.Value : -amount.Value);
    }

    private static XElement? Under(XElement? parent, params ReadOnlySpan<string> path)
    {
        foreach (var name in path)
            parent = parent?.Element(Aggregate + name);
        return parent;
    }

    private static string Value(XElement? parent, string name) => parent?.Element(Basic + name)?.Value.Trim() ?? "";

    private Stated<string>? Text(XElement? parent, string name) =>
        parent?.Element(Basic + name) is { } e && e.Value.Trim() is { Length: > 0 } text
            ? new Stated<string>(text, Where(e))
            : null;

    // xsd:decimal: a point, no thousands, no exponent. Anything else is no number, and says so.
    private Stated<decimal>? Number(XElement? parent, string name)
    {
        if (parent?.Element(Basic + name) is not { } e)
            return null;
        var text = e.Value.Trim();
        if (
            text.Length <= 28
            && decimal.TryParse(
                text,
                NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint,
                CultureInfo.InvariantCulture,
                out var number
            )
        )
            return new Stated<decimal>(number, Where(e));
        _warnings.Add($"“{text}” is not an amount ({name}, line {((IXmlLineInfo)e).LineNumber}); it was left aside.");
        return null;
    }

    private Stated<DateOnly>? Date(XElement? parent, string name)
    {
        if (parent?.Element(Basic + name) is not { } e)
            return null;
        // xsd:date may carry a zone, which is no part of the day.
        if (
            e.Value.Trim() is { Length: >= 10 } text
            && DateOnly.TryParseExact(
                text.AsSpan(0, 10),
                "yyyy-MM-dd",
                CultureInfo.InvariantCulture,
                DateTimeStyles.None,
                out var day
            )
        )
            return new Stated<DateOnly>(day, Where(e));
        _warnings.Add($"“{e.Value.Trim()}” is not a date ({name}).");
        return null;
    }

    // From the element's name to the end of its closing tag, as it stands in the text.
    private Evidence Where(XElement element)
    {
        var info = (IXmlLineInfo)element;
        if (!info.HasLineInfo() || info.LineNumber > _lineStarts.Length)
            return new Evidence(0, 0, 0);
        var start = Math.Min(_text.Length, _lineStarts[info.LineNumber - 1] + info.LinePosition - 1);
        var prefix = element.GetPrefixOfNamespace(element.Name.Namespace) is { Length: > 0 } p
            ? $"</{p}:{element.Name.LocalName}>"
            : $"</{element.Name.LocalName}>";
        var end = _text.IndexOf(prefix, start, StringComparison.Ordinal);
        start = Math.Max(0, start - 1);
        return new Evidence(0, start, (end < 0 ? Math.Min(_text.Length, start + 1) : end + prefix.Length) - start);
    }
}
