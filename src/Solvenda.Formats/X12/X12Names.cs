using Solvenda.Formats.Edi;

namespace Solvenda.Formats.X12;

/// <summary>What segments are called, so that a message can be read by a person (ASC X12 segment directory).</summary>
public static class X12Names
{
    /// <summary>Segments that hold a message together, and parties that are not the buyer's.</summary>
    public static readonly string[] Frame = ["ST", "BEG", "BCH", "BQT", "CTT", "SE", "N1", "N2", "N3", "N4", "PER"];

    /// <summary>Segments of quantities, prices and amounts.</summary>
    public static readonly string[] Matters =
    [
        "QTY",
        "SLN",
        "CTP",
        "PO3",
        "SAC",
        "TXI",
        "AMT",
        "PAM",
        "PCT",
        "SCH",
        "SDQ",
        "PO4",
    ];

    private static readonly Dictionary<string, string> Names = new()
    {
        ["ISA"] = "interchange",
        ["GS"] = "group",
        ["ST"] = "message begins",
        ["BEG"] = "purchase order",
        ["BCH"] = "change of an order",
        ["BQT"] = "request for a quote",
        ["BIG"] = "invoice",
        ["BSN"] = "shipping notice",
        ["BAK"] = "acknowledgement",
        ["POC"] = "line changed",
        ["IT1"] = "line invoiced",
        ["TDS"] = "total",
        ["AMT"] = "amount",
        ["N9"] = "reference",
        ["NTE"] = "note",
        ["TD5"] = "carrier",
        ["PO4"] = "packing",
        ["AK1"] = "group acknowledged",
        ["AK9"] = "group's result",
        ["CUR"] = "currency",
        ["REF"] = "reference",
        ["PER"] = "contact",
        ["FOB"] = "delivery terms",
        ["ITD"] = "payment terms",
        ["DTM"] = "date",
        ["SAC"] = "charge or allowance",
        ["N1"] = "party",
        ["N2"] = "name",
        ["N3"] = "street",
        ["N4"] = "town",
        ["PO1"] = "line",
        ["PID"] = "description",
        ["CTT"] = "totals",
        ["SE"] = "message ends",
        ["GE"] = "group ends",
        ["IEA"] = "interchange ends",
        ["MSG"] = "note",
        ["SCH"] = "schedule",
        ["SDQ"] = "split quantities",
    };

    private static readonly Dictionary<string, string> Parties = new()
    {
        ["BT"] = "bill to",
        ["ST"] = "ship to",
        ["BY"] = "buyer",
        ["SE"] = "seller",
    };

    private static readonly Dictionary<string, string> Sets = new()
    {
        ["810"] = "invoice",
        ["820"] = "payment order",
        ["824"] = "application advice",
        ["830"] = "planning schedule",
        ["832"] = "price catalogue",
        ["840"] = "request for quotation",
        ["843"] = "response to a request for quotation",
        ["846"] = "inventory advice",
        ["850"] = "purchase order",
        ["855"] = "purchase order acknowledgement",
        ["856"] = "shipping notice",
        ["860"] = "purchase order change",
        ["862"] = "shipping schedule",
        ["865"] = "change acknowledgement",
        ["867"] = "product transfer",
        ["870"] = "order status",
        ["940"] = "warehouse order",
        ["945"] = "warehouse advice",
        ["997"] = "functional acknowledgement",
    };

    /// <summary>What a transaction set is called; empty where it is not in the list.</summary>
    public static string OfSet(string set) => Sets.GetValueOrDefault(set, "");

    /// <summary>The name; a party says which. Empty where the segment is not in the list.</summary>
    public static string Of(Segment segment)
    {
        ArgumentNullException.ThrowIfNull(segment);
        return segment.Tag == "N1" && Parties.TryGetValue(segment[1], out var party)
            ? party
            : Names.GetValueOrDefault(segment.Tag, "");
    }
}
