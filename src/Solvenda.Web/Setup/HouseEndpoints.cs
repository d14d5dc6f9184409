using System.Security.Claims;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Solvenda.Acts.Acting;
using Solvenda.Acts.House;
using Solvenda.Acts.Papers;
using Solvenda.Core.Documents;
using Solvenda.Data;
using Solvenda.Data.Rows;
using Solvenda.Formats.Pdf;
using Solvenda.Web.Security;

namespace Solvenda.Web.Setup;

public sealed record HolidaysBody(string Country, int Year);

/// <summary>What papers and letters say of the house.</summary>
/// <param name="Country">Stays as it was begun with: tax hangs on it.</param>
/// <param name="Currency">Stays as it was begun with: prices hang on it.</param>
public sealed record HouseView(
    HouseFacts Facts,
    bool HasLogo,
    long Version,
    string Country,
    string Currency,
    IReadOnlyList<string> AllIncoterms,
    IReadOnlyList<SetupChange> Lately
);

/// <param name="Logo">A PNG or JPEG in base 64; empty takes it away; null leaves it.</param>
public sealed record HouseBody(HouseFacts Facts, byte[]? Logo = null);

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
        setup.MapPost("/house/paper", Paper).Needs(Rights.Administer).Produces(200, contentType: "image/png");
        setup.MapGet("/papers/picture", Text).Needs(Rights.Administer).Produces(200, contentType: "image/png");
        setup.MapGet("/reasons", Reasons).Needs(Rights.Look);
    }

    private static async Task<HouseView> Get(SolvendaDb db, Seller seller, CancellationToken cancel)
    {
        var row = await db.House.AsNoTracking().FirstOrDefaultAsync(cancel);
        return new HouseView(
            row is null
                ? new HouseFacts(seller.Name, seller.Address[0], seller.Mail, "", "", "", "", seller.SellsBy)
                : new HouseFacts(
                    row.Name,
                    row.Address,
                    row.Mail,
                    row.Phone,
                    row.TaxNumber,
                    row.Register,
                    row.Bank,
                    seller.SellsBy,
                    row.PaperColour,
                    row.PaperFoot,
                    row.TaxesAdvances
                ),
            row?.Logo is not null,
            row?.Version ?? 0,
            seller.Country,
            seller.Home.Code,
            Incoterms.All,
            await AuthorityEndpoints.LatelyAsync(db, ["house"], cancel)
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
        return await Get(db, seller, cancel);
    }

    /// <summary>An invoice as it would look with what is said, before it is kept.</summary>
    private static IResult Paper(HouseBody body, Seller seller)
    {
        var facts = SaveHouseAct.Checked(new SaveHouse(body.Facts, body.Logo, 0));
        var row = new HouseRow
        {
            Name = facts.Name,
            Mail = facts.Mail,
            Logo = body.Logo is { } logo ? (logo.Length == 0 ? null : logo) : seller.Logo,
        };
        SaveHouseAct.Put(row, facts);
        var then = new Seller(facts.Name, seller.Country, seller.Home, seller.HouseList, [facts.Address], facts.Mail);
        then.Take(row);
        return Results.Bytes(PdfWriter.Picture(SamplePaper.Of(then), PictureWidth), "image/png");
    }

    private const int PictureWidth = 720;

    /// <summary>A paper with a text on it as it is typed.</summary>
    /// <param name="paper">The kind, as the form has it: "delivery note".</param>
    /// <param name="language">ISO 639-1.</param>
    private static IResult Text(string? paper, string? language, string? above, string? below, Seller seller)
    {
        var said = (paper ?? "").Replace(" ", "", StringComparison.Ordinal);
        // A number is read as a kind too, whether there is such a one or not.
        var of = Enum.TryParse<PaperKind>(said, true, out var kind) && Enum.IsDefined(kind) ? kind : PaperKind.Quote;
        var text = new PaperText("", of, language ?? "", null, "", Cut(above), Cut(below));
        return Results.Bytes(
            PdfWriter.Picture(SamplePaper.Of(seller, of, language ?? "").Saying(text), PictureWidth),
            "image/png"
        );
    }

    // What is longer than a record takes is not drawn.
    private static string Cut(string? text) => text is { Length: > MostLetters } ? text[..MostLetters] : text ?? "";

    private const int MostLetters = 2_000;

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

    private static IReadOnlyList<string> Countries() => PublicHolidays.Countries;

    private static Task<int> Fill(HolidaysBody body, ClaimsPrincipal user, ActRunner acts, CancellationToken cancel) =>
        acts.RunAsync(user.ActorOf(), new FillHolidays(body.Country, body.Year), cancel);
}
