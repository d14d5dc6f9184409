using System.Collections.Immutable;

namespace Solvenda.Core.Units;

/// <summary>
/// A unit of measure by its UN/ECE Recommendation 20 code (<c>MTR</c>, <c>C62</c>), or Recommendation 21 for packages
/// (<c>CL</c>, <c>BX</c>).
/// </summary>
public readonly record struct Unit
{
    private readonly string? _code;

    private Unit(string code) => _code = code;

    /// <summary>Code of UN/ECE Recommendation 20, or 21 for packings.</summary>
    public string Code => _code ?? throw new InvalidOperationException("A unit was not set.");

    /// <summary>The unit of that code, which need not be one that the house knows.</summary>
    public static Unit Of(string code)
    {
        ArgumentException.ThrowIfNullOrWhiteSpace(code);
        return new Unit(code.Trim().ToUpperInvariant());
    }

    /// <inheritdoc />
    public override string ToString() => Code;

    /// <summary>Metres.</summary>
    public static readonly Unit Metre = new("MTR");

    /// <summary>Pieces.</summary>
    public static readonly Unit Piece = new("C62");

    /// <summary>Coils.</summary>
    public static readonly Unit Coil = new("CL");

    /// <summary>Boxes.</summary>
    public static readonly Unit Box = new("BX");

    /// <summary>Feet.</summary>
    public static readonly Unit Foot = new("FOT");

    /// <summary>Square metres.</summary>
    public static readonly Unit SquareMetre = new("MTK");

    /// <summary>Kilograms.</summary>
    public static readonly Unit Kilogram = new("KGM");

    /// <summary>Litres.</summary>
    public static readonly Unit Litre = new("LTR");

    /// <summary>Pallets.</summary>
    public static readonly Unit Pallet = new("PF");
}

/// <summary>
/// What every unit is called, which codes of other syntaxes mean it, and the fixed relations between measures.
/// </summary>
public static class UnitTable
{
    /// <summary>One row: the code, the short word on a sheet, and the words that buyers write for it.</summary>
    public sealed record Row(
        Unit Unit,
        string OnSheet,
        ImmutableArray<string> Words,
        ImmutableArray<string> OtherCodes
    );

    /// <summary>The units that the house knows.</summary>
    public static readonly ImmutableArray<Row> Rows =
    [
        new(Unit.Metre, "m", ["m", "mtr", "mtrs", "metre", "metres", "meter", "meters"], ["MR", "MTR", "LM"]),
        new(
            Unit.Piece,
            "",
            ["pc", "pcs", "piece", "pieces", "st", "stk", "ea", "each", "off", "no", "nos"],
            ["EA", "PCE", "PC", "H87", "C62"]
        ),
        new(
            Unit.Coil,
            "coil",
            ["coil", "coils", "roll", "rolls", "rulle", "rullar", "rolle", "rollen"],
            ["CL", "RO", "RL", "XCL", "XRO"]
        ),
        new(Unit.Box, "box", ["box", "boxes", "doos", "dozen boxes"], ["BX", "XBX"]),
        new(Unit.Foot, "ft", ["ft", "foot", "feet"], ["FT", "LF", "FOT"]),
        new(Unit.SquareMetre, "m²", ["m2", "m²", "sqm", "square metres"], ["MTK", "SM"]),
        new(Unit.Kilogram, "kg", ["kg", "kgs", "kilo", "kilos"], ["KGM", "KG"]),
        new(Unit.Litre, "l", ["l", "litre", "litres"], ["LTR", "LT"]),
        new(Unit.Pallet, "pallet", ["pallet", "pallets"], ["PF", "PL", "PX", "XPX"]),
    ];

    /// <summary>
    /// The exact factor from one measure to another that does not hang on the item: 1 ft = 0.3048 m
    /// (international yard and pound agreement, 1959). Null where there is none.
    /// </summary>
    public static decimal? FixedFactor(Unit from, Unit to) =>
        (from.Code, to.Code) switch
        {
            var (a, b) when a == b => 1m,
            ("FOT", "MTR") => 0.3048m,
            _ => null,
        };

    /// <summary>
    /// The unit that a code of X12 (element 355), EDIFACT (6411) or Rec 20 means; null where the table lacks it.
    /// </summary>
    public static Unit? FromCode(string? code)
    {
        var sought = code?.Trim().ToUpperInvariant();
        return Rows.FirstOrDefault(r =>
            r.Unit.Code == sought || (sought is not null && r.OtherCodes.Contains(sought))
        )?.Unit;
    }

    /// <summary>The unit that a word means; null where the table lacks it.</summary>
    public static Unit? FromWord(string word)
    {
        var sought = word.Trim().TrimEnd('.').ToLowerInvariant();
        return Rows.FirstOrDefault(r => r.Words.Contains(sought))?.Unit;
    }

    /// <summary>
    /// The word on a sheet: <c>m</c>, <c>coil</c>; empty for pieces; the code itself where the table lacks it.
    /// </summary>
    public static string OnSheet(Unit unit) => Rows.FirstOrDefault(r => r.Unit == unit)?.OnSheet ?? unit.Code;
}
