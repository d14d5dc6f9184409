using Solvenda.Core.Ordering;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>The buyers of the demo world: those that have a story, and the others that fill the order book.</summary>
internal static class DemoBuyers
{
    private const long Quill = 4;
    private const long Mohr = 5;

    public static IReadOnlyList<(BuyerRow Row, (string Kind, string Value)[] Signs)> Make()
    {
        var list = new List<(BuyerRow, (string, string)[])>
        {
            B(
                "Tressel & Vane Rigging",
                "IE",
                "EUR",
                Quill,
                "Fionn Tressel",
                "fionn@tresselvane.example",
                "The Yard, 2 Careening Lane, Skerrow",
                30,
                "DAP",
                "Skerrow",
                7_500_00,
                tax: "IE9999991TA"
            ),
            B(
                "Oystercatcher Sailing School",
                "IE",
                "EUR",
                Quill,
                "Hanna Oyster",
                "bosun@oystercatcher.example",
                "Slipway House, Carrick Sound",
                30,
                "DAP",
                "Carrick Sound",
                15_000_00,
                group: "schools"
            ),
            B(
                "Kestrel Yard Boatbuilders",
                "GB",
                "GBP",
                Quill,
                "Maud Ferrier",
                "purchasing@kestrelyard.example",
                "Dry Dock 3, Kestrelmouth",
                45,
                "DAP",
                "Kestrelmouth",
                30_000_00,
                transit: 4
            ),
            B(
                "Lomond Reach Harbour Trust",
                "GB",
                "GBP",
                Quill,
                "Angus Teasdale",
                "stores@lomondreach.example",
                "Harbour Office, Lomond Reach",
                60,
                "DAP",
                "Lomond Reach",
                80_000_00,
                po: true,
                transit: 4
            ),
            B(
                "Havnlys Laks",
                "NO",
                "NOK",
                Mohr,
                "Sunniva Holm",
                "innkjop@havnlys.example",
                "Merdveien 4, Havnlys",
                30,
                "DAP",
                "Havnlys merd 4",
                900_000_00,
                transit: 6,
                partner: "HAVNLYS",
                gln: "2999000000500"
            ),
            B(
                "Teerling Scheepsbenodigdheden",
                "NL",
                "EUR",
                Mohr,
                "Joris Teerling",
                "inkoop@teerling.example",
                "Kade 4, 1234 AB Zilverhaven",
                30,
                "DAP",
                "Zilverhaven",
                60_000_00,
                group: "chandlers",
                tax: "NL999999990B01",
                transit: 3,
                partner: "TEERLING",
                gln: "2999000000111"
            ),
            B(
                "Northgannet Marine Depot",
                "US",
                "USD",
                Mohr,
                "Dale Ferris",
                "dferris@northgannet.example",
                "1 Depot Way, Gannet ME 04001",
                60,
                "CIF",
                "Port of Gannet",
                120_000_00,
                transit: 18,
                po: true,
                partner: "NORTHGANNET"
            ),
            B(
                "Aeolis Offshore Service",
                "DE",
                "EUR",
                Mohr,
                "Jorun Adler",
                "einkauf@aeolis.example",
                "Schleuse 2, 25999 Wattkoog",
                45,
                "DAP",
                "Wattkoog",
                75_000_00,
                tax: "DE999999999",
                transit: 4,
                po: true,
                gln: "2999000000708"
            ),
            B(
                "Nordvass Båtvarv",
                "SE",
                "SEK",
                Mohr,
                "Ylva Nord",
                "inkop@nordvass.example",
                "Södra kajen 7, Nordvass",
                30,
                "DAP",
                "Södra kajen",
                200_000_00,
                tax: "SE999999999901",
                transit: 5
            ),
            B(
                "Marlinspike Playhouse",
                "IE",
                "EUR",
                Quill,
                "Odile Garrity",
                "flyfloor@marlinspike.example",
                "Stage Door, Rope Walk, Skerrow",
                null,
                null,
                null,
                null,
                prospect: true
            ),
            B(
                "Dunmarrow Rescue Trust",
                "IE",
                "EUR",
                Quill,
                "Piers Lanigan",
                "coxswain@dunmarrow.example",
                "Boathouse, Dunmarrow",
                30,
                "DAP",
                "Dunmarrow",
                8_000_00,
                exempt: true
            ),
            B(
                "Harbourmart",
                "IE",
                "EUR",
                Quill,
                "Seller desk",
                "sellers@harbourmart.example",
                "Market Hall, Skerrow",
                0,
                "DAP",
                "buyer's door",
                null,
                channel: "harbourmart"
            ),
            B(
                "Brinemoor Direct",
                "IE",
                "EUR",
                Quill,
                "Web shop",
                "shop@brinemoor.example",
                "Quay Office, Skerrow",
                0,
                "DAP",
                "buyer's door",
                null,
                channel: "webshop"
            ),
        };
        var more = new (string Name, string Country, string Place)[]
        {
            ("Gull Rock Boatyard", "IE", "Gull Rock"),
            ("Ballinskerry Fish Farm", "IE", "Ballinskerry"),
            ("Corrie Sound Ferries", "GB", "Corrie Sound"),
            ("Saltmarsh Chandlery", "IE", "Saltmarsh"),
            ("Foyle Tide Moorings", "GB", "Foyle Tide"),
            ("Petrel Point Marina", "IE", "Petrel Point"),
            ("Kittiwake Charter", "IE", "Kittiwake"),
            ("Strandby Bådeværft", "DK", "Strandby"),
            ("Måsholm Marin", "SE", "Måsholm"),
            ("Tangvik Oppdrett", "NO", "Tangvik"),
            ("Werf De Schelling", "NL", "Schellinghaven"),
            ("Bootswerft Silbersand", "DE", "Silbersand"),
            ("Chantier du Goéland", "FR", "Port Goéland"),
            ("Astillero Gaviota", "ES", "Puerto Gaviota"),
            ("Cala Serena Nàutica", "ES", "Cala Serena"),
            ("Skua Bay Aquaculture", "IE", "Skua Bay"),
            ("Razorbill Theatre Supply", "IE", "Razorbill"),
            ("Cormorant Rowing Club", "IE", "Cormorant"),
            ("Wrack Line Salvage", "IE", "Wrack Line"),
            ("Fulmar Island Council", "GB", "Fulmar"),
            ("Ebb & Flow Adventure Centre", "IE", "Ebbside"),
            ("Limpet Diving School", "IE", "Limpet Cove"),
            ("Spindrift Sails", "IE", "Spindrift"),
            ("Heron Lock Canal Boats", "GB", "Heron Lock"),
            ("Brent Goose Yacht Club", "IE", "Brent Goose"),
            ("Tern Quay Fishermen's Co-operative", "IE", "Tern Quay"),
        };
        foreach (var (name, country, place) in more)
        {
            var currency = country switch
            {
                "GB" => "GBP",
                "NO" => "NOK",
                "SE" => "SEK",
                "DK" => "DKK",
                _ => "EUR",
            };
            var domain = new string([
                .. name.ToLowerInvariant()
                    .Normalize(System.Text.NormalizationForm.FormD)
                    .Where(c => c is >= 'a' and <= 'z'),
            ]);
            var union = country is "DK" or "SE" or "NL" or "DE" or "FR" or "ES";
            var limit = 10_000_00L * (currency is "NOK" or "SEK" or "DKK" ? 10 : 1);
            list.Add(
                B(
                    name,
                    country,
                    currency,
                    union || country == "NO" ? Mohr : Quill,
                    "Office",
                    $"office@{domain}.example",
                    $"1 Harbour Street, {place}",
                    30,
                    "DAP",
                    place,
                    limit,
                    tax: union ? country + "999999999" : null,
                    transit: country == "IE" ? 1 : 4
                )
            );
        }
        for (var i = 0; i < list.Count; i++)
        {
            list[i].Item1.Id = i + 1;
            list[i].Item1.Code = $"B-{i + 1:0000}";
        }
        return list;
    }

