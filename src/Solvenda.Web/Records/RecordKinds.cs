using System.Collections.Immutable;
using Solvenda.Web.Commands;

namespace Solvenda.Web.Records;

/// <summary>All kinds of master data.</summary>
public static class RecordKinds
{
    public static readonly ImmutableArray<RecordKind> All =
    [
        Kinds.Items.Kind,
        Kinds.Families.Kind,
        Kinds.Costs.Kind,
        Kinds.Buyers.Kind,
        Kinds.Addresses.Kind,
        Kinds.Contacts.Kind,
        Kinds.BuyerCodes.Kind,
        Kinds.Groups.Kind,
        Kinds.PriceLists.Kind,
        Kinds.Prices.Kind,
        Kinds.Agreements.Kind,
        Kinds.Campaigns.Kind,
        Kinds.Charges.Kind,
        Kinds.FreightZones.Kind,
        Kinds.FreightBands.Kind,
        Kinds.Rates.Kind,
        Kinds.TaxRates.Kind,
        Kinds.Settings.Kind,
    ];

    public static RecordKind Find(string name) =>
        All.FirstOrDefault(k => k.Name == name) ?? throw RefusalException.NotFound("such kind of record");
}
