using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Core.Documents;
using Solvenda.Core.Money;
using Solvenda.Data.Rows;

namespace Solvenda.Data;

/// <summary>
/// Who sells: what papers and letters say of the house itself. What the administrator says in setup goes before what
/// the process was started with; country and currency stay, since prices and tax hang on them.
/// </summary>
/// <param name="name">Until setup says otherwise; so for the next two.</param>
public sealed class Seller(
    string name,
    string country,
    Currency home,
    string houseList,
    ImmutableArray<string> address,
    string mail
)
{
    private volatile Said _said = new(name, address, mail, "", "", null, [.. Incoterms.All], "", "");

    private sealed record Said(
        string Name,
        ImmutableArray<string> Address,
        string Mail,
        string TaxNumber,
        string Bank,
        byte[]? Logo,
        ImmutableArray<string> Incoterms,
        string PaperColour,
        string PaperFoot,
        bool TaxesAdvances = true
    );

    public string Name => _said.Name;

    /// <summary>Lines of the letterhead, the address first.</summary>
    public ImmutableArray<string> Address => _said.Address;

    public string Mail => _said.Mail;

    /// <summary>For value added tax, with its country; empty where nobody said.</summary>
    public string TaxNumber => _said.TaxNumber;

    /// <summary>Where buyers pay to; empty where nobody said.</summary>
    public string Bank => _said.Bank;

    /// <summary>A PNG or JPEG; null: none.</summary>
    public byte[]? Logo => _said.Logo;

    /// <summary>Of names, titles and rules on papers, as #rrggbb; empty: that of ink.</summary>
    public string PaperColour => _said.PaperColour;

    /// <summary>A line at the foot of every paper; empty: none.</summary>
    public string PaperFoot => _said.PaperFoot;

    /// <summary>Whether money that comes before the goods is taxed when it comes (Directive 2006/112/EC, art.
    /// 65).</summary>
    public bool TaxesAdvances => _said.TaxesAdvances;

    /// <summary>The Incoterms that it sells by.</summary>
    public ImmutableArray<string> SellsBy => _said.Incoterms;

    /// <summary>ISO 3166-1 alpha-2.</summary>
    public string Country { get; } = country;

    public Currency Home { get; } = home;

    /// <summary>Code of the list that everybody has who has no other.</summary>
    public string HouseList { get; } = houseList;

    /// <summary>Takes what setup says from the database, where it says anything.</summary>
    public async Task ReadAsync(SolvendaDb db, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(db);
        if (await db.House.AsNoTracking().FirstOrDefaultAsync(cancel) is { } row)
            Take(row);
    }

    /// <summary>Takes what setup says.</summary>
    public void Take(HouseRow row)
    {
        ArgumentNullException.ThrowIfNull(row);
        string[] lines =
        [
            row.Address,
            string.Join(" · ", new[] { row.Mail, row.Phone }.Where(t => t.Length > 0)),
            row.TaxNumber.Length > 0 ? $"tax number {row.TaxNumber}" : "",
            row.Register,
        ];
        string[] used = row.Incoterms.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        _said = new Said(
            row.Name,
            [.. lines.Where(l => l.Length > 0)],
            row.Mail,
            row.TaxNumber,
            row.Bank,
            row.Logo,
            used.Length == 0 ? [.. Incoterms.All] : [.. used],
            row.PaperColour,
            row.PaperFoot,
            row.TaxesAdvances
        );
    }
}
