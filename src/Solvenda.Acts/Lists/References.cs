using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Acts.Lists;

/// <summary>
/// Codes of records and what they stand for: what a reference is typed and shown by. Loaded once for a request or an
/// import.
/// </summary>
public sealed class References
{
    private readonly Dictionary<string, Dictionary<string, long>> _ids = [];
    private readonly Dictionary<string, Dictionary<long, string>> _codes = [];
    private readonly Dictionary<string, Dictionary<long, string>> _shown = [];

    /// <summary>None at all, for fields that refer to nothing.</summary>
    public static readonly References None = new();

    /// <summary>All codes of some kinds: for what may be typed.</summary>
    public static async Task<References> LoadAsync(SolvendaDb db, IEnumerable<string> kinds, CancellationToken cancel)
    {
        var references = new References();
        foreach (var kind in kinds.Distinct())
            references.Take(
                kind,
                kind == Warehouses ? await WarehousesAsync(db, cancel) : await Rows(db, kind).ToListAsync(cancel)
            );
        return references;
    }

    /// <summary>The codes of some records only: for what is shown.</summary>
    public static async Task<References> OfAsync(
        SolvendaDb db,
        IEnumerable<(string Kind, long Id)> shown,
        CancellationToken cancel
    )
    {
        var references = new References();
        foreach (var kind in shown.GroupBy(s => s.Kind, s => s.Id))
        {
            var ids = kind.Distinct().ToList();
            references.Take(
                kind.Key,
                await Rows(db, kind.Key).Where(r => EF.Parameter(ids).Contains(r.Id)).ToListAsync(cancel)
            );
        }
        return references;
    }

    private const string Warehouses = "warehouses";

    // Some have no record of their own: stock lies there. They are known by their names alone.
    private static async Task<List<Named>> WarehousesAsync(SolvendaDb db, CancellationToken cancel) =>
        [.. (await HouseDays.WarehouseNamesAsync(db, cancel)).Select((w, i) => new Named { Id = i + 1, Code = w })];

    private sealed class Named
    {
        public long Id { get; init; }
        public string Code { get; init; } = "";
        public string? Also { get; init; }
    }

    private static IQueryable<Named> Rows(SolvendaDb db, string kind) =>
        kind switch
        {
            "items" => db.Items.Select(i => new Named
            {
                Id = i.Id,
                Code = i.Code,
                Also = i.Gtin,
            }),
            "buyers" => db.Buyers.Select(b => new Named
            {
                Id = b.Id,
                Code = b.Code,
                Also = b.Name,
            }),
            "people" => db.People.Select(p => new Named
            {
                Id = p.Id,
                Code = p.Name,
                Also = p.Login,
            }),
            "families" => db.Families.Select(f => new Named { Id = f.Id, Code = f.Code }),
            "groups" => db.Groups.Select(g => new Named { Id = g.Id, Code = g.Code }),
            "territories" => db.Territories.Select(t => new Named { Id = t.Id, Code = t.Code }),
            "price-lists" => db.PriceLists.Select(l => new Named { Id = l.Id, Code = l.Code }),
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "No such kind of reference."),
        };

    private void Take(string kind, List<Named> rows)
    {
        var ids = new Dictionary<string, long>(rows.Count * 2, StringComparer.OrdinalIgnoreCase);
        // A code goes before another record's second name.
        foreach (var row in rows.Where(r => r.Also is not null))
            ids[row.Also!] = row.Id;
        foreach (var row in rows)
            ids[row.Code] = row.Id;
        _ids[kind] = ids;
        _codes[kind] = rows.ToDictionary(r => r.Id, r => r.Code);
        if (kind == "buyers")
            _shown[kind] = rows.ToDictionary(r => r.Id, r => r.Also!);
    }

    /// <summary>What people know it by: a buyer by its name, all others by their code.</summary>
    public string ShownOf(string kind, long id) =>
        _shown.TryGetValue(kind, out var names) ? names.GetValueOrDefault(id, "") : CodeOf(kind, id);

    public long? IdOf(string kind, string text) => _ids[kind].TryGetValue(text, out var id) ? id : null;

    public string CodeOf(string kind, long id) =>
        _codes.TryGetValue(kind, out var codes) ? codes.GetValueOrDefault(id, "") : "";

    /// <summary>The code as it is written on the record; null where there is none.</summary>
    public string? Exact(string kind, string text) => IdOf(kind, text) is { } id ? CodeOf(kind, id) : null;

    /// <summary>What one record of the kind is called.</summary>
    public static string One(string kind) =>
        kind switch
        {
            "items" => "item",
            "buyers" => "buyer",
            "people" => "person",
            "families" => "family",
            "groups" => "group",
            "territories" => "territory",
            Warehouses => "warehouse",
            _ => "price list",
        };
}
