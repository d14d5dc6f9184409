using System.Collections.Frozen;

namespace Solvenda.Core.Units;

/// <summary>
/// What codes of UN/ECE Recommendation 20 (units) and 21 (packings) are called that nothing of ours is sold by: a
/// person who is asked about one sees words. Codes that are not met in orders of goods are left out.
/// </summary>
public static class UnitCodes
{
    private static readonly FrozenDictionary<string, string> Names = new Dictionary<string, string>
    {
        // Counts.
        ["CEN"] = "hundred",
        ["DPC"] = "dozen pieces",
        ["DPR"] = "dozen pairs",
        ["DZN"] = "dozen",
        ["DZP"] = "dozen packs",
        ["GRO"] = "gross",
        ["MIL"] = "thousand",
        ["NAR"] = "articles",
        ["NPR"] = "pairs",
        ["PR"] = "pair",
        ["SET"] = "set",
        ["T3"] = "thousand pieces",
        // Lengths and areas.
        ["CMK"] = "square centimetre",
        ["CMT"] = "centimetre",
        ["DMT"] = "decimetre",
        ["FTK"] = "square foot",
        ["INH"] = "inch",
        ["INK"] = "square inch",
        ["KMT"] = "kilometre",
        ["MMK"] = "square millimetre",
        ["MMT"] = "millimetre",
        ["YDK"] = "square yard",
        ["YRD"] = "yard",
        // Masses and volumes.
        ["BLL"] = "barrel",
        ["CLT"] = "centilitre",
        ["CMQ"] = "cubic centimetre",
        ["DMQ"] = "cubic decimetre",
        ["FTQ"] = "cubic foot",
        ["GLI"] = "gallon (UK)",
        ["GLL"] = "gallon (US)",
        ["GRM"] = "gram",
        ["HLT"] = "hectolitre",
        ["LBR"] = "pound",
        ["LTN"] = "ton (UK)",
        ["MGM"] = "milligram",
        ["MLT"] = "millilitre",
        ["MTQ"] = "cubic metre",
        ["ONZ"] = "ounce",
        ["STN"] = "ton (US)",
        ["TNE"] = "tonne",
        // Time and services.
        ["DAY"] = "day",
        ["E48"] = "service unit",
        ["HUR"] = "hour",
        ["LS"] = "lump sum",
        ["MIN"] = "minute",
        ["MON"] = "month",
        ["WEE"] = "week",
        ["ANN"] = "year",
        // Packings.
        ["BE"] = "bundle",
        ["BG"] = "bag",
        ["BK"] = "basket",
        ["BO"] = "bottle",
        ["BR"] = "bar",
        ["CA"] = "can",
        ["CR"] = "crate",
        ["CS"] = "case",
        ["CT"] = "carton",
        ["CY"] = "cylinder",
        ["DR"] = "drum",
        ["EN"] = "envelope",
        ["JR"] = "jar",
        ["KG"] = "keg",
        ["PA"] = "packet",
        ["PK"] = "package",
        ["PO"] = "pouch",
        ["PX"] = "pallet",
        ["RK"] = "rack",
        ["SA"] = "sack",
        ["SO"] = "spool",
        ["TB"] = "tub",
        ["TU"] = "tube",
        ["TY"] = "tank",
    }.ToFrozenDictionary();

    private static readonly FrozenDictionary<string, decimal> Pieces = new Dictionary<string, decimal>
    {
        ["CEN"] = 100m,
        ["DPC"] = 12m,
        ["DZN"] = 12m,
        ["GRO"] = 144m,
        ["MIL"] = 1_000m,
        ["T3"] = 1_000m,
    }.ToFrozenDictionary();

    /// <summary>
    /// A packing code of Rec 21 as Rec 20 writes it, with an X in front ("XCT"), without that; any other as it is.
    /// </summary>
    public static string Bare(string code)
    {
        ArgumentNullException.ThrowIfNull(code);
        var plain = code.Trim().ToUpperInvariant();
        return plain is ['X', _, _] ? plain[1..] : plain;
    }

    /// <summary>What it is called; null for a code that is not here.</summary>
    public static string? NameOf(string code) => Names.GetValueOrDefault(Bare(code));

    /// <summary>How many pieces it counts; 0 for a code that counts something else.</summary>
    public static decimal PiecesOf(string code) => Pieces.GetValueOrDefault(Bare(code));
}
