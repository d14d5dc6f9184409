using System.Collections.Immutable;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Lists;
using Solvenda.Acts.Records;
using Solvenda.Core.People;
using Solvenda.Data;

namespace Solvenda.Acts.Overviews;

/// <summary>Every list there is: a new one is a file in Kinds/ and a line here.</summary>
public static class ListKinds
{
    public static readonly ImmutableArray<ListKind> All =
    [
        Kinds.Requests.Kind,
        Kinds.Quotes.Kind,
        Kinds.Orders.Kind,
        Kinds.Shipments.Kind,
        Kinds.Invoices.Kind,
        Kinds.Entries.Kind,
        Kinds.Asks.Kind,
        .. RecordKinds.All,
    ];

    public static ListKind Find(string name) =>
        All.FirstOrDefault(k => k.Name == name) ?? throw RefusedException.NotFound("such list");

    /// <summary>
    /// The list with the fields that the house made, where this person may see it; refused where not.
    /// </summary>
    public static Task<ListKind> SeenAsync(SolvendaDb db, string name, Roles roles, CancellationToken cancel) =>
        Seen(name, roles).WithOwnAsync(db, cancel);

    /// <summary>The list, where this person may see it; refused where not.</summary>
    public static ListKind Seen(string name, Roles roles)
    {
        var kind = Find(name);
        return kind.IsSeenBy(roles) ? kind : throw RefusedException.Forbidden($"{kind.Title} are not yours to see.");
    }
}
