using Solvenda.Core.Catalogue;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>The demo world's items, with prices, costs and stock units (World/items.json).</summary>
internal static partial class DemoCatalogue
{
    /// <summary>An item with its house list price per stock unit in EUR and its cost.</summary>
    public sealed record Entry(ItemRow Row, decimal List, decimal Cost, decimal? CoilPrice);

    // A row of the file. The GTINs are made up, in a range that nobody uses.
    private sealed record Line(
        string Code,
        string Words,
        string Family,
        string Unit,
        decimal List,
        decimal Cost,
        int? Lead = null,
        string? Gtin = null,
        bool Stocked = true,
        TaxClass Tax = TaxClass.Standard,
        string? Dangerous = null,
        string? Successor = null,
        string Parts = ""
    );

    private static readonly (string Code, string Words, decimal LeastMargin)[] FamilyLines =
    [
        ("rope", "Polyester ropes", 22m),
        ("hmpe", "HMPE lines", 20m),
        ("chain", "Chain", 18m),
        ("hardware", "Shackles, thimbles, swivels", 24m),
        ("deck", "Cleats and blocks", 22m),
        ("fender", "Fenders and buoys", 20m),
        ("netting", "Netting", 18m),
        ("service", "Rope services", 30m),
        ("set", "Mooring sets", 20m),
        ("coating", "Coatings", 20m),
        ("safety", "Safety gear", 18m),
    ];

    public static IEnumerable<FamilyRow> Families =>
        FamilyLines.Select(f => new FamilyRow
        {
            Code = f.Code,
            Words = f.Words,
            LeastMarginPercent = f.LeastMargin,
        });

    public static IReadOnlyList<Entry> Make() => [.. WorldFile.Read<Line>("items.json").Select(EntryOf)];

    // Chapters of the Harmonized System that such goods fall under.
    private static string HsOf(string family) =>
        family switch
        {
            "rope" or "hmpe" or "set" => "560750",
            "chain" => "731582",
            "hardware" => "732690",
            "deck" => "830249",
            "fender" => "401699",
            "netting" => "560811",
            "coating" => "320890",
            _ => "630720",
        };

    private static Entry EntryOf(Line line)
    {
        var row = new ItemRow
        {
            Code = line.Code,
            Words = line.Words,
            WordsElsewhere = DemoWords.Elsewhere(line.Words),
            Family = line.Family,
            StockUnit = line.Unit,
            TaxClass = line.Tax,
            LeadDays = line.Lead,
            Stocked = line.Stocked,
            Gtin = line.Gtin,
            DangerousGoods = line.Dangerous,
            Successor = line.Successor,
            WeightKg = line.Stocked ? Weight(line.Words, line.Family, line.List) : null,
            HsCode = line.Stocked ? HsOf(line.Family) : "",
            Origin = line.Stocked
                ? (line.Code.Length % 3) switch
                {
                    0 => "IE",
                    1 => "PT",
                    _ => "NO",
                }
                : "",
            VolumeDm3 = line.Family == "fender" ? Math.Round(line.List / 2m, 1) : null,
            ForbiddenModes = line.Dangerous is null ? "" : "post",
            NotByChannel = line.Dangerous is null ? "" : "harbourmart",
            Parts = line.Parts,
            HasLots = line.Family == "coating",
            HasSerials = line.Code.StartsWith("LJ-", StringComparison.Ordinal),
        };
        var isRope = line.Family is "rope" or "hmpe";
        if (isRope)
            row.SalesUnits.AddRange([new() { Unit = "CL", Factor = 200m }, new() { Unit = "PF", Factor = 2400m }]);
        if (line.Family == "hardware")
            row.SalesUnits.Add(new SalesUnitRow { Unit = "BX", Factor = 25m });
        // Coils cost 5 % less than their metres.
        return new Entry(row, line.List, line.Cost, isRope ? Math.Round(line.List * 200m * 0.95m, 4) : null);
    }

    // Kilograms of a stock unit, plausible for the trade: by the square of the size for what is sold by length, by the
    // price for the rest.
    private static decimal Weight(string words, string family, decimal price)
    {
        var size = SizeOf().Match(words) is { Success: true } m
            ? decimal.Parse(m.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture)
            : 10m;
        return family switch
        {
            "rope" => Math.Round(0.00062m * size * size, 3),
            "hmpe" => Math.Round(0.0005m * size * size, 3),
            "chain" => Math.Round(0.022m * size * size, 2),
            "netting" => 0.12m,
            "set" => 26m,
            "coating" => Math.Round(price / 24m, 1),
            _ => Math.Max(0.05m, Math.Round(price / 30m, 2)),
        };
    }

    [System.Text.RegularExpressions.GeneratedRegex(@"(\d+) mm")]
    private static partial System.Text.RegularExpressions.Regex SizeOf();
}
