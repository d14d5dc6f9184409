using Solvenda.Formats.Edi;

namespace Solvenda.Formats.Edifact;

/// <summary>
/// What segments and messages are called, so that one can be read by a person (UN/EDIFACT directory D.96A).
/// </summary>
public static class EdifactNames
{
    /// <summary>Segments that hold a message together, and parties that are not the buyer's.</summary>
    public static readonly string[] Frame =
    [
        "UNH",
        "BGM",
        "UNS",
        "CNT",
        "UNT",
        "NAD",
        "CTA",
        "COM",
        "LIN",
        "SCC",
        "TOD",
        "CUX",
    ];

    /// <summary>Segments of quantities, prices and amounts.</summary>
    public static readonly string[] Matters = ["QTY", "QVR", "PRI", "ALC", "MOA", "PCD", "TAX", "RNG", "APR"];

    private static readonly Dictionary<string, string> Names = new()
    {
        ["UNA"] = "service characters",
        ["UNB"] = "interchange",
        ["UNG"] = "group",
        ["UNH"] = "message begins",
        ["BGM"] = "document",
        ["DTM"] = "date",
        ["FTX"] = "note",
        ["RFF"] = "reference",
        ["NAD"] = "party",
        ["CTA"] = "contact",
        ["COM"] = "reached by",
        ["CUX"] = "currency",
        ["PAT"] = "payment terms",
        ["TOD"] = "delivery terms",
        ["LOC"] = "place",
        ["ALC"] = "charge or allowance",
        ["MOA"] = "amount",
        ["PCD"] = "percentage",
        ["LIN"] = "line",
        ["PIA"] = "other codes",
        ["IMD"] = "description",
        ["QTY"] = "quantity",
        ["PRI"] = "price",
        ["SCC"] = "schedule",
        ["PAC"] = "packing",
        ["MEA"] = "measure",
        ["TAX"] = "tax",
        ["UNS"] = "lines end",
        ["CNT"] = "totals",
        ["UNT"] = "message ends",
        ["UNE"] = "group ends",
        ["UNZ"] = "interchange ends",
        ["TDT"] = "transport",
        ["GIN"] = "numbers",
        ["UCI"] = "interchange answered",
        ["UCM"] = "message answered",
    };

    private static readonly Dictionary<string, string> Parties = new()
    {
        ["BY"] = "buyer",
        ["DP"] = "deliver to",
        ["IV"] = "invoice to",
        ["SU"] = "supplier",
        ["SE"] = "seller",
        ["ST"] = "ship to",
        ["UC"] = "ultimate consignee",
        ["CN"] = "consignee",
    };

    private static readonly Dictionary<string, string> Messages = new()
    {
        ["APERAK"] = "application error",
        ["CONTRL"] = "syntax report",
        ["DELFOR"] = "delivery schedule",
        ["DELJIT"] = "delivery just in time",
        ["DESADV"] = "despatch advice",
        ["INVOIC"] = "invoice",
        ["INVRPT"] = "inventory report",
        ["ORDCHG"] = "order change",
        ["ORDERS"] = "purchase order",
        ["ORDRSP"] = "order response",
        ["OSTENQ"] = "order status enquiry",
        ["OSTRPT"] = "order status report",
        ["PARTIN"] = "party information",
        ["PRICAT"] = "price catalogue",
        ["QUOTES"] = "quote",
        ["RECADV"] = "receiving advice",
        ["REMADV"] = "remittance advice",
        ["REQOTE"] = "request for quote",
        ["SLSRPT"] = "sales report",
    };

    public static string OfMessage(string type) => Messages.GetValueOrDefault(type, "");

    /// <summary>The name; a party says which. Empty where the segment is not in the list.</summary>
    public static string Of(Segment segment)
    {
        ArgumentNullException.ThrowIfNull(segment);
        return segment.Tag == "NAD" && Parties.TryGetValue(segment[1, 1], out var party)
            ? party
            : Names.GetValueOrDefault(segment.Tag, "");
    }
}
