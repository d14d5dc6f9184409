using System.Collections.Immutable;
using System.Globalization;
using System.Xml.Linq;
using Solvenda.Core.Reading;

namespace Solvenda.Formats.Ubl;

/// <summary>
/// What of a UBL document no value was taken from: quantities, prices and percentages are left over until a person has
/// seen them; the rest is listed with the reason.
/// </summary>
internal static class UblRest
{
    private const int Most = 200;

    // Leaves that are read, or that hold the document together, by the element around them.
    private static readonly HashSet<string> Known =
    [
        "*/UBLVersionID",
        "*/CustomizationID",
        "*/ProfileID",
        "*/ProfileExecutionID",
        "*/ID",
        "*/UUID",
        "*/CopyIndicator",
        "*/SequenceNumberID",
        "*/IssueDate",
        "*/IssueTime",
        "*/OrderTypeCode",
        "*/Note",
        "*/DocumentCurrencyCode",
        "*/PricingCurrencyCode",
        "*/LineStatusCode",
        "*/Name",
        "*/Description",
        "*/EndpointID",
        "*/RegistrationName",
        "*/CompanyID",
        "*/ElectronicMail",
        "*/Telephone",
        "*/StreetName",
        "*/AdditionalStreetName",
        "*/CityName",
        "*/PostalZone",
        "*/IdentificationCode",
        "*/CountrySubentity",
        "*/DurationMeasure",
        "*/StartDate",
        "*/EndDate",
        "*/RequestedDeliveryDate",
        "*/LatestDeliveryDate",
        "LineItem/Quantity",
        "RequestForQuotationLine/Quantity",
        "LineItem/LineExtensionAmount",
        "AnticipatedMonetaryTotal/LineExtensionAmount",
        "Price/PriceAmount",
        "Price/BaseQuantity",
        "AllowanceCharge/ChargeIndicator",
        "AllowanceCharge/AllowanceChargeReason",
        "AllowanceCharge/AllowanceChargeReasonCode",
        "AllowanceCharge/Amount",
        // How the amount beside it came about.
        "AllowanceCharge/MultiplierFactorNumeric",
        "AllowanceCharge/BaseAmount",
        "TaxScheme/ID",
    ];

    // Tax, and totals with it, are worked out anew; they are compared nowhere.
    private static readonly string[] Ours =
    [
        "TaxTotal",
        "TaxSubtotal",
        "AnticipatedMonetaryTotal",
        "ClassifiedTaxCategory",
        "TaxCategory",
    ];

    // Whoever is not the buyer, and where it goes, is looked at elsewhere or is us.
    private static readonly string[] Parties = ["SellerSupplierParty", "Party", "Signature", "DeliveryLocation"];

    public static OrderDocument With(OrderDocument document, XElement root, Func<XElement, Evidence> where)
    {
        var overs = ImmutableArray.CreateBuilder<LeftOver>();
        var unused = ImmutableArray.CreateBuilder<Unused>();
        foreach (var leaf in root.Descendants().Where(e => !e.HasElements && e.Value.Trim().Length > 0))
        {
            var (name, around) = (leaf.Name.LocalName, leaf.Parent!.Name.LocalName);
            if (Known.Contains($"{around}/{name}") || Known.Contains($"*/{name}"))
                continue;
            if (leaf.Ancestors().Any(a => Parties.Contains(a.Name.LocalName)))
                continue;
            if (overs.Count + unused.Count >= Most)
            {
                unused.Add(
                    new Unused(
                        name,
                        string.Create(CultureInfo.InvariantCulture, $"and more: {Most:#,0} are listed"),
                        where(leaf)
                    )
                );
                break;
            }
            var words = $"{around}/{name} {leaf.Value.Trim()}";
            if (leaf.Ancestors().Any(a => Ours.Contains(a.Name.LocalName)))
                unused.Add(new Unused(words, "tax and totals with it are worked out by us", where(leaf)));
            else if (
                name.EndsWith("Quantity", StringComparison.Ordinal)
                || name.EndsWith("Amount", StringComparison.Ordinal)
                || name.EndsWith("Percent", StringComparison.Ordinal)
            )
                overs.Add(new LeftOver(words, where(leaf), "No value was read from it."));
            else
                unused.Add(new Unused(words, "nothing here uses it", where(leaf)));
        }
        return document with
        {
            LeftOvers = [.. document.LeftOvers, .. overs],
            Unused = [.. document.Unused, .. unused],
        };
    }
}