    /// <summary>Other addresses that some of them have, by the name of the buyer.</summary>
    public static readonly (
        string Buyer,
        string Code,
        string Use,
        string Words,
        string Country,
        string Days
    )[] Addresses =
    [
        ("Tressel & Vane Rigging", "LOFT", "deliver-to", "The Sail Loft, Careening Lane, Skerrow", "IE", "Mon Wed Fri"),
        ("Tressel & Vane Rigging", "OFFICE", "bill-to", "Vane House, 11 Bell Street, Skerrow", "IE", ""),
        ("Oystercatcher Sailing School", "SLIP", "deliver-to", "The Slip, Carrick Sound", "IE", "Tue Thu"),
        ("Kestrel Yard Boatbuilders", "DOCK5", "deliver-to", "Dry Dock 5, Kestrelmouth", "GB", ""),
        ("Havnlys Laks", "2999000000517", "deliver-to", "Merd 4, Havnlys", "NO", "Mon Tue Wed Thu"),
        (
            "Northgannet Marine Depot",
            "NG-07",
            "deliver-to",
            "Northgannet Depot 7, 77 Pier Road, Gannet ME 04002, US",
            "US",
            ""
        ),
        ("Havnlys Laks", "MERD9", "deliver-to", "Merd 9, Ytre Havnlys", "NO", "Wed"),
    ];

    private static (BuyerRow, (string, string)[]) B(
        string name,
        string country,
        string currency,
        long manager,
        string contact,
        string mail,
        string address,
        int? days,
        string? incoterm,
        string? place,
        long? limitMinor,
        string? group = null,
        string? tax = null,
        bool po = false,
        bool prospect = false,
        bool exempt = false,
        int transit = 1,
        string? partner = null,
        string? gln = null,
        string? channel = null
    )
    {
        var row = new BuyerRow
        {
            Code = "",
            Name = name,
            Country = country,
            Currency = currency,
            AccountManagerId = manager,
            ContactName = contact,
            ContactMail = mail,
            Address = address,
            DeliverTo = address,
            DeliverToCountry = country,
            PaymentDays = days,
            Incoterm = incoterm,
            IncotermPlace = place,
            ShipFrom = "Skerrow quay",
            TransitDays = transit,
            CreditLimitMinor = limitMinor,
            Group = group,
            TaxNumber = tax,
            PoNumberRequired = po,
            IsProspect = prospect,
            TaxExempt = exempt,
            Language = country switch
            {
                "DE" => "de",
                "NL" => "nl",
                "SE" => "sv",
                "NO" => "no",
                "ES" => "es",
                _ => "en",
            },
            DocumentsBy =
                prospect ? null
                : partner is not null ? DocumentsBy.Edi
                : name == "Fulmar Island Council" ? DocumentsBy.Paper
                : DocumentsBy.Mail,
        };
        var signs = new List<(string, string)>
        {
            ("mail", mail.ToUpperInvariant()),
            ("domain", mail.Split('@')[1].ToUpperInvariant()),
        };
        if (partner is not null)
            signs.Add(("partner", partner));
        if (gln is not null)
            signs.Add(("gln", gln));
        if (channel is not null)
            signs.Add(("channel", channel));
        if (tax is not null)
            signs.Add(("tax", tax));
        return (row, [.. signs]);
    }
}
