using System.Collections.Immutable;
using System.Globalization;
using Solvenda.Core.Buyers;
using Solvenda.Core.Catalogue;
using Solvenda.Core.Reading;
using Solvenda.Core.Units;

namespace Solvenda.Formats.Tests;

/// <summary>A small catalogue and its buyers to read against, and short ways to say what a reading says.</summary>
internal static class Shelf
{
    public static readonly DateOnly Today = new(2026, 3, 10);

    public static readonly ImmutableArray<Item> Items =
    [
        Of(
            "PS3-12-WH",
            "Three-strand polyester rope 12 mm, white",
            Unit.Metre,
            "2999000101009",
            new SalesUnit(Unit.Coil, 200m)
        ),
        Of(
            "PS3-16-BK",
            "Three-strand polyester rope 16 mm, black",
            Unit.Metre,
            "2999000101078",
            new SalesUnit(Unit.Coil, 200m)
        ),
        Of("BB2-10-NV", "Braid-on-braid rope 10 mm, navy", Unit.Metre, "2999000101146", new SalesUnit(Unit.Coil, 200m)),
        Of("BB2-12-NV", "Braid-on-braid rope 12 mm, navy", Unit.Metre, null, new SalesUnit(Unit.Coil, 200m)),
        Of("HM12-08-GY", "HMPE 12-strand line 8 mm, grey", Unit.Metre, "2999000101214", new SalesUnit(Unit.Coil, 200m)),
        Of("CHN-SL-10", "Short-link chain, galvanised, 10 mm", Unit.Metre, "2999000101283"),
        Of("SHK-BOW-10", "Bow shackle, galvanised, 10 mm", Unit.Piece, "2999000101351", new SalesUnit(Unit.Box, 25m)),
        Of("SHK-BOW-12", "Bow shackle, galvanised, 12 mm", Unit.Piece, null, new SalesUnit(Unit.Box, 25m)),
        Of("THM-SS-12", "Thimble, stainless, 12 mm", Unit.Piece, "2999000101429", new SalesUnit(Unit.Box, 25m)),
        Of("SWV-GV-10", "Swivel, galvanised, 10 mm", Unit.Piece, "2999000101498", new SalesUnit(Unit.Box, 25m)),
        Of("FND-A3-BL", "Ball fender A3, blue", Unit.Piece, "2999000101566"),
        Of("FND-A3-WH", "Ball fender A3, white", Unit.Piece, null),
        Of("SVC-EYE", "Eye splice, per piece", Unit.Piece, "2999000101634") with
        {
            Stocked = false,
        },
        Of("SVC-CUT", "Cut and whip, per cut", Unit.Piece, "2999000101702") with
        {
            Stocked = false,
        },
        Of("CTG-AF-RD-5", "Antifouling, red, 5 l (UN 1263, class 3)", Unit.Piece, "2999000101771"),
        Of("FLR-HH-4", "Hand flares, pack of 4 (UN 0191, 1.4G)", Unit.Piece, "2999000101849"),
        Of("LJ-150-AD", "Life-jacket 150 N, adult", Unit.Piece, "2999000101917"),
        Of("NET-25-GR", "Knotless netting 25 mm, green", Unit.SquareMetre, "2999000101986"),
        Of(
            "SET-MOOR-10",
            "Mooring set 10 mm (chain, swivel, shackles, rode, two splices)",
            Unit.Piece,
            "2999000102051"
        ),
    ];

    public static readonly ItemFinder Finder = new(Items);

    private static readonly (string Name, (string Kind, string Value)[] Signs)[] Buyers =
    [
        ("Tressel & Vane Rigging", [("mail", "fionn@tresselvane.example"), ("domain", "tresselvane.example")]),
        (
            "Oystercatcher Sailing School",
            [("mail", "bosun@oystercatcher.example"), ("domain", "oystercatcher.example")]
        ),
        (
            "Havnlys Laks",
            [
                ("partner", "HAVNLYS"),
                ("gln", "2999000000500"),
                ("mail", "innkjop@havnlys.example"),
                ("domain", "havnlys.example"),
            ]
        ),
        (
            "Teerling Scheepsbenodigdheden",
            [
                ("partner", "TEERLING"),
                ("gln", "2999000000111"),
                ("tax", "NL999999990B01"),
                ("mail", "inkoop@teerling.example"),
                ("domain", "teerling.example"),
            ]
        ),
        ("Northgannet Marine Depot", [("partner", "NORTHGANNET"), ("mail", "dferris@northgannet.example")]),
        (
            "Aeolis Offshore Service",
            [
                ("gln", "2999000000708"),
                ("mail", "einkauf@aeolis.example"),
                ("domain", "aeolis.example"),
                ("tax", "DE999999999"),
            ]
        ),
        ("Nordvass Båtvarv", [("mail", "inkop@nordvass.example"), ("domain", "nordvass.example")]),
        ("Harbourmart", [("channel", "harbourmart")]),
        ("Cala Serena Nàutica", [("mail", "compras@calaserena.example"), ("domain", "calaserena.example")]),
    ];

