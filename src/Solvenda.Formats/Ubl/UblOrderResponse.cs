using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;
using Solvenda.Core.Ordering;

namespace Solvenda.Formats.Ubl;

/// <summary>
/// Answers a UBL Order by an OrderResponse (OASIS UBL 2.1, codes as in Peppol BIS Ordering 3): each line accepted,
/// changed or added, with its price and the day on which it is ready, in the buyer's own units.
/// </summary>
internal sealed class UblOrderResponse : IOrderAnswer
{
    private static readonly XNamespace Own = UblOrders.Schema + "OrderResponse-2";
    private static readonly XNamespace Cbc = UblOrders.Basic;
    private static readonly XNamespace Cac = UblOrders.Aggregate;

    public Syntax Answers => Syntax.Xml;

    public WrittenMessage? Write(ConfirmedOrder order, string original, int control, DateTime at)
    {
        if (Load(original) is not { } theirs)
            return null;
        var lines = order.Lines.Select(l => (Line: l, Answer: AnsweredLine.Of(l))).ToList();
        var ordered = theirs
            .Elements(Cac + "OrderLine")
            .Select(l => l.Element(Cac + "LineItem"))
            .OfType<XElement>()
            .ToList();
        var asOrdered = lines.TrueForAll(l => l.Answer.AsOrdered) && lines.Count == ordered.Count;
        var root = new XElement(
            Own + "OrderResponse",
            new XAttribute(XNamespace.Xmlns + "cbc", Cbc.NamespaceName),
            new XAttribute(XNamespace.Xmlns + "cac", Cac.NamespaceName),
            new XElement(Cbc + "ID", order.Number),
            new XElement(Cbc + "IssueDate", Day(DateOnly.FromDateTime(at))),
            // AP accepted, CA accepted with changes.
            new XElement(Cbc + "OrderResponseCode", asOrdered ? "AP" : "CA"),
            new XElement(Cbc + "DocumentCurrencyCode", order.Currency),
            new XElement(
                Cac + "OrderReference",
                new XElement(Cbc + "ID", theirs.Element(Cbc + "ID")?.Value ?? order.PoNumber)
            ),
            // Parties go back as they came.
            theirs.Element(Cac + "SellerSupplierParty"),
            theirs.Element(Cac + "BuyerCustomerParty"),
            lines.Select(
                (l, i) =>
                    LineOf(
                        l.Line,
                        l.Answer,
                        order.Currency,
                        TheirsOf(ordered, l.Line, lines.Count == ordered.Count ? i : null),
                        i
                    )
            ),
            Refused(ordered, [.. lines.Select(l => l.Line)]).Select(RefusedLine)
        );
        var to = BuyerIn(theirs);
        using var bytes = new MemoryStream();
        using (
            var writer = XmlWriter.Create(
                bytes,
                new XmlWriterSettings { Indent = true, Encoding = new UTF8Encoding(false) }
            )
        )
            new XDocument(root).Save(writer);
        var again = order.Version == 0 ? "" : FormattableString.Invariant($"-{order.Version}");
        return new WrittenMessage($"OrderResponse-{order.Number}{again}.xml", to, bytes.ToArray());
    }

    /// <summary>Where the buyer of an order is reached; null where it cannot be opened any more.</summary>
    internal static string? BuyerIn(string original) => Load(original) is { } theirs ? BuyerIn(theirs) : null;

    private static string BuyerIn(XElement theirs) =>
        theirs
            .Element(Cac + "BuyerCustomerParty")
            ?.Descendants(Cbc + "EndpointID")
            .Select(e => e.Value)
            .FirstOrDefault()
        ?? "";

    private static XElement LineOf(
        ConfirmedOrderLine confirmed,
        AnsweredLine answer,
        string currency,
        string? theirs,
        int place
    )
    {
        var (line, asked) = (confirmed.Line, confirmed.Line.Line.Asked);
        XElement? Code(string name, string? code) =>
            code is { Length: > 0 } ? new XElement(Cac + name, new XElement(Cbc + "ID", code)) : null;
        return new XElement(
            Cac + "OrderLine",
            new XElement(
                Cac + "LineItem",
                new XElement(Cbc + "ID", theirs ?? $"added-{place + 1}"),
                // UN/ECE 1229: 1 added, 3 changed, 5 accepted without amendment.
                new XElement(
                    Cbc + "LineStatusCode",
                    !answer.IsTheirs ? "1"
                        : answer.AsOrdered ? "5"
                        : "3"
                ),
                new XElement(
                    Cbc + "Quantity",
                    new XAttribute("unitCode", UblUnits.Of(answer.Unit.Code)),
                    Number(answer.Quantity)
                ),
                answer.Ready is { } ready
                    ? new XElement(
                        Cac + "Delivery",
                        new XElement(
                            Cac + "PromisedDeliveryPeriod",
                            new XElement(Cbc + "StartDate", Day(ready)),
                            new XElement(Cbc + "EndDate", Day(ready))
                        )
                    )
                    : null,
                new XElement(
                    Cac + "Price",
                    new XElement(Cbc + "PriceAmount", new XAttribute("currencyID", currency), Number(answer.Price)),
                    new XElement(
                        Cbc + "BaseQuantity",
                        new XAttribute("unitCode", UblUnits.Of(answer.Unit.Code)),
                        Number(answer.PriceBase)
                    )
                ),
                new XElement(
                    Cac + "Item",
                    new XElement(Cbc + "Name", line.Line.Words),
                    Code("BuyersItemIdentification", asked.Code == line.Item?.Code ? null : asked.Code),
                    Code("SellersItemIdentification", line.Item?.Code)
                )
            )
        );
    }

    // What they ordered and nobody confirms; known where all of it goes by codes.
    private static IEnumerable<XElement> Refused(List<XElement> ordered, List<ConfirmedOrderLine> lines) =>
        ordered.Where(o =>
            lines.Count < ordered.Count
            && lines.TrueForAll(l => l.Line.Line.Asked.Code is null || TheirsOf([o], l, null) is null)
        );

    // UN/ECE 1229: 7 not accepted.
    private static XElement RefusedLine(XElement theirs) =>
        new(
            Cac + "OrderLine",
            new XElement(
                Cac + "LineItem",
                theirs.Element(Cbc + "ID"),
                new XElement(Cbc + "LineStatusCode", "7"),
                theirs.Element(Cbc + "Quantity"),
                theirs.Element(Cac + "Item")
            )
        );

    // By the code that they wrote; else by its place, as long as there are as many.
    private static string? TheirsOf(List<XElement> ordered, ConfirmedOrderLine line, int? place) =>
        (
            ordered.Find(o =>
                line.Line.Line.Asked.Code is { } code
                && o.Element(Cac + "Item")?.Descendants(Cbc + "ID").Any(id => id.Value.Trim() == code) == true
            ) ?? (place is { } at ? ordered[at] : null)
        )
            ?.Element(Cbc + "ID")
            ?.Value;

    private static XElement? Load(string original)
    {
        try
        {
            var root = UblOrders.Load(UblOrders.Decode(Encoding.Latin1.GetBytes(original)));
            return root.Name.LocalName == "Order" ? root : null;
        }
        catch (XmlException)
        {
            return null;
        }
    }

    private static string Number(decimal number) => number.ToString("0.####", CultureInfo.InvariantCulture);

    private static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}
