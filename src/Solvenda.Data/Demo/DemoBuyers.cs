using System.Globalization;
using Solvenda.Core.Sheets.Terms;
using Solvenda.Data.Rows;

namespace Solvenda.Data.Demo;

/// <summary>
/// The buyers of the demo world (World/buyers.json): those that have a story, and the others that fill the order book.
/// </summary>
internal static class DemoBuyers
{
    // A row of the file; the limit is in whole units of the currency.
    private sealed record Line(
        string Name,
        string Country,
        string Currency,
        long Manager,
        string Contact,
        string Mail,
        string Address,
        int? Days = null,
        string? Incoterm = null,
        string? Place = null,
        long? Limit = null,
        int Transit = 1,
        string? Group = null,
        string? Tax = null,
        bool Po = false,
        bool Prospect = false,
        bool Exempt = false,
        bool Paper = false,
        string? Partner = null,
        string? Gln = null,
        string? Channel = null
    );

    /// <summary>The buyers with the signs that they are known by.</summary>
    public static IReadOnlyList<(BuyerRow Row, (string Kind, string Value)[] Signs)> Make() =>
        [.. WorldFile.Read<Line>("buyers.json").Select((b, i) => (RowOf(b, i + 1), Signs(b)))];

    private static BuyerRow RowOf(Line b, int number) =>
        new()
        {
            Id = number,
            Code = $"B-{number:0000}",
            Name = b.Name,
            Country = b.Country,
            Currency = b.Currency,
            AccountManagerId = b.Manager,
            Territory = b.Manager switch
            {
                4 => "yards",
                5 => "aquaculture",
                3 => "harbours",
                _ => null,
            },
            ContactName = b.Contact,
            ContactMail = b.Mail,
            // Numbers of a range that is kept for stories.
            Phone = string.Create(CultureInfo.InvariantCulture, $"+353 20 91{number / 10} {number * 37 % 9000 + 1000}"),
            Address = b.Address,
            DeliverTo = b.Address,
            DeliverToCountry = b.Country,
            PaymentDays = b.Days,
            Incoterm = b.Incoterm,
            IncotermPlace = b.Place,
            ShipFrom = "Skerrow quay",
            TransitDays = b.Transit,
            CreditLimitMinor = b.Limit * 100,
            Group = b.Group,
            TaxNumber = b.Tax,
            PoNumberRequired = b.Po,
            IsProspect = b.Prospect,
            TaxExempt = b.Exempt,
            Language = LanguageOf(b.Country),
            DocumentsBy =
                b.Prospect ? null
                : b.Partner is not null ? DocumentsBy.Edi
                : b.Paper ? DocumentsBy.Paper
                : DocumentsBy.Mail,
        };

    private static string LanguageOf(string country) =>
        country switch
        {
            "DE" => "de",
            "NL" => "nl",
            "SE" => "sv",
            "NO" => "no",
            "ES" => "es",
            _ => "en",
        };

    private static (string, string)[] Signs(Line b) =>
        [
            .. new[]
            {
                ("mail", b.Mail.ToUpperInvariant()),
                ("domain", b.Mail.Split('@')[1].ToUpperInvariant()),
                ("partner", b.Partner),
                ("gln", b.Gln),
                ("channel", b.Channel),
                ("tax", b.Tax),
            }
                .Where(s => s.Item2 is not null)
                .Select(s => (s.Item1, s.Item2!)),
        ];

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
}
