using System.Collections.Immutable;
using Solvenda.Core.People;

namespace Solvenda.Acts.Acting;

/// <summary>Kinds of those who act.</summary>
[Flags]
public enum ActorKinds
{
    None = 0,
    Person = 1,

    /// <summary>A program with a key.</summary>
    Machine = 2,

    /// <summary>Whoever holds a buyer's link.</summary>
    Buyer = 4,

    /// <summary>A worker or a channel of the house itself.</summary>
    House = 8,

    /// <summary>Nobody who is known.</summary>
    Stranger = 16,
}

/// <summary>A right: who may. Acts and doors name one of <see cref="Rights"/>, and there is no other.</summary>
/// <param name="Words">For the printed table.</param>
/// <param name="Roles">Of people, one of these; none: any person.</param>
/// <param name="Scope">Of machines, this scope.</param>
public sealed record Right(string Code, string Words, ActorKinds Kinds, Roles Roles = Roles.None, string? Scope = null)
{
    /// <summary>Whether somebody has it.</summary>
    public bool Allows(Actor actor)
    {
        ArgumentNullException.ThrowIfNull(actor);
        if ((Kinds & actor.Kind) == ActorKinds.None)
            return false;
        return actor.Kind switch
        {
            ActorKinds.Person => Roles == Roles.None || (actor.Roles & Roles) != Roles.None,
            ActorKinds.Machine => Scope is null || actor.Scopes.Contains(Scope),
            _ => true,
        };
    }
}

/// <summary>The table of rights.</summary>
public static class Rights
{
    /// <summary>Scopes of machines' keys.</summary>
    public const string InboundScope = "inbound";
    public const string ReadScope = "read";
    public const string PriceScope = "price";

    /// <summary>Takes, confirms and cancels orders.</summary>
    public const string OrdersScope = "orders";

    /// <summary>Shows a machine cost, floor and margin.</summary>
    public const string CostScope = "cost";

    /// <summary>Shows a machine who may give how much.</summary>
    public const string AuthorityScope = "authority";

    /// <summary>Brings bank files in and reads the ledger.</summary>
    public const string MoneyScope = "money";

    /// <summary>All scopes there are.</summary>
    public static readonly ImmutableArray<string> Scopes =
    [
        InboundScope,
        ReadScope,
        PriceScope,
        OrdersScope,
        CostScope,
        AuthorityScope,
        MoneyScope,
    ];

    /// <summary>Looks at everything that everybody sees.</summary>
    public static readonly Right Look = new("look", "anybody who is signed in", ActorKinds.Person);

    /// <summary>
    /// Something of one's own, such as a view of a list; or what is looked at more closely in the act.
    /// </summary>
    public static readonly Right Own = new("own", "anybody who is signed in, for what is theirs", ActorKinds.Person);

    /// <summary>Reads requests, writes quotes and orders.</summary>
    public static readonly Right Write = new(
        "write",
        "the order desk and sellers",
        ActorKinds.Person,
        Roles.Desk | Roles.Seller
    );

    /// <summary>Takes, confirms and cancels orders.</summary>
    public static readonly Right Orders = new(
        "orders",
        "the order desk and sellers, and machines with the scope orders",
        ActorKinds.Person | ActorKinds.Machine,
        Roles.Desk | Roles.Seller,
        OrdersScope
    );

    /// <summary>Takes requests in which nothing is left open.</summary>
    public static readonly Right Pass = new(
        "pass",
        "the order desk and sellers, and the house where the rules of the way say so",
        ActorKinds.Person | ActorKinds.House,
        Roles.Desk | Roles.Seller
    );

    /// <summary>Takes what carriers say of shipments.</summary>
    public static readonly Right Carried = new(
        "carried",
        "planners, the order desk, machines with the scope orders, and carriers by their folders",
        ActorKinds.Person | ActorKinds.Machine | ActorKinds.House,
        Roles.Planner | Roles.Desk,
        OrdersScope
    );

    /// <summary>Releases, picks and ships what was ordered.</summary>
    public static readonly Right Ship = new(
        "ship",
        "planners, the order desk, and machines with the scope orders",
        ActorKinds.Person | ActorKinds.Machine,
        Roles.Planner | Roles.Desk,
        OrdersScope
    );

    /// <summary>Plans the stock: moves what is promised, asks for more, counts, takes what came.</summary>
    public static readonly Right Plan = new(
        "plan",
        "planners, and the house's own workers",
        ActorKinds.Person | ActorKinds.House,
        Roles.Planner
    );

    /// <summary>Decides asks; the authority is looked at in the act.</summary>
    public static readonly Right Decide = new(
        "decide",
        "whoever is asked, or has the authority for it",
        ActorKinds.Person
    );

