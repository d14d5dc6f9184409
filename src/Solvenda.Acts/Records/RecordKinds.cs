using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Acts.Records;

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
        Kinds.Teams.Kind,
        Kinds.Holidays.Kind,
        Kinds.Warehouses.Kind,
        Kinds.Carriers.Kind,
        Kinds.Accounts.Kind,
        Kinds.CommissionPlans.Kind,
        Kinds.PaperTexts.Kind,
        Kinds.Territories.Kind,
        Kinds.Reasons.Kind,
        Kinds.Restrictions.Kind,
        Kinds.Templates.Kind,
        Kinds.HouseChecks.Kind,
        Kinds.OwnFields.Kind,
    ];

    /// <summary>Who sees every field: the house itself, when it keeps what was granted.</summary>
    public const Roles EverybodySees =
        Roles.Admin | Roles.Lead | Roles.Desk | Roles.Seller | Roles.Credit | Roles.Billing | Roles.Planner;

    public static RecordKind Find(string name) =>
        All.FirstOrDefault(k => k.Name == name) ?? throw RefusedException.NotFound("such kind of record");

    /// <summary>The kind, with the fields that the house made.</summary>
    public static async Task<RecordKind> FindAsync(SolvendaDb db, string name, CancellationToken cancel) =>
        (RecordKind)await Find(name).WithOwnAsync(db, cancel);

    /// <inheritdoc cref="Changeable" />
    public static async Task<RecordKind> ChangeableAsync(Work work, string name, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        return (RecordKind)await Changeable(name, work.Actor).WithOwnAsync(work.Db, cancel);
    }

    /// <summary>The kind, where this person may change it; refused where not.</summary>
    public static RecordKind Changeable(string name, Actor actor)
    {
        ArgumentNullException.ThrowIfNull(actor);
        var kind = Find(name);
        return (actor.Roles & kind.ChangedBy) != Roles.None
            ? kind
            : throw RefusedException.Forbidden($"{kind.Title} are not yours to change.");
    }

    /// <summary>The kind, where this person may see it; refused where not.</summary>
    public static RecordKind Seen(string name, Roles roles)
    {
        var kind = Find(name);
        return kind.IsSeenBy(roles) ? kind : throw RefusedException.Forbidden($"{kind.Title} are not yours to see.");
    }
}
