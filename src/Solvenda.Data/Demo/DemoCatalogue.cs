using Solvenda.Core.Catalogue;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>The demo world's items: families times sizes, with prices, costs and stock units.</summary>
internal static partial class DemoCatalogue
{
    /// <summary>An item with its house list price per stock unit in EUR and its cost.</summary>
    public sealed record Entry(ItemRow Row, decimal List, decimal Cost, decimal? CoilPrice);

    public static readonly FamilyRow[] Families =
    [
        new()
        {
            Code = "rope",
            Words = "Polyester ropes",
            LeastMarginPercent = 22,
        },
        new()
        {
            Code = "hmpe",
            Words = "HMPE lines",
            LeastMarginPercent = 20,
        },
        new()
        {
            Code = "chain",
            Words = "Chain",
            LeastMarginPercent = 18,
        },
        new()
        {
            Code = "hardware",
            Words = "Shackles, thimbles, swivels",
            LeastMarginPercent = 24,
        },
        new()
        {
            Code = "deck",
            Words = "Cleats and blocks",
            LeastMarginPercent = 22,
        },
        new()
        {
            Code = "fender",
            Words = "Fenders and buoys",
            LeastMarginPercent = 20,
        },
        new()
        {
            Code = "netting",
            Words = "Netting",
            LeastMarginPercent = 18,
        },
        new()
        {
            Code = "service",
            Words = "Rope services",
            LeastMarginPercent = 30,
        },
        new()
        {
            Code = "set",
            Words = "Mooring sets",
            LeastMarginPercent = 20,
        },
        new()
        {
            Code = "coating",
            Words = "Coatings",
            LeastMarginPercent = 20,
        },
        new()
        {
            Code = "safety",
            Words = "Safety gear",
            LeastMarginPercent = 18,
        },
    ];