    /// <summary>Lets a stop pass; who may is told by the stop.</summary>
    public static readonly Right Waive = new(
        "waive",
        "whom the stop names",
        ActorKinds.Person,
        Roles.Desk | Roles.Seller | Roles.Lead | Roles.Credit
    );

    /// <summary>Sees what every buyer owes and will owe.</summary>
    public static readonly Right SeeCredit = new(
        "see-credit",
        "leads, credit control, billing and administrators",
        ActorKinds.Person,
        Roles.Lead | Roles.Credit | Roles.Billing | Roles.Admin
    );

    /// <summary>Invoices what went.</summary>
    public static readonly Right Bill = new(
        "bill",
        "billing, the order desk, and machines with the scope orders",
        ActorKinds.Person | ActorKinds.Machine,
        Roles.Billing | Roles.Desk,
        OrdersScope
    );

    /// <summary>Notes money that came, and says what it is for.</summary>
    public static readonly Right Money = new(
        "money",
        "billing and credit control, and machines with the scope money",
        ActorKinds.Person | ActorKinds.Machine,
        Roles.Billing | Roles.Credit,
        MoneyScope
    );

    /// <summary>Closes the books up to a day.</summary>
    public static readonly Right CloseBooks = new(
        "close-books",
        "billing and administrators",
        ActorKinds.Person,
        Roles.Billing | Roles.Admin
    );

    /// <summary>Moves an entry to another account before it is issued.</summary>
    public static readonly Right MoveEntries = new(
        "move-entries",
        "billing and administrators",
        ActorKinds.Person,
        Roles.Billing | Roles.Admin
    );

    /// <summary>Sees what sellers earn: everybody their own, leads, billing and administrators all.</summary>
    public static readonly Right SeeCommissions = new(
        "see-commissions",
        "sellers their own; leads, billing and administrators all",
        ActorKinds.Person,
        Roles.Seller | Roles.Lead | Roles.Billing | Roles.Admin
    );

    /// <summary>Reads the ledger.</summary>
    public static readonly Right SeeLedger = new(
        "see-ledger",
        "billing, credit control, leads and administrators, and machines with the scope money",
        ActorKinds.Person | ActorKinds.Machine,
        Roles.Billing | Roles.Credit | Roles.Lead | Roles.Admin,
        MoneyScope
    );

    /// <summary>Changes records; who may is told by the kind and the field.</summary>
    public static readonly Right Records = new(
        "records",
        "whom the kind of record and the field name",
        ActorKinds.Person,
        Roles.Desk | Roles.Seller | Roles.Lead | Roles.Credit | Roles.Admin
    );

    /// <summary>Says what others may decide alone; never more than they have themselves.</summary>
    public static readonly Right Authority = new(
        "authority",
        "administrators, and leads and credit controllers as far as their own goes",
        ActorKinds.Person,
        Roles.Admin | Roles.Lead | Roles.Credit
    );

    /// <summary>Sees how the house decides: authority, policies, rights.</summary>
    public static readonly Right SeeSetup = new(
        "see-setup",
        "administrators, leads and credit controllers",
        ActorKinds.Person,
        Roles.Admin | Roles.Lead | Roles.Credit
    );

    /// <summary>Runs the house: what its workers could not do.</summary>
    public static readonly Right Administer = new("administer", "administrators", ActorKinds.Person, Roles.Admin);

    /// <summary>Brings something in.</summary>
    public static readonly Right Inbound = new(
        "inbound",
        "channels, the order desk and sellers, and machines with the scope inbound",
        ActorKinds.Person | ActorKinds.Machine | ActorKinds.House,
        Roles.Desk | Roles.Seller,
        InboundScope
    );

    /// <summary>Sees what became of what was brought in.</summary>
    public static readonly Right Read = new(
        "read",
        "machines with the scope read",
        ActorKinds.Machine,
        Scope: ReadScope
    );

    /// <summary>Asks for prices.</summary>
    public static readonly Right Price = new(
        "price",
        "machines with the scope price",
        ActorKinds.Machine,
        Scope: PriceScope
    );

    /// <summary>The house's own work, by its workers.</summary>
    public static readonly Right House = new("house", "the house's own workers", ActorKinds.House);

    /// <summary>Answers a quote.</summary>
    public static readonly Right Link = new("link", "whoever holds the buyer's link", ActorKinds.Buyer);

    /// <summary>Signs in.</summary>
    public static readonly Right SignIn = new("sign-in", "whoever's password holds", ActorKinds.Stranger);

    /// <summary>Becomes the first administrator.</summary>
    public static readonly Right OneTimeLink = new(
        "one-time-link",
        "whoever holds the one-time link of the console",
        ActorKinds.Stranger
    );
}
