using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.Papers;
using Solvenda.Core.Documents;
using Solvenda.Core.Documents.Events;
using Solvenda.Data;
using Solvenda.Data.Rows;

namespace Solvenda.Acts.House;

/// <summary>What papers and letters say of the house.</summary>
/// <param name="Incoterms">Those that it sells by; empty or null: all of them.</param>
/// <param name="Colour">Of names, titles and rules on papers, as #rrggbb; empty: that of ink.</param>
/// <param name="Foot">A line at the foot of every paper.</param>
/// <param name="TaxesAdvances">Whether money that comes before the goods is taxed when it comes.</param>
public sealed record HouseFacts(
    string Name,
    string Address,
    string Mail,
    string Phone,
    string TaxNumber,
    string Register,
    string Bank,
    IReadOnlyList<string>? Incoterms = null,
    string Colour = "",
    string Foot = "",
    bool TaxesAdvances = true
);

/// <summary>Says what papers and letters say of the house; papers that went out keep what they said.</summary>
/// <param name="Logo">A PNG or JPEG in place of the one there is; empty takes it away; null leaves it.</param>
/// <param name="Seen">Version that was looked at; 0 where nothing was kept yet.</param>
public sealed record SaveHouse(HouseFacts Facts, byte[]? Logo, long Seen) : IAct<long>;

[Leaves(typeof(HouseSaved))]
public sealed class SaveHouseAct(Seller seller) : Act<SaveHouse, long>
{
    /// <summary>The largest logo that is kept, in bytes.</summary>
    public const int MostLogo = 300_000;
    private const int MostLetters = 200;

    public override Right Needs => Rights.Administer;

    /// <returns>The version that was kept.</returns>
    public override async Task<long> RunAsync(Work work, SaveHouse input, CancellationToken cancel)
    {
        ArgumentNullException.ThrowIfNull(work);
        ArgumentNullException.ThrowIfNull(input);
        var facts = Checked(input);
        var row = await work.Db.House.SingleOrDefaultAsync(cancel);
        if ((row?.Version ?? 0) != input.Seen)
            throw RefusedException.Clash(
                "stale",
                "Somebody changed this in the meantime; yours was not saved over it."
            );
        var before = Lines(row);
        if (row is null)
        {
            row = new HouseRow { Name = facts.Name, Mail = facts.Mail };
            work.Db.House.Add(row);
        }
        Put(row, facts);
        if (input.Logo is { } logo)
            row.Logo = logo.Length == 0 ? null : logo;
        row.Version++;
        ImmutableArray<RecordFieldChange> changes =
        [
            .. Lines(row)
                .Zip(before, (now, old) => new RecordFieldChange(now.Label, now.Label, old.Value, now.Value))
                .Where(c => c.Before != c.After),
        ];
        work.Leave(new HouseSaved(changes), "house");
        work.OnceStored(() => seller.Take(row));
        return row.Version;
    }

    /// <summary>As it would be kept; refused where it would not.</summary>
    public static HouseFacts Checked(SaveHouse input)
    {
        static string Plain(string? text, string field)
        {
            var plain = (text ?? "").Trim();
            return plain.Length <= MostLetters && !plain.Any(char.IsControl)
                ? plain
                : throw RefusedException.Bad("house_field", "That is too long, or has more than one line.", field);
        }
        ArgumentNullException.ThrowIfNull(input);
        var f = input.Facts;
        var facts = new HouseFacts(
            Plain(f.Name, "name"),
            Plain(f.Address, "address"),
            Plain(f.Mail, "mail"),
            Plain(f.Phone, "phone"),
            Plain(f.TaxNumber, "taxNumber"),
            Plain(f.Register, "register"),
            Plain(f.Bank, "bank"),
            UsedOf(f.Incoterms ?? []),
            ColourOf(f.Colour),
            Plain(f.Foot, "foot"),
            f.TaxesAdvances
        );
        if (facts.Name.Length == 0 || facts.Address.Length == 0)
            throw RefusedException.Bad("house_field", "A house has a name and an address.", "name");
        if (Records.Kinds.Checks.Mail(facts.Mail) is { } wrong || facts.Mail.Length == 0)
            throw RefusedException.Bad("house_field", "Letters go out from a mail address.", "mail");
        if (input.Logo is { Length: > 0 } logo)
        {
            if (logo.Length > MostLogo)
                throw RefusedException.Bad(
                    "file_large",
                    "A logo is at most 300 kB; the one there was is kept.",
                    "logo"
                );
            if (FileTypes.Of(logo) is not ("image/png" or "image/jpeg"))
                throw RefusedException.Bad(
                    "file_kind",
                    "A logo is a PNG or a JPEG; the one there was is kept.",
                    "logo"
                );
        }
        return facts;
    }

    /// <summary>Puts what is said of the house into its row.</summary>
    public static void Put(HouseRow row, HouseFacts facts)
    {
        ArgumentNullException.ThrowIfNull(row);
        ArgumentNullException.ThrowIfNull(facts);
        (row.Name, row.Address, row.Mail, row.Phone) = (facts.Name, facts.Address, facts.Mail, facts.Phone);
        (row.TaxNumber, row.Register, row.Bank) = (facts.TaxNumber, facts.Register, facts.Bank);
        (row.PaperColour, row.PaperFoot) = (facts.Colour, facts.Foot);
        row.TaxesAdvances = facts.TaxesAdvances;
        row.Incoterms = string.Join(' ', facts.Incoterms ?? []);
    }

    private static string ColourOf(string? text)
    {
        var plain = (text ?? "").Trim().ToLowerInvariant();
        return plain.Length == 0 || (plain.Length == 7 && plain[0] == '#' && plain[1..].All(char.IsAsciiHexDigit))
            ? plain
            : throw RefusedException.Bad("house_field", "A colour is written as #rrggbb.", "colour");
    }

    // In their own order; all of them are none in particular.
    private static string[] UsedOf(IReadOnlyList<string> named)
    {
        var used = named.Select(t => (t ?? "").Trim().ToUpperInvariant()).ToHashSet();
        if (used.FirstOrDefault(t => !Incoterms.Is(t)) is { } unknown)
            throw RefusedException.Bad("incoterm", $"“{unknown}” is not one of the Incoterms 2020.", "incoterms");
        return used.Count == Incoterms.All.Count ? [] : [.. Incoterms.All.Where(used.Contains)];
    }

    private static (string Label, string Value)[] Lines(HouseRow? row) =>
        [
            ("name", row?.Name ?? ""),
            ("address", row?.Address ?? ""),
            ("mail", row?.Mail ?? ""),
            ("phone", row?.Phone ?? ""),
            ("tax number", row?.TaxNumber ?? ""),
            ("register", row?.Register ?? ""),
            ("bank", row?.Bank ?? ""),
            ("Incoterms", row?.Incoterms ?? ""),
            ("colour", row?.PaperColour ?? ""),
            ("foot", row?.PaperFoot ?? ""),
            ("taxes deposits", row is { TaxesAdvances: false } ? "no" : "yes"),
            ("logo", row?.Logo is { } logo ? $"{logo.Length:#,0} bytes" : ""),
        ];
}