    public static BuyerId Buyer(string name) => new(Array.FindIndex(Buyers, b => b.Name == name) + 1);

    public static ReadingContext Context(params Alias[] aliases) =>
        new(
            Finder,
            Buyers.Select((b, i) => (Id: new BuyerId(i + 1), b.Name)).ToDictionary(b => b.Id, b => b.Name),
            [.. Buyers.SelectMany((b, i) => b.Signs.Select(s => new BuyerSign(new BuyerId(i + 1), s.Kind, s.Value)))],
            [
                new Alias(
                    1,
                    Buyer("Northgannet Marine Depot"),
                    ItemFinder.Normal("NGD-SHB10"),
                    ItemOf("SHK-BOW-10").Id,
                    null,
                    null
                ),
                new Alias(
                    2,
                    Buyer("Northgannet Marine Depot"),
                    ItemFinder.Normal("NGD-MOOR10"),
                    ItemOf("SET-MOOR-10").Id,
                    null,
                    null
                ),
                .. aliases,
            ],
            buyer =>
                buyer == Buyer("Tressel & Vane Rigging")
                    ?
                    [
                        new Bought(
                            buyer,
                            ItemOf("BB2-10-NV").Id,
                            "S26-00044",
                            new DateOnly(2026, 2, 11),
                            150m,
                            Unit.Metre
                        ),
                    ]
                    : []
        )
        {
            Addresses =
            [
                new BuyerAddress(Buyer("Nordvass Båtvarv"), "", "Södra kajen 7, Nordvass", "SE"),
                new BuyerAddress(Buyer("Havnlys Laks"), "2999000000517", "Merd 4, Havnlys", "NO"),
            ],
        };

    public static Item ItemOf(string code) => Items.First(i => i.Code == code);

    public static byte[] Sample(string name) =>
        File.ReadAllBytes(Path.Combine(AppContext.BaseDirectory, "Samples", name));

    public static IReadOnlyList<(Reading? Reading, string? Problem)> Read(
        byte[] raw,
        string? name = null,
        ReadingContext? context = null
    ) =>
        [.. FileReader.Open(raw, name, Today).Messages.Select(m => MessageReader.Read(m, Today, context ?? Context()))];

    public static Reading One(byte[] raw, string? name = null, ReadingContext? context = null)
    {
        var (reading, problem) = Read(raw, name, context)[0];
        return reading ?? throw new InvalidOperationException(problem);
    }

    public static Reading Letter(
        string body,
        string from = "fionn@tresselvane.example",
        string subject = "",
        ReadingContext? context = null
    ) =>
        One(
            System.Text.Encoding.UTF8.GetBytes(
                $"From: Somebody <{from}>\nTo: orders@brinemoor.example\nSubject: {subject}\nDate: Mon, 02 Mar 2026 08:41:07 +0000\nMIME-Version: 1.0\nContent-Type: text/plain; charset=utf-8\n\n{body}"
            ),
            "x.eml",
            context
        );

    /// <summary>"code quantity unit price/base", with ? where a person decides.</summary>
    public static string Say(ReadLine line)
    {
        var item = line.Item.Value.Value > 0 ? Finder.ById(line.Item.Value)?.Code : "unknown";
        var price = line.Price is { } p
            ? string.Create(
                CultureInfo.InvariantCulture,
                $" @{p:0.####}{(line.PriceBase == 1m ? "" : $"/{line.PriceBase:0}")}"
            )
            : "";
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{item} {line.Quantity.Value:0.####} {line.Unit.Value.Code}{price}{(line.NeedsYou ? " ?" : "")}"
        );
    }

    public static string[] Lines(Reading reading) => [.. reading.Lines.Select(Say)];

    public static string Head(Reading r) =>
        string.Join(
            " | ",
            r.Kind,
            Context().BuyerNames.GetValueOrDefault(r.Buyer.Value, "nobody"),
            r.PoNumber.Value,
            r.Wanted.Value?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            r.Currency.Value?.Code,
            $"{r.Incoterm.Value} {r.IncotermPlace.Value}".Trim(),
            r.DeliverTo.Value,
            r.Contact.Value
        );

    private static Item Of(string code, string words, Unit unit, string? gtin, params SalesUnit[] units) =>
        new(
            new ItemId(code.Aggregate(7L, (h, c) => (h * 31 + c) % 1_000_000_007)),
            code,
            words,
            code[..3],
            unit,
            [.. units],
            TaxClass.Standard,
            null,
            10,
            true,
            gtin,
            null,
            null
        );
}
