namespace Solvenda.Formats.X12;

/// <summary>What segments are called, so that a message can be read by a person (ASC X12 segment directory).</summary>
public static class SegmentNames
{
    private static readonly Dictionary<string, string> Names = new()
    {
        ["ISA"] = "interchange",
        ["GS"] = "group",
        ["ST"] = "message begins",
        ["BEG"] = "purchase order",
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

    private static readonly Dictionary<string, string> Parties = new() { ["BT"] = "bill to", ["ST"] = "ship to", ["BY"] = "buyer", ["SE"] = "seller" };

    /// <summary>The name; a party says which. Empty where the segment is not in the list.</summary>
    public static string Of(Segment segment)
    {
        ArgumentNullException.ThrowIfNull(segment);
        return segment.Tag == "N1" && Parties.TryGetValue(segment[1], out var party) ? party : Names.GetValueOrDefault(segment.Tag, "");
    }
}
