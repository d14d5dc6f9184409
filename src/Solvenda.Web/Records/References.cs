using Microsoft.EntityFrameworkCore;
using Solvenda.Data;

namespace Solvenda.Web.Records;

/// <summary>Codes of records and what they stand for: what a reference is typed and shown by. Loaded once for a request or an import.</summary>
public sealed class References
{
    private readonly Dictionary<string, Dictionary<string, long>> _ids = [];
    private readonly Dictionary<string, Dictionary<long, string>> _codes = [];
    private readonly Dictionary<string, Dictionary<long, string>> _shown = [];

    /// <param name="kinds">Which kinds of reference are needed.</param>
    public static async Task<References> LoadAsync(SolvendaDb db, IEnumerable<string> kinds, CancellationToken cancel)
    {
        var references = new References();
        foreach (var kind in kinds.Distinct())
        {
            var rows = kind switch
            {
                "items" => await db.Items.Select(i => new { i.Id, i.Code, Also = (string?)i.Gtin }).ToListAsync(cancel),
                "buyers" => await db.Buyers.Select(b => new { b.Id, b.Code, Also = (string?)b.Name }).ToListAsync(cancel),
                "people" => await db.People.Select(p => new { p.Id, Code = p.Name, Also = (string?)p.Login }).ToListAsync(cancel),
                "families" => await db.Families.Select(f => new { f.Id, f.Code, Also = (string?)null }).ToListAsync(cancel),
                "groups" => await db.Groups.Select(g => new { g.Id, g.Code, Also = (string?)null }).ToListAsync(cancel),
                "price-lists" => await db.PriceLists.Select(l => new { l.Id, l.Code, Also = (string?)null }).ToListAsync(cancel),
                _ => throw new ArgumentOutOfRangeException(nameof(kinds), kind, "No such kind of reference."),
            };
            var ids = new Dictionary<string, long>(rows.Count * 2, StringComparer.OrdinalIgnoreCase);
            // A code goes before another record's second name.
            foreach (var row in rows.Where(r => r.Also is not null))
                ids[row.Also!] = row.Id;
            foreach (var row in rows)
                ids[row.Code] = row.Id;
            if (kind == "buyers")
                references._shown[kind] = rows.ToDictionary(r => r.Id, r => r.Also!);
            references._ids[kind] = ids;
            references._codes[kind] = rows.ToDictionary(r => r.Id, r => r.Code);
        }
        return references;
    }

    /// <summary>What people know it by: a buyer by its name, all others by their code.</summary>
    public string ShownOf(string kind, long id) => _shown.TryGetValue(kind, out var names) ? names.GetValueOrDefault(id, "") : CodeOf(kind, id);

    public long? IdOf(string kind, string text) => _ids[kind].TryGetValue(text, out var id) ? id : null;

    public string CodeOf(string kind, long id) => _codes[kind].GetValueOrDefault(id, "");

    /// <summary>The code as it is written on the record; null where there is none.</summary>
    public string? Exact(string kind, string text) => IdOf(kind, text) is { } id ? CodeOf(kind, id) : null;

    /// <summary>What one record of the kind is called.</summary>
    public string One(string kind) => kind switch { "items" => "item", "buyers" => "buyer", "people" => "person", "families" => "family", "groups" => "group", _ => "price list" };
}