    public static IReadOnlyList<Entry> Make()
    {
        var list = new List<Entry>();
        var gtin = 200_000;

        void Add(
            string code,
            string words,
            string family,
            string unit,
            decimal price,
            decimal costShare,
            string? fixedGtin = null,
            decimal? cost = null,
            int? lead = 10,
            bool stocked = true,
            TaxClass tax = TaxClass.Standard,
            string? dangerous = null,
            string? successor = null,
            decimal? floor = null,
            string parts = ""
        )
        {
            if (list.Any(e => e.Row.Code == code))
                return;
            var row = new ItemRow
            {
                Code = code,
                Words = words,
                WordsElsewhere = DemoWords.Elsewhere(words),
                Family = family,
                StockUnit = unit,
                TaxClass = tax,
                LeadDays = lead,
                Stocked = stocked,
                Gtin = stocked ? fixedGtin ?? Gtin(++gtin) : fixedGtin,
                DangerousGoods = dangerous,
                Successor = successor,
                FloorPrice = floor,
                WeightKg = stocked ? Weight(words, family, price) : null,
                VolumeDm3 = family == "fender" ? Math.Round(price / 2m, 1) : null,
                ForbiddenModes = dangerous is null ? "" : "post",
                NotByChannel = dangerous is null ? "" : "marketplace",
                Parts = parts,
            };
            if (family is "rope" or "hmpe")
            {
                row.SalesUnits.Add(new SalesUnitRow { Unit = "CL", Factor = 200m });
                row.SalesUnits.Add(new SalesUnitRow { Unit = "PF", Factor = 2400m });
            }
            if (family == "hardware")
                row.SalesUnits.Add(new SalesUnitRow { Unit = "BX", Factor = 25m });
            // Coils cost 5 % less than their metres.
            list.Add(
                new Entry(
                    row,
                    price,
                    cost ?? Math.Round(price * costShare, 4),
                    family is "rope" or "hmpe" ? Math.Round(price * 200m * 0.95m, 4) : null
                )
            );
        }

        // The items that buyers name in their messages.
        Add("PS3-12-WH", "Three-strand polyester rope 12 mm, white", "rope", "MTR", 1.84m, 0.62m, "2999000101009");
        Add("PS3-16-BK", "Three-strand polyester rope 16 mm, black", "rope", "MTR", 2.95m, 0.62m, "2999000101078");
        Add(
            "BB2-10-NV",
            "Braid-on-braid rope 10 mm, navy",
            "rope",
            "MTR",
            2.42m,
            0.67m,
            "2999000101146",
            cost: 1.6242m
        );
        Add("HM12-08-GY", "HMPE 12-strand line 8 mm, grey", "hmpe", "MTR", 5.36m, 0.66m, "2999000101214");
        Add("CHN-SL-10", "Short-link chain, galvanised, 10 mm", "chain", "MTR", 7.90m, 0.69m, "2999000101283");
        Add("SHK-BOW-10", "Bow shackle, galvanised, 10 mm", "hardware", "C62", 4.15m, 0.55m, "2999000101351");
        Add("THM-SS-12", "Thimble, stainless, 12 mm", "hardware", "C62", 2.35m, 0.52m, "2999000101429");
        Add("SWV-GV-10", "Swivel, galvanised, 10 mm", "hardware", "C62", 9.80m, 0.56m, "2999000101498");
        Add("FND-A3-BL", "Ball fender A3, blue", "fender", "C62", 68.50m, 0.6m, "2999000101566");
        Add("SVC-EYE", "Eye splice, per piece", "service", "C62", 11.50m, 0.42m, "2999000101634", stocked: false);
        Add("SVC-CUT", "Cut and whip, per cut", "service", "C62", 1.20m, 0.4m, "2999000101702", stocked: false);
        Add(
            "CTG-AF-RD-5",
            "Antifouling, red, 5 l (UN 1263, class 3)",
            "coating",
            "C62",
            142.00m,
            0.68m,
            "2999000101771",
            dangerous: "UN 1263, class 3"
        );
        Add(
            "FLR-HH-4",
            "Hand flares, pack of 4 (UN 0191, 1.4G)",
            "safety",
            "C62",
            74.90m,
            0.66m,
            "2999000101849",
            dangerous: "UN 0191, 1.4G"
        );
        Add("LJ-150-AD", "Life-jacket 150 N, adult", "safety", "C62", 96.00m, 0.62m, "2999000101917");
        Add("NET-25-GR", "Knotless netting 25 mm, green", "netting", "MTK", 3.10m, 0.66m, "2999000101986");
        Add(
            "SET-MOOR-10",
            "Mooring set 10 mm (chain, swivel, shackles, rode, two splices)",
            "set",
            "C62",
            389.00m,
            0.64m,
            "2999000102051",
            lead: 8,
            parts: "CHN-SL-10 x 10; SWV-GV-10 x 1; SHK-BOW-10 x 4; PS3-12-WH x 60; SVC-EYE x 2"
        );

        var colours = new (string Code, string Words)[]
        {
            ("WH", "white"),
            ("BK", "black"),
            ("NV", "navy"),
            ("RD", "red"),
        };
        foreach (var mm in new[] { 6, 8, 10, 12, 14, 16, 20, 24 })
        {
            foreach (var (code, colour) in colours)
                Add(
                    $"PS3-{mm:00}-{code}",
                    $"Three-strand polyester rope {mm} mm, {colour}",
                    "rope",
                    "MTR",
                    Math.Round(0.0115m * mm * mm + 0.18m, 2),
                    0.62m
                );
        }
        foreach (var mm in new[] { 6, 8, 10, 12, 14, 16 })
        {
            foreach (var (code, colour) in colours.Take(3))
                Add(
                    $"BB2-{mm:00}-{code}",
                    $"Braid-on-braid rope {mm} mm, {colour}",
                    "rope",
                    "MTR",
                    Math.Round(0.021m * mm * mm + 0.32m, 2),
                    0.66m
                );
        }
        foreach (var mm in new[] { 4, 5, 6, 8, 10, 12 })
        {
            foreach (var (code, colour) in new[] { ("GY", "grey"), ("OR", "orange") })
                Add(
                    $"HM12-{mm:00}-{code}",
                    $"HMPE 12-strand line {mm} mm, {colour}",
                    "hmpe",
                    "MTR",
                    Math.Round(0.072m * mm * mm + 0.75m, 2),
                    0.66m,
                    lead: 15
                );
        }
        foreach (var mm in new[] { 6, 8, 10, 13, 16 })
        {
            Add(
                $"CHN-SL-{mm:00}",
                $"Short-link chain, galvanised, {mm} mm",
                "chain",
                "MTR",
                Math.Round(0.068m * mm * mm + 1.1m, 2),
                0.69m,
                lead: 12
            );
            Add(
                $"CHN-SS-{mm:00}",
                $"Short-link chain, stainless, {mm} mm",
                "chain",
                "MTR",
                Math.Round(0.21m * mm * mm + 3.2m, 2),
                0.7m,
                lead: 20
            );
        }
        foreach (var mm in new[] { 6, 8, 10, 12, 16, 20 })
        {
            Add(
                $"SHK-BOW-{mm:00}",
                $"Bow shackle, galvanised, {mm} mm",
                "hardware",
                "C62",
                Math.Round(0.03m * mm * mm + 1.1m, 2),
                0.55m
            );
            Add(
                $"SHK-DEE-{mm:00}",
                $"Dee shackle, stainless, {mm} mm",
                "hardware",
                "C62",
                Math.Round(0.062m * mm * mm + 1.9m, 2),
                0.57m
            );
            Add(
                $"THM-SS-{mm:00}",
                $"Thimble, stainless, {mm} mm",
                "hardware",
                "C62",
                Math.Round(0.012m * mm * mm + 0.6m, 2),
                0.52m
            );
            Add(
                $"SWV-GV-{mm:00}",
                $"Swivel, galvanised, {mm} mm",
                "hardware",
                "C62",
                Math.Round(0.07m * mm * mm + 2.8m, 2),
                0.56m
            );
        }
        foreach (var (inch, mm) in new[] { (4, 100), (6, 150), (8, 200), (10, 250), (12, 300) })
        {
            Add(
                $"CLT-AL-{inch:00}",
                $"Horn cleat, aluminium, {mm} mm ({inch} in)",
                "deck",
                "C62",
                4.2m + (inch * 1.15m),
                0.55m
            );
            Add(
                $"CLT-BZ-{inch:00}",
                $"Horn cleat, bronze, {mm} mm ({inch} in)",
                "deck",
                "C62",
                2.1m + (inch * 0.86m),
                0.58m,
                lead: 25
            );
        }
        foreach (var mm in new[] { 40, 57, 75 })
        {
            Add($"BLK-SG-{mm}", $"Single block {mm} mm", "deck", "C62", 12m + (mm * 0.52m), 0.58m, lead: 14);
            Add($"BLK-DB-{mm}", $"Double block {mm} mm", "deck", "C62", 21m + (mm * 0.84m), 0.58m, lead: 14);
        }
        foreach (
            var (size, price) in new[] { ("A1", 31.0m), ("A2", 46.5m), ("A3", 68.5m), ("A4", 99.0m), ("A5", 148.0m) }
        )
        {
            foreach (var (code, colour) in new[] { ("BL", "blue"), ("WH", "white"), ("RD", "red") })
                Add($"FND-{size}-{code}", $"Ball fender {size}, {colour}", "fender", "C62", price, 0.6m);
        }
        foreach (var (size, price) in new[] { (30, 27.5m), (45, 44m), (60, 72m) })
            Add($"BUO-PK-{size}", $"Pick-up buoy {size} cm, orange", "fender", "C62", price, 0.6m);
        foreach (var mm in new[] { 10, 15, 25, 40 })
        {
            Add(
                $"NET-{mm}-GR",
                $"Knotless netting {mm} mm, green",
                "netting",
                "MTK",
                4.4m - (mm * 0.045m),
                0.66m,
                lead: 18
            );
            Add(
                $"NET-{mm}-BK",
                $"Knotless netting {mm} mm, black",
                "netting",
                "MTK",
                4.3m - (mm * 0.045m),
                0.66m,
                lead: 18
            );
        }
        Add("SVC-SEW", "Sewn eye with thimble, per piece", "service", "C62", 14.20m, 0.44m, stocked: false);
        Add("SVC-LBL", "Length label, per piece", "service", "C62", 0.85m, 0.35m, stocked: false);
        Add("SVC-TST", "Proof load test with certificate, per piece", "service", "C62", 38.00m, 0.5m, stocked: false);
        Add(
            "SET-MOOR-13",
            "Mooring set 13 mm (chain, swivel, shackles, rode, two splices)",
            "set",
            "C62",
            548.00m,
            0.64m,
            lead: 8
        );
        Add("SET-DOCK-12", "Dock line set 12 mm, four lines with eyes", "set", "C62", 118.00m, 0.6m, lead: 6);
        foreach (var (code, colour) in new[] { ("RD", "red"), ("BL", "blue"), ("BK", "black") })
        {
            Add(
                $"CTG-AF-{code}-5",
                $"Antifouling, {colour}, 5 l (UN 1263, class 3)",
                "coating",
                "C62",
                142m,
                0.68m,
                dangerous: "UN 1263, class 3"
            );
            Add(
                $"CTG-AF-{code}-20",
                $"Antifouling, {colour}, 20 l (UN 1263, class 3)",
                "coating",
                "C62",
                498m,
                0.68m,
                dangerous: "UN 1263, class 3"
            );
        }
        Add(
            "CTG-VR-1",
            "Deck varnish, clear, 1 l (UN 1263, class 3)",
            "coating",
            "C62",
            34.5m,
            0.62m,
            dangerous: "UN 1263, class 3"
        );
        Add(
            "FLR-RP-2",
            "Rocket parachute flares, pack of 2 (UN 0195, 1.3G)",
            "safety",
            "C62",
            109m,
            0.66m,
            dangerous: "UN 0195, 1.3G"
        );
        Add("LJ-150-CH", "Life-jacket 150 N, child", "safety", "C62", 88m, 0.62m);
        Add("LJ-275-AD", "Life-jacket 275 N, adult", "safety", "C62", 164m, 0.62m);
        Add("LJ-100-AD", "Life-jacket 100 N, adult", "safety", "C62", 72m, 0.62m, lead: null, successor: "LJ-150-AD");
        Add("RSC-LINE-25", "Throwing line 25 m in bag, orange", "safety", "C62", 41m, 0.58m);
        Add("KIT-FA-1", "First-aid kit, coastal", "safety", "C62", 57m, 0.6m, tax: TaxClass.Zero);
        Add(
            "BK-KNOTS",
            "Handbook of knots and splices",
            "service",
            "C62",
            18.00m,
            0.55m,
            tax: TaxClass.Zero,
            stocked: true
        );
        return list;
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

    /// <summary>GTIN-13 in a made-up range, with its check digit (GS1 General Specifications, 7.9).</summary>
    private static string Gtin(int serial)
    {
        var body = $"299900{serial:000000}";
        var sum = body.Select((c, i) => (c - '0') * (i % 2 == 0 ? 1 : 3)).Sum();
        return body + ((10 - (sum % 10)) % 10);
    }
}
