using System.Collections.Immutable;

namespace Solvenda.Core.People;

/// <summary>A role as it is said, and what it is for.</summary>
public sealed record RoleWords(Roles Role, string Name, string Does);

/// <summary>The roles there are, as an administrator gives them.</summary>
public static class RoleTable
{
    /// <summary>In the order in which they are shown.</summary>
    public static readonly ImmutableArray<RoleWords> All =
    [
        new(Roles.Desk, "order desk", "reads requests, writes quotes and orders of everybody"),
        new(Roles.Seller, "seller", "writes quotes and orders, and follows their own up"),
        new(Roles.Lead, "lead", "decides what others ask, as far as their authority goes; changes prices and terms"),
        new(Roles.Credit, "credit control", "decides on credit, as far as their authority goes"),
        new(Roles.Planner, "planner", "plans stock and ships"),
        new(Roles.Billing, "billing", "invoices and applies receipts"),
        new(Roles.Admin, "administrator", "runs the house: people, policies, keys, settings"),
    ];

    /// <summary>Roles as they are said: "order desk, lead".</summary>
    public static string Say(Roles roles) =>
        roles == Roles.None
            ? "looks only"
            : string.Join(", ", All.Where(r => roles.HasFlag(r.Role)).Select(r => r.Name));
}
