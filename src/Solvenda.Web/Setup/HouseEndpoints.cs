using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Core.Ordering;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

public sealed record HolidaysBody(string Country, int Year);

/// <summary>What papers and letters say of the house.</summary>
/// <param name="Country">Stays as it was begun with: tax hangs on it.</param>
/// <param name="Currency">Stays as it was begun with: prices hang on it.</param>
public sealed record HouseView(HouseFacts Facts, bool HasLogo, long Version, string Country, string Currency);

/// <param name="Logo">A PNG or JPEG in base 64; empty takes it away; null leaves it.</param>
public sealed record HouseBody(HouseFacts Facts, byte[]? Logo = null);

/// <summary>A number that can be set for a check.</summary>
public sealed record CheckNumberView(string Name, string Words, decimal Usual, decimal Least, decimal Most);

/// <summary>How the house wants a check.</summary>
/// <param name="Document">quote, order; empty: both.</param>
/// <param name="Channel">Empty: whatever.</param>
/// <param name="WaivedBy">nobody, lead, credit, writer; empty: as the check says.</param>
public sealed record CheckSetView(
    long Id,
    long Version,
    string Document,
    string Channel,
    CheckLevel Level,
    string WaivedBy,
    IReadOnlyDictionary<string, decimal> Numbers
);

/// <summary>A check, and everything that the house set for it.</summary>
/// <param name="Fixed">Stays as it is, whatever the house would like.</param>
public sealed record CheckView(
    string Code,
    string Does,
    bool Fixed,
    IReadOnlyList<CheckNumberView> Numbers,
    IReadOnlyList<CheckSetView> Set
);

/// <summary>The house itself.</summary>
public static class HouseEndpoints
{
    public static void MapHouse(this RouteGroupBuilder setup)
    {
        ArgumentNullException.ThrowIfNull(setup);
        setup.MapGet("/holidays", Countries).Needs(Rights.Administer);
        setup.MapPost("/holidays", Fill).Needs<FillHolidays>();
        setup.MapGet("/house", Get).Needs(Rights.Administer);
        setup.MapPut("/house", Save).Needs<SaveHouse>();
        setup.MapGet("/reasons", Reasons).Needs(Rights.Look);
        setup.MapGet("/checks", Checks).Needs(Rights.SeeSetup);
    }

    private static async Task<HouseView> Get(SolvendaDb db, Seller seller, CancellationToken cancel)
    {
        var row = await db.House.AsNoTracking().FirstOrDefaultAsync(cancel);
        return new HouseView(
            row is null
                ? new HouseFacts(seller.Name, seller.Address[0], seller.Mail, "", "", "", "")
                : new HouseFacts(row.Name, row.Address, row.Mail, row.Phone, row.TaxNumber, row.Register, row.Bank),
            row?.Logo is not null,
            row?.Version ?? 0,
            seller.Country,
            seller.Home.Code
        );
    }

    private static async Task<HouseView> Save(
        HouseBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        ClaimsPrincipal user,
        ActRunner acts,
        SolvendaDb db,
        Seller seller,
        CancellationToken cancel
    )
    {
        await acts.RunAsync(user.ActorOf(), new SaveHouse(body.Facts, body.Logo, Seen.MustBe(ifMatch)), cancel);
        db.ChangeTracker.Clear();
        return await Get(db, seller, cancel);
    }

    /// <summary>Reasons that are often given for something.</summary>
    /// <param name="use">lost, returned, waived or setAside.</param>
    private static async Task<List<string>> Reasons(string use, SolvendaDb db, CancellationToken cancel) =>
        !Enum.TryParse<ReasonUse>(use, ignoreCase: true, out var of) || !Enum.IsDefined(of)
            ? throw RefusedException.NotFound("such use of a reason")
            : await db
                .Reasons.AsNoTracking()
                .Where(r => r.Active && r.Use == of)
                .OrderBy(r => r.Id)
                .Select(r => r.Words)
                .ToListAsync(cancel);

    /// <summary>Every check there is, and how the house wants it.</summary>
    private static async Task<IReadOnlyList<CheckView>> Checks(SolvendaDb db, CancellationToken cancel)
    {
        var rows = await db.Checks.AsNoTracking().Where(c => c.Active).OrderBy(c => c.Id).ToListAsync(cancel);
        return
        [
            .. CheckList.All.Select(c => new CheckView(
                c.Code,
                c.Does,
                c.IsFixed,
                [.. c.Numbers.Select(n => new CheckNumberView(n.Name, n.Words, n.Usual, n.Least, n.Most))],
                [
                    .. rows.Where(r => r.Check == c.Code)
                        .Select(r => new CheckSetView(
                            r.Id,
                            r.Version,
                            r.Document,
                            r.Channel,
                            r.Level,
                            r.WaivedBy,
                            CheckSetting.Read(r.Numbers)
                        )),
                ]
            )),
        ];
    }

    private static IReadOnlyList<string> Countries() => PublicHolidays.Countries;

    private static Task<int> Fill(HolidaysBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new FillHolidays(body.Country, body.Year), cancel);
}
