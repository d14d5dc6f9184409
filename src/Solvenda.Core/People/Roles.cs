namespace Solvenda.Core.People;

/// <summary>What a person may do, beside deciding by authority.</summary>
[Flags]
public enum Roles
{
    /// <summary>Looks, and changes nothing.</summary>
    None = 0,

    /// <summary>Reads requests, writes quotes and orders.</summary>
    Desk = 1,

    /// <summary>Writes quotes and follows them up.</summary>
    Seller = 2,

    /// <summary>Decides asks; waives what a lead may.</summary>
    Lead = 4,

    /// <summary>Decides on credit.</summary>
    Credit = 8,

    /// <summary>Plans stock and ships.</summary>
    Planner = 16,

    /// <summary>Invoices and applies receipts.</summary>
    Billing = 32,

    /// <summary>People, keys, settings.</summary>
    Admin = 64,
}

/// <summary>What each role sees beyond what everybody does.</summary>
public static class Sight
{
    /// <summary>Cost, floor and margin are for those who sell, decide or run the house.</summary>
    public const Roles Cost = Roles.Desk | Roles.Seller | Roles.Lead | Roles.Admin;

    /// <summary>Whether these roles see what goods cost, their floor, and what is earned.</summary>
    public static bool SeesCost(Roles roles) => (roles & Cost) != Roles.None;
}
